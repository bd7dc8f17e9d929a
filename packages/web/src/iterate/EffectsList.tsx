import { type Finding, type IterationReport, ruleKinds } from '@tovel/core';
import styled from 'styled-components';
import { color } from '../theme/theme';
import type { RoundEffects } from './use_round';

const Section = styled.section`
  padding: 0 16px 12px;
  h4 {
    margin: 0;
    font-size: 12.5px;
    padding: 10px 0 2px;
  }
  p,
  li {
    color: ${color.ink2};
  }
  li {
    padding: 2px 0;
    overflow-wrap: anywhere;
  }
`;

/** Lines of one kind that are listed, at most. */
const MOST = 12;

/** What a round does to the app beyond its screens: findings, journeys, reach and links. */
export function EffectsList({ effects, report }: { effects: RoundEffects | null; report: IterationReport }) {
  if (!effects)
    return (
      <Section role="status">
        <p>Working out what it does to the app …</p>
      </Section>
    );
  const { came, went, lost, reached, broken, mended, graph, fresh } = effects;
  const names = new Map(report.screens.flatMap(({ old, now, name }) => [old, now].map((key) => [key, name])));
  const ways = (what: 'new' | 'gone'): string[] =>
    [...graph.links].flatMap(([way, became]) =>
      became === what
        ? [
            way
              .split(' ')
              .map((key) => names.get(key) ?? key)
              .join(' → '),
          ]
        : [],
    );
  const lines: readonly (readonly [title: string, lines: readonly string[]])[] = [
    ['New ways between screens', ways('new')],
    ['Ways that are gone', ways('gone')],
    [
      'Rows that join a list',
      report.joining.map(({ list, rows }) => `${rows} more ${rows === 1 ? 'place' : 'places'} of “${list}”`),
    ],
    ['Journeys that break', broken.map(({ name, why }) => `${name}: ${why}`)],
    ['Journeys that go through again', mended],
    ['No longer reached from the start', lost],
    ['Reached now', reached],
    [`Findings that come: ${came.length}`, messages(came)],
    [`Findings that go: ${went.length}`, messages(went)],
    [
      `Let go: ${report.letGo.length}`,
      report.letGo.map(({ label, on, about }) => `“${label}” on ${on}: ${about}`),
    ],
  ];
  return (
    <Section aria-label="What it does to the app">
      {fresh.pressable > 0 && (
        <>
          <h4>New and pressable</h4>
          <p>
            {fresh.pressable} {fresh.pressable === 1 ? 'element' : 'elements'}, {fresh.proposed} with a link
            proposed, at Junction
          </p>
        </>
      )}
      {lines
        .filter(([, some]) => some.length)
        .map(([title, some]) => (
          <div key={title}>
            <h4>{title}</h4>
            <ul>
              {some.slice(0, MOST).map((line, i) => (
                <li key={`${i} ${line}`}>{line}</li>
              ))}
              {some.length > MOST && <li>and {some.length - MOST} more</li>}
            </ul>
          </div>
        ))}
    </Section>
  );
}

/** Findings, those of one rule as one line. */
function messages(findings: readonly Finding[]): string[] {
  const byRule = new Map<string, Finding[]>();
  for (const finding of findings) byRule.set(finding.code, [...(byRule.get(finding.code) ?? []), finding]);
  return [...byRule].map(([code, some]) =>
    some.length === 1
      ? some[0].message
      : `${some.length} × ${ruleKinds.find((rule) => rule.code === code)?.title ?? code}`,
  );
}
