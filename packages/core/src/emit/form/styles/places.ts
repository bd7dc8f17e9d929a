import { hash } from '../../../json/hash.ts';
import type { FileBefore, LookBefore } from '../before.ts';
import type { StyleRule } from '../markup.ts';
import { type Unit, unitsOf } from './units.ts';

/** A class as it is written: of the file's own sheet, or of the one that all share. */
export interface ClassUse {
  readonly from: 'own' | 'shared';
  readonly name: string;
  /** Whether it says otherwise what those before it say. */
  readonly isOver?: true;
}

/** Where the classes of a file went: each is written as these, in order. */
export interface FileStyles {
  /** Rules of the file's own sheet. */
  readonly rules: readonly StyleRule[];
  readonly classes: ReadonlyMap<string, readonly ClassUse[]>;
  /** Of a file in which nothing looks otherwise than before: how it was written, and is still. */
  readonly asBefore: FileBefore | null;
}

/** A rule as it stands in one file. */
export interface Place {
  readonly file: string;
  readonly rule: StyleRule;
  /** What is left of it for its own sheet, by sign. */
  readonly left: Map<string, Unit>;
  /** What classes that are laid over it say otherwise, so that it stays in the sheet that they are in, before them. */
  readonly pinned: Map<string, Unit>;
  readonly uses: ClassUse[];
  /** How it was written before. */
  readonly before: LookBefore | undefined;
  /** Whether it looks as it did: it is written as it was. */
  readonly isSettled: boolean;
}

/** Whether all of some units are left to be said. */
export const says = ({ left }: Place, units: readonly Unit[] | undefined): units is readonly Unit[] =>
  units !== undefined && units.length > 0 && units.every(({ sign }) => left.has(sign));

/** Takes units out of what is left to be said. */
export function leave({ left }: Pick<Place, 'left'>, units: readonly Unit[]): void {
  for (const { sign } of units) left.delete(sign);
}

/** The same of a class in the sheet of the file, where others may be laid over what it says. */
export const saysInSheet = ({ left, pinned }: Place, units: readonly Unit[]): boolean =>
  units.length > 0 && units.every(({ sign }) => left.has(sign) || pinned.has(sign));

export function leaveSheet(place: Place, units: readonly Unit[]): void {
  leave(place, units);
  for (const { sign } of units) place.pinned.delete(sign);
}

export const linesOf = (units: readonly Unit[]): number => units.reduce((sum, { lines }) => sum + lines, 0);

export const bySign = (units: readonly Unit[]): Map<string, Unit> =>
  new Map(units.map((unit) => [unit.sign, unit]));

/** A hash of all that a rule says, whatever the order that it says it in. */
export const lookSign = (rule: StyleRule): string =>
  hash(
    unitsOf(rule)
      .map(({ sign }) => sign)
      .toSorted()
      .join('\n'),
  );

/** What is left of a rule, to be compared. */
export const signOf = ({ left }: Pick<Place, 'left'>): string => [...left.keys()].toSorted().join('\n');

/** Those that files share first, then those of the file by name: the same set is always said in the same order. */
export const inOrder = (a: ClassUse, b: ClassUse): number =>
  Number(b.from === 'shared') - Number(a.from === 'shared') ||
  (a.from === 'own' && a.name !== b.name ? (a.name < b.name ? -1 : 1) : 0);
