import { camelCase, capital, uniqueCodeName } from '../../../model/names.ts';
import { PRINT_WIDTH } from '../../line_width.ts';
import { isElement, mapChildren, type MarkupElement, type PropValue } from '../markup.ts';
import type { EmittedList } from './lists.ts';

/** Records of more lines than this stand beside what shows them, and not in the midst of its markup. */
const MOST_LINES = 10;
/** Words of a text that a list can be called after. */
const MOST_WORDS = 3;
/** What a record that stands in one line has around it. */
const AROUND = 12;

type Items = Extract<PropValue, { readonly items: unknown }>;

/**
 * Markup in which long lists that components are given are constants of their own.
 * @param lists what stands beside it already
 * @param isTaken names that a constant cannot have besides theirs
 */
export function withGivenLists(
  root: MarkupElement,
  lists: readonly EmittedList[],
  isTaken: (name: string) => boolean,
): { readonly root: MarkupElement; readonly lists: readonly EmittedList[] } {
  const all = [...lists];
  const isUsed = (name: string): boolean => isTaken(name) || all.some(({ data }) => data === name);
  const visit = (node: MarkupElement): MarkupElement => {
    const made = mapChildren(node, (child) => (isElement(child) ? visit(child) : child));
    const { use } = made;
    if (!use) return made;
    let props = use.props;
    for (const [prop, value] of Object.entries(use.props)) {
      if (!isLong(value)) continue;
      const { items } = value;
      const data = uniqueCodeName(`${calledAfter(use)}${capital(prop)}`, prop, isUsed);
      all.push({ data, component: use.component, prop, records: [], items, rows: [] });
      props = { ...props, [prop]: { items, as: data } };
    }
    return props === use.props ? made : { ...made, use: { ...use, props } };
  };
  return { root: visit(root), lists: all };
}

function isLong(value: PropValue): value is Items {
  if (typeof value !== 'object' || !('items' in value)) return false;
  let lines = 0;
  for (const item of value.items) {
    if (typeof item === 'string') lines++;
    else if (!Object.values(item).every(isFixed)) return false;
    else lines += lengthOf(item) + AROUND > PRINT_WIDTH ? Object.keys(item).length + 2 : 1;
  }
  return lines > MOST_LINES;
}

/** Whether a value is the same whatever is given to what it stands in. */
function isFixed(value: PropValue): boolean {
  if (typeof value !== 'object') return true;
  if ('items' in value)
    return value.items.every((item) => typeof item === 'string' || Object.values(item).every(isFixed));
  if ('node' in value) return isDrawing(value.node);
  return 'asset' in value;
}

/** Whether markup is a drawing by itself, whatever stands around it. */
const isDrawing = ({ tag, link, when, each, use, children }: MarkupElement): boolean =>
  !link &&
  !when &&
  !each &&
  (!use || Object.values(use.props).every(isFixed)) &&
  (tag === 'svg' || use !== undefined || children.length === 0) &&
  children.every((child) => ('text' in child ? !child.given : isElement(child) && isDrawing(child)));

/** Letters of a drawing with its class, as it is used. */
const DRAWN = 50;

/** About how many letters a record takes in one line. */
const lengthOf = (item: Readonly<Record<string, PropValue>>): number =>
  Object.entries(item).reduce(
    (sum, [name, value]) =>
      sum +
      name.length +
      (typeof value === 'object' && 'node' in value ? DRAWN : JSON.stringify(value).length + 4),
    0,
  );

/** What a list is called after: what is said beside it, or what shows it. */
function calledAfter({ component, props }: NonNullable<MarkupElement['use']>): string {
  const said = Object.values(props).find(
    (value) =>
      typeof value === 'string' &&
      /^\p{Lu}[\p{L}\s]+$/u.test(value) &&
      value.split(/\s+/).length <= MOST_WORDS,
  );
  return camelCase(typeof said === 'string' ? said : component);
}
