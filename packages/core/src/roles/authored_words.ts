import { camelCase } from '../model/names.ts';

/** Words for what something means, in whatever way a library of classes writes them. */
const MEANINGS = new Set(
  'primary secondary tertiary accent neutral default success danger warning error info notice active disabled selected current featured open closed light dark inverse link ghost outline outlined solid flat raised round rounded pill block small medium large'.split(
    ' ',
  ),
);
const SIZES: Readonly<Record<string, string>> = {
  xs: 'tiny',
  sm: 'small',
  md: 'medium',
  lg: 'large',
  xl: 'huge',
};
const LONGEST = 32;
/** So many elements of a look are looked at. */
const MOST_LOOKED_AT = 40;
/** Words of which a name is made, at most. */
const MOST_WORDS = 3;

/**
 * The words by which whoever wrote the pages told looks of one thing apart, one for each look: `success` of `alert alert-success`
 * where another has `alert alert-danger`. Some may have none, and some the same, where they are told apart by something else, too;
 * all have none where most have, or all have the same.
 * @param looks of each look: the classes of elements that have it
 */
export function authoredWords(looks: readonly (readonly string[])[]): readonly (string | null)[] {
  const none = looks.map(() => null);
  const classes = looks.map((all) => inAll(all.slice(0, MOST_LOOKED_AT)));
  const [first, ...others] = classes;
  const common = new Set([...first].filter((one) => others.every((other) => other.has(one))));
  const tails = classes.map((own) => tailsByStem([...own].filter((one) => !common.has(one))));
  let best: { readonly words: readonly (string | null)[]; readonly worth: number } | null = null;
  for (const stem of new Set(tails.flatMap((one) => [...one.keys()]))) {
    const found = tails.map((one) => one.get(stem) ?? []);
    // A stem that is a class itself is what the thing is called; others say a thing only where that is a meaning.
    const isBlock = stem !== '' && common.has(stem);
    const meant = found.filter((some) => some.some(isMeaning)).length;
    if (!isBlock && meant * 2 < looks.length) continue;
    const [short, long] = [found.map(meantFirst), found.map((some) => some.flat())].map((some) =>
      some.map(wordOf),
    );
    const words =
      new Set(short).size === short.length ? short : new Set(long).size > new Set(short).size ? long : short;
    const told = words.filter((word) => word !== null).length;
    if (told * 2 < looks.length || new Set(words).size < 2) continue;
    const worth = new Set(words).size + told / 10 + (isBlock ? 0.5 : 0) + stem.length / 100;
    if (!best || worth > best.worth) best = { words, worth };
  }
  return best?.words ?? none;
}

const inAll = (all: readonly string[]): ReadonlySet<string> => {
  const [first = new Set<string>(), ...others] = all.map((one) => new Set(one.split(/\s+/).filter(Boolean)));
  return new Set([...first].filter((one) => others.every((other) => other.has(one))));
};

/** What stands behind each beginning of classes, as words: of `btn-outline-primary` behind `btn` and behind `btn-outline`. */
function tailsByStem(classes: readonly string[]): Map<string, string[][]> {
  const tails = new Map<string, string[][]>();
  for (const one of classes) {
    // What machines make up holds digits, and before a colon stands when it counts.
    if (one.length > LONGEST || /[^A-Za-z_-]/.test(one)) continue;
    const words = one.split(/[-_]+/).filter(Boolean);
    for (let at = words.length > 1 ? 1 : 0; at < Math.max(1, words.length); at++) {
      const tail = words.slice(at).map((word) => SIZES[word] ?? word);
      if (tail.some((word) => word.length < 3) || tail.length > MOST_WORDS) continue;
      const stem = words.slice(0, at).join('-');
      tails.set(stem, [...(tails.get(stem) ?? []), tail]);
    }
  }
  return tails;
}

const isMeaning = (words: readonly string[]): boolean => words.some((word) => MEANINGS.has(word));

const meantFirst = (tails: readonly (readonly string[])[]): readonly string[] =>
  tails.find(isMeaning) ?? tails[0] ?? [];

const wordOf = (words: readonly string[]): string | null =>
  camelCase(words.slice(0, MOST_WORDS).join(' ')) || null;
