import { camelCase, pascalCase, uniqueCodeName } from '../../model/names.ts';
import type { Gesture } from '../../model/app.ts';
import { isElement, type MarkupElement, textIn } from './markup.ts';

/** What elements do is known by: which element, and on what. */
export const actId = (key: string | null, on: Gesture): string => `${String(key)} ${on}`;

/** What calls what an element does: what it was drawn to say; of a form what sends it says. */
function labelOf(node: MarkupElement): string {
  const sends = node.isChecked ? submitOf(node) : null;
  if (sends) return labelOf(sends);
  return (
    node.drawnText ?? (textIn(node) || String(node.attributes['aria-label'] ?? node.attributes.value ?? ''))
  );
}

function submitOf(node: MarkupElement): MarkupElement | null {
  if (node.attributes.type === 'submit') return node;
  for (const child of node.children) {
    const found = isElement(child) ? submitOf(child) : null;
    if (found) return found;
  }
  return null;
}

/** The name of the function that does what an element does, if nothing else has it: `handleSend`. */
export function actName(node: MarkupElement, on: Gesture, isTaken: (name: string) => boolean): string {
  const words = pascalCase(labelOf(node).split(/\s+/).slice(0, 3).join(' ')).slice(0, 30);
  const gesture = on === 'press' || node.isChecked ? '' : pascalCase(on);
  const wanted = camelCase(`on ${gesture} ${words || node.tag}`).replace(/^on(?=[A-Z])/, 'handle');
  return uniqueCodeName(wanted, 'handlePress', isTaken);
}

/**
 * Names for all that is done on a view, in reading order, by `actId`: as before where there was one, since people hook in by
 * them.
 * @param isHooked whether an element does something besides its acts
 */
export function actNames(
  root: MarkupElement,
  before: ReadonlyMap<string, string>,
  isHooked: (node: MarkupElement) => boolean,
): ReadonlyMap<string, string> {
  const nodes: (readonly [MarkupElement, Gesture])[] = [];
  const visit = (node: MarkupElement): void => {
    for (const { on } of node.acts ?? []) nodes.push([node, on]);
    if (isHooked(node)) nodes.push([node, 'press']);
    for (const child of node.children) if (isElement(child)) visit(child);
  };
  visit(root);
  const names = new Map<string, string>();
  const taken = new Set<string>();
  for (const [node, on] of nodes) {
    const known = before.get(actId(node.key, on));
    if (known === undefined || taken.has(known)) continue;
    names.set(actId(node.key, on), known);
    taken.add(known);
  }
  for (const [node, on] of nodes) {
    const id = actId(node.key, on);
    if (names.has(id)) continue;
    const name = actName(node, on, (one) => taken.has(one));
    names.set(id, name);
    taken.add(name);
  }
  return names;
}
