import { tokenizer } from 'acorn';
import { ENTERED, FUNCTIONS, type KnownNames, LONGEST_EXPRESSION, QUESTIONS } from './language.ts';

/** Something that can be written at a place of an expression. */
export interface Completion {
  readonly text: string;
  readonly says: string;
}

/**
 * What can be written where the cursor stands, with what of it is there already: names of collections, variables, functions
 * and items, and after a dot the fields of a record.
 * @param at the cursor, from 0 on
 */
export function completionsAt(
  source: string,
  at: number,
  known: KnownNames,
): { readonly from: number; readonly completions: readonly Completion[] } {
  const before = source.slice(0, Math.min(at, LONGEST_EXPRESSION));
  const typed = /[\w$]*$/.exec(before)![0];
  const from = before.length - typed.length;
  const { items, isInText } = around(before, known);
  const isAfterDot = before[from - 1] === '.';
  // What is complete is not gone on with unasked.
  const isOpen = typed !== '' || isAfterDot || /(^|[(,{+\-*/<>=!&|?:])\s*$/.test(before);
  if (isInText || !isOpen) return { from, completions: [] };
  const record = isAfterDot ? /([\w$]+)\.$/.exec(before.slice(0, from))?.[1] : undefined;
  const of = record === undefined ? undefined : collectionOf(record, items, known);
  const all: Completion[] = isAfterDot
    ? (of === undefined ? [] : (known.collections[of] ?? [])).map(({ name, type }) => ({
        text: name,
        says: type,
      }))
    : [
        ...[...items].map(([name, collection]) => ({ text: name, says: `one of ${collection}` })),
        ...Object.entries(known.records ?? {}).map(([name, { of: from }]) => ({
          text: name,
          says: `the one of ${from} that is shown`,
        })),
        ...Object.keys(known.collections).map((name) => ({ text: name, says: 'records' })),
        ...Object.entries(known.variables).map(([name, type]) => ({
          text: name,
          says: type.kind === 'text' && type.choices ? type.choices.join(', ') : SAYS[type.kind],
        })),
        ...(known.hasEntered ? [{ text: ENTERED, says: 'what was entered' }] : []),
        ...Object.entries(FUNCTIONS)
          .filter(([, { takes }]) => hasFor(takes[0], known))
          .map(([name, { says }]) => ({ text: `${name}(`, says })),
        ...(Object.keys(known.lists).length
          ? Object.entries(QUESTIONS).map(([name, { says }]) => ({ text: `${name}(`, says }))
          : []),
      ];
  const wanted = typed.toLowerCase();
  return {
    from,
    completions: all.filter(({ text }) => text.toLowerCase().startsWith(wanted) && text !== typed),
  };
}

/** Whether there is something that a function can be about. */
function hasFor(takes: string | undefined, { collections, variables }: KnownNames): boolean {
  const hasRecords = Object.keys(collections).length > 0;
  const hasList = hasRecords || Object.values(variables).some(({ kind }) => kind === 'list');
  return takes === 'records' ? hasRecords : takes === 'list' || takes === 'many' ? hasList : true;
}

const SAYS = {
  'yes-no': 'yes or no',
  number: 'a number',
  text: 'a text',
  date: 'a date',
  list: 'a list of texts',
  record: 'a record',
  records: 'records',
} as const;

/** The collection of a record that is called so. */
function collectionOf(
  name: string,
  items: ReadonlyMap<string, string>,
  { records = {}, variables, items: given = {} }: KnownNames,
): string | undefined {
  const variable = Object.hasOwn(variables, name) ? variables[name] : undefined;
  const own = [given[name], records[name]?.of].find((one) => one !== undefined);
  return items.get(name) ?? own ?? (variable?.kind === 'record' ? variable.of : undefined);
}

/** Items that are called before a place (`filter(tools, (tool) => …`), and whether it stands within a text. */
function around(
  before: string,
  known: KnownNames,
): { readonly items: ReadonlyMap<string, string>; readonly isInText: boolean } {
  const tokens: { readonly label: string; readonly value: unknown }[] = [];
  let isInText = false;
  try {
    for (const token of tokenizer(before, { ecmaVersion: 2022 }))
      tokens.push({ label: token.type.label, value: 'value' in token ? token.value : undefined });
  } catch (error) {
    isInText = /string|template/i.test(String(error));
  }
  const items = new Map<string, string>();
  let collection: string | undefined;
  tokens.forEach(({ label, value }, i) => {
    if (label !== 'name' || typeof value !== 'string') return;
    if (Object.hasOwn(known.collections, value)) collection = value;
    else if (collection && [tokens[i + 1]?.label, tokens[i + 2]?.label].includes('=>'))
      items.set(value, collection);
  });
  return { items, isInText: isInText || tokens.at(-1)?.label === 'template' };
}
