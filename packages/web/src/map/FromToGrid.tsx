import { screenName } from '@tovel/core';
import { type KeyboardEvent, type ReactNode, useRef } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color, font } from '../theme/theme';
import { Choice } from '../ui/controls';
import { useQueryParam } from '../ui/use_query_param';
import { type Cell, CellDetails } from './CellDetails';
import { ORDERS } from './grid_order';
import { GridCell } from './GridCell';
import { type Grid, useGrid } from './use_grid';
import { useVisible } from './use_visible';

const Area = styled.div`
  min-height: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
`;

const Tools = styled.div`
  display: flex;
  padding: 0 16px 8px;
`;

const Scroller = styled.div`
  overflow: auto;
  padding: 0 16px 16px 0;
`;

const Table = styled.table<{ $cell: number }>`
  border-collapse: separate;
  border-spacing: 0;
  font-size: 12px;
  font-stretch: 85%;
  thead th {
    position: sticky;
    top: 0;
    z-index: 2;
    background: ${color.paper};
    height: 108px;
    vertical-align: bottom;
    padding: 0 0 6px;
    font-weight: 400;
  }
  thead a {
    writing-mode: vertical-rl;
    transform: rotate(180deg);
    max-height: 100px;
    overflow: hidden;
    white-space: nowrap;
    text-overflow: ellipsis;
    text-decoration: none;
  }
  tbody th {
    position: sticky;
    left: 0;
    z-index: 1;
    background: ${color.paper};
    text-align: right;
    font-weight: 400;
    padding: 0 8px 0 16px;
    max-width: 146px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  a {
    text-decoration: none;
  }
  a:hover {
    text-decoration: underline;
  }
  td button {
    scroll-margin: 110px 0 0 134px;
  }
  td {
    padding: 0;
    width: ${({ $cell }) => $cell}px;
    height: ${({ $cell }) => $cell}px;
  }
`;

const Presses = styled.span`
  display: inline-block;
  width: 20px;
  font-family: ${font.code};
  color: ${color.ink2};
`;

/** Grids of more cells are drawn only where they are seen. */
const MANY = 4000;

/** Arrows go from cell to cell. */
function goByArrow(event: KeyboardEvent): void {
  const by = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[event.key];
  const [row, column] = (event.target as HTMLElement).id.split(' ').slice(1).map(Number);
  if (!by || Number.isNaN(row) || row === undefined) return;
  event.preventDefault();
  const next = document.getElementById(`cell ${row + by[0]} ${column + by[1]}`);
  next?.focus();
  // The head and the names stay where they are; what is beneath them comes out.
  next?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
}

/** Which screens lead to which; a number says by how many elements. */
export function FromToGrid({ cell, onCell }: { cell: Cell | null; onCell: (cell: Cell | null) => void }) {
  const [asked, setOrder] = useQueryParam('order', 'own');
  const order = ORDERS.find((known) => known.id === asked)?.id ?? 'own';
  const grid = useGrid(order);
  const { screens, columns, linksOf } = grid;
  const size = columns.length > 40 ? 18 : columns.length > 22 ? 22 : 28;
  const scroller = useRef<HTMLDivElement>(null);
  const visible = useVisible(scroller, size, screens.length, columns.length, MANY);
  const [firstColumn, endColumn] = visible.column;
  const [firstRow, endRow] = visible.row;
  const shown = columns.slice(firstColumn, endColumn);
  /** A row with room for the columns that are not drawn. */
  const between = (cells: ReactNode): ReactNode => (
    <>
      {firstColumn > 0 && <td style={{ minWidth: firstColumn * size }} />}
      {cells}
      {endColumn < columns.length && <td style={{ minWidth: (columns.length - endColumn) * size }} />}
    </>
  );
  return (
    <Area>
      <Tools role="group" aria-label="Grid">
        <Choice
          label="Order of the screens"
          isLabelHidden
          value={order}
          options={ORDERS}
          onChange={setOrder}
        />
      </Tools>
      <Scroller ref={scroller}>
        <Table $cell={size} onKeyDown={goByArrow}>
          <thead>
            <tr>
              <th>
                <span hidden>From</span>
              </th>
              {between(shown.map((key) => <ToHead key={key} screen={key} grid={grid} />))}
            </tr>
          </thead>
          <tbody>
            {firstRow > 0 && <tr style={{ height: firstRow * size }} />}
            {screens.slice(firstRow, endRow).map((from, i) => {
              const row = firstRow + i;
              return (
                <tr key={from}>
                  <FromHead screen={from} grid={grid} showsDepth={order === 'depth'} />
                  {between(
                    shown.map((to, j) => {
                      const column = firstColumn + j;
                      const isOn = cell?.from === from && cell.to === to;
                      return (
                        <td key={to}>
                          <GridCell
                            grid={grid}
                            from={from}
                            to={to}
                            row={row}
                            column={column}
                            isOn={isOn}
                            isReached={isOn || (!cell && row === 0 && column === 0)}
                            onPress={() => onCell(isOn ? null : { from, to })}
                          />
                        </td>
                      );
                    }),
                  )}
                </tr>
              );
            })}
            {endRow < screens.length && <tr style={{ height: (screens.length - endRow) * size }} />}
          </tbody>
        </Table>
      </Scroller>
      {cell && <CellDetails cell={cell} links={linksOf(cell.from, cell.to)} />}
    </Area>
  );
}

interface HeadProps {
  screen: string;
  grid: Grid;
}

function ToHead({ screen, grid: { isGone, isUnreached } }: HeadProps) {
  const project = useProject();
  const name = screenName(project, screen);
  const to = isGone(screen) ? `screens?screen=${screen}` : `junction/${screen}`;
  return (
    <th scope="col" style={{ color: isGone(screen) || isUnreached(screen) ? color.red : undefined }}>
      <Link to={`${project.base}/${to}`} title={name}>
        {name}
      </Link>
    </th>
  );
}

function FromHead({ screen, grid, showsDepth }: HeadProps & { showsDepth: boolean }) {
  const project = useProject();
  const title = grid.titleOf(screen);
  const isBad = grid.hasNoExit(screen) || grid.isUnreached(screen);
  return (
    <th scope="row" style={{ color: isBad ? color.red : undefined }}>
      <Link to={`${project.base}/junction/${screen}`} title={title}>
        {screenName(project, screen)}
      </Link>
      {showsDepth && <Presses title={title}>{grid.depthOf(screen) ?? '–'}</Presses>}
    </th>
  );
}
