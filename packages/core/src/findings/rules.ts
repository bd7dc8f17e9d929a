import type { Project } from '../model/project.ts';
import { settle } from '../layers/settle.ts';
import type { App } from '../model/app.ts';
import type { Design } from '../model/design.ts';
import { examine, type Finding, type FindingLevel, type FindingStation, type Rule } from './finding.ts';
import { apartRules } from './apart_rules.ts';
import { comparedRules } from './compared_rules.ts';
import { dataRules } from './data_rules.ts';
import { graphRules } from './graph_rules.ts';
import { intakeRules } from './intake/intake_rules.ts';
import { journeyRules } from './journey_rules.ts';
import { overlayRules } from './overlay_rules.ts';
import { routeRules } from './route_rules.ts';
import { stateRules } from './state_rules.ts';
import { secretRules } from './secret_rules.ts';

export const LEVELS: readonly FindingLevel[] = ['info', 'warning', 'error'];

/** Every rule there is, in the order of the findings list: what does not work comes first. */
export const rules: readonly Rule[] = [
  ...graphRules,
  ...routeRules,
  ...overlayRules,
  ...journeyRules,
  ...secretRules,
  ...dataRules,
  ...intakeRules,
  ...apartRules,
].sort((a, b) => Number(b.level === 'error') - Number(a.level === 'error'));

/** All that can be found, with what the states of the app are looked through for, and what runs is compared for. */
export const ruleKinds: readonly Omit<Rule, 'find'>[] = [...rules, ...stateRules, ...comparedRules].sort(
  (a, b) => Number(b.level === 'error') - Number(a.level === 'error'),
);

const orders = new Map(ruleKinds.map(({ code }, i) => [code, i]));

/** Findings of all kinds together, in the order of the findings list. */
export const inOrder = (...found: readonly (readonly Finding[])[]): readonly Finding[] =>
  found.flat().sort((a, b) => orders.get(a.code)! - orders.get(b.code)!);

/** Findings without those that somebody has let stand. */
export const letStand = (app: App, findings: readonly Finding[]): readonly Finding[] =>
  findings.filter((finding) => !app.dismissed[finding.id]);

interface FoundFor {
  readonly design: Design;
  readonly all: readonly Finding[];
  readonly findings: readonly Finding[];
}

const found = new WeakMap<App, FoundFor>();

function find(drawn: Project): FoundFor {
  const known = found.get(drawn.app);
  if (known && known.design === drawn.design) return known;
  const examined = examine(drawn, settle(drawn));
  const all = rules.flatMap((rule) =>
    rule.find(examined).map(({ about, ...rest }): Finding => {
      const id = [rule.code, rest.element ?? rest.screen ?? '', about ?? ''].join(' ').trim().slice(0, 490);
      return { id, code: rule.code, level: rule.level, ...rest };
    }),
  );
  const findings = letStand(drawn.app, all);
  const made = { design: drawn.design, all, findings };
  found.set(drawn.app, made);
  return made;
}

/** All findings that nobody has let stand, by rule. Computed once per pair of documents. */
export const findingsOf = (drawn: Project): readonly Finding[] => find(drawn).findings;

/** Findings that somebody has let stand, with the reason if one was given. */
export const standingFindings = (
  drawn: Project,
): { readonly finding: Finding; readonly reason: string | null }[] =>
  find(drawn).all.flatMap((finding) => {
    const reason = drawn.app.dismissed[finding.id];
    return reason ? [{ finding, reason: typeof reason === 'string' ? reason : null }] : [];
  });

/** The station at which findings of a code are dealt with. */
export const stationOf = (code: string): FindingStation =>
  ruleKinds.find((rule) => rule.code === code)?.station ?? 'map';

/** Whether a finding is at or above a level. */
export const isAtLeast = (finding: Finding, level: FindingLevel): boolean =>
  LEVELS.indexOf(finding.level) >= LEVELS.indexOf(level);
