import { grouped } from '../json/grouped.ts';
import type { Element } from '../model/design.ts';
import { singular } from '../model/names.ts';
import { textOf } from '../model/project.ts';
import { shapeOf } from '../roles/shape.ts';
import { rootOf, type Sight } from '../roles/sight.ts';
import { onceFor } from '../json/once_for.ts';

/** Words of a heading that can be the name of rows. */
const LONGEST = 2;
/** So many of one kind beside each other are records; two may be sections. */
const SEVERAL = 3;
/** How far above the first of its rows a heading stands, in px: a table has its heads and a bar of filters between. */
const NEAR = 240;

/**
 * The heading of what rows stand in, where it can be the name of them; nothing else. What heads one of several that are built the
 * same says which of them it is, and not what they all are; so does the name of a person or a place.
 * @param sight the first of the rows
 */
export function headingOver(sight: Sight): string {
  const { box } = sight.element;
  const isOver = ({ box: own }: Element): boolean =>
    own.y < box.y &&
    box.y - (own.y + own.height) < NEAR &&
    own.x < box.x + box.width &&
    own.x + own.width > box.x;
  const screen = rootOf(sight);
  for (let outer = sight.parent; outer; outer = outer.parent) {
    const nearest = headingsIn(outer.element).filter(isOver).at(-1);
    if (!nearest) continue;
    const said = textOf(nearest);
    if (isNameOfKind(said, screen)) return said;
    if (!isOneOfSeveral(outer)) return '';
  }
  return '';
}

/** Headings of an element, without those that stand in one of several of the same kind. */
function headingsIn(element: Element): Element[] {
  if (/^h[1-6]$/.test(element.tag ?? '')) return [element];
  const alike = grouped(element.children, shapeOf);
  return element.children.flatMap((child) =>
    child.children.length && isTag(child) && alike.get(shapeOf(child))!.length >= SEVERAL
      ? []
      : headingsIn(child),
  );
}

/** Headings of one line can have children, which are no records. */
const isTag = ({ tag = '' }: Element): boolean => !/^h[1-6]$/.test(tag);

const isOneOfSeveral = ({ element, parent }: Sight): boolean =>
  (parent?.element.children.filter((other) => shapeOf(other) === shapeOf(element)).length ?? 0) >= SEVERAL;

/**
 * Whether words say what several things are, and are not the name of somebody: one of them is said elsewhere as a word of the
 * language, means many, or is built like a word for a thing or what is done.
 */
function isNameOfKind(said: string, screen: Sight): boolean {
  const words = said.split(/\s+/);
  if (words.length > LONGEST || !/^[\p{L}\s]+$/u.test(said)) return false;
  const known = wordsOf(screen.element);
  return words.some((word) => {
    const lower = word.toLowerCase();
    return singular(lower) !== lower || known.has(lower) || BUILT_AS_WORD.test(word);
  });
}
const BUILT_AS_WORD =
  /(ion|ity|ment|ing|ics?|[ae]nce|age|ness|ive|[ao]ry|al|[ai]ble|ed|ure|ship|view|list|board|line|chart|form|est)$|^\p{Lu}{2,}$/u;

/** Words that a screen says as such, and not as names: in small letters, or in what its author called something. */
const wordsOf = onceFor((root: Element): ReadonlySet<string> => {
  const found = new Set<string>();
  const visit = ({ classes, text, children }: Element): void => {
    for (const [word] of `${text ?? ''} ${classes ?? ''}`.matchAll(/(?<!\p{L})\p{Ll}{3,}(?!\p{L})/gu))
      found.add(word);
    children.forEach(visit);
  };
  visit(root);
  return found;
});
