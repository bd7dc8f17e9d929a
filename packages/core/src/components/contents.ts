import type { Element } from '../model/design.ts';
import { plural } from '../model/names.ts';
import { isSmall } from '../roles/called.ts';
import { shapeOf } from '../roles/shape.ts';
import type { Sight } from '../roles/sight.ts';

/** What an element is to whoever looks at it, where it is one thing. */
function thingOf({ element, children, hasOwnText }: Sight): string {
  const { tag = '', kind, vector } = element;
  if (/^h[1-6]$/.test(tag)) return 'Title';
  if (tag === 'table') return 'Table';
  if (/^(ul|ol|dl)$/.test(tag)) return 'List';
  if (tag === 'form') return 'Form';
  if (/^(input|select|textarea)$/.test(tag)) return 'Field';
  if (tag === 'blockquote') return 'Quote';
  if (tag === 'button') return 'Button';
  if (tag === 'a' && (hasOwnText || children.length === 0)) return 'Link';
  if (kind === 'image') return 'Picture';
  if (vector || tag === 'svg') return isSmall(element) ? 'Icon' : 'Drawing';
  if (tag === 'i' && !element.text?.trim()) return 'Icon';
  return hasOwnText ? 'Text' : '';
}

/** The things that an element shows, each once, in the order in which they are first seen. */
function thingsIn(sight: Sight, found = new Set<string>()): ReadonlySet<string> {
  if (sight.element.hidden) return found;
  const thing = thingOf(sight);
  if (thing) found.add(thing);
  else for (const child of sight.children) thingsIn(child, found);
  return found;
}

/** What stands in an element and is not hidden. */
export const seen = ({ children }: Sight): readonly Sight[] =>
  children.filter(({ element }) => !element.hidden);

/**
 * A name for what nothing names, by what it consists of: `IconText`, `TitledList`, and the plural where it is several of one
 * kind beside each other; nothing where that is too much for a name.
 */
export function contentWord(sight: Sight): string {
  const inner = seen(sight);
  if (inner.length === 1 && !thingOf(sight)) return contentWord(inner[0]);
  const [first] = inner;
  const areAlike = inner.length > 1 && inner.every(({ element }) => isAlike(element, first.element));
  if (areAlike) {
    const one = contentWord(first);
    return one && plural(one);
  }
  const things = thingsIn(sight);
  const has = (thing: string): boolean => things.has(thing);
  const sign = ['Picture', 'Drawing', 'Icon'].find(has) ?? '';
  const act = has('Button') || has('Link');
  const main = ['Table', 'Form', 'Quote', 'List', 'Field'].find(has);
  if (main) return has('Title') ? `Titled${main}` : sign ? `${sign}${main}` : main;
  if (has('Title')) return act ? 'CallToAction' : has('Text') || sign ? `${sign || 'Titled'}Text` : 'Title';
  if (sign) return has('Text') ? `${sign}Text` : act ? `${sign}Link` : sign;
  return '';
}

const isAlike = (one: Element, other: Element): boolean =>
  one === other || (one.tag === other.tag && shapeOf(one) === shapeOf(other));
