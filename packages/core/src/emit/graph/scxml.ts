import { graphOf } from '../../graph/graph.ts';
import type { Interaction } from '../../model/app.ts';
import { kebabCase, uniqueName } from '../../model/names.ts';
import type { Project } from '../../model/project.ts';
import { EmissionPlan } from '../form/plan.ts';
import { escapeValue } from '../quoting.ts';

/**
 * The screen graph as State Chart XML: a state a screen, with a state inside it for each overlay that opens there; an
 * event for each gesture; variables as data. Going back looks at the screen that was left last.
 */
export function printScxml(project: Project): string {
  const graph = graphOf(project);
  const plan = new EmissionPlan(project);
  const { app } = plan.project;
  const taken = new Set<string>();
  const ids = new Map<string, string>();
  for (const key of [...graph.screens, ...graph.overlays]) {
    const id = uniqueName(kebabCase(app.screens[key].name) || 'screen', (candidate) => taken.has(candidate));
    taken.add(id);
    ids.set(key, /^\d/.test(id) ? `s-${id}` : id);
  }
  const isOverlay = new Set(graph.overlays);
  const inside = (screen: string, overlay: string): string => `${ids.get(screen)}.${ids.get(overlay)}`;
  const lines: string[] = [];
  const put = (depth: number, text: string): void => void lines.push('  '.repeat(depth) + text);
  const attribute = (name: string, value: string): string => ` ${name}="${escapeValue(value)}"`;

  const transitions = (node: string, screen: string, depth: number): void => {
    for (const { wired, label } of graph.elements.get(node) ?? [])
      for (const { interaction, problem } of wired) {
        if (problem) continue;
        const { when, target } = interaction;
        const condition = when && plan.variables.get(when.condition);
        const event = `${gestureOf(interaction)}.${kebabCase(label) || 'element'}`;
        const guard = condition ? (when!.is ? condition : `!${condition}`) : null;
        for (const [goal, extra] of goalsOf(interaction, node, screen)) {
          const tests = [guard, extra].filter((test) => test !== null);
          const head = `<transition${attribute('event', event)}${tests.length ? attribute('cond', tests.join(' && ')) : ''}${goal ? attribute('target', goal) : ''}`;
          const sets = [...(interaction.before ?? []), target].flatMap((step) =>
            step.kind === 'set' && plan.variables.has(step.condition)
              ? [`<assign location="${plan.variables.get(step.condition)}" expr="${step.value}"/>`]
              : [],
          );
          if (!sets.length) put(depth, `${head}/>`);
          else {
            put(depth, `${head}>`);
            sets.forEach((set) => put(depth + 1, set));
            put(depth, '</transition>');
          }
        }
      }
  };
  /** The states that an interaction leads to, each with what must be so. */
  const goalsOf = (
    { target, before = [] }: Interaction,
    node: string,
    screen: string,
  ): [string | null, string | null][] => {
    switch (target.kind) {
      case 'screen':
      case 'anchor': {
        const { guard } = app.screens[target.screen];
        const name = guard && plan.variables.get(guard.condition);
        // What it makes so itself holds by the time it arrives.
        const made = before.findLast((step) => step.kind === 'set' && step.condition === guard?.condition);
        if (!guard || !name || (made?.kind === 'set' && made.value === guard.is))
          return [[ids.get(target.screen)!, null]];
        return [
          [ids.get(target.screen)!, guard.is ? name : `!${name}`],
          [ids.get(guard.otherwise) ?? ids.get(target.screen)!, null],
        ];
      }
      case 'open':
        return [[inside(screen, target.overlay), null]];
      case 'close':
        return [[ids.get(screen)!, null]];
      case 'back': {
        if (isOverlay.has(node)) return [[ids.get(screen)!, null]];
        const from = [...new Set(graph.arrivals.get(node)!.map((link) => link.from))].filter(
          (key) => !isOverlay.has(key),
        );
        const last = ids.get(target.fallback ?? graph.start ?? node)!;
        return [
          ...from.map((key): [string, string] => [ids.get(key)!, `previous == '${ids.get(key)}'`]),
          [last, null],
        ];
      }
      default:
        return [[null, null]];
    }
  };

  lines.push('<?xml version="1.0" encoding="UTF-8"?>');
  put(
    0,
    `<scxml xmlns="http://www.w3.org/2005/07/scxml" version="1.0" datamodel="ecmascript"${graph.start ? attribute('initial', ids.get(graph.start)!) : ''}>`,
  );
  put(1, '<datamodel>');
  put(2, '<data id="previous" expr="null"/>');
  for (const [id, name] of plan.variables) put(2, `<data id="${name}" expr="${app.variables[id].initial}"/>`);
  put(1, '</datamodel>');
  for (const screen of graph.screens) {
    const id = ids.get(screen)!;
    const opened = [...overlaysOver(graph, screen)];
    put(1, `<state${attribute('id', id)}>`);
    put(2, `<onexit><assign location="previous" expr="${escapeValue(`'${id}'`)}"/></onexit>`);
    transitions(screen, screen, 2);
    for (const overlay of opened) {
      put(2, `<state${attribute('id', inside(screen, overlay))}>`);
      transitions(overlay, screen, 3);
      put(2, '</state>');
    }
    put(1, '</state>');
  }
  lines.push('</scxml>', '');
  return lines.join('\n');
}

/** Overlays that open over a screen, also from one another. */
function overlaysOver(graph: ReturnType<typeof graphOf>, screen: string): Set<string> {
  const overlays = new Set(graph.overlays);
  const found = new Set<string>();
  const look = (node: string): void => {
    for (const { interaction, problem } of graph.departures.get(node) ?? [])
      for (const step of [...(interaction.before ?? []), interaction.target])
        if (!problem && step.kind === 'open' && overlays.has(step.overlay) && !found.has(step.overlay)) {
          found.add(step.overlay);
          look(step.overlay);
        }
  };
  look(screen);
  return found;
}

const gestureOf = ({ on, key, side }: Interaction): string =>
  [on, on === 'key' ? kebabCase(key ?? '') : '', on === 'swipe' ? (side ?? '') : '']
    .filter(Boolean)
    .join('.');
