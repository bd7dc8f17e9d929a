import type { Project } from '../model/project.ts';
import { settle } from '../layers/settle.ts';
import type { App } from '../model/app.ts';
import type { Design } from '../model/design.ts';
import { examine, type Finding, type FindingLevel, type FindingStation, type Rule } from './finding.ts';
import { graphRules } from './graph_rules.ts';
import { intakeRules } from './intake/intake_rules.ts';
import { journeyRules } from './journey_rules.ts';
import { overlayRules } from './overlay_rules.ts';
import { routeRules } from './route_rules.ts';

/** Every rule there is; the order is that of the findings list. */
export const rules: readonly Rule[] = [
  ...graphRules,
  ...routeRules,
  ...overlayRules,
  ...journeyRules,
  ...intakeRules,
];

const found = new WeakMap<App, { design: Design; findings: readonly Finding[] }>();

/** All findings that nobody has let stand, by rule. Computed once per pair of documents. */
export function findingsOf(drawn: Project): readonly Finding[] {
  const known = found.get(drawn.app);
  if (known && known.design === drawn.design) return known.findings;
  const examined = examine(drawn, settle(drawn));
  const findings = rules.flatMap((rule) =>
    rule.find(examined).flatMap(({ about, ...rest }): Finding[] => {
      const id = [rule.code, rest.element ?? rest.screen ?? '', about ?? ''].join(' ').trim().slice(0, 490);
      return drawn.app.dismissed[id] ? [] : [{ id, code: rule.code, level: rule.level, ...rest }];
    }),
  );
  found.set(drawn.app, { design: drawn.design, findings });
  return findings;
}

/** The station at which findings of a code are dealt with. */
export const stationOf = (code: string): FindingStation =>
  rules.find((rule) => rule.code === code)?.station ?? 'map';

export const LEVELS: readonly FindingLevel[] = ['info', 'warning', 'error'];

/** Whether a finding is at or above a level. */
export const isAtLeast = (finding: Finding, level: FindingLevel): boolean =>
  LEVELS.indexOf(finding.level) >= LEVELS.indexOf(level);
