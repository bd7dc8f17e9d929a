import type { Sight } from '../../roles/sight.ts';
import { calibrated, likelihoodOf } from './likelihood.ts';
import type { Pressed } from './evidence.ts';
import { menusOf } from './menus.ts';
import { TRAITS } from './traits.ts';
import { STEPS, WEIGHTS } from './weights.ts';

/** The entries of a menu on a screen, of which one is marked. */
function menu(screen: string, labels: readonly string[], marked?: string): Pressed[] {
  const place = { element: { key: `${screen}:menu` } } as Sight;
  return labels.map((label) => ({
    sight: { element: { key: `${screen}:${label}` } } as Sight,
    screen,
    label,
    words: [label],
    asWritten: label,
    menu: place,
    isCurrent: label === marked,
  }));
}
const of = (pressed: readonly Pressed[], screen: string, label: string) =>
  menusOf(pressed).get(pressed.find((one) => one.screen === screen && one.label === label)!);

test('a menu is one that stands on several screens, and where its mark moves each entry leads to where it is marked', () => {
  const pressed = ['tools', 'loans', 'help'].flatMap((screen) =>
    menu(screen, ['tools', 'loans', 'help'], screen),
  );
  const found = of(pressed, 'tools', 'loans')!;
  expect(found.screens).toBe(3);
  expect([...found.marked].map(([label, on]) => [label, ...on.keys()])).toEqual([
    ['tools', 'tools'],
    ['loans', 'loans'],
    ['help', 'help'],
  ]);
});

test('what stands on one screen alone is no menu, and a mark that stays tells nothing', () => {
  const pager = menu('tools', ['1', '2', '3'], '1');
  expect(of(pager, 'tools', '1')).toBeUndefined();
  const tabs = ['tools', 'loans'].flatMap((screen) => menu(screen, ['all', 'late'], 'all'));
  expect(of(tabs, 'tools', 'all')!.marked.size).toBe(0);
});

test('an entry that one screen has more is of the same menu, with a small share', () => {
  const pressed = [
    ...menu('tools', ['tools', 'loans', 'help'], 'tools'),
    ...menu('loans', ['tools', 'loans', 'help'], 'loans'),
    ...menu('help', ['tools', 'loans', 'help', 'print'], 'help'),
  ];
  expect(of(pressed, 'help', 'print')!.shares.get('print')).toBeCloseTo(1 / 3);
});

test('there is a weight for each trait, and what is likelier is never less sure', () => {
  expect(WEIGHTS).toHaveLength(TRAITS.length);
  expect(STEPS.map(([, share]) => share)).toEqual(STEPS.map(([, share]) => share).toSorted((a, b) => a - b));
  const all = Array.from({ length: 101 }, (_, i) => calibrated(i / 100));
  expect(all).toEqual(all.toSorted((a, b) => a - b));
  expect(Math.max(...all)).toBeLessThanOrEqual(1);
  expect(likelihoodOf(TRAITS.map(() => 0))).toBe(0.5);
});
