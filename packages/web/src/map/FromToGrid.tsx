import { analysisOf, type GraphLink, hostOf, isDeadEnd, screenName } from '@tovel/core';
import { type KeyboardEvent, useMemo, useRef } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useOpenLinks } from '../junction/use_open_links';
import { useProject } from '../project/context';
import { color, font } from '../theme/theme';
import { Choice } from '../ui/controls';
import { useQueryParam } from '../ui/use_query_param';
import { type Cell, CellDetails } from './CellDetails';
import { useSince } from './Since';
import { inOrder, ORDERS } from './grid_order';
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

type Look = 'live' | 'broken' | 'empty' | 'self' | 'marked' | 'proposed';

const Square = styled.button<{ $look: Look; $isOn: boolean; $became?: 'new' | 'gone' }>`
  display: block;
  width: 100%;
  height: 100%;
  padding: 0;
  border: 1px solid ${color.rule};
  margin: -0.5px;
  cursor: pointer;
  font: 11px ${font.code};
  background: ${color.sheet};
  color: ${color.onLake};
  ${({ $look }) =>
    ({
      live: `background: ${color.lake};`,
      broken: `background: ${color.redTint}; color: ${color.red}; box-shadow: inset 0 0 0 2px ${color.red};`,
      self: `background: ${color.rule}; color: ${color.ink};`,
      marked: `background: ${color.redTint};`,
      proposed: `border: 1.5px dashed ${color.ochre}; z-index: 1; position: relative;`,
      empty: '',
    })[$look]}
  ${({ $became }) =>
    $became &&
    `box-shadow: inset 0 0 0 3px ${$became === 'new' ? color.lake : color.ochre}; ${$became === 'gone' ? `color: ${color.ochre};` : ''}`}
  ${({ $isOn }) => $isOn && `outline: 2px solid ${color.ink}; outline-offset: 0; position: relative; z-index: 1;`}
`;

const Presses = styled.span`
  display: inline-block;
  width: 20px;
  font-family: ${font.code};
  color: ${color.ink2};
`;

/** Grids of more cells are drawn only where they are seen. */
const MANY = 4000;

const keyOf = (from: string, to: string): string => `${from}>${to}`;

/** Which screens lead to which; a number says by how many elements. */
export function FromToGrid({ cell, onCell }: { cell: Cell | null; onCell: (cell: Cell | null) => void }) {
  const project = useProject();
  const { graph, app, base } = project;
  const [asked, setOrder] = useQueryParam('order', 'own');
  const order = ORDERS.find((known) => known.id === asked)?.id ?? 'own';
  const screens = useMemo(
    () => [...inOrder(project, graph, app, order), ...graph.overlays],
    [project, graph, app, order],
  );
  const { depth } = analysisOf(graph);
  const table = useRef<HTMLTableElement>(null);
  const links = useMemo(() => {
    const byCell = new Map<string, GraphLink[]>();
    for (const link of graph.links) {
      if (!link.to) continue;
      const list = byCell.get(keyOf(link.from, link.to));
      if (list) list.push(link);
      else byCell.set(keyOf(link.from, link.to), [link]);
    }
    return byCell;
  }, [graph]);
  const unreached = (key: string): boolean => graph.reached.size > 0 && !graph.reached.has(key);
  const isPlain = new Set(graph.screens.filter((key) => app.screens[key].use === 'screen'));
  const noExit = (key: string): boolean => isPlain.has(key) && isDeadEnd(graph.departures.get(key)!, key);
  // Broken links may lead to screens that are no longer in use; those get columns of their own at the end.
  const known = new Set(screens);
  const gone = [
    ...new Set(
      graph.links.flatMap((link) => (link.to && link.problem && !known.has(link.to) ? [link.to] : [])),
    ),
  ];
  const columns = [...screens, ...gone];
  const size = columns.length > 40 ? 18 : columns.length > 22 ? 22 : 28;
  const proposals = useOpenLinks();
  const proposed = useMemo(
    () => new Set([...proposals.values()].map(({ element, to }) => keyOf(hostOf(project, element), to))),
    [proposals, app],
  );
  const scroller = useRef<HTMLDivElement>(null);
  const visible = useVisible(scroller, size, screens.length, columns.length, MANY);
  const [firstColumn, endColumn] = visible.column;
  const [firstRow, endRow] = visible.row;
  const shownColumns = columns.slice(firstColumn, endColumn);
  const before = firstColumn > 0 && <td style={{ minWidth: firstColumn * size }} />;
  const after = endColumn < columns.length && (
    <td style={{ minWidth: (columns.length - endColumn) * size }} />
  );
  const chosen = cell ? (links.get(keyOf(cell.from, cell.to)) ?? []) : [];

  const onKeyDown = (event: KeyboardEvent): void => {
    const by = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[event.key];
    const [row, column] = (event.target as HTMLElement).id.split(' ').slice(1).map(Number);
    if (!by || Number.isNaN(row) || row === undefined) return;
    event.preventDefault();
    const next = document.getElementById(`cell ${row + by[0]} ${column + by[1]}`);
    next?.focus();
    // The head and the names stay where they are; what is beneath them comes out.
    next?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  };
  const since = useSince();
  const becameOf = (from: string, to: string): 'new' | 'gone' | undefined =>
    since?.links.get(`${from} ${to}`);
  const lookOf = (from: string, to: string): Look => {
    const here = links.get(keyOf(from, to));
    if (here?.some((link) => link.problem)) return 'broken';
    if (from === to) return 'self';
    if (here) return 'live';
    if (proposed.has(keyOf(from, to))) return 'proposed';
    return gone.includes(to) || unreached(to) || noExit(from) ? 'marked' : 'empty';
  };
  const titleOf = (key: string): string => {
    const presses = depth.get(key);
    return `${screenName(project, key)}, ${presses === undefined ? 'reached by nobody' : `${presses} ${presses === 1 ? 'press' : 'presses'} from the start`}`;
  };
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
        <Table ref={table} $cell={size} onKeyDown={onKeyDown}>
          <thead>
            <tr>
              <th>
                <span hidden>From</span>
              </th>
              {before}
              {shownColumns.map((key) => (
                <th
                  key={key}
                  scope="col"
                  style={{ color: gone.includes(key) || unreached(key) ? color.red : undefined }}
                >
                  <Link
                    to={`${base}/${gone.includes(key) ? `screens?screen=${key}` : `junction/${key}`}`}
                    title={screenName(project, key)}
                  >
                    {screenName(project, key)}
                  </Link>
                </th>
              ))}
              {after}
            </tr>
          </thead>
          <tbody>
            {firstRow > 0 && <tr style={{ height: firstRow * size }} />}
            {screens.slice(firstRow, endRow).map((from, i) => {
              const row = firstRow + i;
              return (
                <tr key={from}>
                  <th scope="row" style={{ color: noExit(from) || unreached(from) ? color.red : undefined }}>
                    <Link to={`${base}/junction/${from}`} title={titleOf(from)}>
                      {screenName(project, from)}
                    </Link>
                    {order === 'depth' && <Presses title={titleOf(from)}>{depth.get(from) ?? '–'}</Presses>}
                  </th>
                  {before}
                  {shownColumns.map((to, j) => {
                    const column = firstColumn + j;
                    const count = links.get(keyOf(from, to))?.length ?? 0;
                    const isOn = cell?.from === from && cell.to === to;
                    const look = lookOf(from, to);
                    const became = becameOf(from, to);
                    const names = `${screenName(project, from)} to ${screenName(project, to)}`;
                    return (
                      <td key={to}>
                        <Square
                          id={`cell ${row} ${column}`}
                          type="button"
                          $look={look}
                          $isOn={isOn}
                          {...(became ? { $became: became } : {})}
                          aria-pressed={isOn}
                          tabIndex={isOn || (!cell && row === 0 && column === 0) ? 0 : -1}
                          aria-label={`${names}: ${count || 'no'} ${count === 1 ? 'link' : 'links'}${look === 'broken' || look === 'proposed' ? `, ${look}` : ''}${became ? `, ${became}` : ''}`}
                          title={names}
                          onClick={() => onCell(isOn ? null : { from, to })}
                        >
                          {became === 'gone' && !count
                            ? '×'
                            : look === 'broken'
                              ? '◆'
                              : count > 1 || (look === 'self' && count)
                                ? count
                                : ''}
                        </Square>
                      </td>
                    );
                  })}
                  {after}
                </tr>
              );
            })}
            {endRow < screens.length && <tr style={{ height: (screens.length - endRow) * size }} />}
          </tbody>
        </Table>
      </Scroller>
      {cell && <CellDetails cell={cell} links={chosen} />}
    </Area>
  );
}
