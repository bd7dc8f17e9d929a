import styled from 'styled-components';
import { color } from '../theme/theme';

/** Small buttons in a row after a few words. */
export const Chips = styled.div`
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  > span {
    color: ${color.ink2};
    font-size: 11.5px;
  }
  > button {
    display: flex;
    gap: 6px;
    max-width: 100%;
    > span:first-child {
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
  }
`;
