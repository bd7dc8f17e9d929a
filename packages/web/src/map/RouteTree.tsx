import {
  isDeadEnd,
  parentRoute,
  rerouted,
  reroutedProblem,
  routeBelow,
  type RouteRow,
  routeTable,
} from '@tovel/core';
import {
  type ComponentProps,
  type DragEvent,
  type KeyboardEvent,
  type ReactNode,
  useMemo,
  useState,
} from 'react';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color, font } from '../theme/theme';
import { counted } from '../ui/counted';
import { ActionMenu } from '../ui/ActionMenu';
import { fieldBox } from '../ui/controls';
import { LayoutSheet } from './LayoutSheet';
import { RedirectSheet } from './RedirectSheet';
import { RouteDetails } from './RouteDetails';

const Column = styled.section`
  background: ${color.side};
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  overflow: hidden !important;
`;

const Tree = styled.div`
  overflow: auto;
`;

const Row = styled.div<{ $isMarked: boolean; $isOver: boolean }>`
  display: grid;
  grid-template-columns: minmax(min-content, 1fr) minmax(0, auto);
  gap: 12px;
  padding: 6px 16px;
  border-top: 1px solid ${color.rule};
  cursor: pointer;
  color: ${({ $isMarked }) => ($isMarked ? color.red : 'inherit')};
  ${({ $isOver }) => $isOver && `box-shadow: inset 0 0 0 2px ${color.lake};`}
  &:hover {
    background: ${color.lakeTint};
  }
  &[aria-selected='true'] {
    background: ${color.ink};
    color: ${color.onInk};
  }
  &[aria-selected='true'] span {
    color: inherit !important;
  }
  &:focus-visible {
    outline: 3px solid ${color.lake};
    outline-offset: -3px;
  }
  span:first-child {
    font: 12px/1.5 ${font.code};
    max-width: 150px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  span:last-child {
    color: ${({ $isMarked }) => ($isMarked ? color.red : color.ink2)};
    text-align: right;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

const Entry = styled.input`
  ${fieldBox}
  min-height: 26px;
  padding: 2px 6px;
  font: 12px ${font.code};
  grid-column: 1 / -1;
`;

const Problem = styled.p`
  grid-column: 1 / -1;
  color: ${color.red};
  font-size: 12px;
`;

const focus = (screen: string): void => document.getElementById(`route-${screen}`)?.focus();

/**
 * The routes as a tree of their parts. A route is typed anew in place, moved in and out by keyboard, or dragged under
 * another; links lead to screens and follow by themselves.
 */
export function RouteTree() {
  const project = useProject();
  const { app, base, session } = project;
  const navigate = useNavigate();
  const rows = useMemo(() => routeTable(project), [project]);
  const [chosen, setChosen] = useState<string | null>(null);
  const [editing, setEditing] = useState<{ screen: string; text: string } | null>(null);
  const [over, setOver] = useState<string | null>(null);
  const [sheet, setSheet] = useState<'layouts' | 'redirect' | null>(null);
  const at = rows.some((row) => row.screen === chosen) ? chosen : null;

  const reroute = (screen: string, route: string): boolean => {
    if (reroutedProblem(project, screen, route)) return false;
    session.change(`Route ${app.screens[screen].name} to ${route}`, rerouted(project, screen, route));
    return true;
  };
  const moveUnder = (screen: string, parent: string | null): void => {
    const route = routeBelow(app, screen, parent);
    if (parent !== screen && route !== app.screens[screen].route) reroute(screen, route);
  };
  const onKeyDown = (event: KeyboardEvent, row: RouteRow): void => {
    const n = rows.indexOf(row);
    const go = (to: number): void => {
      event.preventDefault();
      const next = rows[Math.max(0, Math.min(rows.length - 1, to))];
      setChosen(next.screen);
      focus(next.screen);
    };
    if (event.altKey && event.key === 'ArrowRight') {
      event.preventDefault();
      // Under the one above that stands at the same depth.
      const parent = parentRoute(app, row.screen);
      const above = rows
        .slice(0, n)
        .findLast((other) => parentRoute(app, other.screen) === parent && other.path !== '/');
      if (above) moveUnder(row.screen, above.screen);
    } else if (event.altKey && event.key === 'ArrowLeft') {
      event.preventDefault();
      const parent = parentRoute(app, row.screen);
      if (parent) moveUnder(row.screen, parentRoute(app, parent));
    } else if (event.key === 'ArrowDown') go(n + 1);
    else if (event.key === 'ArrowUp') go(n - 1);
    else if (event.key === 'Home') go(0);
    else if (event.key === 'End') go(rows.length - 1);
    else if (event.key === 'F2' || event.key === 'Enter') {
      event.preventDefault();
      setEditing({ screen: row.screen, text: row.path });
    } else if (event.key === 'j') void navigate(`${base}/junction/${row.screen}`);
  };
  const onDrop = (event: DragEvent, parent: string | null): void => {
    event.preventDefault();
    setOver(null);
    const screen = event.dataTransfer.getData('text/plain');
    if (app.screens[screen]) moveUnder(screen, parent);
  };
  return (
    <Column aria-label="Routes">
      <h2>
        Routes
        <ActionMenu
          label={counted(rows.length, 'screen')}
          actions={[
            { id: 'layouts', label: 'Layouts: what screens share …', act: () => setSheet('layouts') },
            { id: 'redirect', label: 'Redirects …', act: () => setSheet('redirect') },
          ]}
        />
      </h2>
      <Tree
        role="tree"
        aria-label="Routes"
        onDragOver={(event) => event.preventDefault()}
        onDrop={(event) => onDrop(event, null)}
      >
        {rows.map((row, i) => {
          const { screen } = row;
          const isEditing = editing?.screen === screen;
          return (
            <RouteLine
              key={screen}
              row={row}
              parents={rows.filter((other) => other.path !== '/' && row.path.startsWith(`${other.path}/`))}
              isOn={at === screen}
              isReached={at === screen || (!at && i === 0)}
              isOver={over === screen}
              field={
                isEditing && (
                  <RouteField
                    row={row}
                    text={editing.text}
                    onType={(text) => setEditing({ screen, text })}
                    onEnd={() => setEditing(null)}
                    onRoute={() => reroute(screen, editing.text)}
                  />
                )
              }
              onClick={() => setChosen(screen)}
              onDoubleClick={() => setEditing({ screen, text: row.path })}
              onKeyDown={(event) => !isEditing && onKeyDown(event, row)}
              onDragStart={(event) => event.dataTransfer.setData('text/plain', screen)}
              onDragOver={(event) => {
                event.preventDefault();
                event.stopPropagation();
                setOver(screen);
              }}
              onDragLeave={() => setOver(null)}
              onDrop={(event) => {
                event.stopPropagation();
                onDrop(event, screen);
              }}
            />
          );
        })}
      </Tree>
      {at && (
        <RouteDetails
          key={at}
          screen={at}
          onRoute={() => setEditing({ screen: at, text: app.screens[at].route })}
        />
      )}
      {sheet === 'layouts' && <LayoutSheet onClose={() => setSheet(null)} />}
      {sheet === 'redirect' && <RedirectSheet onClose={() => setSheet(null)} />}
    </Column>
  );
}

interface RouteLineProps extends Pick<
  ComponentProps<'div'>,
  'onClick' | 'onDoubleClick' | 'onKeyDown' | 'onDragStart' | 'onDragOver' | 'onDragLeave' | 'onDrop'
> {
  row: RouteRow;
  /** Those beneath which it lies, the nearest last. */
  parents: readonly RouteRow[];
  isOn: boolean;
  /** Whether the Tab key comes to it. */
  isReached: boolean;
  /** Whether something is dragged over it. */
  isOver: boolean;
  /** What its route is typed into, while it is. */
  field: ReactNode;
}

/** A route: the part of it that its parents do not say, its screen, and what is wrong with that. */
function RouteLine({ row, parents, isOn, isReached, isOver, field, ...does }: RouteLineProps) {
  const { graph, app } = useProject();
  const { screen, name, path } = row;
  const parent = parents.at(-1);
  const shown = path === '/' ? '/' : parent ? path.slice(parent.path.length + 1) : path.slice(1);
  const isPlanned = app.screens[screen].use === 'planned';
  const isUnreached = graph.reached.size > 0 && !graph.reached.has(screen) && path !== '/*';
  const hasNoExit = !isPlanned && isDeadEnd(graph.departures.get(screen)!, screen);
  const notes = [
    isPlanned && 'to be drawn',
    path === '/*' && 'not found',
    isUnreached && 'no way in',
    hasNoExit && 'no way out',
    app.start === screen && 'start',
    app.screens[screen].guard && 'guarded',
  ].filter((note) => typeof note === 'string');
  return (
    <Row
      id={`route-${screen}`}
      role="treeitem"
      aria-level={parents.length + 1}
      aria-selected={isOn}
      tabIndex={isReached ? 0 : -1}
      draggable={!field}
      $isMarked={isUnreached || hasNoExit}
      $isOver={isOver}
      title={`${[name, ...notes].join(' · ')}, at ${path}`}
      {...does}
    >
      {field || (
        <>
          <span style={{ paddingLeft: path === '/' ? 0 : 8 + 16 * parents.length }}>{shown}</span>
          <span>{[name, ...notes].join(' · ')}</span>
        </>
      )}
    </Row>
  );
}

interface RouteFieldProps {
  row: RouteRow;
  text: string;
  onType: (text: string) => void;
  onEnd: () => void;
  /** Gives the route; false where it cannot be. */
  onRoute: () => boolean;
}

/** A route being typed. */
function RouteField({ row: { screen, name }, text, onType, onEnd, onRoute }: RouteFieldProps) {
  const problem = reroutedProblem(useProject(), screen, text);
  return (
    <>
      <Entry
        aria-label={`Route of ${name}`}
        aria-invalid={problem !== null}
        autoFocus
        value={text}
        spellCheck={false}
        onChange={(event) => onType(event.target.value)}
        onFocus={(event) => event.target.select()}
        onBlur={onEnd}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key !== 'Enter' && event.key !== 'Escape') return;
          if (event.key === 'Enter' && !onRoute()) return;
          onEnd();
          requestAnimationFrame(() => focus(screen));
        }}
      />
      {problem && <Problem role="alert">{problem}</Problem>}
    </>
  );
}
