import { emptyDesign, type Screen } from '../../model/design.ts';
import { screenOf, svg } from '../../testing/build.ts';
import { labelOf } from '../pressable.ts';
import { proposeLinks } from './propose.ts';
import { elementsByKey } from '../../model/project.ts';
import { stepOf } from './sequence_evidence.ts';

const button = (label: string, y: number, name = 'Button'): string =>
  `<g id="${name.replace(/ /g, '_')}_${y}" data-name="${name}"><rect x="24" y="${y}" width="342" height="48" rx="8" fill="#234"/><text x="195" y="${y + 29}" font-size="16" text-anchor="middle" fill="#fff">${label}</text></g>`;
const page = (key: string, heading: string, body: string): Screen => ({
  ...screenOf(svg(`<text x="24" y="60" font-size="28">${heading}</text>${body}`), key),
  name: heading,
});
const row = (label: string, y: number): string =>
  `<g id="Row_${y}" data-name="Row"><rect x="20" y="${y}" width="350" height="90" fill="#fff" stroke="#ddd"/><text x="40" y="${y + 34}" font-size="18">${label}</text><text x="40" y="${y + 62}" font-size="13">Shed 2</text></g>`;

/** The best proposal of each element, as `label → screen`. */
function best(screens: readonly Screen[], synonyms = {}): string[] {
  const seen = new Set<string>();
  return proposeLinks({ ...emptyDesign, screens }, screens, synonyms)
    .filter(({ element }) => !seen.has(element) && seen.add(element))
    .map(({ element, to, isBack }) => {
      const screen = screens.find((one) => elementsByKey(one).has(element))!;
      return `${screen.key} ${labelOf(elementsByKey(screen).get(element)!)} → ${isBack ? 'back, ' : ''}${to}`;
    });
}

test.each([
  ['2 of 3', { n: 2, of: 3 }],
  ['Step 1 / 4', { n: 1, of: 4 }],
  ['4 of 3', null],
  ['1 of 1', null],
  ['2 of 300', null],
  ['two of three', null],
])('%s is the step %j', (text, step) => {
  expect(stepOf(page('a', text, ''))).toEqual(step);
});

test('next, previous and skip follow the steps that screens count, whatever their order', () => {
  const found = best([
    page('three', 'Done', `<text x="300" y="30" font-size="12">3 of 3</text>${button('Continue', 700)}`),
    page('home', 'Sheds', ''),
    page('one', 'Hello', `<text x="300" y="30" font-size="12">1 of 3</text>${button('Next', 700)}`),
    page(
      'two',
      'Address',
      `<text x="300" y="30" font-size="12">2 of 3</text>${button('Next', 640)}${button('Previous', 700)}`,
    ),
  ]);
  expect(found).toEqual(expect.arrayContaining(['one Next → two', 'two Next → three', 'two Previous → one']));
});

test('rows of a list lead where another of them surely leads', () => {
  const screens = [
    page(
      'list',
      'Tools',
      ['Hedge trimmer', 'Pillar drill', 'Apple press'].map((name, i) => row(name, 100 + 100 * i)).join(''),
    ),
    page('one', 'Hedge trimmer', button('Back', 700)),
    page('other', 'Opening hours', ''),
  ];
  expect(best(screens)).toEqual(
    expect.arrayContaining([
      'list Hedge trimmer Shed 2 → one',
      'list Pillar drill Shed 2 → one',
      'list Apple press Shed 2 → one',
    ]),
  );
  // And back from there, as that screen leads here.
  expect(best(screens)).toContain('one Back → back, list');
});

test('words that mean the same in a project are compared as one', () => {
  const screens = [page('home', 'Welcome', button('Kit', 100)), page('tools', 'Tools', '')];
  expect(best(screens).filter((line) => line.includes('Kit'))).toEqual([]);
  expect(best(screens, { kit: 'tools' })).toContain('home Kit → tools');
});

test('an icon without a text is read by its name', () => {
  const icon =
    '<g id="gear" data-name="Settings gear button"><circle cx="350" cy="50" r="20" fill="#345"/><path d="M340 50h20v4h-20z" fill="#fff"/></g>';
  const screens = [
    page('home', 'Welcome', icon),
    page('settings', 'Settings', ''),
    page('loans', 'Loans', ''),
  ];
  expect(best(screens).filter((line) => line.endsWith('→ settings'))).toHaveLength(1);
});
