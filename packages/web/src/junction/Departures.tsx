import {
  describeArrival,
  describeTarget,
  type ElementState,
  type LinkProposal,
  screenName,
} from '@tovel/core';
import { type KeyboardEvent, useLayoutEffect, useMemo, useRef, useState } from 'react';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color, font, size } from '../theme/theme';
import { Button } from '../ui/controls';
import { StandingMark } from '../ui/standing';

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
  states: readonly ElementState[];
  /** What is proposed for open elements, by element key. */
  proposals: ReadonlyMap<string, LinkProposal>;
  onTakeAll: (proposals: readonly LinkProposal[]) => void;
  selected: ElementState | null;
  onSelect: (key: string) => void;
  onKeyDown: (event: KeyboardEvent) => void;
  /** Told where the rows stand, in px from the top of the window, whenever that changes. */
  onLayout: (tops: ReadonlyMap<string, number>) => void;
}

/** Every element of the screen that can be wired, and where it leads. */
export function Departures({
  states,
  proposals,
  onTakeAll,
  selected,
  onSelect,
  onKeyDown,
  onLayout,
}: DeparturesProps) {
  const project = useProject();
  const [hidesBars, setHidesBars] = useState(false);
  const scroller = useRef<HTMLDivElement>(null);
  const hasBars = states.some((state) => state.within);
  const shown = useMemo(
    () => (hidesBars ? states.filter((state) => !state.within || state === selected) : states),
    [hidesBars, states, selected],
  );
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
        if (y > bounds.top + 24 && y < bounds.bottom) tops.set(row.dataset.row!, y);
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
    if (selected)
      document.getElementById(`row-${selected.element.key}`)?.scrollIntoView?.({ block: 'nearest' });
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
        <span>
          {countable} elements · {live} live
        </span>
      </Head>
      <Scroller ref={scroller}>
        <Table role="grid" aria-label="Departures" onKeyDown={onKeyDown}>
          <thead>
            <tr>
              <th>No.</th>
              <th>Element</th>
              <th style={{ width: 52 }}>On</th>
              <th>Goes to</th>
              <th style={{ width: '19%' }}>Arrives by</th>
              <th style={{ width: 84 }}>Standing</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((state, i) => {
              const { element, label, number, interaction, standing, problem, within } = state;
              const target = interaction && describeTarget(project, interaction.target);
              const isSelected = element.key === selected?.element.key;
              return (
                <tr
                  key={element.key}
                  id={`row-${element.key}`}
                  data-row={element.key}
                  aria-selected={isSelected}
                  tabIndex={isSelected || (!selected && i === 0) ? 0 : -1}
                  onClick={() => onSelect(element.key)}
                  onFocus={() => !isSelected && onSelect(element.key)}
                >
                  <td>{number}</td>
                  <td title={label}>{within ? `Bar: ${label}` : label}</td>
                  <td>press</td>
                  <td title={problem ?? target?.label}>
                    {problem ? (
                      problem
                    ) : target ? (
                      <b>{target.label}</b>
                    ) : proposals.has(element.key) ? (
                      <Proposed title={`Because ${proposals.get(element.key)!.reason}`}>
                        {screenName(project, proposals.get(element.key)!.to)}?{' '}
                        {Math.round(proposals.get(element.key)!.confidence * 100)} %
                      </Proposed>
                    ) : (
                      <span style={{ color: color.ink2 }}>—</span>
                    )}
                    {!problem && target?.detail && <small>{target.detail}</small>}
                  </td>
                  <td>{interaction ? describeArrival(interaction.arrival) : ''}</td>
                  <td>
                    <StandingMark standing={standing} />
                  </td>
                </tr>
              );
            })}
          </tbody>
        </Table>
        {!states.length && (
          <p style={{ padding: 16, color: color.ink2 }}>
            Nothing on this screen looks pressable. Press anything on it to wire it.
          </p>
        )}
      </Scroller>
    </>
  );
}
