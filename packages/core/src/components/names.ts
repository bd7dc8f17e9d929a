import type { Element } from '../model/design.ts';
import { pascalCase, singular } from '../model/names.ts';
import { holdsIcon, saysButton, wordOfClasses, wordOfLayer } from '../roles/called.ts';
import type { Sight } from '../roles/sight.ts';
import { contentWord, seen } from './contents.ts';
import { headingOver } from './heading_over.ts';

/** How an element is called without numbers, if by anything but its text. */
export function wordOf(sight: Sight): string {
  const { element } = sight;
  const name = sight.isAuthored ? (element.classes ?? '').split(/\s+/)[0] : element.name;
  const plain = name
    .replace(/[\d_]+/g, ' ')
    .trim()
    .toLowerCase();
  return plain && !['box', 'group'].includes(plain) && !sight.text.toLowerCase().startsWith(plain)
    ? plain
    : '';
}

const LISTS = /^(ul|ol)$/;

/** An entry of a list that has a list of its own, such as a group of a menu. */
export const isEntryWithList = ({ element, children }: Sight): boolean =>
  element.tag === 'li' && children.some((child) => LISTS.test(child.element.tag ?? ''));

/** What the names of several layers have in common: `Chip All`, `Chip Wood` → `Chip`. */
function commonWords(all: readonly Sight[]): string {
  if (all.length < 2 || all[0].isAuthored) return '';
  const words = all.map((sight) => new Set(wordOf(sight).split(/\s+/).filter(Boolean)));
  const [first] = words;
  const shared = [...first].filter(
    (word) => words.filter((set) => set.has(word)).length >= words.length * 0.8,
  );
  return shared.length ? pascalCase(shared.join(' ')) : '';
}

/** What an entry is called that has entries of its own. */
const groupName = (name: string): string =>
  name.endsWith('Group') ? name : `${name.replace(/(Item|Entry|Link)$/, '')}Group`;

/** How many containers further out a part may be called after. */
const FURTHEST = 4;

/**
 * A name for a component, and others for where another has that: by what it holds, by more of its author's words, and by what
 * it stands in.
 */
export function namesOf(
  sight: Sight,
  kind: 'component' | 'list',
  all: readonly Sight[],
): { readonly name: string; readonly others: readonly string[] } {
  const called = nameOf(sight, kind, all);
  const name = kind === 'component' && all.every(isEntryWithList) ? groupName(called) : called;
  const told = [holdsWord(all), ...moreWords(all), ...outerWords(sight)].filter(
    (word) => word.length > 2 && !name.toLowerCase().includes(word.toLowerCase()),
  );
  const is = kindName(sight, kind);
  const heading = kind === 'list' ? headingOver(sight) : '';
  // Rows are rather called after where they stand.
  const content = kind === 'component' && name.endsWith(is) ? contentWord(sight) : '';
  return {
    name,
    others: [
      ...(heading ? [`${pascalCase(singular(heading))}${is}`] : []),
      // What is called after what it stands in may as well be called after what it consists of.
      ...(content ? [content] : []),
      ...[...new Set(told)].map((word) => joined(pascalCase(word), name)),
    ],
  };
}

/** Two names as one, which says no word twice: `ModalDialog` and `ModalContent` are `ModalDialogContent`. */
function joined(before: string, name: string): string {
  const words = new Set(before.match(/\p{Lu}\P{Lu}*/gu));
  return before + name.replace(/\p{Lu}\P{Lu}*/gu, (word) => (words.has(word) ? '' : word));
}

/** What all places hold that other parts do not: a table, a chart, a form, a picture. */
function holdsWord(all: readonly Sight[]): string {
  const holds = (element: Element, test: (one: Element) => boolean): boolean =>
    test(element) || element.children.some((child) => holds(child, test));
  const found = HOLDS.find(([, test]) =>
    all.every(({ element }) => element.children.some((child) => holds(child, test))),
  );
  return found?.[0] ?? '';
}
const HOLDS: readonly (readonly [string, (element: Element) => boolean])[] = [
  ['Table', ({ tag }) => tag === 'table'],
  ['Form', ({ tag }) => tag === 'form'],
  ['Chart', ({ tag, role }) => tag === 'canvas' || role === 'chart'],
  ['Field', ({ tag }) => tag === 'input' || tag === 'select' || tag === 'textarea'],
  ['List', ({ tag }) => tag === 'ul' || tag === 'ol'],
  ['Picture', ({ kind }) => kind === 'image'],
  ['Button', ({ tag }) => tag === 'button'],
  ['Titled', ({ tag }) => tag !== undefined && /^h[1-6]$/.test(tag)],
];

/** Words that an author has for all places besides the first. */
function moreWords(all: readonly Sight[]): string[] {
  if (!all[0].isAuthored) return [];
  const [first, ...rest] = all.map(({ element }) => new Set((element.classes ?? '').split(/\s+/)));
  return [...first]
    .filter((word) => rest.every((other) => other.has(word)))
    .flatMap((word) => wordOfClasses(word));
}

/** What the containers around a part are called, from the inside out. */
function outerWords({ parent }: Sight): string[] {
  const words: string[] = [];
  let outer = parent;
  for (let i = 0; outer?.parent && i < FURTHEST; i++, outer = outer.parent) words.push(wordFor(outer));
  return words;
}

/** A name for a component: its author's word for it, or what it is within what it stands in. */
function nameOf(sight: Sight, kind: 'component' | 'list', all: readonly Sight[] = [sight]): string {
  const common = commonWords(all);
  if (common.length > 2) return common;
  const own = wordFor(sight);
  if (own.length > 2) return pascalCase(own);
  const is = kindName(sight, kind);
  // What is nothing but a text is what it is wherever it stands.
  if (sight.element.kind === 'text' && is === 'Button') return is;
  if (is === 'Footer' || is === 'Header' || is === 'Navigation') return is;
  const inner = is === 'Block' ? pascalCase(innerWord(sight)) : '';
  if (inner.length > 2) return inner;
  let outer = sight.parent;
  for (let i = 0; outer?.parent && i < FURTHEST; i++, outer = outer.parent) {
    const word = pascalCase(wordFor(outer)).replace(/(List|s)$/, '');
    if (word.length > 2) return word.endsWith(is) ? word : `${word}${is}`;
  }
  return is === 'Block' ? contentWord(sight) || is : is;
}

/** The word of the author for the one thing that a part is around; nothing where it is around several. */
function innerWord(sight: Sight): string {
  const inner = seen(sight);
  // What a drawing shows is another thing at each place.
  if (inner.length !== 1 || sight.hasOwnText || inner[0].element.kind === 'vector') return '';
  return wordFor(inner[0]) || innerWord(inner[0]);
}

/** The word of the author for an element; icons have those of their library. */
export const wordFor = ({ isAuthored, element }: Sight): string =>
  !isAuthored ? wordOfLayer(element) : holdsIcon(element) ? '' : wordOfClasses(element.classes ?? '');

const BY_TAG: Readonly<Record<string, string>> = {
  button: 'Button',
  dl: 'List',
  figure: 'Figure',
  footer: 'Footer',
  form: 'Form',
  header: 'Header',
  label: 'Label',
  ol: 'List',
  p: 'Text',
  pre: 'Code',
  table: 'Table',
  td: 'Cell',
  th: 'Cell',
  tr: 'Row',
  ul: 'List',
  ...Object.fromEntries([1, 2, 3, 4, 5, 6].map((level) => [`h${level}`, 'Title'])),
};

/** What a part is, where it has no name. */
function kindName({ element, children }: Sight, kind: 'component' | 'list'): string {
  const { tag, role, classes } = element;
  if (role === 'navigation' || tag === 'nav') return 'Navigation';
  if (tag === 'a') return saysButton(classes) ? 'Button' : 'Link';
  const byTag = tag === undefined ? undefined : BY_TAG[tag];
  if (byTag) return byTag;
  const isPressed = role === 'button' || tag === undefined || saysButton(classes);
  if (isPressed && children.length === 1 && children[0].element.kind === 'text') return 'Button';
  return tag === 'li' || kind === 'list' ? 'Item' : 'Block';
}
