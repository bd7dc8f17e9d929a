import { grouped } from '../../../json/grouped.ts';
import type { Laid } from './laid_over.ts';
import type { StyleRule } from '../markup.ts';
import { type ClassUse, type FileStyles, inOrder, type Place } from './places.ts';
import { ruleOf, unitsOf } from './units.ts';

/** Writes the sheet of a file: of each look what it shares with others of the file once, before the first of them, and its own. */
export class SheetWriter {
  readonly #laid: Laid;
  readonly #nameOf: (place: Place, rule: StyleRule) => string;
  readonly #rules: StyleRule[] = [];
  readonly #classes = new Map<string, readonly ClassUse[]>();
  /** Classes that several looks of the file share, not yet written. */
  readonly #open: Map<string, StyleRule>;
  /** What usual looks have in common with those beside them, as it is written. */
  readonly #commons = new Map<Place, readonly ClassUse[]>();

  /** @param own what looks of the file share @param nameOf what the class of what is left of a look is called */
  constructor(laid: Laid, own: readonly StyleRule[], nameOf: (place: Place, rule: StyleRule) => string) {
    this.#laid = laid;
    this.#open = new Map(own.map((rule) => [rule.className, rule]));
    this.#nameOf = nameOf;
  }

  write(places: readonly Place[]): Pick<FileStyles, 'rules' | 'classes'> {
    const { over } = this.#laid;
    const laid = grouped(
      places.filter((place) => over.has(place)),
      (place) => over.get(place)!.rule.className,
    );
    for (const place of places) {
      if (over.has(place)) continue;
      this.#classes.set(place.rule.className, this.#usesOf(place).toSorted(inOrder));
      for (const one of laid.get(place.rule.className) ?? []) this.#writeOver(one, place);
    }
    return { rules: this.#rules, classes: this.#classes };
  }

  /** All that an element is written as that looks so. */
  #usesOf(place: Place): readonly ClassUse[] {
    const usual = this.#laid.usual.get(place);
    if (usual) return [...this.#common(place), ...this.#own(usual)];
    const under = this.#laid.beside.get(place);
    return under ? [...this.#common(under), ...this.#own(place)] : this.#own(place);
  }

  #common(under: Place): readonly ClassUse[] {
    const known = this.#commons.get(under) ?? this.#own(under);
    this.#commons.set(under, known);
    return known;
  }

  /** Writes what is left of a look; gives all that it is written as. */
  #own(place: Place): readonly ClassUse[] {
    const { rule, left, pinned, uses } = place;
    for (const { from, name } of uses) {
      const first = from === 'own' ? this.#open.get(name) : undefined;
      if (first) this.#rules.push(first);
      if (first) this.#open.delete(name);
    }
    if (!left.size && !pinned.size) return uses;
    // In the order that it says it in.
    const own = unitsOf(rule).filter(({ sign }) => left.has(sign) || pinned.has(sign));
    const unnamed = ruleOf(rule.ownName ?? rule.className, rule.key, own);
    const className = this.#nameOf(place, unnamed);
    this.#rules.push({ ...unnamed, className });
    return [...uses, { from: 'own', name: className }];
  }

  /** What is laid over others stands right after them, and is written besides them. */
  #writeOver(place: Place, under: Place): void {
    const { rule, left } = place;
    const unnamed = ruleOf(rule.ownName ?? rule.className, rule.key, [...left.values()]);
    const className = this.#nameOf(place, unnamed);
    this.#rules.push({ ...unnamed, className, isOver: true });
    this.#classes.set(rule.className, [
      ...this.#classes.get(under.rule.className)!,
      { from: 'own', name: className, isOver: true },
    ]);
  }
}
