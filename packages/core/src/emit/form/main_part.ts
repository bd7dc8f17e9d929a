import type { Element } from '../../model/design.ts';
import { walkElements } from '../../model/project.ts';
import { roleOf } from '../../roles/role.ts';

/** What stands around the main part of a page, by its tag and by its role. */
const AROUND_TAGS: ReadonlySet<string> = new Set(['header', 'footer', 'nav', 'aside']);
const AROUND_ROLES: ReadonlySet<string> = new Set([
  'banner',
  'contentinfo',
  'navigation',
  'complementary',
  'search',
]);
/** What a page is wrapped in is followed so far. */
const DEEPEST = 8;

/**
 * The main part of a page: the first that it calls so, else what is left of it without the bars at its head, foot and sides;
 * null where that is the page as a whole.
 */
export const mainOf = (root: Element): Element | null => calledMain(root) ?? mainAmongBars(root);

function calledMain(root: Element): Element | null {
  let main: Element | null = null;
  walkElements(root, (element) => {
    const isMain = element.tag === 'main' || element.attributes?.role === 'main';
    if (isMain && element !== root && !element.hidden) main ??= element;
    return main === null;
  });
  return main;
}

function mainAmongBars(root: Element): Element | null {
  let found: Element | null = null;
  let at = root;
  for (let depth = 0; depth < DEEPEST; depth++) {
    const shown = at.children.filter(isShown);
    const parts = shown.filter((child) => !isAround(child));
    const [main] = parts;
    // What else stands there would be in no part of the page at all.
    if (parts.length !== 1 || main.kind !== 'box' || !isPlain(main)) break;
    if (parts.length < shown.length) found = main;
    at = main;
  }
  return found;
}

const isShown = ({ hidden, box }: Element): boolean => !hidden && box.width > 0 && box.height > 0;

/** Whether it is a bar of the page: what lies within a card may be called a header, too, but stands in no page by itself. */
const isAround = (element: Element): boolean =>
  AROUND_TAGS.has(element.tag ?? '') || AROUND_ROLES.has(element.attributes?.role ?? roleOf(element) ?? '');

/** Whether it is nothing by itself, so that it can be the main part. */
const isPlain = (element: Element): boolean =>
  ['div', 'section', undefined].includes(element.tag) && (roleOf(element) ?? 'group') === 'group';
