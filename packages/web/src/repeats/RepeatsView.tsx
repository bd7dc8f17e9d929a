import {
  all,
  type Component,
  type ComponentProposal,
  extractionOf,
  putComponent,
  putRefused,
  uniqueName,
} from '@tovel/core';
import { type KeyboardEvent, useMemo } from 'react';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { ScreensNav } from '../screens/ScreensNav';
import { StationBody, StationView } from '../screens/StationView';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';
import { Empty } from '../ui/Empty';
import { MarkedList as List, MarkedRow as Row } from '../ui/marked_list';
import { LibraryCard } from './LibraryCard';
import { RepeatDetail } from './RepeatDetail';
import { freeId } from './repeat_changes';
import { useRepeats } from './use_repeats';
import { useTheirs } from './use_theirs';
import { focusedOption } from '../ui/focused_option';
import { useQueryParam } from '../ui/use_query_param';
import { takeSure } from '../ui/take_sure';

/** What repeats, and below it the team's own components. */
const Column = styled.div`
  min-height: 0;
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
`;

/** Something that repeats: taken already, or proposed. */
export interface Repeat {
  readonly id: string;
  readonly component: Component;
  readonly proposal: ComponentProposal | null;
  readonly saves: number | null;
}

/** Proposals that are at least so sure are taken together. */
const SURE = 0.8;

/** Ids of the rows begin with it. */
const PREFIX = 'repeat-';

/** What repeats in the project: components and lists, taken and proposed, in the order of what they save. */
export function RepeatsView() {
  const project = useProject();
  const { app, session, plan } = project;
  const found = useRepeats();
  const theirs = useTheirs();
  const [asked, select] = useQueryParam('repeat', '');
  const taken = useMemo(
    () =>
      Object.entries(app.components)
        .map(([id, component]): Repeat => ({ id, component, proposal: null, saves: null }))
        .sort((a, b) => (a.component.name < b.component.name ? -1 : 1)),
    [app.components],
  );
  const proposed = useMemo(() => openProposals(found ?? [], app.components, app.refused), [found, app]);
  const extraction = extractionOf(plan);
  const rows = [...taken, ...proposed];
  const chosen = rows.find((row) => row.id === asked) ?? rows[0];
  const take = (repeats: readonly Repeat[], words: string): void => {
    const names = new Set(Object.values(app.components).map((component) => component.name));
    const changes = repeats.map(({ component }) => {
      const name = uniqueName(component.name, (candidate) => names.has(candidate), '');
      names.add(name);
      return putComponent(freeId(app.components, names.size), { ...component, name });
    });
    session.change(words, changes.length === 1 ? changes[0] : all(changes));
  };
  const refuse = (repeat: Repeat): void =>
    session.change(`Refuse ${repeat.component.name}`, putRefused(repeat.id, true));
  const onKeyDown = (event: KeyboardEvent): void => {
    const on = focusedOption(event, PREFIX) ?? chosen?.id;
    const at = rows.findIndex((row) => row.id === on);
    const one = rows[at];
    const go = (to: number): void => {
      event.preventDefault();
      const next = rows[Math.max(0, Math.min(rows.length - 1, to))];
      select(next.id);
      document.getElementById(PREFIX + next.id)?.focus();
    };
    if (event.key === 'ArrowDown') go(at + 1);
    else if (event.key === 'ArrowUp') go(at - 1);
    else if (event.key === 'Enter' && one?.proposal) take([one], `Take ${one.component.name}`);
    else if (event.key === 'Backspace' && one?.proposal) refuse(one);
  };
  const sure = proposed.filter(({ proposal }) => proposal!.confidence >= SURE && proposal!.saves >= 6);
  const row = (repeat: Repeat) => {
    const failed = repeat.proposal ? undefined : extraction.failed.get(repeat.id);
    return (
      <Row
        key={repeat.id}
        id={PREFIX + repeat.id}
        role="option"
        aria-selected={repeat.id === chosen?.id}
        aria-label={`${repeat.component.name}, ${repeat.component.kind}, ${repeat.component.places.length} places, ${repeat.proposal ? 'proposed' : failed ? 'cannot be made' : 'taken'}`}
        tabIndex={repeat.id === chosen?.id ? 0 : -1}
        $isOn={repeat.id === chosen?.id}
        $columns="14px minmax(0, 1fr) 84px 74px"
        onClick={() => select(repeat.id)}
      >
        <i aria-hidden="true" data-mark={repeat.proposal ? 'proposed' : 'taken'} />
        <b title={repeat.component.name}>{repeat.component.name}</b>
        <small>
          {repeat.component.kind === 'list'
            ? `${repeat.component.places.length} rows`
            : `${repeat.component.places.length} places`}
        </small>
        <small>
          {repeat.saves === null
            ? failed
              ? 'not made'
              : repeat.component.theirs
                ? `is ${repeat.component.theirs.component}`
                : 'taken'
            : `saves ${repeat.saves}`}
        </small>
      </Row>
    );
  };
  return (
    <StationView>
      <ScreensNav>
        <span style={{ marginLeft: 'auto', color: color.ink2 }} role="status">
          {found === null
            ? 'Looking for what repeats …'
            : `${taken.length} taken, ${proposed.length} proposed`}
        </span>
        <Button
          $kind="primary"
          isDisabled={!sure.length}
          onPress={() => take(sure, `Take ${sure.length} that repeat`)}
        >
          {takeSure(sure.length)}
        </Button>
      </ScreensNav>
      {chosen ? (
        <StationBody $columns="minmax(320px, 430px) minmax(0, 1fr)">
          <Column>
            <List role="listbox" aria-label="What repeats" onKeyDown={onKeyDown}>
              {taken.length > 0 && <h3>Taken</h3>}
              {taken.map(row)}
              {proposed.length > 0 && <h3>Proposed, by what they save</h3>}
              {proposed.map(row)}
            </List>
            {taken.length > 0 && <LibraryCard theirs={theirs} />}
          </Column>
          <RepeatDetail
            key={chosen.id}
            repeat={chosen}
            theirs={theirs.get(chosen.id) ?? []}
            others={rows.filter((other) => other !== chosen)}
            problem={chosen.proposal ? null : (extraction.failed.get(chosen.id) ?? null)}
            onTake={() => take([chosen], `Take ${chosen.component.name}`)}
            onRefuse={() => refuse(chosen)}
            onGone={(id) => select(id ?? '')}
          />
        </StationBody>
      ) : (
        <Empty
          title={found === null ? 'Looking for what repeats …' : 'Nothing repeats'}
          text={found === null ? '' : 'Cards, rows, bars and buttons that are built alike will stand here.'}
        />
      )}
    </StationView>
  );
}

/** Proposals that nobody has taken or refused. */
function openProposals(
  found: readonly ComponentProposal[],
  components: Readonly<Record<string, Component>>,
  refused: Readonly<Record<string, true>>,
): Repeat[] {
  const taken = Object.values(components).map((component) => new Set(component.places));
  return found.flatMap((proposal): Repeat[] => {
    if (refused[proposal.id]) return [];
    const isTaken = taken.some(
      (places) => proposal.places.filter((key) => places.has(key)).length * 2 > proposal.places.length,
    );
    if (isTaken) return [];
    const { name, kind, places } = proposal;
    return [{ id: proposal.id, component: { name, kind, places }, proposal, saves: proposal.saves }];
  });
}
