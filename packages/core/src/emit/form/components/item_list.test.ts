import fc from 'fast-check';
import { all, applyChange, putComponent } from '../../../change/change.ts';
import { type Project, walkElements } from '../../../model/project.ts';
import { projectOf } from '../../../testing/build.ts';
import { drawnBothWays } from '../../../testing/expand.ts';
import { pageOfHtml } from '../../../testing/page_of_html.ts';
import { typeErrors } from '../../../testing/typecheck.ts';
import { vueProblems } from '../../../testing/vue_problems.ts';
import { emitReact } from '../../react/emit_react.ts';
import { emitVue } from '../../vue/emit_vue.ts';

interface Feature {
  readonly words: string;
  readonly isIn: boolean;
  readonly note: boolean;
  readonly to: string | null;
}
interface Plan {
  readonly name: string;
  readonly features: readonly Feature[];
  /** What else stands with them. */
  readonly head?: string;
  readonly foot?: boolean;
  /** How all of its features look, and what tells the card itself. */
  readonly look?: 'dark' | 'wide';
}

const LOOKS = {
  plain: '',
  dark: ' style="background-color:#222"',
  wide: ' style="padding-left:30px"',
} as const;
const featureHtml = ({ words, isIn, note, to }: Feature, look: keyof typeof LOOKS): string =>
  `<li${LOOKS[look]}><i style="color:${isIn ? 'green' : 'red'}">${isIn ? 'yes' : 'no'}</i> ${
    to === null ? words : `<a href="https://${to}.example/">${words}</a>`
  }${note ? '<small>new</small>' : ''}</li>`;
const planHtml = ({ name, features, head, foot = false, look }: Plan): string =>
  `<article style="border-top-style:solid;border-top-width:1px"><h2>${name}</h2><p>Lent by the week</p><ul>${head ? `<li><strong>${head}</strong> tools</li>` : ''}${features.map((one) => featureHtml(one, look ?? 'plain')).join('')}${foot ? '<li>and more</li>' : ''}</ul></article>`;

/** @param inner what is taken of the cards, too: what they list, or the marks in that */
function pileOf(kind: 'component' | 'list', plans: readonly Plan[], inner?: 'li' | 'i'): Project {
  const page = pageOfHtml(`<h1>Plans</h1><main>${plans.map(planHtml).join('')}</main>`);
  const bare = projectOf(page);
  const places = page.root.children[1].children.map(({ key }) => key);
  const parts: string[] = [];
  walkElements(page.root, ({ tag, key }) => void (tag === inner && parts.push(key)));
  const changes = [
    putComponent('plan', { name: 'PlanCard', kind, places }),
    ...(inner ? [putComponent('part', { name: 'Part', kind: 'component', places: parts })] : []),
  ];
  return { ...bare, app: applyChange(bare.app, all(changes)) };
}

const feature = (words: string, more: Partial<Feature> = {}): Feature => ({
  words,
  isIn: true,
  note: false,
  to: null,
  ...more,
});
const PLANS: readonly Plan[] = [
  { name: 'Free', features: [feature('One tool'), feature('No fee', { isIn: false }), feature('A desk')] },
  {
    name: 'Friend',
    features: [feature('Three tools'), feature('Keys', { note: true }), feature('A shed'), feature('Tea')],
  },
];

const isSame = (project: Project): void => {
  for (const { made, plain } of drawnBothWays(project)) expect(made).toEqual(plain);
};

test('items that are given as a list draw what they drew', () => {
  const features = fc.record<Feature>({
    words: fc.constantFrom('One tool', 'Three tools', 'Keys', 'A shed'),
    isIn: fc.boolean(),
    note: fc.boolean(),
    to: fc.constantFrom(null, null, null, 'tea', 'keys'),
  });
  const plans = fc.record<Plan>({
    name: fc.constantFrom('Free', 'Friend', 'House'),
    features: fc.array(features, { maxLength: 5 }),
    head: fc.constantFrom('', '3', '10'),
    foot: fc.boolean(),
    look: fc.constantFrom(undefined, undefined, 'dark', 'wide'),
  });
  fc.assert(
    fc.property(
      fc.constantFrom('component', 'list'),
      fc.array(plans, { minLength: 2, maxLength: 4 }),
      fc.constantFrom(undefined, 'li', 'i'),
      (kind, cards, inner) => isSame(pileOf(kind, cards, inner)),
    ),
    { numRuns: 150 },
  );
});

function filesOf(project: Project): Map<string, string> {
  const { files } = emitReact(project, 'Plans');
  return new Map(files.flatMap((file) => ('text' in file ? [[file.path, file.text]] : [])));
}

test('what is the same of all that a card lists is said of the card', () => {
  const [free, friend] = PLANS;
  const card = filesOf(pileOf('list', [free, { ...friend, look: 'dark' }])).get(
    'src/components/PlanCard/PlanCard.tsx',
  )!;
  expect(card).toMatch(/^ {2}(is\w+)\?: boolean;$[^]*className=\{\1 \? styles/m);
  const three = filesOf(
    pileOf('list', [free, { ...friend, look: 'dark' }, { ...friend, name: 'House', look: 'wide' }]),
  ).get('src/components/PlanCard/PlanCard.tsx')!;
  expect(three).toMatch(/^ {2}variant: '\w+' \| '\w+' \| '\w+';$[^]*className=\{itemClasses\[variant\]\}/m);
});

test.each([
  [1, false],
  [2, true],
])('rows of tables in which %i cells differ are given as a list: %s', (count, isList) => {
  const row = (name: string, to: string): string =>
    `<tr><td>${name}</td><td>${to}</td><td><i>lent</i></td></tr>`;
  const table = (heading: string, people: readonly string[]): string =>
    `<article><h2>${heading}</h2><table><thead><tr><th>Tool</th><th>To</th><th>Status</th></tr></thead><tbody>${people.map((to, i) => row(['Saw', 'Drill', 'Rasp', 'Plane'][i], to)).join('')}</tbody></table></article>`;
  const people = ['Ada', 'Bo', 'Cleo', 'Dan'];
  const others = people.map((one, i) => (i < count ? `${one} Ash` : one));
  const page = pageOfHtml(`<main>${table('Loans', people)}${table('Returns', others)}</main>`);
  const bare = projectOf(page);
  const places = page.root.children[0].children.map(({ key }) => key);
  const change = putComponent('c', { name: 'LoanTable', kind: 'component', places });
  const project = { ...bare, app: applyChange(bare.app, change) };
  isSame(project);
  const code = filesOf(project).get('src/components/LoanTable/LoanTable.tsx')!;
  expect(code.includes('rows.map((row) => (')).toBe(isList);
});

test.each<[inner: 'td' | 'b' | undefined]>([[undefined], ['td'], ['b']])(
  'rows of tables some of which have more cells are given as lists of lists; of cells %s is a component',
  (inner) => {
    const table = (heading: string, rows: readonly string[]): string =>
      `<article><h2>${heading}</h2><table><tbody>${rows
        .map(
          (row) =>
            `<tr>${row
              .split(' ')
              .map((cell, i) => `<td${i ? '' : ' style="background-color:#eee"'}><b>${cell}</b></td>`)
              .join('')}</tr>`,
        )
        .join('')}</tbody></table></article>`;
    const page = pageOfHtml(
      `<main>${table('Loans', ['Saw Ada', 'Drill Bo', 'Rasp Cleo', 'Plane Dan'])}${table('Returns', [
        'Saw Ada late monday north 4',
        'Rasp Bo paid friday south 5',
        'Plane Eve late sunday north 6',
        'Vice Dan paid friday south 7',
      ])}</main>`,
    );
    const bare = projectOf(page);
    const places = page.root.children[0].children.map(({ key }) => key);
    const parts: string[] = [];
    walkElements(page.root, ({ tag, key }) => void (tag === inner && parts.push(key)));
    const changes = [
      putComponent('c', { name: 'LoanTable', kind: 'component', places }),
      ...(inner ? [putComponent('part', { name: 'Part', kind: 'component', places: parts })] : []),
    ];
    const project = { ...bare, app: applyChange(bare.app, all(changes)) };
    isSame(project);
    const code = filesOf(project).get('src/components/LoanTable/LoanTable.tsx')!;
    expect(code).toMatch(/rows: \{\s*id: string;\s*cells: \{ id: string;/);
    expect(code).toContain('{rows.map((row) => (');
    expect(code).toContain('{row.cells.map((cell) => (');
    expect(typeErrors([emitReact(project, 'Loans')])).toEqual([]);
    expect(vueProblems([emitVue(project, 'Loans')])).toEqual([]);
  },
  120_000,
);

test('what cards list is one prop, and each of it is written once', () => {
  const files = filesOf(pileOf('list', PLANS));
  const card = files.get('src/components/PlanCard/PlanCard.tsx')!;
  expect(card).toContain('items: { id: string;');
  expect(card).toContain('{items.map((item) => (');
  expect(card).toContain('key={item.id}');
  expect(card.match(/<li/g)).toHaveLength(1);
  expect(card).not.toMatch(/\w(text|name|isMarked)2/);
  const data = [...files].find(([path]) => path.endsWith('.data.ts'))![1];
  expect(data).toMatch(/id: 'friend'/);
  expect(data).toContain("{ id: 'no-fee'");
});

test.each<[what: 'li' | 'i', use: RegExp]>([
  ['li', /\{items\.map\(\(item\) => \(\s*<Part\s+key=\{item\.id\}/],
  ['i', /\{items\.map\(\(item\) => \(\s*<li key=\{item\.id\}>\s*<Part /],
])('what cards list can be a component, or hold one: %s', (inner, use) => {
  const project = pileOf('list', PLANS, inner);
  const files = filesOf(project);
  expect(files.get('src/components/PlanCard/PlanCard.tsx')).toMatch(use);
  expect(files.get('src/components/Part/Part.tsx')).not.toContain('item');
  expect(typeErrors([emitReact(project, 'Plans')])).toEqual([]);
  expect(vueProblems([emitVue(project, 'Plans')])).toEqual([]);
});

const facesOf = (...groups: readonly (readonly string[])[]): Project => {
  const page = pageOfHtml(
    `<main>${groups.map((faces, i) => `<article><h2>${'ABC'[i]}</h2><p>${faces.map((face) => `<a href="https://${face}.example/" title="${face}"><b>${face}</b></a>`).join(' ')}</p></article>`).join('')}</main>`,
  );
  const bare = projectOf(page);
  const paragraphs = page.root.children[0].children.map(({ children: [, one] }) => one);
  // A space between two links is a text of its own, as it is where pages are read.
  for (const one of paragraphs) {
    const links = [...one.children];
    const space = { ...links[0].children[0], tag: undefined, name: ' ', text: ' ', children: [] };
    Object.assign(one, {
      children: links.flatMap((link, i) => (i ? [{ ...space, key: `${one.key}~${i}` }, link] : [link])),
    });
  }
  const places = page.root.children[0].children.map(({ key }) => key);
  return {
    ...bare,
    app: applyChange(bare.app, putComponent('c', { name: 'TeamCard', kind: 'list', places })),
  };
};

test('items with spaces between them keep those, in both targets', () => {
  const project = facesOf(['ada', 'bo', 'cleo'], ['bo', 'dan'], ['eve', 'ada', 'dan', 'bo']);
  isSame(project);
  const card = filesOf(project).get('src/components/TeamCard/TeamCard.tsx')!;
  expect(card).toContain("import { Fragment } from 'react';");
  expect(card).toMatch(/<Fragment key=\{(\w+)\.id\}>\s*\{i > 0 && ' '\}\s*<a/);
  const vue = emitVue(project, 'Teams');
  expect(JSON.stringify(vue.files)).toMatch(
    /<template v-for=\\"\(\w+, i\) in \w+\\" :key=\\"\w+\.id\\">\{\{ i \? ' ' : '' \}\}<a/,
  );
  expect(typeErrors([emitReact(project, 'Teams')])).toEqual([]);
  expect(vueProblems([vue])).toEqual([]);
}, 120_000);

test('what stands before the items, or after them, stays where it is', () => {
  const files = filesOf(
    pileOf(
      'list',
      PLANS.map((plan, i) => ({ ...plan, head: String(i + 3) })),
    ),
  );
  const card = files.get('src/components/PlanCard/PlanCard.tsx')!;
  expect(card).toMatch(/<li>\s*<strong>\{count\}<\/strong> tools\s*<\/li>\s*\{items\.map/);
  const others = filesOf(
    pileOf(
      'list',
      PLANS.map((plan) => ({ ...plan, foot: true })),
    ),
  );
  expect(others.get('src/components/PlanCard/PlanCard.tsx')).toMatch(/\)\)\}\s*<li>and more<\/li>/);
});

test('plain words are a list of texts where none stands twice, and records with ids where one does', () => {
  const words = (...all: readonly string[]): string => all.map((one) => `<li>${one}</li>`).join('');
  const cardsOf = (...lists: readonly string[]): string => {
    const page = pageOfHtml(
      `<main>${lists.map((list, i) => `<article><h2>${'ABC'[i]}</h2><p>All</p><ul>${list}</ul></article>`).join('')}</main>`,
    );
    const bare = projectOf(page);
    const places = page.root.children[0].children.map(({ key }) => key);
    const app = applyChange(bare.app, putComponent('c', { name: 'WordCard', kind: 'component', places }));
    return filesOf({ ...bare, app }).get('src/components/WordCard/WordCard.tsx')!;
  };
  const plain = cardsOf(words('Saw', 'Drill', 'Rasp', 'Plane'), words('Hoe', 'Rake', 'Fork'));
  expect(plain).toContain('items: string[];');
  expect(plain).toContain('<li key={item}>{item}</li>');
  const twice = cardsOf(words('Saw', 'Saw', 'Rasp', 'Plane'), words('Hoe', 'Rake', 'Fork'));
  expect(twice).toContain('items: { id: string; name: string }[];');
});

test.each<[string, readonly Plan[]]>([
  [
    'so few that nobody would list them',
    PLANS.map((plan) => ({ ...plan, features: plan.features.slice(0, 1) })),
  ],
  ['the same everywhere', PLANS.map(({ name }) => ({ name, features: PLANS[0].features }))],
])('items are written where they stand when they are %s', (_, plans) => {
  const card = filesOf(pileOf('list', plans)).get('src/components/PlanCard/PlanCard.tsx')!;
  expect(card).not.toContain('.map(');
});

test('fields that cards hold are given with the ids by which their labels name them', () => {
  const field = (id: string, label: string): string =>
    `<p><label for="${id}">${label}</label><input id="${id}" name="${id}" type="text"></p>`;
  const cardOf = (fields: readonly string[]): string =>
    `<article><h2>${fields.join(' and ')}</h2><form>${fields.map((one) => field(one, one.toUpperCase())).join('')}</form></article>`;
  const page = pageOfHtml(
    `<main>${[
      ['ada', 'bo', 'cy'],
      ['dan', 'eve', 'flo', 'gus'],
    ]
      .map(cardOf)
      .join('')}</main>`,
  );
  const bare = projectOf(page);
  const places = page.root.children[0].children.map(({ key }) => key);
  const project = {
    ...bare,
    app: applyChange(bare.app, putComponent('c', { name: 'FieldCard', kind: 'component', places })),
  };
  isSame(project);
  const card = filesOf(project).get('src/components/FieldCard/FieldCard.tsx')!;
  expect(card).toMatch(/<label htmlFor=\{field\.fieldId\}>\{field\.\w+\}<\/label>/);
  expect(card).toMatch(/id=\{field\.fieldId\}/);
  expect(typeErrors([emitReact(project, 'Fields')])).toEqual([]);
  expect(vueProblems([emitVue(project, 'Fields')])).toEqual([]);
});

test('a long list that a component is given stands in a file of its own, and a short one where it is given', () => {
  const long = Array.from({ length: 12 }, (_, i) =>
    feature(`Tool ${'abcdefghijkl'[i]}`, { isIn: i % 3 > 0 }),
  );
  const project = pileOf('component', [{ name: 'Free', features: long }, PLANS[1]]);
  const files = filesOf(project);
  const [path, data] = [...files].find(([name]) => name.endsWith('.data.ts'))!;
  expect(data).toMatch(/export const freeItems: PlanCardProps\['items'\] = \[\n {2}\{ id: 'tool-a'/);
  const screen = files.get(path.replace('.data.ts', '.tsx'))!;
  expect(screen).toContain('items={freeItems}');
  expect(screen).toMatch(/import \{ freeItems \} from '\.\/\w+\.data'/);
  expect(screen).toContain("items={[{ id: 'three-tools'");
  expect(typeErrors([emitReact(project, 'Plans')])).toEqual([]);
  expect(vueProblems([emitVue(project, 'Plans')])).toEqual([]);
}, 120_000);

test('the compilers take lists in both targets', () => {
  const project = pileOf('component', PLANS);
  expect(typeErrors([emitReact(project, 'Plans'), emitReact(pileOf('list', PLANS), 'Plans')])).toEqual([]);
  expect(vueProblems([emitVue(project, 'Plans'), emitVue(pileOf('list', PLANS), 'Plans')])).toEqual([]);
}, 120_000);

test('a component without props is given nothing of the records that it is listed by', () => {
  const page = pageOfHtml(`<main><ul>${'<li><i>*</i></li>'.repeat(5)}</ul></main>`);
  const bare = projectOf(page);
  const places: string[] = [];
  walkElements(page.root, ({ tag, key }) => void (tag === 'li' && places.push(key)));
  const app = applyChange(bare.app, putComponent('dot', { name: 'Dot', kind: 'list', places }));
  const { files } = emitReact({ ...bare, app }, 'Dots');
  const texts = files.flatMap((file) => ('text' in file ? [file.text] : []));
  expect(texts.join('')).toContain('<Dot key={dot.id} />');
});

test.each([false, true])(
  'attributes of few values are props that types hold to them, in lists, too: %s',
  (isList) => {
    const button = (type: string, more = ''): string =>
      `<button class="go"${type && ` type="${type}"`}${more}>Go ${type}</button>`;
    const steps = (current: string, at: string): string =>
      `<p class="steps">${['One', 'Two', 'Three', 'Four'].map((word) => `<span class="step"${word === at ? ` aria-current="${current}" aria-orientation="vertical"` : ' aria-orientation="horizontal"'}>${word} ${at}</span>`).join('')}</p>`;
    const cards = [
      button('submit') + steps('step', 'One'),
      button('reset') + steps('page', 'Two'),
      button('') + steps('date', 'Four'),
    ];
    const page = pageOfHtml(
      `<main>${cards.map((card, i) => `<article><h2>${'ABC'[i]}</h2>${card}</article>`).join('')}</main>`,
    );
    const bare = projectOf(page);
    const found = (name: string): string[] => {
      const keys: string[] = [];
      walkElements(
        page.root,
        ({ classes, tag, key }) => void ((classes === name || tag === name) && keys.push(key)),
      );
      return keys;
    };
    const changes = [
      putComponent('button', { name: 'GoButton', kind: 'component', places: found('go') }),
      ...(isList
        ? [putComponent('card', { name: 'StepCard', kind: 'component', places: found('article') })]
        : []),
      ...(isList ? [] : [putComponent('step', { name: 'Step', kind: 'component', places: found('step') })]),
    ];
    const project = { ...bare, app: applyChange(bare.app, all(changes)) };
    isSame(project);
    expect(typeErrors([emitReact(project, 'Steps')])).toEqual([]);
    expect(vueProblems([emitVue(project, 'Steps')])).toEqual([]);
  },
  120_000,
);

test('what an item says of a number is one, whether the compiler reads TSX or a template', () => {
  const card = (name: string, shares: readonly number[]): string =>
    `<article style="border-top-style:solid;border-top-width:1px"><h2>${name}</h2><div>${shares.map((share) => `<div class="progress"><div role="progressbar" aria-label="Lent" aria-valuemin="0" aria-valuemax="100" aria-valuenow="${share}" style="width:${share}px"></div></div>`).join('')}</div></article>`;
  const page = pageOfHtml(`<main>${card('Saws', [20, 40, 60])}${card('Drills', [10, 90])}</main>`);
  const bare = projectOf(page);
  const places = page.root.children[0].children.map(({ key }) => key);
  const change = putComponent('card', { name: 'ShareCard', kind: 'component', places });
  const project = { ...bare, app: applyChange(bare.app, change) };
  const made = emitReact(project, 'Made').files.flatMap((file) =>
    'text' in file && file.path.endsWith('ShareCard.tsx') ? [file.text] : [],
  );
  expect(made.join()).toMatch(/aria-valuenow=\{item\.\w+ \? Number\(item\.\w+\) : undefined\}/);
  expect(typeErrors([emitReact(project, 'Made')])).toEqual([]);
  expect(vueProblems([emitVue(project, 'Made')])).toEqual([]);
});
