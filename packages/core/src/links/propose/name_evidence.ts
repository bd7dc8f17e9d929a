import type { Screen } from '../../model/design.ts';
import { baseName } from '../../intake/files.ts';
import { inferRoles } from '../../roles/infer.ts';
import { hasParent, type Sight, sightOf } from '../../roles/sight.ts';
import type { Evidence, Names, Pressed } from './evidence.ts';
import { asOneWord, wordLikeness, wordsIn } from './words.ts';

/** Which words are in the names of most screens and so tell nothing. */
export function weightOf(names: ReadonlyMap<string, Names>): (word: string) => number {
  const counts = new Map<string, number>();
  for (const { title, file, headings } of names.values())
    for (const word of new Set([...title, ...file, ...headings.flat()]))
      counts.set(word, (counts.get(word) ?? 0) + 1);
  return (word) => 1 / Math.max(1, counts.get(word) ?? 1) ** 0.5;
}

/** What a file or a screen is called that nobody named. */
const NUMBERED = /^(screen|page|frame|artboard|untitled)?[-_ ]?\d*$/i;

export function namesOf(
  screens: readonly Screen[],
  same: (words: readonly string[]) => string[],
): Map<string, Names> {
  const titles = new Map(
    screens.map((screen) => [screen.key, same(wordsIn(screen.title ?? screen.name))] as const),
  );
  // What stands in the titles of most screens is the name of the app.
  const counts = new Map<string, number>();
  for (const words of titles.values())
    for (const word of words) counts.set(word, (counts.get(word) ?? 0) + 1);
  const isCommon = (word: string): boolean =>
    screens.length > 2 && (counts.get(word) ?? 0) > screens.length * 0.6;
  return new Map(
    screens.map((screen): [string, Names] => {
      const file = baseName(screen.source.file).replace(/\.[^.]*$/, '');
      const isNamed = !NUMBERED.test(file);
      const headings = headingsOf(screen);
      return [
        screen.key,
        {
          title: titles.get(screen.key)!.filter((word) => !isCommon(word)),
          file: isNamed ? same(wordsIn(file)) : [],
          headings: headings.map((text) => same(wordsIn(text))),
          asWritten: {
            names: new Set([file, screen.name].filter((name) => !NUMBERED.test(name)).map(asOneWord)),
            headings: new Set(headings.map(asOneWord)),
          },
        },
      ];
    }),
  );
}

/** The largest headings of a screen that are its own, not those of the bars around it. */
function headingsOf(screen: Screen): string[] {
  const guesses = inferRoles(screen);
  const roleOf = (sight: Sight): string => guesses.get(sight.element.key)?.role ?? '';
  const found = sightOf(screen)
    .all.filter(
      (sight) =>
        roleOf(sight) === 'heading' &&
        !sight.element.hidden &&
        sight.text.length < 90 &&
        !hasParent(
          sight,
          (parent) =>
            ['navigation', 'dialog', 'listitem', 'contentinfo'].includes(roleOf(parent)) ||
            !!parent.element.hidden,
        ),
    )
    .sort((a, b) => b.fontSize - a.fontSize || a.element.box.y - b.element.box.y);
  return found.slice(0, 2).map((sight) => sight.text);
}

/** A label that only opens or closes something. */
export const TOGGLE = / (toggle|toggler|collapsed|dropdown toggle|close|accordion|hamburger|carousel) /;

export function fromNames(
  element: Pressed,
  names: ReadonlyMap<string, Names>,
  byWord: ReadonlyMap<string, ReadonlySet<string>>,
  weight: (word: string) => number,
): Evidence[] {
  const { words } = element;
  // A number says a page of a list, a count or a day.
  if (!words.some((word) => /\p{L}/u.test(word)) || words.length > 9) return [];
  const candidates = new Set(words.flatMap((word) => [...(byWord.get(word) ?? [])]));
  const isToggle = TOGGLE.test(element.sight.words);
  const found: Evidence[] = [];
  for (const to of candidates) {
    const { title, file, headings } = names.get(to)!;
    const likenesses: [likeness: number, what: string][] = [
      [wordLikeness(words, title, weight), 'is what the screen is called'],
      [wordLikeness(words, file, weight), 'is in the name of its file'],
      ...headings.map((heading, i): [number, string] => [
        wordLikeness(words, heading, weight) * (i ? 0.85 : 0.95),
        'is its heading',
      ]),
    ];
    const [likeness, what] = likenesses.sort((a, b) => b[0] - a[0])[0];
    const second = likenesses[1][0];
    if (likeness < 0.3) continue;
    const strength =
      Math.min(0.94, likeness * 0.84 + second * 0.1) *
      (isToggle ? 0.25 : 1) *
      (to === element.screen && !element.menu ? 0.2 : 1);
    const said =
      element.about === undefined ? `“${element.label}”` : `“${element.about}” above “${element.label}”`;
    found.push({ kind: 'name', to, strength, reason: `${said} ${what}` });
  }
  return found;
}
