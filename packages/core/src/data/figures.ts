import { number } from '../expression/functions.ts';
import { recordName, recordVariable } from '../model/names.ts';
import { quoted } from '../variables/settings.ts';
import { choicesOf, typeOfValue } from './value_types.ts';
import type { CollectionProposal } from './collections.ts';
import type { ProposedField } from './fields.ts';

/** What a number beside a label is worked out from: how many records say something in a field, or what they say together. */
export type Figure =
  | { readonly kind: 'count'; readonly of: string; readonly field: string; readonly says: string }
  | { readonly kind: 'sum'; readonly of: string; readonly field: string };

/** A figure as an expression, over a collection that is called so. */
export function printFigure(figure: Figure, collection: string): string {
  const one = recordVariable(collection);
  return figure.kind === 'sum'
    ? `sum(${collection}, (${one}) => ${one}.${figure.field})`
    : `count(filter(${collection}, (${one}) => ${one}.${figure.field} === ${quoted(figure.says)}))`;
}

export interface FoundFigure {
  readonly figure: Figure;
  readonly confidence: number;
  readonly reason: string;
}

/** Sums of fewer records, and sums below this, are often the same by chance. */
const LEAST = { records: 3, sum: 10 } as const;

/**
 * What a number is, that stands beside a label: `Trips out` 2, where two trips are drawn whose state is `Out`; `Earned` € 352.00,
 * where that is what all prices come to.
 * @param text a number alone, or an amount of money
 */
export function figureFor(
  text: string,
  label: string,
  collections: readonly CollectionProposal[],
): FoundFigure | null {
  const type = typeOfValue(text);
  if (type !== 'number' && type !== 'money') return null;
  const value = number(text);
  const found = collections.flatMap((collection): FoundFigure[] => {
    const records = recordsIn(collection);
    const isCalled = wordsOf(label).some((word) => word === recordName(lastWord(collection.name)));
    return [
      ...(type === 'number' ? countsOf(collection, records, value, label, isCalled) : []),
      ...sumsOf(collection, records, value, type, label, isCalled),
    ];
  });
  return found.sort((a, b) => b.confidence - a.confidence)[0] ?? null;
}

type Record = Readonly<globalThis.Record<string, string>>;

function countsOf(
  { name, fields }: CollectionProposal,
  records: readonly Record[],
  value: number,
  label: string,
  isCalled: boolean,
): FoundFigure[] {
  return fields
    .filter(({ type }) => type === 'one-of')
    .flatMap((field) =>
      choicesOf(records.map((record) => record[field.name] ?? ''))
        .filter((says) => holdsWords(label, says))
        .flatMap((says): FoundFigure[] => {
          const drawn = records.filter((record) => record[field.name] === says).length;
          // Others may be on other pages, but none that is drawn is not there.
          if (drawn !== value && !(isCalled && value > drawn)) return [];
          return [
            {
              figure: { kind: 'count', of: name, field: field.name, says },
              confidence: (drawn === value ? 0.75 : 0.55) + (isCalled ? 0.1 : 0),
              reason:
                drawn === value
                  ? `${drawn} of ${records.length} ${name} ${drawn === 1 ? 'says' : 'say'} “${says}”, as “${label}” beside it does`
                  : `“${label}” beside it says ${name} and “${says}”`,
            },
          ];
        }),
    );
}

function sumsOf(
  { name, fields }: CollectionProposal,
  records: readonly Record[],
  value: number,
  type: 'number' | 'money',
  label: string,
  isCalled: boolean,
): FoundFigure[] {
  if (records.length < LEAST.records || Math.abs(value) < LEAST.sum) return [];
  return fields
    .filter((field) => field.type === type)
    .flatMap((field): FoundFigure[] => {
      const all = records.reduce((sum, record) => sum + number(record[field.name]), 0);
      if (Math.abs(all - value) > 0.005) return [];
      const isNamed = isCalled || namesField(label, field);
      return [
        {
          figure: { kind: 'sum', of: name, field: field.name },
          confidence: isNamed ? 0.85 : 0.75,
          reason: `it is what “${field.label || field.name}” of all ${name} comes to`,
        },
      ];
    });
}

const namesField = (label: string, { name }: ProposedField): boolean => {
  const words = wordsOf(label);
  return wordsOf(name.replace(/([a-z])([A-Z])/g, '$1 $2')).some((word) => words.includes(word));
};

const drawn = new WeakMap<CollectionProposal, readonly Record[]>();

/** The records of a collection as they are drawn, each once, wherever that is; kept with the proposal. */
function recordsIn(collection: CollectionProposal): readonly Record[] {
  const known = drawn.get(collection);
  if (known) return known;
  const signs = new Set<string>();
  const found = collection.places.flatMap(({ records }, i) =>
    records.filter((record) => {
      const sign = JSON.stringify(record);
      // Rows of one list that say the same are two all the same.
      const isDrawnElsewhere = i > 0 && signs.has(sign);
      signs.add(sign);
      return !isDrawnElsewhere;
    }),
  );
  drawn.set(collection, found);
  return found;
}

/** Words in small letters, each in the singular. */
const wordsOf = (text: string): string[] =>
  text
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)
    .map(recordName);

/** The last word in a name of code, in small letters: `deskTools` ends in `tools`. */
export const lastWord = (name: string): string => (/[A-Z]?[a-z]+$/.exec(name)?.[0] ?? name).toLowerCase();

const plain = (text: string): string =>
  ` ${text
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()} `;
/** Whether a text holds other words, whole and in order. */
export const holdsWords = (text: string, words: string): boolean =>
  plain(words).trim() !== '' && plain(text).includes(plain(words));
