import type { FormField } from '@tovel/core';
import { ruleProblem, rulesFor, ruleValue, type TextRule, withRule } from './field_rules';

const rule = (type: Parameters<typeof rulesFor>[0], name: TextRule['name']): TextRule =>
  rulesFor(type).find((one) => one.name === name)!;
const field: FormField = { element: 'join:3', field: 'email', required: true };

test.each([
  ['text', 'least,most,pattern'],
  ['number', 'from,to'],
  ['date', 'from,to'],
  ['one-of', ''],
  ['yes-no', ''],
] as const)('a field of the type %s can be held to %s', (type, names) =>
  expect(
    rulesFor(type)
      .map(({ name }) => name)
      .join(),
  ).toBe(names),
);

test.each([
  ['text', 'least', '8', true],
  ['text', 'least', 'eight', false],
  ['text', 'most', '0', false],
  ['text', 'pattern', '\\d{4}', true],
  ['text', 'pattern', '(', false],
  ['number', 'from', '-2.5', true],
  ['number', 'to', '2026-01-01', false],
  ['date', 'from', '2026-01-01', true],
  ['date', 'from', '1', false],
  ['time', 'to', '17:30', true],
] as const)('%s, %s: “%s” can be written: %s', (type, name, text, can) =>
  expect(ruleProblem(rule(type, name), text) === null).toBe(can),
);

test('a rule is written as what it is, read again, and taken away by nothing', () => {
  const least = rule('text', 'least');
  const made = withRule(field, least, '8');
  expect(made).toEqual({ ...field, least: 8 });
  expect(ruleValue(made, least)).toBe('8');
  expect(withRule(made, least, '')).toEqual(field);
});
