import { fittingTemplate } from './fitting.ts';
import { extractionOf, previewComponent } from './extraction.ts';
import fc from 'fast-check';
import { findComponents } from '../../../components/find.ts';
import { applyChange, putComponent, putInteraction } from '../../../change/change.ts';
import { all } from '../../../change/change.ts';
import type { App } from '../../../model/app.ts';
import type { Screen } from '../../../model/design.ts';
import { type Project, walkElements } from '../../../model/project.ts';
import { drawnBothWays } from '../../../testing/expand.ts';
import { projectOf, screenOf, screenWith, svg } from '../../../testing/build.ts';
import { pressTo } from '../../../model/interaction.ts';
import { pageOfHtml } from '../../../testing/page_of_html.ts';
import { typeErrors } from '../../../testing/typecheck.ts';
import { vueProblems } from '../../../testing/vue_problems.ts';
import { emitReact } from '../../react/emit_react.ts';
import { emitVue } from '../../vue/emit_vue.ts';
import type { MarkupElement } from '../markup.ts';
import { EmissionPlan } from '../plan.ts';
import { NOTHING_OF_ELEMENTS, type Place, templateOf } from './template.ts';

interface RowSpec {
  readonly name: string;
  readonly status: string;
  readonly color: string;
  readonly hasPicture: boolean;
  readonly hasBadge: boolean;
}

const rowOf = (spec: RowSpec, y: number): string =>
  `<g data-name="Tool row"><rect x="0" y="${y}" width="390" height="80" fill="#fff" stroke="#ddd"/>${
    spec.hasPicture ? `<image x="16" y="${y + 10}" width="60" height="60" xlink:href="known.png"/>` : ''
  }<text x="96" y="${y + 36}" font-size="16" font-weight="700" fill="#222">${spec.name.replace('&', '&amp;')}</text><text x="96" y="${y + 58}" font-size="13" fill="${spec.color}">${spec.status}</text>${
    spec.hasBadge
      ? `<g data-name="Badge"><rect x="320" y="${y + 28}" width="50" height="22" rx="11" fill="#fe9"/><text x="345" y="${y + 44}" text-anchor="middle" font-size="12">new</text></g>`
      : ''
  }</g>`;
const screenWithRows = (key: string, rows: readonly RowSpec[]): Screen =>
  screenOf(
    svg(
      `<text x="24" y="50" font-size="24">${key}</text><g id="Rows">${rows.map((row, i) => rowOf(row, 100 + 84 * i)).join('')}</g>`,
    ),
    key,
  );

const spec = fc.record<RowSpec>({
  name: fc.constantFrom('Pillar drill', 'Saw', 'Loft ladder', 'Tile cutter & more'),
  status: fc.constantFrom('free today', 'back Thursday', '{late}'),
  color: fc.constantFrom('#2a5', '#666'),
  hasPicture: fc.boolean(),
  hasBadge: fc.boolean(),
});

/** All that is proposed, taken. */
function takeAll(project: Project, as?: 'component'): Project {
  const found = findComponents(project.design.screens);
  const changes = found.map(({ name, kind, places }, i) =>
    putComponent(`c${i}`, { name, kind: as ?? kind, places }),
  );
  return { ...project, app: applyChange(project.app, all(changes)) };
}

function expectSameDrawing(project: Project): void {
  for (const { made, plain } of drawnBothWays(project)) expect(made).toEqual(plain);
}

test('whatever is taken, the screens say the same as before', () => {
  fc.assert(
    fc.property(
      fc.array(spec, { minLength: 1, maxLength: 6 }),
      fc.array(spec, { minLength: 1, maxLength: 4 }),
      (one, two) => {
        const project = projectOf(screenWithRows('home', one), screenWithRows('more', two));
        expectSameDrawing(takeAll(project));
        expectSameDrawing(takeAll(project, 'component'));
      },
    ),
    { numRuns: 60 },
  );
});

const base: RowSpec = { name: 'Saw', status: 'free today', color: '#2a5', hasPicture: true, hasBadge: false };
const rows: readonly RowSpec[] = [
  { ...base, name: 'Pillar drill' },
  { ...base, name: 'Saw', status: 'back Thursday', color: '#666' },
  { ...base, name: 'Loft ladder', hasBadge: true },
];
const project = projectOf(screenWithRows('home', rows));
const taken = takeAll(project);

function textOf(files: ReturnType<typeof emitReact>['files'], path: string): string {
  const file = files.find((candidate) => candidate.path === path);
  if (!file || !('text' in file))
    throw new Error(`no ${path} among ${files.map((other) => other.path).join(', ')}`);
  return file.text;
}

test('a list is one template, with its copies as sample records', () => {
  const { files } = emitReact(taken, 'demo');
  expect(textOf(files, 'src/screens/Home/Home.tsx')).toContain('{tools.map((tool) => (');
  const data = textOf(files, 'src/screens/Home/Home.data.ts');
  for (const { name, status } of rows) {
    expect(data).toContain(`name: '${name}'`);
    expect(data).toContain(`status: '${status}'`);
  }
  expect(data.match(/id: '/g)).toHaveLength(3);
});

test('what most places of a component say is said by itself, and left out where it is used', () => {
  const { files } = emitReact(takeAll(project, 'component'), 'App');
  expect(textOf(files, 'src/components/ToolRow/ToolRow.tsx')).toContain("status = 'free today'");
  const screen = textOf(files, 'src/screens/Home/Home.tsx');
  expect(screen.match(/status="/g)).toHaveLength(1);
  expect(screen).toContain('status="back Thursday"');
});

test('what differs has a prop named by what it says; what some lack is optional', () => {
  const plan = new EmissionPlan(taken);
  const { components } = extractionOf(plan);
  const row = components.find((component) => component.name === 'ToolRow')!;
  const props = Object.fromEntries(row.props.map((prop) => [prop.name, prop]));
  expect(props.name).toMatchObject({ kind: 'text', isOptional: false, sample: 'Pillar drill' });
  expect(props.status).toMatchObject({ kind: 'text' });
  expect(row.props.filter((prop) => prop.kind === 'flag')).toHaveLength(2);
});

test('a prop can be given another name', () => {
  const [id] = Object.keys(taken.app.components);
  const renamed = { ...taken.app.components[id], props: { name: 'tool' } };
  const app = applyChange(taken.app, putComponent(id, renamed));
  const { files } = emitReact({ ...taken, app }, 'demo');
  expect(textOf(files, 'src/components/ToolRow/ToolRow.tsx')).toContain('tool: string;');
  expect(textOf(files, 'src/screens/Home/Home.data.ts')).toContain("tool: 'Saw'");
});

test('places that are too different go their own way, and that is said', () => {
  const [home] = project.design.screens;
  const [heading, list] = home.root.children;
  const plan = new EmissionPlan(project);
  const preview = previewComponent(plan, { name: 'Odd', kind: 'component', places: [heading.key, list.key] });
  expect(preview).toMatchObject({
    props: [],
    problem: expect.stringContaining('differ in their elements') as string,
  });
});

test('a place that is gone is left out; with fewer than two there is no component', () => {
  const plan = new EmissionPlan(project);
  const { places } = Object.values(taken.app.components)[0];
  expect(
    previewComponent(plan, { name: 'Row', kind: 'list', places: [...places, 'home:99'] }).problem,
  ).toBeNull();
  expect(
    previewComponent(plan, { name: 'Row', kind: 'list', places: [places[0], 'home:99'] }).problem,
  ).toMatch(/place/);
});

describe('a bar that is the same on each screen but for where one is', () => {
  const bar = (active: number): string =>
    ['Tools', 'Loans', 'Rules']
      .map(
        (name, i) =>
          `<g data-name="${name} link"><rect x="${130 * i}" y="780" width="130" height="60" fill="${i === active ? '#2a5' : '#fff'}" stroke="#ddd"/><text x="${130 * i + 20}" y="814" font-size="14">${name}</text></g>`,
      )
      .join('');
  const screens = ['tools', 'loans', 'rules'].map((key, i) =>
    screenOf(
      svg(
        `<text x="24" y="50" font-size="24">Page ${key}</text><g id="Bar" data-name="Tab bar">${bar(i)}</g>`,
      ),
      key,
    ),
  );
  const plain = projectOf(...screens);
  const wired = screens.flatMap((screen) =>
    screens.map((to, i) =>
      putInteraction(`${screen.key}:1/${i}`, {
        on: 'press',
        target: { kind: 'screen', screen: to.key },
        arrival: { kind: 'none' },
      }),
    ),
  );
  const app: App = applyChange(
    plain.app,
    all([
      ...wired,
      putComponent('bar', {
        name: 'Bar',
        kind: 'component',
        places: screens.map((screen) => `${screen.key}:1`),
      }),
    ]),
  );
  const whole = { ...plain, app };

  test('looks at the present route instead of being told', () => {
    const { files } = emitReact(whole, 'demo');
    const text = textOf(files, 'src/components/Bar/Bar.tsx');
    expect(text).toContain('const { pathname } = useLocation();');
    expect(text).not.toContain('interface BarProps');
    expect(textOf(files, 'src/screens/Loans/Loans.tsx')).toContain('<Bar />');
    expectSameDrawing(whole);
  });
});

test('two families joined are one component with a prop that tells them apart', () => {
  const button = (y: number, label: string, fill: string): string =>
    `<g data-name="${label} button"><rect x="24" y="${y}" width="342" height="48" rx="8" fill="${fill}" stroke="#234"/><text x="195" y="${y + 30}" font-size="16" text-anchor="middle" fill="${fill === '#fff' ? '#234' : '#fff'}">${label}</text></g>`;
  const screen = screenOf(
    svg(
      button(60, 'Go', '#234') +
        button(120, 'On', '#234') +
        button(180, 'Back', '#fff') +
        button(240, 'Stop', '#fff'),
    ),
    'home',
  );
  const places = ['home:0', 'home:1', 'home:2', 'home:3'];
  const app = applyChange(
    projectOf(screen).app,
    putComponent('c1', { name: 'Button', kind: 'component', places }),
  );
  const joined = { ...projectOf(screen), app };
  const [component] = extractionOf(new EmissionPlan(joined)).components;
  expect(component.props.map((prop) => [prop.kind, prop.isOptional])).toEqual([
    ['flag', true],
    ['text', false],
  ]);
  expectSameDrawing(joined);
});

test('same input, same bytes', () => {
  const again = takeAll(projectOf(screenWithRows('home', rows)));
  expect(emitReact(again, 'demo').files).toEqual(emitReact(taken, 'demo').files);
});

/** A card with parts that can be there, an icon that is drawn, and colours of several kinds. */
const part = fc.record({
  title: fc.constantFrom('Pillar drill', 'Saw', 'Loft ladder'),
  tone: fc.constantFrom('#2a5', '#666', '#a11'),
  icon: fc.constantFrom('M2 2 L12 12', 'M4 8 H20', 'M8 2 V18'),
  hasIcon: fc.boolean(),
  badge: fc.option(
    fc.record({ says: fc.constantFrom('new', 'late', 'out'), tone: fc.constantFrom('#fe9', '#9ef', '#e9f') }),
  ),
});
type Part = typeof part extends fc.Arbitrary<infer T> ? T : never;
const cardOf = ({ title, tone, icon, hasIcon, badge }: Part, y: number): string =>
  `<g data-name="Card"><rect x="10" y="${y}" width="370" height="90" rx="6" fill="#fff" stroke="#ddd"/>${
    hasIcon
      ? `<g data-name="Icon" transform="translate(20 ${y + 20})"><path d="${icon}" stroke="${tone}" fill="none"/></g>`
      : ''
  }<g data-name="Words"><text x="60" y="${y + 34}" font-size="16" fill="${tone}">${title}</text><text x="60" y="${y + 58}" font-size="13">${title.length} days</text></g>${
    badge
      ? `<g data-name="Badge"><rect x="300" y="${y + 28}" width="60" height="22" rx="11" fill="${badge.tone}"/><text x="310" y="${y + 44}" font-size="12">${badge.says}</text></g>`
      : ''
  }</g>`;

test('whatever is made a component, one within the other, the code is what the compiler takes', () => {
  const projects = fc.sample(
    fc.tuple(
      fc.array(fc.array(part, { minLength: 2, maxLength: 5 }), { minLength: 1, maxLength: 3 }),
      fc.nat(),
      fc.boolean(),
    ),
    { numRuns: 30, seed: 7 },
  );
  const emitted = projects.map(([screens, seed, isList]) => {
    const made = projectOf(
      ...screens.map((cards, i) =>
        screenOf(
          svg(`<g id="Cards">${cards.map((card, k) => cardOf(card, 20 + 100 * k)).join('')}</g>`),
          `s${i}`,
        ),
      ),
    );
    const places = (name: string): string[] =>
      made.design.screens.flatMap((screen) => {
        const found: string[] = [];
        walkElements(screen.root, (element) => void (element.name === name && found.push(element.key)));
        return found;
      });
    const changes = ['Card', 'Words', 'Badge', 'Icon'].flatMap((name, i) => {
      const some = places(name).filter((_, k) => (seed >> (k % 20)) % 3 || i === 0);
      return some.length > 1
        ? [putComponent(`c${i}`, { name, kind: i === 0 && isList ? 'list' : 'component', places: some })]
        : [];
    });
    return emitReact({ ...made, app: applyChange(made.app, all(changes)) }, 'Made');
  });
  expect(typeErrors(emitted)).toEqual([]);
});

const text = (words: string, key: string): MarkupElement => ({
  tag: 'p',
  key,
  className: null,
  attributes: {},
  children: [{ text: words }],
});
/** A card with a title, and a badge that may be there. */
const card = (hasBadge: boolean, i: number): Place => ({
  node: {
    tag: 'div',
    key: `card ${i}`,
    className: null,
    attributes: {},
    children: [text('Saw', `title ${i}`), ...(hasBadge ? [text('new', `badge ${i}`)] : [])],
  },
  rules: new Map(),
  route: null,
});

test.each([
  [
    'most places have: set by itself',
    [true, true, true, true, false],
    true,
    [{}, {}, {}, {}, { hasNew: false }],
  ],
  [
    'half of them have: said',
    [true, true, false, false],
    undefined,
    [{ hasNew: true }, { hasNew: true }, {}, {}],
  ],
])('a flag for a part that %s', (_, badges, byDefault, values) => {
  const template = templateOf(badges.map(card), {}, true)!;
  expect(template.props).toMatchObject([{ name: 'hasNew', kind: 'flag' }]);
  expect(template.props[0].byDefault).toBe(byDefault);
  expect(template.values).toEqual(values);
});

test.each([
  ['set', { byDefault: true as const }, [{}, { hasNew: false }, { hasNew: false }]],
  ['not set', {}, [{ hasNew: true }, {}, {}]],
])('a flag that was %s where nothing was given stays so', (_, before, values) => {
  const template = templateOf(
    [true, false, false].map(card),
    {},
    true,
    new Map([['hasNew', { what: 'flag has', at: ['badge 0'], ...before }]]),
  )!;
  expect(template.values).toEqual(values);
});

test('no two props are called alike, whatever fields they show', () => {
  const fieldOf = new Map(['title 0', 'title 1'].map((key) => [key, 'name2']));
  const places = ['Saw', 'Drill'].map((words, i): Place => ({
    ...card(false, i),
    node: {
      ...card(false, i).node,
      children: [text(words, `title ${i}`), text(`${words} a`, `x ${i}`), text(`${words} b`, `y ${i}`)],
    },
  }));
  const names = templateOf(places, {}, false, undefined, { ...NOTHING_OF_ELEMENTS, fieldOf })!.props.map(
    ({ name }) => name,
  );
  expect(names).toContain('name2');
  expect(new Set(names).size).toBe(3);
});

/** A bar of so many entries, all of one tag and look, at a route. */
const barOf = (entries: readonly string[], tag: string, color: string, i: number): Place => ({
  node: {
    ...card(false, i).node,
    className: 'bar',
    children: entries.map((words, at) => ({ ...text(words, `bar ${i} ${at}`), tag, className: 'entry' })),
  },
  rules: new Map(
    ['bar', 'entry'].map((className) => [
      className,
      { className, key: null, base: { color }, at: {}, from: {}, states: {} },
    ]),
  ),
  route: `/${i}`,
});
const ENTRIES = Array.from({ length: 14 }, (_, i) => `Entry ${i}`);
const component = { name: 'Bar', kind: 'component' as const, places: [] };

test.each<[string, Place]>([
  ['looks otherwise in nearly everything', barOf(ENTRIES, 'p', '#cc2222', 9)],
  ['is built of something else', barOf(ENTRIES, 'b', '#222222', 9)],
])('a place that %s goes its own way', (_, stray) => {
  const alike = [0, 1, 2, 3].map((i) => barOf(ENTRIES, 'p', '#222222', i));
  const made = fittingTemplate([...alike, stray], component)!;
  expect(made.places).toEqual(alike);
  expect(made.template.props).toEqual([]);
  // One entry more is a part that some lack.
  const longer = barOf([...ENTRIES, 'One more'], 'p', '#222222', 9);
  expect(fittingTemplate([...alike, longer], component)!.places).toHaveLength(5);
});

test.each([
  ['that a place has without saying it can be unsaid', ['Saw', '', 'Drill'], true],
  ['of a part that is missing as a whole cannot', ['Saw', null, 'Drill'], undefined],
])('a text %s', (_, titles, canBeUnsaid) => {
  const places = titles.map((title, i): Place => ({
    ...card(false, i),
    node: {
      ...card(false, i).node,
      children: [
        text('Tools', `head ${i}`),
        ...(title === null
          ? []
          : [{ ...text(title, `title ${i}`), tag: 'h3', children: title ? [{ text: title }] : [] }]),
      ],
    },
  }));
  expect(templateOf(places)!.props.find(({ kind }) => kind === 'text')?.canBeUnsaid).toBe(canBeUnsaid);
});

test('a label and its field are given one id', () => {
  const element = (tag: string, key: string, attributes: Record<string, string>): MarkupElement => ({
    ...text('Remember me', key),
    tag,
    attributes,
    ...(tag === 'input' ? { children: [] } : {}),
  });
  const places = ['here', 'there'].map((id, i): Place => ({
    ...card(false, i),
    node: {
      ...card(false, i).node,
      children: [
        element('input', `field ${i}`, { id, type: 'text' }),
        element('label', `label ${i}`, { for: id }),
      ],
    },
  }));
  const { props, values } = templateOf(places)!;
  expect(props.map(({ name }) => name)).toEqual(['fieldId']);
  expect(values).toEqual([{ fieldId: 'here' }, { fieldId: 'there' }]);
});

test('props are called as the fields of the records that they show', () => {
  const fieldOf = new Map([
    ['title 0', 'tool'],
    ['title 1', 'tool'],
  ]);
  const places = ['Saw', 'Drill'].map((words, i): Place => ({
    ...card(false, i),
    node: { ...card(false, i).node, children: [text(words, `title ${i}`)] },
  }));
  const template = templateOf(places, {}, false, undefined, { ...NOTHING_OF_ELEMENTS, fieldOf })!;
  expect(template.values).toEqual([{ tool: 'Saw' }, { tool: 'Drill' }]);
  // What somebody called otherwise stays so.
  const { name } = templateOf(places)!.props[0];
  expect(
    templateOf(places, { [name]: 'label' }, false, undefined, { ...NOTHING_OF_ELEMENTS, fieldOf })!.props[0]
      .name,
  ).toBe('label');
});

test('a component that is called as a screen that uses it gets a name of its own', () => {
  const bare = projectOf(screenWith('timeline', 'Go', 'Back'), screenWith('home', 'Stay', 'Back'));
  const places = ['timeline:0', 'home:0'];
  const app = applyChange(bare.app, putComponent('c', { name: 'Timeline', kind: 'component', places }));
  const emitted = emitReact({ ...bare, app }, 'Two of a name');
  expect(emitted.files.map(({ path }) => path)).toContain('src/components/TimelineBlock/TimelineBlock.tsx');
  expect(typeErrors([emitted])).toEqual([]);
}, 60_000);

test('which of three looks an entry of a menu has is told by the page that it is in, not page by page', () => {
  const keys = ['a', 'b', 'c'];
  const menu = (here: string): string =>
    ['a', 'b', 'c']
      .map((to) => {
        const color = to === here ? 'white' : here === 'c' ? 'gray' : 'black';
        return `<a href="${to}.html" style="color:${color}">To ${to}</a>`;
      })
      .join('');
  const pages = keys.map((key) => pageOfHtml(`<nav>${menu(key)}</nav><p>Page ${key}</p>`, key));
  const bare = projectOf(...pages);
  const bars = pages.map(({ root }) => root.children.find(({ tag }) => tag === 'nav')!);
  const links = bars.flatMap(({ children }) =>
    children.map((link, i) => putInteraction(link.key, pressTo({ kind: 'screen', screen: keys[i] }))),
  );
  const places = bars.map(({ key }) => key);
  const app = applyChange(
    bare.app,
    all([...links, putComponent('bar', { name: 'Bar', kind: 'component', places })]),
  );
  const emitted = emitReact({ ...bare, app }, 'Menu');
  const bar = emitted.files.find(({ path }) => path.endsWith('/Bar.tsx'));
  const code = bar && 'text' in bar ? bar.text : '';
  expect(code).toContain("pathname === '/a'");
  expect(code).not.toContain('variant');
  expect(code).not.toContain('interface');
  expect(typeErrors([emitted])).toEqual([]);
}, 60_000);

/** Pages with a bar that is a component, and the code of that. */
function codeOfBar(
  keys: readonly string[],
  barOn: (key: string) => string,
  linksIn: (bar: MarkupLike, key: string) => ReturnType<typeof putInteraction>[],
): string {
  const pages = keys.map((key) => pageOfHtml(`<nav>${barOn(key)}</nav><p id="${key}">Page ${key}</p>`, key));
  const bare = projectOf(...pages);
  const bars = pages.map(({ root }) => root.children.find(({ tag }) => tag === 'nav')!);
  const places = bars.map(({ key }) => key);
  const app = applyChange(
    bare.app,
    all([
      ...bars.flatMap((bar, i) => linksIn(bar, keys[i])),
      putComponent('bar', { name: 'Bar', kind: 'component', places }),
    ]),
  );
  const emitted = emitReact({ ...bare, app }, 'Bars');
  expect(typeErrors([emitted])).toEqual([]);
  const bar = emitted.files.find(({ path }) => path.endsWith('/Bar.tsx'));
  return bar && 'text' in bar ? bar.text : '';
}
type MarkupLike = Screen['root'];

test('a group of a menu is open by the route, also at the page that sums it up and has no entry', () => {
  const keys = ['a', 'b', 'c', 'd', 'sum', 'other'];
  const entries = ['a', 'b', 'c', 'other'];
  const code = codeOfBar(
    keys,
    (key) =>
      `<p style="color:${key === 'other' || key === 'd' ? 'gray' : 'black'}">Group</p>${entries.map((to) => `<a href="${to}.html">To ${to}</a>`).join('')}`,
    (bar) =>
      bar.children
        .filter(({ tag }) => tag === 'a')
        .map((link, i) => putInteraction(link.key, pressTo({ kind: 'screen', screen: entries[i] }))),
  );
  expect(code).toContain("['/a', '/b', '/c', '/sum'].includes(pathname)");
  expect(code).not.toContain('interface');
}, 60_000);

test('a link to a place of the own page is the same on every page', () => {
  const code = codeOfBar(
    ['a', 'b', 'c'],
    () => '<a href="#top">To the top</a><b id="top">Top</b>',
    (bar, key) => [
      putInteraction(
        bar.children[0].key,
        pressTo({ kind: 'anchor', screen: key, element: bar.children[1].key }),
      ),
    ],
  );
  expect(code).toMatch(/to="#[\w-]+"/);
  expect(code).not.toContain('interface');
}, 60_000);

test('a place that is given much more than all others goes its own way', () => {
  const said = (words: string, number: number): Place =>
    barOf(
      ENTRIES.map((one) => words + one),
      'p',
      '#222222',
      number,
    );
  const alike = [0, 1, 2, 3, 4].map((i) => said('', i));
  const made = fittingTemplate([...alike, said('Other ', 9)], component)!;
  expect(made.places).toEqual(alike);
  expect(made.template.props).toEqual([]);
  // Where many are, there is nothing that most are given.
  const many = [...alike, said('Other ', 8), said('More ', 9)];
  expect(fittingTemplate(many, component)!.places).toHaveLength(many.length);
});

test('an attribute that an outer component gives in one look alone may be left out of the inner one', () => {
  const tab = (label: string, isNamed: boolean, text: string): string =>
    `<button class="tab" type="button"${isNamed ? ` aria-label="${label}"` : ''}><i class="sign">*</i>${text}</button>`;
  const bar = (isNamed: boolean, words: readonly string[]): string =>
    `<div class="tabs" style="color:${isNamed ? 'red' : 'blue'}">${words.map((word) => tab(word, isNamed, isNamed ? '' : word)).join('')}</div>`;
  const page = pageOfHtml(
    `<main><h1>Tabs</h1>${[true, false, true, false].map((isNamed) => bar(isNamed, ['Tools', 'Loans'])).join('')}</main>`,
  );
  const found = new Map<string, string[]>();
  walkElements(page.root, ({ key, classes = '' }) => {
    if (/^(tab|tabs)$/.test(classes)) found.set(classes, [...(found.get(classes) ?? []), key]);
  });
  const bare = projectOf(page);
  const app = applyChange(
    bare.app,
    all(
      [...found].map(([name, places]) =>
        putComponent(name, { name: name === 'tab' ? 'Tab' : 'Tabs', kind: 'component', places }),
      ),
    ),
  );
  const project = { ...bare, app };
  const react = emitReact(project, 'Made');
  const tsx = react.files.find(({ path }) => path.endsWith('/Tabs.tsx'));
  expect(tsx && 'text' in tsx ? tsx.text : '').toMatch(/\? 'Tools' : undefined/);
  expect(typeErrors([react])).toEqual([]);
  expect(vueProblems([emitVue(project, 'Made')])).toEqual([]);
});

test.each([
  ['the same parts', ['near', 'near'], 2],
  ['other parts', ['near', 'far'], 0],
  ['other parts than most', ['near', 'far', 'near'], 2],
])('tabs that choose among %s', (_what, firsts, inOne) => {
  const tabsOf = (first: string, i: number): Place => {
    const bar = barOf(['One', 'Two'], 'button', '#222222', i);
    const choice = { name: 'tabsChoice', first, all: [first, `${first}-two`] };
    const tab = (at: number): MarkupElement => ({
      ...(bar.node.children[at] as MarkupElement),
      link: { kind: 'disclose', id: choice.all[at], does: 'open', choice },
    });
    const item = { ...bar.node, tag: 'li', className: 'entry' };
    const children = [0, 1].map((at) => ({ ...item, key: `${item.key} ${at}`, children: [tab(at)] }));
    return { ...bar, node: { ...bar.node, children } };
  };
  const made = fittingTemplate(firsts.map(tabsOf), component);
  expect(made?.places.length ?? 0).toBe(inOne);
});

type Given<A> = A extends fc.Arbitrary<infer T> ? T : never;

/** Keys of the elements with a class, in order. */
function keysOf({ root }: Screen, wanted: string): string[] {
  const keys: string[] = [];
  walkElements(root, ({ key, classes }) => {
    if (classes === wanted) keys.push(key);
  });
  return keys;
}
/** A project with components that are what has some classes. */
function madeOf(pages: readonly Screen[], ...classes: readonly string[]): Project {
  const bare = projectOf(...pages);
  const changes = classes.map((name) => {
    const places = pages.flatMap((page) => keysOf(page, name));
    return putComponent(name, { name, kind: 'component', places });
  });
  return { ...bare, app: applyChange(bare.app, all(changes)) };
}

/** Bars of menus of entries, on pages of which some are led to; and which of the three are components. */
const word = fc.constantFrom('Saw', 'Drill', 'Tools', 'Late');
const entry = fc.record({
  says: word,
  leads: fc.constantFrom('nowhere', 'out', 'page0', 'page1'),
  isNew: fc.boolean(),
  title: fc.constantFrom('', 'Tip', 'Hint'),
});
const menu = fc.record({
  head: word,
  color: fc.constantFrom('red', 'blue'),
  entries: fc.array(entry, { minLength: 1, maxLength: 3 }),
});
const entryOf = ({ says, leads, isNew, title }: Given<typeof entry>): string => {
  const href = leads === 'out' ? `https://${says.toLowerCase()}.example` : '';
  const text = leads === 'nowhere' ? says : `<a class="${leads}"${href && ` href="${href}"`}>${says}</a>`;
  return `<li class="entry"${title && ` title="${title}"`}>${text}${isNew ? '<i>new</i>' : ''}</li>`;
};
const menuOf = ({ head, color, entries }: Given<typeof menu>): string =>
  `<div class="menu" style="color:${color}"><p>${head}</p><ul>${entries.map(entryOf).join('')}</ul></div>`;
const nested = fc.tuple(
  fc.array(fc.tuple(word, menu, menu), { minLength: 2, maxLength: 4 }),
  fc.subarray(['bar', 'menu', 'entry'], { minLength: 2 }),
);
function nestedProject([bars, taken]: Given<typeof nested>): Project {
  const pages = bars.map(([title, ...menus], i) =>
    pageOfHtml(
      `<main><div class="bar"><b>${title}</b>${menus.map(menuOf).join('')}</div><h1>Page ${i}</h1></main>`,
      `page${i}`,
    ),
  );
  const made = madeOf(pages, ...taken);
  const links = ['page0', 'page1'].flatMap((screen) =>
    pages.flatMap((page) =>
      keysOf(page, screen).map((key) => putInteraction(key, pressTo({ kind: 'screen', screen }))),
    ),
  );
  return { ...made, app: applyChange(made.app, all(links)) };
}

test('what stands in larger components says what it said, whatever both are given by the same names', () => {
  fc.assert(
    fc.property(nested, (drawn) => expectSameDrawing(nestedProject(drawn))),
    { numRuns: 150 },
  );
}, 60_000);

test('what stands in larger components is what the compilers take', () => {
  const projects = fc.sample(nested, { numRuns: 40, seed: 11 }).map(nestedProject);
  expect(typeErrors(projects.map((one) => emitReact(one, 'Nested')))).toEqual([]);
  expect(vueProblems(projects.map((one) => emitVue(one, 'Nested')))).toEqual([]);
}, 120_000);

test('the space before what only some have is no prop', () => {
  const page = pageOfHtml(
    `<main><h1>Tools</h1>${['', ' <i>new</i>', ' <i>late</i>'].map((more) => `<p class="tool"><b>Saw</b>${more}</p>`).join('')}</main>`,
  );
  const project = madeOf([page], 'tool');
  const { components } = extractionOf(new EmissionPlan(project));
  expect(components.flatMap(({ props }) => props.map(({ kind }) => kind))).toEqual(['text']);
  expect(typeErrors([emitReact(project, 'Tools')])).toEqual([]);
  // Where it stands between two things that are always there, it says something.
  const between = pageOfHtml(
    `<main><h1>Tools</h1>${['', ' '].map((space) => `<p class="tool"><b>Saw</b>${space}<i>new</i></p>`).join('')}</main>`,
  );
  expectSameDrawing(madeOf([between], 'tool'));
});
