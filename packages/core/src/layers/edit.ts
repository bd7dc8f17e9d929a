import { type Declarations, designLimits, type Element, type ElementStyle } from '../model/design.ts';
import { type Edit, type EditCondition, parseEditKey } from '../model/edit_key.ts';
import { textOf } from '../model/project.ts';

/** An edit's condition in people's words. */
export function conditionInWords(condition: EditCondition): string {
  switch (condition.kind) {
    case 'always':
      return 'always';
    case 'upTo':
      return `up to ${condition.width} px`;
    case 'from':
      return `from ${condition.width} px`;
    case 'state':
      return `on ${condition.state}`;
  }
}

/** All edits of an app's table, by the element that they are about. */
export function editsByElement(table: Readonly<Record<string, string>>): Map<string, Edit[]> {
  const found = new Map<string, Edit[]>();
  for (const key of Object.keys(table).sort()) {
    const edit = parseEditKey(key);
    if (!edit) continue;
    const list = found.get(edit.element) ?? [];
    list.push({ ...edit, value: table[key] });
    found.set(edit.element, list);
  }
  return found;
}

/** An element and all beneath it with what was edited, itself where nothing was. */
export function withEdits(element: Element, edits: ReadonlyMap<string, readonly Edit[]>): Element {
  const children = inOrder(
    element.children.map((child) => withEdits(child, edits)),
    edits,
  );
  const isSame = children.every((child, i) => child === element.children[i]);
  const own = edits.get(element.key);
  const made = own ? own.reduce(withEdit, isSame ? element : { ...element, children }) : element;
  const edited = own || isSame ? made : { ...element, children };
  const drawnText = edited === element ? '' : textOf(element);
  return drawnText && drawnText !== textOf(edited)
    ? { ...edited, drawnText: drawnText.slice(0, designLimits.text) }
    : edited;
}

/** Siblings after some were given another place; the others keep their order. */
function inOrder(
  children: readonly Element[],
  edits: ReadonlyMap<string, readonly Edit[]>,
): readonly Element[] {
  const moved = children.flatMap((child) => {
    const edit = edits
      .get(child.key)
      ?.find((e) => e.property === 'position' && e.condition.kind === 'always');
    return edit && /^\d{1,4}$/.test(edit.value) ? [{ child, to: Number(edit.value) }] : [];
  });
  if (!moved.length) return children;
  const rest = children.filter((child) => !moved.some((move) => move.child === child));
  for (const { child, to } of moved.sort((a, b) => a.to - b.to)) rest.splice(to, 0, child);
  return rest;
}

function withEdit(element: Element, { condition, property, value }: Edit): Element {
  if (property === 'text') return withText(element, value);
  if (property === 'position' && condition.kind === 'always' && /^\d+$/.test(value)) return element;
  return { ...element, style: withDeclaration(element.style, condition, property, value) };
}

function withDeclaration(
  style: ElementStyle,
  condition: EditCondition,
  property: string,
  value: string,
): ElementStyle {
  const put = (css: Declarations | undefined): Declarations => ({ ...css, [property]: value });
  switch (condition.kind) {
    case 'always':
      return { ...style, base: put(style.base) };
    case 'upTo':
      return { ...style, at: { ...style.at, [condition.width]: put(style.at?.[condition.width]) } };
    case 'from':
      return { ...style, from: { ...style.from, [condition.width]: put(style.from?.[condition.width]) } };
    case 'state':
      return { ...style, [condition.state]: put(style[condition.state]) };
  }
}

/** Another text: of the element itself, of its value or placeholder, or of the first text in it. */
function withText(element: Element, text: string): Element {
  if (element.text !== undefined) return { ...element, text };
  const { attributes = {} } = element;
  if (element.tag === 'input' || element.tag === 'textarea') {
    const name = attributes.placeholder !== undefined && !attributes.value ? 'placeholder' : 'value';
    return { ...element, attributes: { ...attributes, [name]: text } };
  }
  const at = element.children.findIndex((child) => hasText(child));
  if (at < 0) return element;
  return { ...element, children: element.children.with(at, withText(element.children[at], text)) };
}

const hasText = (element: Element): boolean => !!element.text?.trim() || element.children.some(hasText);
