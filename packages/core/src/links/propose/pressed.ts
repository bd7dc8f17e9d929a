import type { Screen } from '../../model/design.ts';
import { textOf } from '../../model/project.ts';
import { textsIn } from '../../roles/fields.ts';
import { inferRoles } from '../../roles/infer.ts';
import { hasParent, type Sight, sightOf } from '../../roles/sight.ts';
import { areScreens, cardTitle } from './card_title.ts';
import type { Names, Pressed } from './evidence.ts';
import { iconWords } from './icon_evidence.ts';
import { labelOf, pressablesOf } from '../pressable.ts';
import { asOneWord, wordsIn } from './words.ts';

/** All that can be pressed, fields left out. */
export function pressedOn(
  screen: Screen,
  same: (words: readonly string[]) => string[],
  names: ReadonlyMap<string, Names>,
): Pressed[] {
  const guesses = inferRoles(screen);
  const roleOf = (sight: Sight): string => guesses.get(sight.element.key)?.role ?? '';
  const drawn = new Set(pressablesOf(screen).map((one) => one.element.key));
  const sights = sightOf(screen)
    .all.filter(
      (sight) =>
        ['link', 'button', 'tab', 'menuitem'].includes(roleOf(sight)) ||
        sight.element.tag === 'a' ||
        // Rows that were drawn, and so have no link of their own to be pressed.
        (drawn.has(sight.element.key) && !sight.isAuthored),
    )
    .filter((sight) => !holdsLink(sight) && !isWithinLink(sight));
  const menus = new Map<Sight, Sight[]>();
  for (const sight of sights) {
    const menu = menuOf(sight, roleOf);
    if (menu) menus.set(menu, [...(menus.get(menu) ?? []), sight]);
  }
  const currents = new Set<Sight>();
  for (const entries of menus.values()) if (entries.length > 1) markCurrent(entries, currents);
  const inMenu = new Map(
    [...menus].flatMap(([menu, entries]) =>
      entries.length > 1 ? entries.map((entry) => [entry, menu] as const) : [],
    ),
  );
  const pressed = new Set(sights);
  const all = sights.map((sight) => {
    const label = labelOf(sight.element);
    const text = textOf(sight.element);
    // Without a text or a label of its own it is only called by its tag.
    const said =
      text.length > 70
        ? label
        : text ||
          sight.element.attributes?.['aria-label'] ||
          sight.element.attributes?.title ||
          (sight.isAuthored ? '' : label);
    const words = said ? wordsIn(said) : iconWords({ sight });
    const menu = inMenu.get(sight) ?? null;
    const about = cardTitle(sight, said, words, roleOf, (other) => pressed.has(other), menu);
    return { sight, label, said, words, menu, about };
  });
  const isGallery = areScreens(
    all.flatMap(({ about }) => about ?? []),
    names,
    same,
  );
  return all.map(({ sight, label, said, words, menu, about: title }): Pressed => {
    const about = isGallery ? title : null;
    return {
      sight,
      screen: screen.key,
      label,
      ...(about === null ? {} : { about }),
      words: same(about === null ? words : wordsIn(about)),
      asWritten: asOneWord(about ?? said),
      // Cards side by side are no menu.
      menu: about === null ? menu : null,
      isCurrent: currents.has(sight),
    };
  });
}

/** Whether an element only stands around what is pressed: a row of a menu around its link. */
const holdsLink = (sight: Sight): boolean =>
  !/^(a|button)$/.test(sight.element.tag ?? '') && sight.text.length < 70 && holdsAuthored(sight);

/** Whether it is a part of what is pressed as a whole. */
const isWithinLink = (sight: Sight): boolean =>
  hasParent(sight, ({ element, isAuthored }) => isAuthored && /^(a|button)$/.test(element.tag ?? ''));

const holdsAuthored = ({ children, text }: Sight): boolean =>
  children.some(
    (child) => (/^(a|button)$/.test(child.element.tag ?? '') && child.text === text) || holdsAuthored(child),
  );

/** The bar or list that a link stands in. */
function menuOf(sight: Sight, roleOf: (sight: Sight) => string): Sight | null {
  for (let parent = sight.parent, up = 0; parent && up < 5; parent = parent.parent, up++)
    if (
      !/ (nav|menu) (item|link) /.test(parent.words) &&
      (['list', 'navigation', 'tablist'].includes(roleOf(parent)) ||
        / (nav|menu|collapse inner|sidebar|dropdown menu) /.test(parent.words))
    )
      return parent;
  return null;
}

/** The one entry of a menu that is marked: by ARIA, by its name, or by looking unlike all others. */
function markCurrent(entries: readonly Sight[], currents: Set<Sight>): void {
  const holders = (sight: Sight): Sight[] => (sight.parent ? [sight, sight.parent] : [sight]);
  const said = entries.filter((sight) =>
    holders(sight).some(
      (holder) =>
        (holder.element.attributes?.['aria-current'] ?? 'false') !== 'false' ||
        / (active|current|selected|is active|nav on|on) /.test(holder.words),
    ),
  );
  if (said.length && said.length <= Math.max(1, entries.length / 2)) {
    said.forEach((sight) => currents.add(sight));
    return;
  }
  if (entries.length < 3) return;
  const looks = entries.map((sight) => {
    const [text = sight] = textsIn(sight);
    return JSON.stringify([
      text.color,
      text.fontWeight,
      sight.element.style.base['background-color'] ??
        sight.parent?.element.style.base['background-color'] ??
        '',
      sight.element.style.base['border-bottom-width'] ?? '',
    ]);
  });
  const counts = new Map<string, number>();
  for (const look of looks) counts.set(look, (counts.get(look) ?? 0) + 1);
  const rare = looks.flatMap((look, i) => (counts.get(look) === 1 ? [i] : []));
  if (rare.length === 1 && counts.size === 2) currents.add(entries[rare[0]]);
}
