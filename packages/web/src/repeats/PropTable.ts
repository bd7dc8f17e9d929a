import styled from 'styled-components';
import { color } from '../theme/theme';

/** Props of a component, one a row. */
export const PropTable = styled.table`
  width: 100%;
  max-width: 720px;
  border-collapse: collapse;
  th {
    text-align: left;
    font-weight: 400;
    color: ${color.ink2};
    font-size: 11.5px;
  }
  th,
  td {
    padding: 4px 10px 4px 0;
    border-bottom: 1px solid ${color.rule};
    vertical-align: middle;
  }
`;
