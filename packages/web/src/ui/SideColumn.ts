import styled from 'styled-components';
import { color } from '../theme/theme';

/** What is said of the one that is chosen, at the side. */
export const SideColumn = styled.aside`
  min-height: 0;
  overflow: auto;
  padding: 14px 16px 24px;
  display: grid;
  gap: 12px;
  align-content: start;
  border-left: 1px solid ${color.rule};
  background: ${color.side};
  h3 {
    font-size: 13px;
    padding-top: 10px;
    border-top: 1px solid ${color.ink};
  }
  h3:first-child {
    padding-top: 0;
    border-top: 0;
  }
  p {
    color: ${color.ink2};
    font-size: 12px;
  }
  ul {
    display: grid;
    gap: 12px;
  }
  li {
    display: grid;
    gap: 4px;
  }
  a {
    font-size: 12px;
  }
`;
