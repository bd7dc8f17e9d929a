import { eachPart } from '../expression/expression.ts';
import { parseExpression } from '../expression/language.ts';
import type { App, Target } from '../model/app.ts';
import { elementOfInteraction, sourcesOfStep } from '../model/interaction.ts';
import { variableNames } from '../model/project.ts';
import { boundParts } from '../expression/read_binding.ts';
import { knownAnywhere } from './variables.ts';

/** A place that speaks of a variable. */
export type VariableUse =
  | { readonly what: 'sets' | 'looks' | 'shows'; readonly element: string }
  | { readonly what: 'guards'; readonly screen: string }
  | { readonly what: 'derives'; readonly variable: string };

/** Where an app sets, looks at or shows a variable. */
export function usesOfVariable(app: App, id: string): VariableUse[] {
  const name = variableNames(app).get(id);
  const known = { ...knownAnywhere(app), hasEntered: true };
  const speaks = (source: string): boolean => {
    // What looks at what is at hand is not read here; it says the name all the same.
    const parsed = parseExpression(source, known);
    if (parsed.problem) return new RegExp(`\\b${name}\\b`).test(source);
    let found = false;
    eachPart(parsed.expression, (part) => (found ||= part.kind === 'variable' && part.name === name));
    return found;
  };
  const uses: VariableUse[] = [];
  for (const [key, { when, before = [], target }] of Object.entries(app.interactions)) {
    const element = elementOfInteraction(key);
    const steps = [...before, target] as Target[];
    const spoken = steps.flatMap(sourcesOfStep);
    if (steps.some((one) => one.kind === 'set' && one.condition === id)) uses.push({ what: 'sets', element });
    else if (when?.condition === id || spoken.some(speaks)) uses.push({ what: 'looks', element });
  }
  for (const [element, binding] of Object.entries(app.bindings))
    if (boundParts(binding).some(([, source]) => speaks(source))) uses.push({ what: 'shows', element });
  for (const [screen, { guard }] of Object.entries(app.screens))
    if (guard?.condition === id) uses.push({ what: 'guards', screen });
  for (const [variable, { says }] of Object.entries(app.variables))
    if (variable !== id && says !== undefined && speaks(says)) uses.push({ what: 'derives', variable });
  return uses;
}
