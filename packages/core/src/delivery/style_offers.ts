import { all, type Change, putEdit } from '../change/change.ts';
import { always, type EditCondition, editKey, editProblem } from '../model/edit_key.ts';

/** A declaration that somebody wrote otherwise, as a change of the project. */
export interface StyleMeaning {
  readonly says: string;
  readonly change: Change;
}

const DECLARATION = /^([a-z-]+): ([^;{}]+);$/;
const SIDES = ['top', 'right', 'bottom', 'left'] as const;
const CORNERS = ['top-left', 'top-right', 'bottom-right', 'bottom-left'] as const;

/** The longhands of a declaration, by name; empty for a shorthand that is not taken apart here. */
export function longhandsOf(property: string, value: string): Readonly<Record<string, string>> {
  const parts = value.trim().split(/\s+(?![^(]*\))/);
  // As CSS counts them: of four sides those that are not said are as the one opposite.
  const four = [0, 1, 2, 3].map((i) => parts[i] ?? parts[i - 2] ?? parts[0]);
  if (property === 'margin' || property === 'padding')
    return parts.length > 4
      ? {}
      : Object.fromEntries(SIDES.map((side, i) => [`${property}-${side}`, four[i]]));
  if (property === 'border-radius')
    return parts.length > 4 || value.includes('/')
      ? {}
      : Object.fromEntries(CORNERS.map((corner, i) => [`border-${corner}-radius`, four[i]]));
  if (property === 'gap')
    return parts.length > 2 ? {} : { 'row-gap': parts[0], 'column-gap': parts[1] ?? parts[0] };
  return { [property]: value.trim() };
}

/** When the rule holds that a line of a sheet stands in; null for a rule that an edit cannot be about. */
export function conditionAt(lines: readonly string[], line: number): EditCondition | null {
  const around: string[] = [];
  let depth = 0;
  for (let i = line - 1; i >= 0; i--) {
    const text = lines[i].trim();
    if (text === '}') depth++;
    else if (text.endsWith('{') && depth-- === 0) {
      around.push(text.slice(0, -1).trim());
      depth = 0;
    }
  }
  const [selector, ...outer] = around;
  if (selector === undefined || outer.length > 1) return null;
  const [, name, state] = /^\.([\w-]+)(:hover|:focus-visible|:disabled)?$/.exec(selector) ?? [];
  if (name === undefined) return null;
  const [, sign, width] = /^@media \(width (<=|>=) (\d+)px\)$/.exec(outer[0] ?? '') ?? [];
  if (outer.length && (width === undefined || state !== undefined)) return null;
  if (width !== undefined) return { kind: sign === '<=' ? 'upTo' : 'from', width: Number(width) };
  if (state === undefined) return always;
  return {
    kind: 'state',
    state: state === ':hover' ? 'hover' : state === ':disabled' ? 'disabled' : 'focus',
  };
}

/**
 * What a declaration that somebody wrote otherwise means for the element of its rule.
 * @param lines the sheet as it was written
 * @param at the line of the declaration in it, from 0
 */
export function styleMeaning(
  element: string,
  lines: readonly string[],
  at: number,
  now: string,
): StyleMeaning | null {
  const [was, is] = [lines[at].trim(), now].map((text) => DECLARATION.exec(text));
  if (!was || !is || was[1] !== is[1] || was[2] === is[2]) return null;
  const condition = conditionAt(lines, at);
  if (!condition) return null;
  const [before, after] = [longhandsOf(was[1], was[2]), longhandsOf(is[1], is[2])];
  const changes = Object.entries(after).flatMap(([property, value]) => {
    const key = editKey(element, property, condition);
    return before[property] === value ? [] : [{ key, value, problem: editProblem(key, value) }];
  });
  if (!changes.length || changes.some(({ problem }) => problem !== null)) return null;
  const puts = changes.map(({ key, value }) => putEdit(key, value));
  return { says: `${is[1]}: ${is[2]}, was ${was[2]}`, change: puts.length === 1 ? puts[0] : all(puts) };
}
