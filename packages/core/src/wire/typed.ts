import type { ScreenGraph } from '../graph/graph.ts';
import type { Arrival, Gesture, Interaction, Side, When } from '../model/app.ts';
import { GESTURES } from '../model/interaction.ts';
import type { DeedPlace } from '../records/deeds.ts';
import type { Project } from '../model/project.ts';
import { matchText, type TargetChoice, targetChoices, typedProblem } from '../links/target.ts';

/** What one line of typed wiring means, or why it means nothing. */
export type TypedLine =
  | {
      readonly text: string;
      readonly element: string;
      readonly label: string;
      readonly interaction: Interaction;
      readonly problem?: undefined;
    }
  | { readonly text: string; readonly problem: string };

const ARROW = /\s*(?:→|->|=>)\s*/;
const SIDES: readonly Side[] = ['left', 'right', 'top', 'bottom'];

/** Gestures in the words that people type before an arrow. */
const SPOKEN: readonly (readonly [RegExp, (found: RegExpExecArray) => Partial<Interaction>])[] = [
  [
    /\s+after\s+(\d+(?:\.\d+)?)\s*(ms|s)$/i,
    ([, n, unit]) => ({ on: 'after', ms: Number(n) * (unit.toLowerCase() === 's' ? 1000 : 1) }),
  ],
  [/\s+swipe\s+(left|right|top|bottom|up|down)$/i, ([, side]) => ({ on: 'swipe', side: sideOf(side) })],
  [/\s+key\s+(\S+)$/i, ([, key]) => ({ on: 'key', key })],
  [
    new RegExp(
      `\\s+(${GESTURES.filter((g) => !['after', 'swipe', 'key'].includes(g))
        .join('|')
        .replaceAll('-', '[ -]')})$`,
      'i',
    ),
    ([, gesture]) => ({ on: gesture.toLowerCase().replace(' ', '-') as Gesture }),
  ],
];

const sideOf = (word: string): Side =>
  (({ up: 'top', down: 'bottom' }) as Record<string, Side>)[word.toLowerCase()] ??
  SIDES.find((side) => side === word.toLowerCase()) ??
  'left';

/**
 * Reads wiring as people type it, a line each: `search field → Results`, `Apple press long press → Tool detail`,
 * `Account if signed in → My loans fade`. An element is meant by its number or its label, `the screen` is the whole
 * of it; empty lines say nothing.
 */
export function typedWiring(project: Project, graph: ScreenGraph, screen: string, text: string): TypedLine[] {
  return text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean)
    .map((line) => readLine(project, graph, screen, line));
}

function readLine(project: Project, graph: ScreenGraph, screen: string, text: string): TypedLine {
  const arrow = ARROW.exec(text);
  let left = arrow ? text.slice(0, arrow.index) : '';
  let right = arrow ? text.slice(arrow.index + arrow[0].length) : '';
  // In what is said of each record an arrow of the other form can stand.
  if (!left || !right || /→|->/.test(right)) return { text, problem: 'write it as element → screen' };
  const condition = conditionIn(project, left);
  if (typeof condition === 'string') return { text, problem: condition };
  if (condition) left = condition.rest;
  let gesture: Partial<Interaction> = { on: 'press' };
  for (const [pattern, read] of SPOKEN) {
    const found = pattern.exec(left);
    if (!found || found.index === 0) continue;
    gesture = read(found);
    left = left.slice(0, found.index);
    break;
  }
  const element = elementCalled(project, graph, screen, left);
  if ('problem' in element) return { text, problem: element.problem };
  const arrival = arrivalIn(right);
  if (arrival) right = arrival.rest;
  const place = { screen, element: element.key };
  const choice = targetCalled(project, right, place);
  if (!choice)
    return { text, problem: typedProblem(project, right, place) ?? `no screen is called “${right}”` };
  const { target, before } = choice;
  return {
    text,
    element: element.key,
    label: element.label,
    interaction: {
      on: 'press',
      ...gesture,
      ...(condition ? { when: condition.when } : {}),
      ...(before ? { before } : {}),
      target,
      arrival: arrival?.arrival ?? { kind: 'none' },
    },
  };
}

/** The element that a text means on a screen: by its number, its label, or the beginning of that. */
function elementCalled(
  { design }: Project,
  graph: ScreenGraph,
  screen: string,
  text: string,
): { key: string; label: string } | { problem: string } {
  const states = graph.elements.get(screen) ?? [];
  if (/^(the )?(whole )?screen$/i.test(text)) {
    const root = design.screens.find((one) => one.key === screen)?.root;
    if (root) return { key: root.key, label: 'The whole screen' };
  }
  const numbered = /^\d+$/.test(text) ? states.find((state) => state.number === Number(text)) : undefined;
  if (numbered) return { key: numbered.element.key, label: numbered.label };
  const scored = states
    .map((state) => ({ state, score: matchText(state.label, text) ?? Infinity }))
    .filter(({ score }) => score < 4)
    .sort((a, b) => a.score - b.score);
  const [best, next] = scored;
  if (!best) return { problem: `nothing on this screen is called “${text}”` };
  if (next && next.score === best.score) {
    const numbers = scored.filter(({ score }) => score === best.score).map(({ state }) => state.number);
    return {
      problem: `“${text}” is ${numbers.length} elements here; say which by its number: ${numbers.join(', ')}`,
    };
  }
  return { key: best.state.element.key, label: best.state.label };
}

const targetCalled = (project: Project, text: string, place: DeedPlace): TargetChoice | undefined =>
  targetChoices(project, text, place)[0];

function conditionIn({ app }: Project, text: string): { when: When; rest: string } | string | null {
  const found = /\s+if\s+(not\s+)?(.+)$/i.exec(text);
  if (!found) return null;
  const name = found[2].toLowerCase();
  const id = Object.keys(app.variables).find((key) => app.variables[key].name.toLowerCase() === name);
  if (!id) return `there is no condition “${found[2]}”`;
  return { when: { condition: id, is: !found[1] }, rest: text.slice(0, found.index) };
}

const FIRST_MS = 240;

/** An arrival at the end of a line: `fade`, `slide from right`, `push from left 300 ms`. */
function arrivalIn(text: string): { arrival: Arrival; rest: string } | null {
  const found = /\s+(fade|scale|(slide|push)(?:\s+from)?\s+(left|right|top|bottom))(?:\s+(\d+)\s*ms)?$/i.exec(
    text,
  );
  if (!found) return null;
  const ms = Math.min(10_000, Number(found[4] ?? FIRST_MS));
  const rest = text.slice(0, found.index);
  if (found[2])
    return {
      arrival: { kind: found[2].toLowerCase() as 'slide' | 'push', from: sideOf(found[3]), ms },
      rest,
    };
  return { arrival: { kind: found[1].toLowerCase() as 'fade' | 'scale', ms }, rest };
}
