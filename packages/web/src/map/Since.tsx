import type { GraphDifference } from '@tovel/core';
import { useQuery } from '@tanstack/react-query';
import { createContext, type ReactNode, useContext } from 'react';
import styled from 'styled-components';
import { api } from '../api/client';
import { useProject, useStanding } from '../project/context';
import { color } from '../theme/theme';
import { Choice } from '../ui/controls';
import { useComparison } from '../versions/use_comparison';

const Difference = createContext<GraphDifference | null>(null);

/** What became of screens and ways since the place in the history that was chosen; null where none is. */
export const useSince = (): GraphDifference | null => useContext(Difference);

/** Which place of the history the Map is held against: a version, or how it was before an iteration. */
export function SinceChoice({ since, onSince }: { since: string; onSince: (since: string) => void }) {
  const { id } = useProject();
  const { history } = useStanding();
  const { data: versions = [] } = useQuery({ queryKey: ['versions', id], queryFn: () => api.versions(id) });
  const { data: iterations = [] } = useQuery({
    queryKey: ['iterations', id, history.seq],
    queryFn: async () => (await api.timeline(id, { only: 'iterations' })).steps,
  });
  const options = [
    { id: 'none', label: 'As it is' },
    ...versions.map(({ seq, name }) => ({ id: String(seq), label: `Since “${name}”` })),
    ...iterations
      .filter(({ standing }) => standing === 'done')
      .map(({ seq }, i, all) => ({ id: String(seq - 1), label: `Since before round ${all.length - i + 1}` })),
  ];
  if (since && !options.some((one) => one.id === since))
    options.push({ id: since, label: `Since step ${since}` });
  if (options.length === 1) return null;
  return (
    <div style={{ width: 190 }}>
      <Choice
        label="Held against"
        isLabelHidden
        value={since || 'none'}
        options={options.filter((one, i) => options.findIndex(({ id: same }) => same === one.id) === i)}
        onChange={(next) => onSince(next === 'none' ? '' : next)}
      />
    </div>
  );
}

const Held = styled.div`
  min-height: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
`;

const Words = styled.p`
  padding: 6px 16px;
  color: ${color.ink2};
  border-bottom: 1px solid ${color.rule};
`;

/** Views within show what became of screens and ways since a place in the history. */
export function Since({ since, children }: { since: string; children: ReactNode }) {
  return since ? <Compared since={Number(since)}>{children}</Compared> : children;
}

function Compared({ since, children }: { since: number; children: ReactNode }) {
  const { id, app } = useProject();
  const { history } = useStanding();
  const { graph, list, problem } = useComparison(id, since, history.seq);
  const nameOf = (key: string): string =>
    app.screens[key]?.name ?? list?.find((one) => one.part === 'screens' && one.screen === key)?.label ?? key;
  return (
    <HeldAgainst graph={graph} problem={problem} nameOf={nameOf}>
      {children}
    </HeldAgainst>
  );
}

interface HeldAgainstProps {
  /** Null while that is worked out. */
  graph: GraphDifference | null;
  problem?: string | null;
  /** The name of a screen of either state, by key. */
  nameOf: (key: string) => string;
  children: ReactNode;
}

/** Says what became of screens and ways, and has the views within show it. */
export function HeldAgainst({ graph, problem, nameOf, children }: HeldAgainstProps) {
  return (
    <Difference value={graph}>
      <Held>
        <Words role="status">{problem ?? (graph ? inWords(graph, nameOf) : 'Comparing …')}</Words>
        {children}
      </Held>
    </Difference>
  );
}

function inWords({ screens, links }: GraphDifference, nameOf: (key: string) => string): string {
  const of = (what: 'new' | 'gone'): string[] =>
    [...screens].flatMap(([key, became]) => (became === what ? [nameOf(key)] : []));
  const ways = (what: 'new' | 'gone'): number => [...links.values()].filter((one) => one === what).length;
  const [come, go] = [of('new'), of('gone')];
  return [
    come.length ? `New: ${come.join(', ')}` : 'No new screen',
    go.length ? `gone: ${go.join(', ')}` : 'none gone',
    `${ways('new')} new ways, ${ways('gone')} gone (dashed)`,
  ].join(' · ');
}
