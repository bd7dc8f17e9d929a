import type { ReactNode } from 'react';
import { Dialog, Heading, Modal, ModalOverlay } from 'react-aria-components';
import styled from 'styled-components';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';

const Shade = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: 50;
  display: grid;
  justify-items: center;
  align-items: start;
  padding-top: 84px;
  background: rgb(21 33 31 / 0.45);
`;

const Paper = styled(Modal)`
  width: min(560px, calc(100vw - 48px));
  max-height: calc(100vh - 120px);
  overflow: auto;
  background: ${color.sheet};
  border: 1px solid ${color.ink};
`;

const Content = styled(Dialog)`
  padding: 18px 20px 20px;
  outline: none;
`;

const Head = styled.header`
  display: flex;
  align-items: start;
  justify-content: space-between;
  gap: 16px;
  margin-bottom: 12px;
  h2 {
    font-size: 15px;
    padding-top: 4px;
    overflow-wrap: anywhere;
  }
`;

/** A modal sheet; Close, Escape and a press outside close it. */
export function Sheet({
  title,
  onClose,
  children,
}: {
  title: string;
  onClose: () => void;
  children: ReactNode;
}) {
  return (
    <Shade isOpen isDismissable onOpenChange={(isOpen) => !isOpen && onClose()}>
      <Paper>
        <Content>
          <Head>
            <Heading slot="title">{title}</Heading>
            <Button slot="close" $kind="quiet">
              Close
            </Button>
          </Head>
          {children}
        </Content>
      </Paper>
    </Shade>
  );
}
