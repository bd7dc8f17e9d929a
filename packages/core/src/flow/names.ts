import { quoted } from './tokens.ts';

/** A name as a sheet says it: the text, and which of those that are called so, from 1. */
export interface Said {
  readonly text: string;
  readonly nth: number;
}

/**
 * What is called how, in the order in which it is counted: of several things of one name the second is `"Details" #2`.
 * Things are known by their keys.
 */
export class Names {
  readonly #byKey = new Map<string, Said>();
  readonly #byText = new Map<string, string[]>();

  readonly #unoffered: ReadonlySet<string>;

  /** @param unoffered keys of what has a name, but is not meant as a rule */
  constructor(
    entries: Iterable<readonly [key: string, name: string]>,
    unoffered: ReadonlySet<string> = new Set(),
  ) {
    this.#unoffered = unoffered;
    for (const [key, name] of entries) {
      if (this.#byKey.has(key)) continue;
      const same = this.#byText.get(name) ?? [];
      this.#byText.set(name, same);
      same.push(key);
      this.#byKey.set(key, { text: name, nth: same.length });
    }
  }

  /** How a thing is written, or null for one that has no name here. */
  print(key: string): string | null {
    const said = this.#byKey.get(key);
    return said ? written(said) : null;
  }

  keyOf({ text, nth }: Said): string | undefined {
    return this.#byText.get(text)?.[nth - 1];
  }

  /** How many are called so. */
  count(text: string): number {
    return this.#byText.get(text)?.length ?? 0;
  }

  /** All names as they are written, without those of what is hardly ever meant. */
  all(): string[] {
    return [...this.#byKey].flatMap(([key, said]) => (this.#unoffered.has(key) ? [] : [written(said)]));
  }

  /** The name that is most like a text, if one is. */
  like(text: string): string | null {
    const wanted = text.toLowerCase();
    let best: { readonly name: string; readonly distance: number } | null = null;
    for (const name of this.#byText.keys()) {
      const distance = editDistance(name.toLowerCase(), wanted, Math.max(1, Math.floor(wanted.length / 3)));
      if (distance !== null && (!best || distance < best.distance)) best = { name, distance };
    }
    return best?.name ?? null;
  }
}

const written = ({ text, nth }: Said): string => (nth > 1 ? `${quoted(text)} #${nth}` : quoted(text));

/**
 * How many letters one has to add, take away or exchange to make one text of the other (Wagner and Fischer 1974), or null
 * where that is more than `most`.
 */
function editDistance(a: string, b: string, most: number): number | null {
  if (Math.abs(a.length - b.length) > most) return null;
  let row = Array.from({ length: b.length + 1 }, (_, i) => i);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++)
      next.push(Math.min(row[j] + 1, next[j - 1] + 1, row[j - 1] + (a[i - 1] === b[j - 1] ? 0 : 1)));
    if (Math.min(...next) > most) return null;
    row = next;
  }
  return row[b.length] <= most ? row[b.length] : null;
}
