import type { App, Interaction } from '../model/app.ts';
import type { GraphLink } from './graph.ts';
import { goalsOf, type Numbering } from './numbering.ts';
import { onceFor } from '../json/once_for.ts';

/** A link that can be gone, with where one really gets by it: past a guard it is the screen to show instead. */
export type Way = GraphLink & {
  readonly to: string;
  /** The guarded screen that turned one away, if one did. */
  readonly turnedAway?: string;
};

const BOTH = [true, false] as const;
/** What a condition can be once it is set so: what an expression gives is not looked at. */
const valuesSet = (value: boolean | string): readonly boolean[] =>
  typeof value === 'boolean' ? [value] : BOTH;

/** What a condition can be while the app runs. */
type Facts = Map<string, Set<boolean>>;

export interface Reach {
  readonly reached: ReadonlySet<string>;
  readonly ways: ReadonlyMap<string, readonly Way[]>;
}

/**
 * Which screens and overlays one gets to from the start. A condition can be what it is at first and whatever something
 * on a screen that is reached makes of it; what is found so is at most too much, as variables are looked at one by one.
 */
export function reachOf(
  app: App,
  start: string | null,
  departures: ReadonlyMap<string, readonly GraphLink[]>,
  numbering: Numbering,
): Reach {
  const hasRules =
    Object.keys(app.variables).length > 0 || Object.values(app.screens).some((entry) => entry.guard);
  if (!hasRules) {
    const ways = new Map([...departures].map(([key, links]) => [key, plainWaysOf(links)] as const));
    return { reached: start ? walk([start], ways, numbering) : new Set(), ways };
  }
  const facts: Facts = new Map(
    Object.entries(app.variables).map(([id, { initial, says }]) => [
      id,
      // What is worked out from others can be the one and the other.
      new Set(says === undefined && typeof initial === 'boolean' ? [initial] : BOTH),
    ]),
  );
  for (;;) {
    const ways = new Map([...departures].map(([key, links]) => [key, waysOf(app, links, facts)] as const));
    const reached = start ? walk(entered(app, start, facts, {}), ways, numbering) : new Set<string>();
    if (!learn(facts, reached, departures)) return { reached, ways };
  }
}

const plainWaysOf = onceFor((links: readonly GraphLink[]): readonly Way[] =>
  links.filter((link): link is Way => !link.problem && link.to !== null),
);

const waysOf = (app: App, links: readonly GraphLink[], facts: Facts): Way[] =>
  links.flatMap((link) => {
    const { to, problem, interaction } = link;
    if (!to || problem || !holds(facts, interaction)) return [];
    return entered(app, to, facts, madeBy(interaction)).map((screen) =>
      screen === to ? (link as Way) : { ...link, to: screen, turnedAway: to },
    );
  });

const holds = (facts: Facts, { when }: Interaction): boolean =>
  !when || (facts.get(when.condition)?.has(when.is) ?? false);

/** What an interaction makes of variables before it leads anywhere. */
function madeBy({ before, target, when }: Interaction): Readonly<Record<string, boolean>> {
  const made: Record<string, boolean> = when ? { [when.condition]: when.is } : {};
  for (const step of [...(before ?? []), target])
    if (step.kind === 'set') {
      const [value, ...others] = valuesSet(step.value);
      if (others.length) delete made[step.condition];
      else made[step.condition] = value;
    }
  return made;
}

/** The screens that can be shown when one is gone to: itself, or the one that its guard shows instead. */
function entered(
  app: App,
  screen: string,
  facts: Facts,
  known: Readonly<Record<string, boolean>>,
  seen: readonly string[] = [],
): string[] {
  const guard = app.screens[screen]?.guard;
  if (!guard) return [screen];
  const can = (value: boolean): boolean =>
    guard.condition in known
      ? known[guard.condition] === value
      : (facts.get(guard.condition)?.has(value) ?? false);
  const shown = can(guard.is) ? [screen] : [];
  // Guards that send each other round in a circle show nothing.
  if (!can(!guard.is) || seen.includes(screen)) return shown;
  return [...shown, ...entered(app, guard.otherwise, facts, known, [...seen, screen])];
}

function walk(
  from: readonly string[],
  ways: ReadonlyMap<string, readonly Way[]>,
  numbering: Numbering,
): Set<string> {
  const { keys, index } = numbering;
  const queue = from.flatMap((key) => index.get(key) ?? []);
  const isSeen = new Uint8Array(keys.length);
  for (const node of queue) isSeen[node] = 1;
  const lists = keys.map((key) => goalsOf(ways.get(key) ?? NONE, numbering));
  const reached = new Set<string>();
  for (let node = queue.pop(); node !== undefined; node = queue.pop()) {
    reached.add(keys[node]);
    for (const to of lists[node])
      if (to >= 0 && !isSeen[to]) {
        isSeen[to] = 1;
        queue.push(to);
      }
  }
  return reached;
}

const NONE: readonly Way[] = [];

/** Notes what can be made of variables on screens that are reached; whether that is more than was known. */
function learn(
  facts: Facts,
  reached: ReadonlySet<string>,
  departures: ReadonlyMap<string, readonly GraphLink[]>,
): boolean {
  let isMore = false;
  for (const key of reached)
    for (const { interaction, problem } of departures.get(key) ?? []) {
      if (problem || !holds(facts, interaction)) continue;
      for (const step of [...(interaction.before ?? []), interaction.target]) {
        if (step.kind !== 'set') continue;
        const known = facts.get(step.condition);
        for (const value of valuesSet(step.value)) {
          if (known?.has(value) !== false) continue;
          known.add(value);
          isMore = true;
        }
      }
    }
  return isMore;
}
