import { grouped } from '../../json/grouped.ts';
import { hash } from '../../json/hash.ts';
import type { VectorNode } from '../../model/design.ts';
import type { Sight } from '../../roles/sight.ts';
import type { Pressed } from './evidence.ts';
import type { LinkProposal } from './propose.ts';

/** A menu of fewer entries is like others by chance. */
const LEAST_ENTRIES = 4;
/** Such a part of the entries has the same icons at least. */
const SAME_ICONS = 0.8;
/** Screens whose entry leads to the same one, at least, and as a part of all that are known. */
const LEAST_SCREENS = 2;
const AGREED = 0.8;
/** What is less sure is not known. */
const KNOWN = 0.5;
/** A mark that moves was seen at so many places of a menu. */
const LEAST_MARKED = 3;
/** As sure as an entry is that is known only by its place. */
const SURE = 0.9;

/**
 * Where entries lead that nothing else tells, of menus that have as many entries with the same icons as those of other
 * screens, as the same page has in another language: where those lead, and where they are the marked one.
 * @param proposals what is known of elements, the best first
 */
export function fromSameMenus(
  pressed: readonly Pressed[],
  proposals: readonly LinkProposal[],
): LinkProposal[] {
  const known = new Map<string, LinkProposal>();
  for (const proposal of proposals)
    if (proposal.confidence >= KNOWN && !known.has(proposal.element)) known.set(proposal.element, proposal);
  const entries = [
    ...grouped(
      pressed.filter(({ menu }) => menu !== null),
      ({ menu }) => menu!.element.key,
    ).values(),
  ]
    .filter((menu) => menu.length >= LEAST_ENTRIES)
    .map((menu) => ({ menu, icons: menu.map(({ sight }) => iconIn(sight)) }))
    .filter(({ icons }) => new Set(icons.filter((icon) => icon !== null)).size >= icons.length * SAME_ICONS);
  const alike = grouped(entries, ({ menu }) => String(menu.length));
  return [...alike.values()].flatMap((menus) =>
    menus.flatMap((own) => {
      const others = menus.filter(
        ({ menu, icons }) =>
          menu[0].screen !== own.menu[0].screen &&
          icons.filter((icon, i) => icon !== null && icon === own.icons[i]).length >=
            icons.length * SAME_ICONS,
      );
      const unknown = own.menu.filter(({ sight }) => !known.has(sight.element.key));
      // Where most are known, it is the same language, and the others say nothing that it does not.
      const isForeign = unknown.length * 2 > own.menu.length;
      const marks = marksIn([own, ...others].map(({ menu }) => menu));
      return own.menu.flatMap((entry, i): LinkProposal[] => {
        if (known.has(entry.sight.element.key)) return [];
        const propose = (to: string, reason: string): LinkProposal => ({
          element: entry.sight.element.key,
          to,
          confidence: SURE,
          reason,
        });
        const marked = marks.get(i);
        if (marked) return [propose(marked, 'it is the marked entry of the same menu there')];
        if (!isForeign) return [];
        const told = others.flatMap(({ menu }) => known.get(menu[i].sight.element.key)?.to ?? []);
        const [best] = [...grouped(told, (to) => to)].sort(([, a], [, b]) => b.length - a.length);
        if (!best || best[1].length < LEAST_SCREENS || best[1].length < told.length * AGREED) return [];
        return [
          propose(best[0], `the same entry of this menu leads there on ${best[1].length} other screens`),
        ];
      });
    }),
  );
}

/** The screen on which each entry of one menu is the marked one, by its place; of a menu whose mark moves. */
function marksIn(menus: readonly (readonly Pressed[])[]): ReadonlyMap<number, string> {
  const at = new Map<number, string[]>();
  for (const menu of menus) {
    const marked = menu.flatMap(({ isCurrent }, i) => (isCurrent ? [i] : []));
    if (marked.length === 1) at.set(marked[0], [...(at.get(marked[0]) ?? []), menu[0].screen]);
  }
  if (at.size < LEAST_MARKED) return new Map();
  return new Map([...at].flatMap(([i, screens]) => (screens.length === 1 ? [[i, screens[0]] as const] : [])));
}

/** The icon in an entry, as a sign that is the same for the same; null for none. */
function iconIn({ element, children, text }: Sight): string | null {
  if (element.vector) return hash(shapesIn(element.vector).join());
  if (element.asset) return element.asset;
  // One of a font that did not come along is told by its classes.
  if (!text && !children.length && /^(i|em|span)$/.test(element.tag ?? '') && element.classes)
    return element.classes;
  for (const child of children) {
    const icon = iconIn(child);
    if (icon) return icon;
  }
  return null;
}

/** The shapes of a drawing, without how they are coloured. */
const shapesIn = ({ attributes, children }: VectorNode): string[] => [
  ...Object.entries(attributes).flatMap(([name, value]) => (SHAPE.test(name) ? [`${name} ${value}`] : [])),
  ...children.flatMap((child) => (typeof child === 'string' ? [] : shapesIn(child))),
];
const SHAPE = /^(d|points|c?[xy][12]?|r[xy]?)$/;
