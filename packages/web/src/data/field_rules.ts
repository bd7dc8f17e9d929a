import type { FormField, ProposedFormField } from '@tovel/core';

type RuleName = 'least' | 'most' | 'from' | 'to' | 'pattern';

/** A rule of a field that is written as one text. */
export interface TextRule {
  readonly name: RuleName;
  readonly label: string;
  readonly example: string;
  /** In words, with `…` for what is written. */
  readonly says: string;
}

const LENGTHS: readonly TextRule[] = [
  { name: 'least', label: 'Fewest letters', example: '8', says: 'at least … letters' },
  { name: 'most', label: 'Most letters', example: '200', says: 'at most … letters' },
  { name: 'pattern', label: 'Pattern', example: '[A-Z]{2}\\d{4}', says: 'like …' },
];
const RANGE: readonly TextRule[] = [
  { name: 'from', label: 'From', example: '1', says: 'from …' },
  { name: 'to', label: 'To', example: '10', says: 'to …' },
];
const DAYS = RANGE.map((rule) => ({ ...rule, example: '2026-03-01' }));

/** The rules that a field of a type can have beside whether it is required. */
export function rulesFor(type: ProposedFormField['type']): readonly TextRule[] {
  switch (type) {
    case 'number':
    case 'range':
      return RANGE;
    case 'date':
      return DAYS;
    case 'time':
      return RANGE.map((rule) => ({ ...rule, example: '09:30' }));
    case 'yes-no':
    case 'one-of':
    case 'file':
      return [];
    default:
      return LENGTHS;
  }
}

export const ruleValue = (field: FormField, { name }: TextRule): string => String(field[name] ?? '');

function isPattern(said: string): boolean {
  try {
    return new RegExp(said, 'v').source !== '';
  } catch {
    return false;
  }
}

/** What is wrong with what somebody writes as a rule; null where nothing is. Nothing takes the rule away. */
export function ruleProblem({ name, example }: TextRule, text: string): string | null {
  const said = text.trim();
  if (!said) return null;
  switch (name) {
    case 'least':
    case 'most':
      return /^\d{1,5}$/.test(said) && (name === 'least' || Number(said) > 0) && Number(said) <= 10_000
        ? null
        : 'A whole number, up to 10000';
    case 'pattern':
      if (said.length > 500) return 'At most 500 letters';
      return isPattern(said) ? null : 'No regular expression';
    case 'from':
    case 'to': {
      const fits = example.includes('-')
        ? /^\d{4}-\d{2}-\d{2}$/
        : example.includes(':')
          ? /^\d{2}:\d{2}$/
          : /^-?\d+(\.\d+)?$/;
      return fits.test(said) ? null : `For instance ${example}`;
    }
  }
}

/** A field with a rule that says this; without it where nothing is said. */
export function withRule(field: FormField, { name }: TextRule, text: string): FormField {
  const { [name]: _gone, ...rest } = field;
  if (!text) return rest;
  return { ...rest, [name]: name === 'least' || name === 'most' ? Number(text) : text };
}
