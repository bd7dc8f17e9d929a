import { fileName, kindOfFile, likestEnd, resolveReference } from '../intake/files.ts';
import { isExternalAddress } from '../vocabulary/addresses.ts';
import type { Interaction, Target } from '../model/app.ts';
import type { Element, Screen } from '../model/design.ts';
import { walkElements } from '../model/project.ts';
import { grouped } from '../json/grouped.ts';
import { pressablesOf } from './pressable.ts';

/**
 * The links that the pages themselves have: to a page of the same batch, to a place on one, or to an outside
 * address. An `href` that leads nowhere (`#`, a file that is not there) gives none, so that its element stays open; where the
 * file lies in another folder than it says, as in a menu that was copied from there, it leads to the one of that name.
 */
export function authoredLinks(
  screens: readonly Screen[],
  among: readonly Screen[] = screens,
): Map<string, Interaction> {
  const byFile = new Map([
    ...drawnPages(among),
    ...among.map((screen) => [screen.source.file, screen] as const),
  ]);
  const byName = grouped(
    among
      .filter(({ source }) => !DRAWN.test(source.file))
      .map((screen) => ({ path: screen.source.file, screen })),
    ({ path }) => fileName(path),
  );
  const links = new Map<string, Interaction>();
  for (const screen of screens) {
    for (const { element } of pressablesOf(screen)) {
      const target = targetOf(element.attributes?.href, screen, byFile, byName);
      if (target) links.set(element.key, { on: 'press', target, arrival: { kind: 'none' } });
    }
  }
  return links;
}

/** A page that came in as a drawing, by what the page was called: what is printed still leads to the pages themselves. */
function drawnPages(screens: readonly Screen[]): [string, Screen][] {
  const named = grouped(
    screens.filter(({ source }) => DRAWN.test(source.file)),
    ({ source }) => source.file.replace(DRAWN, ''),
  );
  return [...named].flatMap(([stem, [only, ...more]]): [string, Screen][] =>
    more.length ? [] : ['.html', '.htm'].map((ending) => [stem + ending, only]),
  );
}

const DRAWN = /\.(pdf|svg|png|jpe?g|webp)$/i;

function targetOf(
  href: string | undefined,
  from: Screen,
  byFile: ReadonlyMap<string, Screen>,
  byName: ReadonlyMap<string, readonly { readonly path: string; readonly screen: Screen }[]>,
): Target | null {
  if (!href) return null;
  if (isExternalAddress(href)) return { kind: 'external', href };
  const [path, fragment] = href.split('#', 2);
  const file = path ? resolveReference(path, from.source.file) : from.source.file;
  const there =
    file === null
      ? undefined
      : (byFile.get(file) ?? byFile.get(`${file}.html`) ?? byFile.get(`${file ? `${file}/` : ''}index.html`));
  const screen = there ?? elsewhere(path, byName);
  if (!screen) return null;
  if (!fragment) return path ? { kind: 'screen', screen: screen.key } : null;
  const anchor = elementWithId(screen, fragment);
  if (anchor) return { kind: 'anchor', screen: screen.key, element: anchor.key };
  return path ? { kind: 'screen', screen: screen.key } : null;
}

/** The page that a path leads to which is right but for its folders. */
function elsewhere(
  path: string,
  byName: ReadonlyMap<string, readonly { readonly path: string; readonly screen: Screen }[]>,
): Screen | undefined {
  const plain = path.replace(/\?.*$/, '');
  if (kindOfFile(plain) !== 'html') return undefined;
  const all = byName.get(fileName(plain)) ?? [];
  // Each folder has an index: that of another one is another page.
  const [folder] = /[^/.][^/]*\/index\.x?html?$/i.exec(plain) ?? [''];
  return likestEnd(folder ? all.filter(({ path: one }) => `/${one}`.endsWith(`/${folder}`)) : all, plain)
    ?.screen;
}

function elementWithId(screen: Screen, id: string): Element | null {
  let found: Element | null = null;
  walkElements(screen.root, (element) => {
    if (!found && element.source.id === id) found = element;
    return !found;
  });
  return found;
}
