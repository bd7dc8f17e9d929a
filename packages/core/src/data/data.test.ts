import fc from 'fast-check';
import type { Screen } from '../model/design.ts';
import { screenOf, svg } from '../testing/build.ts';
import { pageOfHtml } from '../testing/page_of_html.ts';
import { findActions } from './actions.ts';
import { findBindings } from './bindings.ts';
import { findCollections } from './collections.ts';
import { findForms } from './forms.ts';
import { plural, singular } from '../model/names.ts';
import { collectionBy, collectionIn, collectionOf, fieldIn } from './names.ts';
import { proposeData } from './propose.ts';
import { typeOfValue, typeOfValues } from './value_types.ts';

test.each([
  ['$1,200.50', 'money'],
  ['12 €', 'money'],
  ['$2500 USD', 'money'],
  ['£4', 'money'],
  ['42 %', 'percent'],
  ['2024-03-01', 'date'],
  ['14 March 2025', 'date'],
  ['Mar 3, 2025', 'date'],
  ['3 days ago', 'date'],
  ['back Thursday', 'date'],
  ['due Mon', 'date'],
  ['Marching band', 'text'],
  ['09:30', 'time'],
  ['3.50', 'number'],
  ['9 am', 'time'],
  ['yes', 'yes-no'],
  ['a.b@example.org', 'email'],
  ['https://example.org/a', 'link'],
  ['+44 20 7946 0000', 'phone'],
  ['1 204', 'number'],
  ['-3.5', 'number'],
  ['Saw', 'text'],
  ['', 'text'],
])('the value %j is a %s', (value, type) => expect(typeOfValue(value)).toBe(type));

test.each([
  ['few of them, again and again', ['free', 'out', 'free', 'out', 'free'], '', 'one-of'],
  ['a status is one of several, though all differ', ['Done', 'Waiting'], 'Status', 'one-of'],
  ['names all differ', ['Saw', 'Drill', 'Hammer', 'Ladder'], 'Name', 'text'],
  ['one that is missing changes nothing', ['3', '', '4', '-'], '', 'number'],
  ['one that is odd changes nothing', ['3', '5', '7', 'many'], '', 'number'],
  ['bare numbers under a price', ['3.50', '4.00'], 'Price', 'money'],
  ['long digits that are no telephone', ['5547612983', '5547612984'], 'Serial', 'number'],
  ['digits that begin with nothing', ['0001', '0002', '0010'], 'SKU', 'text'],
  ['nothing at all', [], 'Name', 'text'],
] as const)('%s', (_, values, label, type) => expect(typeOfValues(values, label)).toBe(type));

test.each([
  [['€ 9.50 an hour', '€ 12.00 an hour', '€ 15.50 an hour'], 'price'],
  [['1 seat', '4 seats', '6 seats'], 'seats'],
  [['4 seats', '2 oars', '1 sail'], 'detail'],
  [['Oak', 'Ash', 'Steel'], 'detail'],
])('what says %j in rows that nothing calls is called %s', (texts, name) => {
  const rows = texts.map((text, i) => `<li><b>${['Otter', 'Heron', 'Teal'][i]}</b><i>${text}</i></li>`);
  const [{ fields }] = findCollections([pageOfHtml(`<main><ul>${rows.join('')}</ul></main>`)]);
  expect(fields.map((field) => field.name)).toEqual(['name', name]);
});

test.each([
  ['4 kinds of seeds', 'seeds'],
  ['Showing 1 to 4 of 214 plants', 'plants'],
  ['4 herbs found', 'herbs'],
  ['3 herbs found', null],
  ['4 results', null],
  ['4 minutes ago', null],
])('rows under “%s” are called %s', (text, name) => {
  const rows = ['Thyme', 'Sage', 'Dill', 'Rue'].map((one, i) => `<li><b>${one}</b><i>€ ${i + 1}.50</i></li>`);
  const [found] = findCollections([pageOfHtml(`<h1>Order</h1><ul>${rows.join('')}</ul><p>${text}</p>`)]);
  expect(found.name === name).toBe(name !== null);
});

test.each([
  [
    'switches that stand alone',
    '<main><button role="switch" aria-label="Tell me"></button><button>Add it</button></main>',
    0,
  ],
  [
    'a button of another form',
    '<main><div><input aria-label="Note"></div><form><input aria-label="Name"><input aria-label="Street"><button>Save</button></form></main>',
    1,
  ],
  [
    'a part of one',
    '<form><label>Name <input></label><div class="form"><label>Picture <input type="file"></label><input aria-label="File" disabled><button type="button">Upload</button></div><button>Save</button></form>',
    1,
  ],
  [
    'what is agreed to and sent',
    '<form><label><input type="checkbox"> I agree</label><button>Sign up</button></form>',
    1,
  ],
])('of %s a form is made %#', (_, html, count) => {
  expect(findForms(pageOfHtml(html))).toHaveLength(count);
});

test('any values have a type, and the order in which they come does not matter', () => {
  fc.assert(
    fc.property(fc.array(fc.constantFrom('3', 'a', '2024-01-01', '£3', 'free', '')), (values) => {
      const sorted = typeOfValues(values.toSorted());
      expect(typeOfValues(values.toSorted().reverse())).toBe(sorted);
    }),
  );
});

test.each([
  ['Recent orders', 'orders'],
  ['5 minutes ago', null],
  ['Tools in the sheds', 'tools'],
  ['Tools to borrow', 'tools'],
  ['Authors table', 'authors'],
  ['House rules', 'houseRules'],
  ['All categories', 'categories'],
  ['Today at the desk', null],
  ['Coming back', null],
  ['Overview', null],
  ['Exportable table', null],
  ['', null],
])('rows under “%s” are %s', (heading, name) => expect(collectionIn(heading)).toBe(name));

test.each([
  [['firstName', 'lastName', 'username'], 'Tables', 40, 'people'],
  [['name', 'count'], 'Home', 4, 'figures'],
  [['name', 'count'], 'Colours', 40, 'colours'],
  [['title', 'detail'], 'What is new', 3, 'whatIsNewRows'],
  [['title', 'detail'], '404', 3, null],
])('records of %j on %s are %s', (names, screen, rows, is) => {
  const fields = names.map((name) => ({ name, type: name === 'count' ? 'number' : 'text' }));
  expect(collectionBy(fields, rows, screen)).toBe(is);
});

test.each([
  ['Tool row', 'tools'],
  ['memberCard', 'members'],
  ['list-item', null],
  ['card-body', null],
  ['animated', null],
  ['garden-shed', 'gardenSheds'],
])('rows called %s are %s', (name, is) => expect(collectionOf(name)).toBe(is));

test.each([
  ['Date of birth', 'dateOfBirth'],
  ['Price (£)', 'price'],
  ['Enter your e-mail', 'email'],
  ['Serial #', 'serialNumber'],
  ['Member’s name', 'memberName'],
  ['*', ''],
  ['VAT No.', 'vatNumber'],
  ['No.', 'number'],
  ['Nobody', 'nobody'],
])('a field called “%s” is %j', (label, name) => expect(fieldIn(label)).toBe(name));

test.each(['tool', 'category', 'box', 'dish', 'person', 'news'])('%s, one and many', (word) =>
  expect(singular(plural(word))).toBe(word),
);

test.each([
  ['tableControls', 'tableControls'],
  ['bus', 'buses'],
  ['address', 'addresses'],
  ['status', 'statuses'],
])('many of %s are %s', (word, many) => expect(plural(word)).toBe(many));

interface Tool {
  readonly name: string;
  readonly state: string;
  readonly price: string;
}
const TOOLS: readonly Tool[] = [
  { name: 'Pillar drill', state: 'free', price: '£4' },
  { name: 'Tile cutter', state: 'out', price: '£6' },
  { name: 'Loft ladder', state: 'free', price: '£3' },
  { name: 'Apple press', state: 'out', price: '£12' },
];
const rowOf = ({ name, state, price }: Tool, y: number): string =>
  `<g data-name="Tool row"><rect x="16" y="${y}" width="358" height="64" rx="8" fill="#fff" stroke="#ddd"/><text x="32" y="${y + 28}" font-size="16" font-weight="700">${name}</text><text x="32" y="${y + 48}" font-size="13" fill="#555">${state}</text><text x="320" y="${y + 36}" font-size="15">${price}</text></g>`;
const shelf = (key = 'shelf', heading = 'Tools to borrow', foot = ''): Screen =>
  screenOf(
    svg(
      `<text x="16" y="48" font-size="26" font-weight="700">${heading}</text><g id="Rows">${TOOLS.map((tool, i) => rowOf(tool, 90 + 72 * i)).join('')}</g>${foot}`,
    ),
    key,
  );

test('rows of a list are records with fields that have types and names', () => {
  const [tools, ...more] = findCollections([shelf()]);
  expect(more).toEqual([]);
  expect(tools).toMatchObject({ name: 'tools', records: 4 });
  expect(tools.fields.map(({ type }) => type)).toEqual(['text', 'money', 'one-of']);
  expect(tools.fields[1]).toMatchObject({ name: 'price' });
  expect(Object.values(tools.places[0].records[1])).toEqual(['Tile cutter', '£6', 'out']);
  expect(tools.confidence).toBeGreaterThan(0.6);
});

test('the same kind of record on several screens is one collection', () => {
  const [tools, ...more] = findCollections([shelf(), shelf('sheds', 'Tools in the sheds')]);
  expect(more).toEqual([]);
  expect(tools.places.map(({ screen }) => screen)).toEqual(['shelf', 'sheds']);
  expect(tools.records).toBe(4);
});

test.each([
  ['Product', 'products'],
  ['Username', 'users'],
  ['Tool name', 'tools'],
  ['First name', 'tablesRows'],
])('rows whose first column is called %s are %s', (head, name) => {
  const row = (cells: readonly string[], tag: string, y: number): string =>
    `<tr data-box="20 ${y} 600 30">${cells.map((cell, i) => `<${tag} data-box="${20 + 200 * i} ${y} 200 30">${cell}</${tag}>`).join('')}</tr>`;
  const rows = ['Oakley', 'Birch', 'Rowan'].map((one, i) =>
    row([one, `No. ${i}`, 'Open'], 'td', 90 + 30 * i),
  );
  const page = pageOfHtml(
    `<main data-box="0 0 1280 880"><table data-box="20 60 600 120"><thead>${row([head, 'Number', 'State'], 'th', 60)}</thead><tbody>${rows.join('')}</tbody></table></main>`,
    'tables',
  );
  expect(findCollections([{ ...page, name: 'Tables' }]).map((found) => found.name)).toEqual([name]);
});

test('tables under several headings are one collection, called after what they list', () => {
  const table = (heading: string, y: number): string => {
    const row = (cells: readonly string[], tag: string, at: number): string =>
      `<tr data-box="20 ${at} 600 30">${cells.map((cell, i) => `<${tag} data-box="${20 + 200 * i} ${at} 200 30">${cell}</${tag}>`).join('')}</tr>`;
    return `<h2 data-box="20 ${y} 300 24">${heading}</h2><table data-box="20 ${y + 40} 600 120"><thead>${row(['Project', 'Client', 'Status'], 'th', y + 40)}</thead><tbody>${[
      ['Garden gate', 'Mill Lane', 'Done'],
      ['Book shelves', 'Library', 'Open'],
      ['Bird boxes', 'School', 'Done'],
    ]
      .map((cells, i) => row(cells, 'td', y + 70 + 30 * i))
      .join('')}</tbody></table>`;
  };
  // What is around the whole page is no menu, though it is called after the bar that it has.
  const page = pageOfHtml(
    `<div class="layout-navbar" data-box="0 0 1280 880"><main data-box="0 0 1280 880">${table('Plain table', 20)}${table('Dark table', 320)}</main></div>`,
  );
  const [projects, ...more] = findCollections([page]);
  expect(more).toEqual([]);
  expect(projects).toMatchObject({ name: 'projects', records: 3 });
  expect(projects.places).toHaveLength(2);
});

test('what stands beneath the first text of a column is called by the last word of its class', () => {
  const people = ['Ada Moss', 'Ben Reed', 'Cleo Fern', 'Dan Birch'];
  const rows = people.map((name, i) => {
    const y = 100 + i * 60;
    const mail = `${name.split(' ')[0].toLowerCase()}@sheds.example`;
    return `<tr data-box="20 ${y} 600 60"><td data-box="20 ${y} 300 60"><div class="cell-user-name" data-box="20 ${y} 200 20">${name}</div><div class="cell-user-email" data-box="20 ${y + 24} 200 20">${mail}</div></td><td data-box="320 ${y} 300 60">${12 * i + 3}</td></tr>`;
  });
  const head = ['User', 'Loans'].map((one, i) => `<th data-box="${20 + 300 * i} 60 300 40">${one}</th>`);
  const page = pageOfHtml(
    `<main data-box="0 0 1280 400"><table data-box="20 60 600 300"><thead><tr data-box="20 60 600 40">${head.join('')}</tr></thead><tbody>${rows.join('')}</tbody></table></main>`,
    'people',
  );
  const [{ fields }] = findCollections([{ ...page, name: 'People' }]);
  expect(fields.map(({ name }) => name)).toEqual(['user', 'email', 'loans']);
});

test('a bar of tabs and a row of chips are no records', () => {
  const bar = ['Home', 'Tools', 'Help']
    .map(
      (name, i) =>
        `<g data-name="${name} tab"><rect x="${20 + 90 * i}" y="790" width="70" height="40" fill="#fff"/><text x="${55 + 90 * i}" y="815" font-size="13" text-anchor="middle">${name}</text></g>`,
    )
    .join('');
  expect(findCollections([screenOf(svg(`<g data-name="Tab bar">${bar}</g>`))])).toEqual([]);
});

test('on the screen of a record what is short is told by what it is called there', () => {
  const trips = [
    ['Otter', 'Ann Lowe', '4'],
    ['Heron', 'Ben Marsh', '2'],
    ['Teal', 'Cara Holt', '6'],
  ];
  const list = `<main><h1>Trips</h1><ul>${trips.map(([boat, skipper, seats]) => `<li><b>${boat}</b><i>${skipper}</i><span>Seats</span><u>${seats}</u></li>`).join('')}</ul></main>`;
  const one = (label: string): string =>
    `<main><h1>Teal</h1><p>6</p><dl><dt>Skipper</dt><dd>Cara Holt</dd><dt>${label}</dt><dd>6</dd></dl></main>`;
  const shown = (label: string): string[] => {
    const screens = [pageOfHtml(list, 'trips'), pageOfHtml(one(label), 'trip')];
    return findBindings(screens, findCollections(screens)).map(({ element, shows }) => `${shows} ${element}`);
  };
  expect(shown('Seats')).toContain('trip.seats trip:1/0/2/3');
  expect(shown('Rooms').join()).not.toContain('trip.seats');
});

const field = (name: string, y: number, hint = ''): string =>
  `<text x="24" y="${y - 10}" font-size="14">${name}</text><g data-name="${name} field"><rect x="24" y="${y}" width="342" height="44" rx="6" fill="#fff" stroke="#999"/>${hint ? `<text x="36" y="${y + 27}" font-size="15" fill="#999">${hint}</text>` : ''}</g>`;
const button = (label: string, y: number, x = 24, width = 342): string =>
  `<g data-name="${label} button"><rect x="${x}" y="${y}" width="${width}" height="48" rx="8" fill="#234"/><text x="${x + width / 2}" y="${y + 29}" font-size="16" text-anchor="middle" fill="#fff">${label}</text></g>`;

test('switches that nothing sends are settings, and no form', () => {
  const switches = (button: string): string =>
    `<main data-box="0 0 900 900"><form data-box="20 20 300 400"><label data-box="20 20 200 20"><input type="checkbox" data-box="20 20 16 16"> Reminders by letter</label><label data-box="20 50 200 20"><input type="checkbox" data-box="20 50 16 16"> Reminders by call</label>${button}</form></main>`;
  const send = '<button type="submit" data-box="20 90 120 40">Save</button>';
  const far = '<button type="button" data-box="20 300 120 40">Next picture</button>';
  const formsIn = (html: string): number => findForms(pageOfHtml(html)).length;
  expect([formsIn(switches(send)), formsIn(switches('')), formsIn(switches(far))]).toEqual([1, 0, 0]);
});

test.each([
  ['sign-in', 'Sign in', ['Email', 'Password'], 'Sign in'],
  ['sign-up', 'Join us', ['Name', 'Email', 'Password'], 'Create account'],
  ['send', 'Report damage', ['Which part?', 'Message'], 'Send the report'],
  ['add', 'New loan', ['Member', 'Back on'], 'Lend it'],
  ['change', 'Your details', ['Name', 'Street'], 'Save'],
  ['add', 'New boat', ['Name', 'Built in'], 'Save boat'],
  ['subscribe', 'Keep me posted', ['Email'], 'Subscribe'],
  ['reset-password', 'Forgot your password?', ['Email'], 'Send reset link'],
] as const)('a form to %s', (purpose, heading, fields, label) => {
  const screen = screenOf(
    svg(
      `<text x="24" y="60" font-size="26" font-weight="700">${heading}</text>${fields.map((name, i) => field(name, 120 + 90 * i)).join('')}${button(label, 120 + 90 * fields.length)}`,
    ),
  );
  const [form, ...more] = findForms(screen);
  expect(more).toEqual([]);
  expect(form.purpose).toBe(purpose);
  expect(form.fields.map((one) => one.label)).toEqual(fields.map((name) => name));
  expect(form.submit?.label).toBe(label);
  expect(findActions(screen).map(({ does }) => does)).toContain(purpose === 'sign-in' ? 'sign-in' : 'submit');
});

test.each([
  ['Delete', 'remove'],
  ['Edit', 'change'],
  ['Add tool', 'add'],
  ['Sign out', 'sign-out'],
  ['Print labels', 'print'],
  ['Load more', 'load-more'],
  ['Copy', 'copy'],
  ['Close', 'close'],
  ['Export', 'download'],
])('a button that says “%s” does %s', (label, does) => {
  const [action] = findActions(screenOf(svg(button(label, 100))));
  expect(action).toMatchObject({ label, does });
  expect(action.confidence).toBeGreaterThan(0.7);
});

test.each([
  [
    ['Earlier', 'Next'],
    ['previous', 'next'],
  ],
  [
    ['1', '2', '3'],
    ['page', 'page', 'page'],
  ],
])('%j beside each other are %j', (labels, deeds) => {
  const pager = `<g data-name="Pages">${labels.map((label, i) => button(label, 700, 24 + 110 * i, 100)).join('')}</g>`;
  expect(findActions(screenOf(svg(pager))).map(({ does }) => does)).toEqual(deeds);
});

test('a button that says nothing of what it does has nothing proposed', () => {
  expect(findActions(screenOf(svg(button('Mossgate', 100))))).toEqual([]);
});

test('counters, ranges and the screen of one record are bound to the collection', () => {
  const range =
    '<text x="24" y="500" font-size="14">1 to 4 of 214</text><text x="24" y="540" font-size="14">214 tools</text>';
  const detail = screenOf(
    svg(
      '<text x="24" y="60" font-size="28" font-weight="700">Tile cutter</text><text x="24" y="110" font-size="15">£6</text><text x="24" y="150" font-size="15">Keep it dry.</text>',
    ),
    'detail',
  );
  const screens = [shelf('shelf', 'Tools to borrow', range), detail];
  const bindings = findBindings(screens, findCollections(screens));
  expect(bindings.map(({ screen, shows }) => [screen, shows.replace(/\.\w+/, '.…')])).toEqual([
    ['shelf', 'range(tools)'],
    ['shelf', 'count(tools)'],
    ['detail', 'tool.…'],
    ['detail', 'tool.…'],
  ]);
});

test.each([
  ['1 to 4 of 214', ['range(tools)']],
  ['4 of 186', ['range(tools)']],
  ['Showing 1–4 of 1,204 entries', ['range(tools)']],
  ['Page 2 of 10', []],
  ['Step 1 of 3', []],
])('“%s” shows %j', (text, shows) => {
  const screens = [shelf('shelf', 'Tools to borrow', `<text x="24" y="600" font-size="14">${text}</text>`)];
  expect(findBindings(screens, findCollections(screens)).map((one) => one.shows)).toEqual(shows);
});

test('what is proposed is the same for the same screens, and about elements that are there', () => {
  const screens = [shelf(), screenOf(svg(field('Email', 100) + button('Subscribe', 200)), 'join')];
  const found = proposeData({ screens });
  expect(proposeData({ screens: [...screens] })).toEqual(found);
  const text = JSON.stringify(screens);
  for (const { element } of [...found.forms, ...found.actions, ...found.bindings])
    expect(text).toContain(`"key":"${element}"`);
});

const VISITS = [
  ['09:00', 'Mira Tall', 'Waiting'],
  ['09:20', 'Jon Birk', 'Done'],
  ['09:40', 'Lene Ask', 'Done'],
  ['10:10', 'Odd Vik', 'Missed'],
];
const visits = VISITS.map(
  ([time, who, status]) => `<div class="card"><time>${time}</time><h3>${who}</h3><i>${status}</i></div>`,
).join('');
const namesOf = (html: string): string[] => findCollections([pageOfHtml(html)]).map(({ name }) => name);

test.each([
  ['what counts them first', `<main><h1>Today</h1><p>4 visits, 1 waiting</p><div>${visits}</div></main>`],
  [
    'the tab that shows them',
    `<main><h1>Mira Tall</h1><div role="tablist"><button role="tab" aria-controls="t1">Visits</button><button role="tab" aria-controls="t2">Notes</button></div><div id="t1" role="tabpanel">${visits}</div></main>`,
  ],
])('rows are called after %s', (_, html) => expect(namesOf(html)).toEqual(['visits']));

test('groups of things of one kind are no records', () => {
  const box = (tag: string, at: readonly number[], inner: string): string =>
    `<${tag} data-box="${at.join(' ')}">${inner}</${tag}>`;
  const group = (column: number, head: string, ...things: string[]): string => {
    const x = 20 + column * 300;
    const articles = things.map((thing, i) =>
      box(
        'li',
        [x + 10, 130 + i * 70, 260, 60],
        box('b', [x + 20, 135 + i * 70, 200, 20], thing) +
          box('p', [x + 20, 160 + i * 70, 200, 20], `To the ${thing} ward`),
      ),
    );
    return box(
      'section',
      [x, 80, 280, 40 + things.length * 70],
      box('h2', [x, 90, 200, 30], head) +
        box('ul', [x + 10, 130, 260, things.length * 70], articles.join('')),
    );
  };
  const groups =
    group(0, 'New', 'knee', 'skin') + group(1, 'Sent', 'heart') + group(2, 'Answered', 'eye', 'ear');
  const board = box(
    'main',
    [0, 0, 960, 600],
    box('h1', [20, 20, 300, 40], 'Referrals') + box('div', [20, 80, 900, 300], groups),
  );
  const found = findCollections([pageOfHtml(board)]);
  expect(found.flatMap(({ places }) => places.map(({ rows }) => rows.length))).toEqual([2, 2]);
});

test.each([
  ['most of what they say', ['All', 'Waiting', 'Done', 'Missed'], 'filter'],
  ['one of what they say', ['All', 'Waiting', 'Week', 'Month'], 'choose'],
])('one of several filters where rows say %s', (_, labels, does) => {
  const buttons = labels
    .map(
      (label, i) =>
        `<button class="${i ? '' : 'active'}" style="background-color: ${i ? 'white' : 'navy'}">${label}</button>`,
    )
    .join('');
  const screen = pageOfHtml(
    `<main><h1>Visits</h1><div class="seg">${buttons}</div><div>${visits}</div></main>`,
  );
  const { actions } = proposeData({ screens: [screen] });
  expect(actions.filter(({ label }) => labels.includes(label)).map((action) => action.does)).toEqual(
    labels.map(() => does),
  );
});

test('numbers of steps count nothing', () => {
  const steps = '<ol class="steps"><li>1. Visit</li><li>2. Time</li></ol>';
  const screens = [
    pageOfHtml(`<main><h1>Visits</h1><p>4 visits</p><div>${visits}</div></main>`, 'today'),
    pageOfHtml(`<main><h1>Book</h1>${steps}<p>2 visits</p></main>`, 'book'),
  ];
  const found = findBindings(screens, findCollections(screens)).filter(({ screen }) => screen === 'book');
  expect(found.map(({ shows }) => shows)).toEqual(['count(visits)']);
});

test.each([
  ['what the screen is called', '<h1>404</h1><p>No such visits</p>', []],
  ['a number beside what can be pressed', '<p>7</p><a href="/">All visits</a>', []],
  ['a number beside a label', '<p>7</p><p>All visits</p>', ['count(visits)']],
])('%s, where it is a number', (_, inner, shows) => {
  const screens = [
    pageOfHtml(`<main><h1>Visits</h1><div>${visits}</div></main>`, 'today'),
    pageOfHtml(`<main>${inner}</main>`, '404'),
  ];
  const found = findBindings(screens, findCollections(screens)).filter(({ screen }) => screen === '404');
  expect(found.map((one) => one.shows)).toEqual(shows);
});

test('the screen that a row leads to shows its record, though it says its name alone', () => {
  const list = (href: string): string =>
    `<main><h1>Visits</h1><p>3 visits</p><ul>${['Mira Tall', 'Jon Birk', 'Lene Ask'].map((who, i) => `<li><a href="${href}">${who}</a><i>0${i + 8}:15</i></li>`).join('')}</ul></main>`;
  const shown = (href: string): string[] => {
    const screens = [
      pageOfHtml(list(href), 'visits'),
      pageOfHtml('<main><h1>Mira Tall</h1><p>Born long ago</p></main>', 'one'),
    ];
    return findBindings(screens, findCollections(screens)).flatMap(({ screen, shows }) =>
      screen === 'one' ? [shows] : [],
    );
  };
  expect(shown('one.html')).toEqual(['visit.name']);
  expect(shown('two.html')).toEqual([]);
});
