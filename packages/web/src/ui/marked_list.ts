import styled from 'styled-components';
import { color } from '../theme/theme';

/** Things that are taken or proposed, under headings that stay in sight. */
export const MarkedList = styled.div`
  min-height: 0;
  overflow: auto;
  background: ${color.side};
  border-right: 1px solid ${color.rule};
  h3 {
    position: sticky;
    top: 0;
    z-index: 1;
    padding: 9px 16px 6px;
    font-size: 13px;
    background: ${color.side};
    border-bottom: 1px solid ${color.ink};
  }
`;

/** One of them: its mark, its name, and what is said of it. */
export const MarkedRow = styled.div<{ $isOn: boolean; $columns: string }>`
  display: grid;
  grid-template-columns: ${({ $columns }) => $columns};
  gap: 8px;
  align-items: center;
  min-height: 37px;
  padding: 3px 16px;
  border-bottom: 1px solid ${color.rule};
  cursor: pointer;
  outline-offset: -3px;
  background: ${({ $isOn }) => ($isOn ? color.ink : 'none')};
  color: ${({ $isOn }) => ($isOn ? color.onInk : 'inherit')};
  b {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  small {
    color: ${({ $isOn }) => ($isOn ? color.onInk2 : color.ink2)};
  }
  small:last-child {
    text-align: right;
  }
  i {
    width: 9px;
    height: 9px;
  }
  i[data-mark='taken'] {
    background: ${({ $isOn }) => ($isOn ? color.onInk : color.lake)};
  }
  i[data-mark='proposed'] {
    border: 1.5px dashed ${({ $isOn }) => ($isOn ? color.onInk : color.ochre)};
  }
`;
