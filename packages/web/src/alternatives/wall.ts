import styled from 'styled-components';
import { color } from '../theme/theme';

/** What is tried, beside the wall. */
export const Side = styled.aside`
  min-height: 0;
  overflow: auto;
  background: ${color.sheet};
  border-right: 1px solid ${color.rule};
  label {
    display: grid;
    gap: 4px;
  }
  input[type='range'] {
    width: 100%;
    accent-color: ${color.lake};
  }
  li {
    display: grid;
    gap: 4px;
    padding: 7px 0;
    border-top: 1px solid ${color.rule};
  }
  p {
    color: ${color.ink2};
  }
`;

/** Running apps beside each other. */
export const Wall = styled.div<{ $least: number }>`
  position: relative;
  overflow: auto;
  padding: 12px 18px 28px;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, ${({ $least }) => $least}px), 1fr));
  gap: 14px 16px;
  align-content: start;
`;

export const Waiting = styled.p`
  grid-column: 1 / -1;
  color: ${color.ink2};
`;
