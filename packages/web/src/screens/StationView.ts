import styled from 'styled-components';
import { color } from '../theme/theme';

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

/** The bar of a station's view: what it is, and what can be done in it. */
export const StationBar = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: 44px;
  padding: 0 18px;
  background: ${color.sheet};
  border-bottom: 1px solid ${color.rule};
`;
