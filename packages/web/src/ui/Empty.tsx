import type { ReactNode } from 'react';
import styled from 'styled-components';
import { color } from '../theme/theme';

const Box = styled.section`
  margin: auto;
  padding: 48px 24px;
  max-width: 460px;
  text-align: center;
  h2 {
    font-size: 17px;
    margin-bottom: 6px;
  }
  p {
    color: ${color.ink2};
    margin-bottom: 16px;
  }
  > div {
    justify-content: center;
  }
`;

/** A view that has nothing to show yet says what to do next. */
export function Empty({ title, text, children }: { title: string; text: string; children?: ReactNode }) {
  return (
    <Box>
      <h2>{title}</h2>
      <p>{text}</p>
      {children}
    </Box>
  );
}
