import { propNamed } from '../../expression/expression.ts';
import { printComponent } from '../react/print_component.ts';
import type { EmittedComponent } from './components/extract.ts';
import type { Prop } from './components/template.ts';
import type { MarkupElement } from './markup.ts';
import { newUsed, printElement, printTsx } from '../react/print_tsx.ts';
import { keptPieces, partComponent, partScreen } from './screen_parts.ts';

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
const heading = (text: string): MarkupElement => ({ ...node(null, [{ text }]), tag: 'h2' });
const use = (component: string): MarkupElement => ({ ...node(null), use: { component, props: {} } });
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

test('what headings part is parted by them, called after them, and nothing of it is lost', () => {
  const told = (text: string, count: number): MarkupElement[] => [heading(text), ...rows(count)];
  const root = node('page', [
    ...rows(2),
    ...told('Opening hours', 40),
    ...told('Where should I bring the tools (and when)?', 50),
    ...told('How to join', 45),
    ...told('Imprint', 3),
  ]);
  const { root: left, parts } = partScreen(root, () => false, linesOf);
  expect(parts.map(({ name }) => name)).toEqual(['OpeningHours', 'BringTools', 'HowToJoin']);
  const pieces = new Set(parts.map(({ name }) => name));
  const all = [left, ...parts.map((part) => part.root)].map(
    (one) => printTsx(one, { ...options, sheet: 'Home', parts: pieces }).text,
  );
  for (const text of all) expect(lines(text)).toBeLessThanOrEqual(150);
  expect(all[1]).toMatch(/return \(\n {4}<>\n {6}<h2>Opening hours<\/h2>/);
  const said = (text: string): string[] => text.match(/Tool \d+|<h2>[^<]*/g) ?? [];
  expect(all.flatMap(said).sort()).toEqual(said(printTsx(root, options).text).sort());
  // What is shorter the next time is parted as before.
  const shorter = node('page', [...told('Opening hours', 20), ...told('How to join', 45), ...rows(3)]);
  const keyed = (one: MarkupElement, key: string): MarkupElement => ({ ...one, key });
  const known = keptPieces([{ name: 'Hours', root: keyed(parts[0].root, 'hours') }]);
  const [first, ...rest] = shorter.children as MarkupElement[];
  const again = partScreen(
    { ...shorter, children: [keyed(first, 'hours'), ...rest] },
    () => false,
    linesOf,
    known,
  );
  expect(again.parts.map(({ name, root: { children } }) => [name, children.length])).toEqual([['Hours', 21]]);
});

test('what is short stays whole', () => {
  const root = node('page', rows(30));
  expect(partScreen(root, () => false, linesOf)).toEqual({ root, parts: [] });
});

test('what was a piece goes on being one, called as it was, however long or short what it is of is now', () => {
  const page = (first: number, second: number): MarkupElement =>
    node('page', [
      node('header', rows(20)),
      node('main', [node('card', rows(first)), node('list', rows(second)), node('note', rows(3))]),
    ]);
  const none = (): boolean => false;
  const before = partScreen(page(70, 40), none, linesOf);
  expect(before.parts.map(({ name }) => name)).toEqual(['Card']);
  const kept = keptPieces(before.parts);
  // The other would be the longer one by now.
  const after = partScreen(page(40, 70), none, linesOf, kept);
  expect(after.parts.map(({ name }) => name)).toEqual(['Card']);
  expect(partScreen(page(40, 70), none, linesOf).parts.map(({ name }) => name)).toEqual(['List']);
  const shorter = partScreen(page(10, 5), none, linesOf, kept);
  expect(shorter.parts.map(({ name }) => name)).toEqual(['Card']);
  // What another is called by now it cannot be called.
  const renamed = partScreen(page(70, 40), (name) => name === 'Card', linesOf, kept);
  expect(renamed.parts.map(({ name }) => name)).toEqual(['Card2']);
});

test.each<[string, MarkupElement[], string]>([
  ['after its class', [node('statCards', rows(80))], 'StatCards'],
  [
    'after the heading before it, where a class says nothing',
    [node('bar', [heading('Open repairs')]), node('row', rows(80))],
    'OpenRepairs',
  ],
  [
    'after that before what it is the only long part of',
    [heading('Open repairs'), node('row', [node('inner', rows(60)), node('inner', rows(80))])],
    'OpenRepairs',
  ],
  ['after its tag', [{ ...node(null, rows(80)), tag: 'tbody' }], 'TableBody'],
  [
    'after its heading, where a class says nothing',
    [node('row', [heading('Open repairs'), ...rows(80)])],
    'OpenRepairs',
  ],
  [
    'after what it is made of',
    [node('group', [...Array.from({ length: 90 }, () => use('ToolCard')), ...rows(20)])],
    'ToolCards',
  ],
  [
    'after what its heading is about rather than after a part of what it holds',
    [
      node('section', [
        {
          ...heading('Let’s find you an'),
          children: [
            { text: 'Let’s find you an ' },
            node('mark', [{ text: 'open position' }]),
            { text: '.' },
          ],
        },
        use('Badge'),
        use('Badge'),
        ...rows(80),
      ]),
    ],
    'FindOpenPosition',
  ],
  [
    'after its heading without what is small in it',
    [
      node('row', [
        { ...heading('OPEN REPAIRS '), children: [{ text: 'OPEN REPAIRS' }, node('small', rows(1))] },
        ...rows(80),
      ]),
    ],
    'OpenRepairs',
  ],
  [
    'after a paragraph that is its title, with a link to it',
    [
      node('section', [
        {
          ...node('title', [{ ...node(null, [{ text: '#' }]), tag: 'a' }, { text: ' Open repairs' }]),
          tag: 'p',
        },
        ...rows(80),
      ]),
    ],
    'OpenRepairs',
  ],
  [
    'after the title that it gives',
    [
      node('row', [
        { ...use('Card'), use: { component: 'Card', props: { title: 'Lent out' } } },
        ...rows(80),
      ]),
    ],
    'LentOut',
  ],
  [
    'after its heading, where another has its class',
    [node('card', rows(80)), node('card2', [heading('Lent out'), ...rows(80)])],
    'LentOut',
  ],
  [
    'after its only control as well, where another has its class',
    [
      node('menuItem', rows(80)),
      node('menuItem', [{ ...node(null, [{ text: 'Support' }]), tag: 'a' }, ...rows(80)]),
    ],
    'SupportMenuItem',
  ],
  [
    'after the label of its field as well',
    [
      node('formGroup', rows(80)),
      node('formGroup', [{ ...node(null, [{ text: 'Country' }]), tag: 'label' }, ...rows(80)]),
    ],
    'CountryFormGroup',
  ],
  [
    'after how it begins, where that is short',
    [node('card', rows(80)), node('card', [node('note', [{ text: 'Basic' }]), ...rows(80)])],
    'BasicCard',
  ],
  [
    'with a number, where it says nothing that could be a name',
    [node('card', rows(80)), node('card', [node('note', [{ text: 'Ring, twice!' }]), ...rows(80)])],
    'Card2',
  ],
  ['as it is laid out, where nothing else is known', [node('row', rows(80))], 'Row'],
])('a piece is called %s', (_, children, name) => {
  const root = node('page', [node('main', rows(70)), ...children]);
  const { parts } = partScreen(root, () => false, linesOf);
  expect(parts.map((part) => part.name)).toContain(name);
});

test('pieces of a component are given what they look at, and what pieces within them do', () => {
  const said = (name: string): MarkupElement => node('text', [{ text: '', given: propNamed(name) }]);
  const prop = (name: string, byDefault?: string): Prop => ({
    name,
    proposed: name,
    what: 'text',
    at: [],
    kind: 'text',
    isOptional: byDefault !== undefined,
    ...(byDefault === undefined ? {} : { byDefault }),
  });
  const component: EmittedComponent = {
    id: 'bar',
    name: 'Bar',
    root: node('bar', [
      node('brand', [said('title'), ...rows(60)]),
      node('menu', [said('label'), node('entries', [said('count'), ...rows(90)]), ...rows(70)]),
    ]),
    props: [prop('title'), prop('label', 'Menu'), prop('count'), prop('none')],
    rules: [],
  };
  const parted = partComponent(component, () => false, linesOf);
  expect(parted.pieces.map((piece) => [piece.name, piece.props.map((one) => one.name)])).toEqual([
    ['Entries', ['count']],
    ['Menu', ['label', 'count']],
  ]);
  const names = new Set(parted.pieces.map((piece) => piece.name));
  const [whole, , menu] = [parted.component, ...parted.pieces].map(
    (one) => printComponent(one, { ...options, parts: names }).text,
  );
  expect(whole).toContain('<Menu label={label} count={count} />');
  // What the component says by itself is handed on, and not said again.
  expect(whole).toContain("label = 'Menu'");
  expect(menu).toContain('label: string;');
  expect(menu).toContain('<Entries count={count} />');
});

test('what a piece is left out without is there in it', () => {
  const [part, note] = ['part', 'note'].map(propNamed);
  const prop = (name: string): Prop => ({
    name,
    proposed: name,
    what: 'text',
    at: [],
    kind: 'text',
    isOptional: true,
  });
  const component: EmittedComponent = {
    id: 'card',
    name: 'Card',
    root: node('card', [
      node('head', rows(60)),
      {
        ...node('dropdown', [
          node('opener', rows(40)),
          node('menu', [
            ...rows(110),
            { ...node('item', [{ text: '', given: note }]), slots: { '@id': part } },
          ]),
        ]),
        when: part,
      },
    ]),
    props: [prop('part'), prop('note')],
    rules: [],
  };
  const { pieces } = partComponent(component, () => false, linesOf);
  expect(
    pieces.flatMap((piece) => piece.props.map((one) => `${piece.name}: ${one.name} ${one.isOptional}`)),
  ).toEqual(['Menu: part false', 'Menu: note true']);
});

test('a piece that does something to the record of its row is given which', () => {
  const [id, title] = ['id', 'title'].map((name): Prop => ({
    name,
    proposed: name,
    what: 'text',
    at: [],
    kind: 'text',
    isOptional: false,
  }));
  const pressed: MarkupElement = {
    ...node('drop', [{ text: 'Drop it' }]),
    tag: 'button',
    acts: [
      {
        on: 'press',
        ways: [
          { steps: [{ kind: 'record', records: 'loans', deed: { kind: 'remove', of: { kind: 'row' } } }] },
        ],
      },
    ],
  };
  const component: EmittedComponent = {
    id: 'row',
    name: 'LoanRow',
    root: node('row', [
      node('head', [{ text: '', given: propNamed('title') }, ...rows(70)]),
      node('foot', [pressed, ...rows(80)]),
    ]),
    props: [id, title],
    rules: [],
  };
  const { pieces } = partComponent(component, () => false, linesOf);
  expect(pieces.map(({ name, props }) => [name, props.map((one) => one.name)])).toContainEqual([
    'Foot',
    ['id'],
  ]);
});
