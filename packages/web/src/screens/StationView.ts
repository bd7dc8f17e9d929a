import styled from 'styled-components';

/** A view of the Screens station: its bar, and below it all there is room for. */
export const StationView = styled.div`
  height: 100%;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
`;

/** Columns that fill the view, each scrolling by itself. */
export const StationBody = styled.div<{ $columns: string }>`
  min-height: 0;
  display: grid;
  grid-template-columns: ${({ $columns }) => $columns};
`;
