import {
  containersOf,
  describeArrival,
  describeGesture,
  describeTarget,
  type LinkProposal,
  type Project,
  screenName,
} from '@tovel/core';
import { type KeyboardEvent, useLayoutEffect, useMemo, useRef, useState } from 'react';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color, font, size } from '../theme/theme';
import { Button } from '../ui/controls';
import { ActionMenu, type MenuAction } from '../ui/ActionMenu';
import { StandingMark } from '../ui/standing';
import { type DepartureRow, numberOf } from './rows';
import { describeStep } from './steps';

const Head = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 10px 16px 6px;
  min-height: 40px;
  h2 {
    font-size: 15px;
    margin-right: auto;
  }
  span {
    font-size: 11.5px;
    font-weight: 600;
    color: ${color.ink2};
  }
`;

const Scroller = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
`;

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  font-stretch: 92%;
  table-layout: fixed;
  th {
    position: sticky;
    top: 0;
    background: ${color.sheet};
    text-align: left;
    font-weight: 600;
    font-size: 11.5px;
    color: ${color.ink2};
    padding: 5px 8px;
    box-shadow: inset 0 -1px 0 ${color.ink};
    z-index: 1;
  }
  td {
    height: ${size.row}px;
    padding: 0 8px;
    border-bottom: 1px solid ${color.rule};
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  th:first-child,
  td:first-child {
    padding-left: 16px;
    width: 44px;
    font-family: ${font.code};
    font-size: 12px;
  }
  tr {
    cursor: pointer;
  }
  tbody tr:hover td {
    background: ${color.lakeTint};
  }
  tbody tr[aria-selected='true'] td {
    background: ${color.ink};
    color: ${color.onInk};
    border-color: ${color.ink};
  }
  tr[aria-selected='true'] small,
  tr[aria-selected='true'] span {
    color: inherit;
  }
  tr:focus-visible {
    outline: 3px solid ${color.lake};
    outline-offset: -3px;
  }
  b {
    font-weight: 650;
  }
  small {
    font: 11.5px ${font.code};
    color: ${color.ink2};
    margin-left: 6px;
  }
`;

/** A target that is only proposed. */
const Proposed = styled.span`
  display: inline-block;
  max-width: 100%;
  padding: 0 6px;
  overflow: hidden;
  text-overflow: ellipsis;
  vertical-align: bottom;
  border: 1px dashed ${color.ochre};
  color: ${color.ochre};
`;

/** Proposals that are at least so sure are taken together. */
const SURE = 0.8;

interface DeparturesProps {
  rows: readonly DepartureRow[];
  /** What is proposed for open elements, by element key. */
  proposals: ReadonlyMap<string, LinkProposal>;
  onTakeAll: (proposals: readonly LinkProposal[]) => void;
  /** What else can be done to the wiring of the screen. */
  menu: readonly MenuAction[];
  selected: DepartureRow | null;
  /** Ids of the lines that are wired together with the selected one. */
  marked: ReadonlySet<string>;
  onSelect: (id: string, isMore: boolean) => void;
  /** A row got the focus otherwise than by being pressed. */
  onFocusRow: (id: string) => void;
  onKeyDown: (event: KeyboardEvent) => void;
  /** Told where the rows of elements stand, in px from the top of the window, whenever that changes. */
  onLayout: (tops: ReadonlyMap<string, number>) => void;
}

/** What the part is called that an element stands in, where that opens and closes, by the element's key. */
function usePartNames({ app, design }: Project, rows: readonly DepartureRow[]): ReadonlyMap<string, string> {
  return useMemo(() => {
    return new Map(
      rows.flatMap(({ state: { element } }) => {
        for (const around of containersOf(design, element.key)) {
          const part = app.disclosures[around];
          // What only narrow windows close is seen in the picture.
          if (part && part.below === undefined) return [[element.key, part.name] as const];
        }
        return [];
      }),
    );
  }, [app.disclosures, design, rows]);
}

/** Every element of the screen that can be wired, and where it leads. */
export function Departures({
  rows,
  proposals,
  onTakeAll,
  menu,
  selected,
  marked,
  onSelect,
  onFocusRow,
  onKeyDown,
  onLayout,
}: DeparturesProps) {
  const project = useProject();
  const [hidesBars, setHidesBars] = useState(false);
  const scroller = useRef<HTMLDivElement>(null);
  const hasBars = rows.some((row) => row.state.within);
  const shown = useMemo(
    () => (hidesBars ? rows.filter((row) => !row.state.within || row === selected) : rows),
    [hidesBars, rows, selected],
  );
  const partOf = usePartNames(project, rows);
  const states = rows.flatMap((row) => (row.nth === 1 ? [row.state] : []));
  const sure = states.flatMap(({ element }) => {
    const proposal = proposals.get(element.key);
    return proposal && proposal.confidence >= SURE ? [proposal] : [];
  });
  const live = states.filter((state) => state.standing === 'live').length;
  const countable = states.filter((state) => state.standing !== 'still').length;

  useLayoutEffect(() => {
    const tell = (): void => {
      const bounds = scroller.current!.getBoundingClientRect();
      const tops = new Map<string, number>();
      for (const row of scroller.current!.querySelectorAll<HTMLElement>('tr[data-row]')) {
        const box = row.getBoundingClientRect();
        const y = box.top + box.height / 2;
        if (row.dataset.element && y > bounds.top + 24 && y < bounds.bottom) tops.set(row.dataset.element, y);
      }
      onLayout(tops);
    };
    tell();
    const holder = scroller.current!;
    const watcher = new ResizeObserver(tell);
    watcher.observe(holder);
    holder.addEventListener('scroll', tell);
    return () => {
      watcher.disconnect();
      holder.removeEventListener('scroll', tell);
    };
  }, [shown, onLayout]);

  useLayoutEffect(() => {
    if (selected) document.getElementById(`row-${selected.id}`)?.scrollIntoView?.({ block: 'nearest' });
  }, [selected]);

  return (
    <>
      <Head>
        <h2>Departures</h2>
        {sure.length > 0 && <Button onPress={() => onTakeAll(sure)}>Take {sure.length} proposed</Button>}
        {hasBars && (
          <Button $kind="quiet" aria-pressed={hidesBars} onPress={() => setHidesBars(!hidesBars)}>
            {hidesBars ? 'Show bar links' : 'Hide bar links'}
          </Button>
        )}
        <ActionMenu label="Wiring" actions={menu} />
        <span>
          {live} of {countable} live
        </span>
      </Head>
      <Scroller ref={scroller}>
        <Table role="grid" aria-label="Departures" aria-multiselectable="true" onKeyDown={onKeyDown}>
          <thead>
            <tr>
              <th>No.</th>
              <th>Element</th>
              <th style={{ width: 66 }}>On</th>
              <th>Goes to</th>
              <th style={{ width: '20%' }}>Arrives by</th>
              <th style={{ width: 90 }}>Standing</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((row, i) => {
              const isSelected = row.id === selected?.id;
              return (
                <Departure
                  key={row.id}
                  row={row}
                  proposal={row.wired ? undefined : proposals.get(row.state.element.key)}
                  part={partOf.get(row.state.element.key)}
                  isSelected={isSelected}
                  isMarked={marked.has(row.id)}
                  isReached={isSelected || (!selected && i === 0)}
                  onSelect={onSelect}
                  onFocusRow={onFocusRow}
                />
              );
            })}
          </tbody>
        </Table>
        {!rows.length && (
          <p style={{ padding: 16, color: color.ink2 }}>
            Nothing on this screen looks pressable. Press anything on it to wire it.
          </p>
        )}
      </Scroller>
    </>
  );
}

interface DepartureProps extends Pick<DeparturesProps, 'onSelect' | 'onFocusRow'> {
  row: DepartureRow;
  /** Where it may lead, while it leads nowhere. */
  proposal: LinkProposal | undefined;
  /** What the part that it stands in is called, where it is closed at first. */
  part: string | undefined;
  isSelected: boolean;
  isMarked: boolean;
  /** Whether the Tab key comes to it. */
  isReached: boolean;
}

/** One thing that an element does, or the element where it does nothing. */
function Departure({
  row,
  proposal,
  part,
  isSelected,
  isMarked,
  isReached,
  onSelect,
  onFocusRow,
}: DepartureProps) {
  const project = useProject();
  const { id, state, wired, nth } = row;
  const { element, label, within } = state;
  const target = wired && describeTarget(project, wired.interaction.target);
  const problem = wired?.problem;
  const gesture = wired ? describeGesture(project, wired.interaction) : 'press';
  const first = (wired?.interaction.before ?? []).map((step) => describeStep(project, step));
  return (
    <tr
      id={`row-${id}`}
      data-row={id}
      data-element={nth === 1 ? element.key : undefined}
      aria-selected={isSelected || isMarked}
      tabIndex={isReached ? 0 : -1}
      onClick={(event) => onSelect(id, event.shiftKey || event.ctrlKey || event.metaKey)}
      onMouseDown={(event) => {
        // Choosing several neither moves the focus first nor marks text.
        if (event.shiftKey || event.ctrlKey || event.metaKey) event.preventDefault();
      }}
      onFocus={() => !isSelected && !isMarked && onFocusRow(id)}
    >
      <td>{numberOf(row)}</td>
      <td title={label}>
        {part !== undefined ? (
          <>
            {label} <small>in {part}</small>
          </>
        ) : within ? (
          `Bar: ${label}`
        ) : (
          label
        )}
      </td>
      <td title={gesture}>{gesture}</td>
      <td title={problem ?? target?.label}>
        {first.length > 0 && <span>{first.join(', ')}, then </span>}
        {problem ? (
          problem
        ) : target ? (
          <b>{target.label}</b>
        ) : proposal ? (
          <Proposed title={`Because ${proposal.reason}`}>
            {screenName(project, proposal.to)}? {Math.round(proposal.confidence * 100)} %
          </Proposed>
        ) : (
          <span style={{ color: color.ink2 }}>—</span>
        )}
        {!problem && target?.detail && <small> {target.detail}</small>}
      </td>
      <td>{wired ? describeArrival(wired.interaction.arrival) : ''}</td>
      <td>
        {nth > 1 && !problem ? (
          <span style={{ color: color.ink2 }}>also</span>
        ) : proposal && state.standing === 'open' ? (
          <StandingMark standing="proposed" />
        ) : (
          <StandingMark standing={problem ? 'broken' : state.standing} />
        )}
      </td>
    </tr>
  );
}
