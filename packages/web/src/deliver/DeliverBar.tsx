import { targetOf, targets } from '@tovel/core';
import { Fragment } from 'react';
import styled from 'styled-components';
import { api } from '../api/client';
import { useDownload } from '../api/use_download';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button, Segments } from '../ui/controls';
import { DeliveryChoices } from './DeliveryChoices';

const Bar = styled.div`
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
  padding: 8px 16px;
  background: ${color.sheet};
  border-bottom: 1px solid ${color.rule};
  h2 {
    font-size: 15px;
  }
  p {
    flex: 1 1 200px;
    color: ${color.ink2};
  }
  strong {
    color: ${color.red};
  }
`;

const PLACES = [
  { id: 'code', label: 'Code' },
  { id: 'changes', label: 'Changes' },
  { id: 'repository', label: 'Repository' },
  { id: 'publish', label: 'Publish' },
] as const;

interface DeliverBarProps {
  place: string;
  onPlace: (place: string) => void;
  /** How many files there are. */
  count: number;
  /** Told before files may be called otherwise. */
  onOther: () => void;
}

/** What is shown of the code, how it is written, and how it is taken away. */
export function DeliverBar({ place, onPlace, count, onOther }: DeliverBarProps) {
  const { id, app } = useProject();
  const { title, commands } = targets[targetOf(app)];
  const { download, isBusy, problem } = useDownload();
  return (
    <Bar>
      <Segments role="group" aria-label="What is shown">
        {PLACES.map(({ id: which, label }) => (
          <Button key={which} aria-pressed={place === which} onPress={() => onPlace(which)}>
            {label}
          </Button>
        ))}
      </Segments>
      <DeliveryChoices onOther={onOther} />
      <p>
        {title} · {count} files.{' '}
        {commands.map((command, i) => (
          <Fragment key={command}>
            {i > 0 && ', '}
            <code>{command}</code>
          </Fragment>
        ))}
      </p>
      <Button isDisabled={isBusy} onPress={() => download(api.archiveUrl(id))}>
        Export as .tovel
      </Button>
      <Button $kind="primary" isDisabled={isBusy} onPress={() => download(api.codeUrl(id))}>
        {isBusy ? 'Packing …' : 'Download zip'}
      </Button>
      {problem !== null && <strong role="alert">{problem}</strong>}
    </Bar>
  );
}
