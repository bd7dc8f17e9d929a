import type { App, Variable } from '@tovel/core';

/** What a variable can be, in words. */
export const TYPES = [
  { id: 'yes-no', label: 'yes or no' },
  { id: 'number', label: 'a number' },
  { id: 'text', label: 'a text' },
  { id: 'date', label: 'a date' },
  { id: 'one-of', label: 'one of some' },
  { id: 'list', label: 'a list of texts' },
  { id: 'record', label: 'a record' },
] as const;
export type TypeId = (typeof TYPES)[number]['id'];

/** What a variable of a project can be: there are records only where there are collections. */
export const typesIn = ({ collections }: Pick<App, 'collections'>): readonly (typeof TYPES)[number][] =>
  TYPES.filter(({ id }) => id !== 'record' || Object.keys(collections).length > 0);

/** How long a variable is kept, in words. */
export const KEPT = [
  { id: 'tab', label: 'while it is open' },
  { id: 'device', label: 'on the device' },
  { id: 'address', label: 'in the address' },
  { id: 'screen', label: 'on its screen' },
] as const;

/** What a variable of a kind is that was just made. */
export const FIRST: Readonly<Record<TypeId, Pick<Variable, 'type' | 'initial' | 'choices'>>> = {
  'yes-no': { initial: false },
  number: { type: 'number', initial: 0 },
  text: { type: 'text', initial: '' },
  date: { type: 'date', initial: '' },
  'one-of': { type: 'one-of', initial: 'one', choices: ['one', 'another'] },
  list: { type: 'list', initial: [] },
  record: { type: 'record', initial: '' },
};
