import type { MarkupElement } from './markup.ts';
import { newUsed, printElement, printTsx } from '../react/print_tsx.ts';
import { partScreen } from './screen_parts.ts';

const options = {
  component: 'Home',
  source: '../..',
  components: '../../components',
  assetImport: () => ({ name: '', path: '' }),
};
const node = (className: string | null, children: MarkupElement['children'] = []): MarkupElement => ({
  tag: 'div',
  key: className,
  className,
  attributes: {},
  children,
});
const rows = (count: number): MarkupElement[] =>
  Array.from({ length: count }, (_, i) => node('row', [{ text: `Tool ${i}` }]));
const linesOf = (one: MarkupElement): number => printElement(one, 2, newUsed(options)).length;
const lines = (text: string): number => text.split('\n').length;

test('a long screen is parted into pieces that can be read, and nothing of it is lost', () => {
  const root = node('page', [
    node('header', rows(20)),
    node('main', [node('card', rows(60)), node('card2', rows(70)), node('note', rows(3))]),
  ]);
  const { root: left, parts } = partScreen(root, (name) => name === 'Header', linesOf);
  expect(parts.map(({ name }) => name)).toEqual(['Card']);
  const names = new Set(parts.map(({ name }) => name));
  const all = [left, ...parts.map((part) => part.root)].map(
    (one) => printTsx(one, { ...options, sheet: 'Home', parts: names }).text,
  );
  for (const text of all) expect(lines(text)).toBeLessThanOrEqual(150);
  expect(all[0]).toContain("import { Card } from './Card';");
  expect(all[1]).toContain("import styles from './Home.module.css';");
  const whole = printTsx(root, options).text;
  const said = (text: string): string[] => text.match(/Tool \d+/g) ?? [];
  expect(all.flatMap(said).sort()).toEqual(said(whole).sort());
});

test('what is short stays whole', () => {
  const root = node('page', rows(30));
  expect(partScreen(root, () => false, linesOf)).toEqual({ root, parts: [] });
});
