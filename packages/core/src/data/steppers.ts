import { all, type Change, putBinding, putInteraction, putVariable } from '../change/change.ts';
import type { App } from '../model/app.ts';
import { freeInteractionKey } from '../model/interaction.ts';
import { uniqueName } from '../model/names.ts';
import { type Project, screensByKey, variableNames } from '../model/project.ts';
import { type Sight, sightOf } from '../roles/sight.ts';

/** The number that what counts up and down stands beside. */
interface Counted {
  /** Key of the element that says it: a text, or a field. */
  readonly element: string;
  readonly isField: boolean;
  readonly number: number;
  /** What it is called on the screen. */
  readonly name: string;
}

/** How something counts: the variable, what it becomes, and what has to be there first. */
export interface Stepping {
  readonly condition: string;
  readonly value: string;
  /** Makes the variable, and lets the number say it; nothing where it does already. */
  readonly along: Change | null;
}

/** What an element does that counts up or down the number beside it; null where it stands beside none. */
export function steppingOf(
  { design, app }: Project,
  screen: string,
  element: string,
  by: 'increase' | 'decrease',
): Stepping | null {
  const at = sightOf(screensByKey(design).get(screen)!).byKey.get(element);
  const counted = at && countedBy(at);
  if (!counted) return null;
  const known = variableShownBy(app, counted);
  const free = freeVariable(app, 'count', counted.name);
  const condition = known ?? free.condition;
  const variable = { name: free.name, type: 'number' as const, initial: counted.number };
  const variables = known === null ? { ...app.variables, [condition]: variable } : app.variables;
  const name = variableNames({ variables }).get(condition)!;
  return {
    condition,
    // Nothing is counted below none.
    value: by === 'increase' ? `${name} + 1` : `${name} > 0 ? ${name} - 1 : 0`,
    along:
      known === null
        ? all([putVariable(condition, variable), ...shown(app, counted, condition, name)])
        : null,
  };
}

/** An id and a name that no variable has. */
export function freeVariable(app: App, id: string, name: string): { condition: string; name: string } {
  const taken = new Set(Object.values(app.variables).map((variable) => variable.name.toLowerCase()));
  return {
    condition: uniqueName(id, (one) => !!app.variables[one]),
    name: uniqueName(name, (one) => taken.has(one.toLowerCase()), ' '),
  };
}

/** The number says the variable; what is entered into a field of it is the variable then. */
function shown(app: App, { element, isField }: Counted, condition: string, name: string): Change[] {
  const binding = app.bindings[element] ?? {};
  if (!isField) return [putBinding(element, { ...binding, text: name })];
  return [
    putBinding(element, { ...binding, value: name }),
    putInteraction(freeInteractionKey(app.interactions, element), {
      on: 'change',
      target: { kind: 'set', condition, value: 'entered' },
      arrival: { kind: 'none' },
    }),
  ];
}

/** The variable that a number says already. */
function variableShownBy(app: App, { element }: Counted): string | null {
  const { text, value } = app.bindings[element] ?? {};
  const found = [...variableNames(app)].find(([, name]) => name === text || name === value);
  return found && app.variables[found[0]].type === 'number' ? found[0] : null;
}

/** Levels that a number, and what it is called, are looked for around what counts. */
const FAR = 3;
const NUMBER = /^\d{1,5}$/;

function countedBy(control: Sight): Counted | null {
  let at = control;
  for (let level = 0; at.parent && level < FAR; level++) {
    const around = at.parent;
    const own = around.children.indexOf(at);
    const near = around.children
      .filter((one) => one !== at)
      .sort(
        (a, b) => Math.abs(around.children.indexOf(a) - own) - Math.abs(around.children.indexOf(b) - own),
      );
    for (const one of near) {
      const number = numberIn(one);
      if (number) {
        const first = around.children[Math.min(own, around.children.indexOf(one))];
        return { ...number, name: labelIn(one) ?? nameBefore(first) };
      }
    }
    at = around;
  }
  return null;
}

/** The element within another that is nothing but a number. */
function numberIn(sight: Sight): Omit<Counted, 'name'> | null {
  const { element } = sight;
  if (element.tag === 'input') {
    const { type = 'text', value = '' } = element.attributes ?? {};
    return /^(text|number|tel)$/.test(type) && NUMBER.test(value.trim())
      ? { element: element.key, isField: true, number: Number(value) }
      : null;
  }
  if (!NUMBER.test(sight.text.trim())) {
    const fields = sight.children.map(numberIn).filter((found) => found?.isField);
    return fields.length === 1 ? (fields[0] ?? null) : null;
  }
  let inner = sight;
  for (let next = inner.children.find(({ text }) => NUMBER.test(text.trim())); next;)
    [inner, next] = [next, next.children.find(({ text }) => NUMBER.test(text.trim()))];
  return { element: inner.element.key, isField: false, number: Number(sight.text.trim()) };
}

/** What a field that holds a number says that it is called. */
function labelIn({ element, children }: Sight): string | undefined {
  const own = element.tag === 'input' ? element.attributes?.['aria-label']?.trim() : undefined;
  return own && NAME.test(own) ? own : children.map(labelIn).find((label) => label !== undefined);
}

const NAME = /^\p{L}[\p{L} ’'-]{1,23}$/u;
const isControl = ({ element: { tag, kind } }: Sight): boolean => tag === 'button' || kind === 'control';

/** What stands before something that is counted or chosen, as its name. */
export function nameBefore(stepper: Sight, otherwise = 'Count'): string {
  let at = stepper;
  for (let level = 0; at.parent && level < FAR; level++) {
    const before = at.parent.children.slice(0, at.parent.children.indexOf(at)).toReversed();
    const said = before
      .filter((one) => !isControl(one))
      .map(({ text }) => text.replace(/[:*\s]+$/, '').trim());
    const found = said.find((text) => NAME.test(text));
    if (found !== undefined) return found;
    at = at.parent;
  }
  return otherwise;
}
