import { type Element, nameInCode } from '../../../model/design.ts';
import { GIVEN, holdsIcon, isSmall, wordOfClasses, wordOfLayer, wordsIn } from '../../../roles/called.ts';
import { camelCase } from '../../../model/names.ts';
import { roleOf } from '../../../roles/role.ts';

/**
 * What classes are called (docs/NAMING.md): by the author's word for the part, or the layer's; by role; by element; by how
 * the box lays out what is in it. Never by sample text, which changes while the part stays what it is.
 */
export interface ClassName {
  readonly name: string;
  /** Whether it says which part of the page it is, so that what stands in it can be called after it. */
  readonly isOwn: boolean;
}

const TAGS: Readonly<Record<string, string>> = {
  h1: 'title',
  h2: 'title',
  h3: 'title',
  h4: 'title',
  h5: 'title',
  h6: 'title',
  p: 'text',
  small: 'note',
  span: 'label',
  a: 'link',
  img: 'picture',
  svg: 'icon',
  i: 'icon',
  hr: 'rule',
  ul: 'list',
  ol: 'list',
  dl: 'list',
  li: 'item',
  dt: 'term',
  dd: 'meaning',
  tr: 'row',
  td: 'cell',
  th: 'heading',
  thead: 'head',
  tbody: 'body',
  tfoot: 'foot',
  input: 'field',
  textarea: 'field',
  select: 'choice',
  option: 'option',
  iframe: 'frame',
  blockquote: 'quote',
  pre: 'code',
  b: 'strong',
  em: 'emphasis',
  canvas: 'chart',
  fieldset: 'fields',
  main: 'page',
  aside: 'side',
  br: 'break',
};
const ROLES: Readonly<Record<string, string>> = {
  navigation: 'nav',
  banner: 'header',
  contentinfo: 'footer',
  heading: 'title',
  listitem: 'item',
  img: 'picture',
  textbox: 'field',
  searchbox: 'search',
  combobox: 'choice',
  separator: 'rule',
  paragraph: 'text',
  complementary: 'side',
  none: '',
  presentation: '',
  generic: '',
};

/** @param isPage whether the screen was written as a page, with classes; else it was drawn, with layers */
export function classNameOf(element: Element, tag: string, isPage: boolean, isRoot: boolean): ClassName {
  const authored = isPage ? wordOfClasses(element.classes ?? '') : wordOfLayer(element);
  if (isRoot) return { name: authored || 'page', isOwn: false };
  if (holdsIcon(element)) return { name: 'icon', isOwn: false };
  if (isPage && element.kind === 'vector')
    return { name: isSmall(element) ? 'icon' : 'drawing', isOwn: false };
  if (authored) return { name: authored, isOwn: element.kind === 'box' };
  const role = element.role ?? element.attributes?.role ?? (isPage ? '' : (roleOf(element) ?? ''));
  const byRole = ROLES[role] ?? (/^[a-z]+$/.test(role) ? role : '');
  if (byRole) return { name: byRole, isOwn: LANDMARKS.has(byRole) };
  if (element.kind === 'vector' && !isSmall(element)) return { name: 'drawing', isOwn: false };
  const byTag = TAGS[tag];
  if (byTag && !(tag === 'span' && element.children.some((child) => child.tag !== undefined)))
    return { name: byTag, isOwn: false };
  if (/^(nav|header|footer|form|table|button|label|section|article|figure|caption|dialog)$/.test(tag))
    return { name: tag, isOwn: LANDMARKS.has(tag) };
  return { name: boxName(element), isOwn: false };
}

/** What a drawing is called, in words; empty where only its text or its program named it. */
export function drawingOf(
  element: Element,
  within: string,
): { readonly name: string; readonly isSmall: boolean } {
  const words = wordsIn(nameInCode(element)).filter((word) => !GIVEN.has(word) && word !== 'icon');
  return { name: words.slice(0, 3).join(' ') || within, isSmall: isSmall(element) };
}

const LANDMARKS = new Set(['nav', 'header', 'footer', 'side', 'form', 'table', 'search', 'dialog']);

/** What a box without a name is called: by how it lays out what it holds. */
function boxName({ kind, style: { base }, children }: Element): string {
  if (kind === 'text') return 'text';
  if (kind === 'image') return 'picture';
  const display = base.display ?? '';
  if (display.includes('grid')) return 'grid';
  if (display.includes('flex')) return base['flex-direction']?.startsWith('column') ? 'stack' : 'row';
  if (children.length === 1) return 'inner';
  return children.length ? 'group' : 'box';
}

/** Longest name that is made of two. */
const LONGEST = 28;

/** A name with that of the part that it stands in before it: `title` in `card` is `cardTitle`. */
export function qualified(within: string, name: string): string {
  if (!within || within === name) return name;
  const last = wordsIn(within).at(-1);
  const [first, ...rest] = wordsIn(name);
  const own = first === last && rest.length ? camelCase(rest.join(' ')) : name;
  if (name.toLowerCase().startsWith(within.toLowerCase())) return name;
  // A row in a row is what that holds.
  const said = own === last ? 'content' : own;
  const joined = `${within}${said[0].toUpperCase()}${said.slice(1)}`;
  return joined.length > LONGEST ? name : joined;
}
