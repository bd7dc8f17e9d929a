import styled from 'styled-components';
import { color, font } from '../theme/theme';

/** What stands in the middle of the station: a head, and below it what there is room for. */
export const Middle = styled.section`
  min-height: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  background: ${color.sheet};
`;

/** What it is called, what can be done with all of it, and a line about it. */
export const Head = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 4px 12px;
  align-items: center;
  padding: 10px 18px;
  border-bottom: 1px solid ${color.rule};
  h3 {
    font-size: 15px;
  }
  p {
    grid-column: 1 / -1;
    color: ${color.ink2};
    font-size: 12px;
  }
  div {
    display: flex;
    gap: 8px;
  }
`;

/** Tables of what is seen on the screens, below a line about them. */
export const SeenColumn = styled.section`
  min-height: 0;
  overflow: auto;
  background: ${color.sheet};
  > header {
    display: flex;
    align-items: center;
    gap: 12px;
    padding: 10px 18px;
    border-bottom: 1px solid ${color.rule};
    p {
      flex: 1;
      color: ${color.ink2};
      font-size: 12px;
    }
  }
  table {
    width: calc(100% - 36px);
    table-layout: fixed;
    border-collapse: collapse;
  }
  td {
    padding: 5px 14px 5px 0;
    border-bottom: 1px solid ${color.rule};
    overflow-wrap: anywhere;
  }
  td small {
    color: ${color.ink2};
  }
  code {
    font: 12px ${font.code};
  }
`;

/** One table with a head, with room below it for what is completed in its last row. */
export const SeenTableColumn = styled(SeenColumn)`
  table {
    margin: 6px 18px 160px;
  }
  th {
    padding: 8px 14px 5px 0;
    text-align: left;
    font-size: 12.5px;
    border-bottom: 1px solid ${color.ink};
  }
  td {
    vertical-align: top;
  }
`;
