import { camelCase, uniqueCodeName } from '../../../model/names.ts';
import type { StyleRule } from '../markup.ts';
import { lookWords } from './look_words.ts';

/** By words, and numbers as numbers. */
export const inWords = new Intl.Collator('en', { numeric: true });

/** A name without the number that tells it from others. */
export const plainName = (className: string): string => className.replace(/\d+$/, '');

function wordedName(wanted: string, rule: StyleRule, isTaken: (name: string) => boolean): string | null {
  for (const word of lookWords(rule)) {
    const name = word.startsWith(wanted) ? word : camelCase(`${wanted} ${word}`);
    if (!wanted.toLowerCase().endsWith(word.toLowerCase()) && !isTaken(name)) return name;
  }
  return null;
}

/** Gives names that no other class of a sheet has; of flat ones, none that can stand on the same page. */
export class Namer {
  readonly #shared = new Set<string>();
  readonly #own: ReadonlyMap<string, Set<string>>;
  readonly #isFlat: boolean;
  /** Sheets that come with several pages. */
  readonly #everywhere: ReadonlySet<string>;

  constructor(files: readonly { readonly id: string; readonly isEverywhere?: boolean }[], isFlat: boolean) {
    this.#own = new Map(files.map(({ id }) => [id, new Set<string>()]));
    this.#isFlat = isFlat;
    this.#everywhere = new Set(files.flatMap(({ id, isEverywhere }) => (isEverywhere ? [id] : [])));
  }

  keepShared(name: string): void {
    this.#shared.add(name);
  }

  keepOwn(file: string, name: string): void {
    this.#own.get(file)!.add(name);
  }

  /** @param rule called what it would be */
  shared(rule: StyleRule): string {
    return this.#take(this.#shared, rule, this.#isFlat ? [...this.#own.values()] : []);
  }

  own(file: string, rule: StyleRule): string {
    const beside = !this.#isFlat
      ? []
      : this.#everywhere.has(file)
        ? [this.#shared, ...this.#own.values()]
        : [this.#shared, ...[...this.#everywhere].map((one) => this.#own.get(one)!)];
    return this.#take(this.#own.get(file)!, rule, beside);
  }

  /** The name that it would have; with a word for what it looks like where another has that; with a number where none is left. */
  #take(taken: Set<string>, rule: StyleRule, beside: readonly ReadonlySet<string>[]): string {
    const wanted = plainName(rule.className);
    const isTaken = (candidate: string): boolean =>
      taken.has(candidate) || beside.some((other) => other.has(candidate));
    const made =
      (isTaken(wanted) ? wordedName(wanted, rule, isTaken) : null) ?? uniqueCodeName(wanted, 'part', isTaken);
    taken.add(made);
    return made;
  }
}
