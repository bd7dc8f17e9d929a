import { applyChange, putCollection } from '../change/change.ts';
import { findDisclosures } from '../disclosures/find.ts';
import { describeTarget } from '../links/target.ts';
import { labelOf } from '../links/pressable.ts';
import { findElement } from '../model/places.ts';
import { walkElements } from '../model/project.ts';
import { projectOf } from '../testing/build.ts';
import { pageOfHtml } from '../testing/page_of_html.ts';
import { type ActionProposal, findActions } from './actions.ts';
import { makeWork } from './make_work.ts';
import { proposeData } from './propose.ts';

/** What controls of a page are made to do, as their labels and what is said of it; and why others are not. */
function made(html: string): string[] {
  const screen = pageOfHtml(html);
  const project = projectOf(screen);
  const work = makeWork(
    project,
    { collections: [], forms: [] },
    findActions(screen),
    findDisclosures(screen),
  );
  const after = { design: project.design, app: work.app };
  return [
    ...work.made.map(({ action, interaction }) => {
      const { label, detail } = describeTarget(after, interaction.target);
      return `${labelOf(findElement(project.design, action.element)!)} → ${label}, ${detail}`;
    }),
    ...work.left.map(({ action, why }) => `${action.label}: ${why}`),
  ];
}

test.each([
  ['what prints', '<button>Print labels</button>', ['Print labels → Print, the page']],
  [
    'a box that ticks the others',
    '<div><input type="checkbox" aria-label="Select all"><ul><li><input type="checkbox"> Saw</li></ul></div>',
    ['Select all → Tick all, the boxes that stand with it'],
  ],
  [
    'a box in the head of a list',
    '<ul><li class="item-list-header"><input type="checkbox" aria-label="All"><b>Tool</b></li><li><input type="checkbox"> Saw</li><li><input type="checkbox"> Drill</li></ul>',
    ['All → Tick all, the boxes that stand with it'],
  ],
  [
    'but not one of a row',
    '<ul><li class="row"><input type="checkbox" aria-label="Rake"><b>Rake</b></li><li><input type="checkbox"> Saw</li><li><input type="checkbox"> Drill</li></ul>',
    [],
  ],
  [
    'and a button',
    '<button>Select all</button><input type="checkbox"><input type="checkbox">',
    ['Select all → Tick all, the boxes that stand with it'],
  ],
  ['what loads anew', '<button>Refresh</button>', ['Refresh → Load anew, the page']],
  [
    'what copies the field beside it',
    '<div><input value="MOSS-2026" aria-label="Code"><button>Copy</button></div>',
    ['Copy → Copy “MOSS-2026”, the page'],
  ],
  [
    'what copies the text before it',
    '<div><p>Mill Street 4</p><span><button>Copy</button></span></div>',
    ['Copy → Copy “Mill Street 4”, the page'],
  ],
  [
    'what has nothing to copy',
    '<button>Copy</button>',
    ['Copy: nothing stands beside it that it could copy'],
  ],
  [
    'what opens a part, which is taken along',
    '<div><div role="button">More</div><p hidden>9 to 5</p></div>',
    ['More → More, opens and closes'],
  ],
  [
    'what says that it opens, where nothing is hidden',
    '<button aria-expanded="false">Hours</button>',
    ['Hours: nothing that it could open or close is hidden on its screen'],
  ],
  [
    'what counts the number between, which becomes a variable of the name before it',
    '<div><label>Days</label><div><button>-</button><span>2</span><button>+</button></div></div>',
    ['- → Days: days > 0 ? days - 1 : 0, ', '+ → Days: one more, '],
  ],
  [
    'what counts what a field says',
    '<div><div><button>−</button></div><input type="number" value="1"><div><button>+</button></div></div>',
    ['− → Count: count > 0 ? count - 1 : 0, ', '+ → Count: one more, '],
  ],
  [
    'one of several that choose, by the variable that all of them set',
    `<div><h3>Pick it up on</h3><div>${['Mon', 'Tue', 'Wed'].map((day) => `<button style="background-color:${day === 'Tue' ? '#234' : '#fff'}">${day}</button>`).join('')}</div></div>`,
    ['Mon → Pick it up on: “Mon”, ', 'Tue → Pick it up on: “Tue”, ', 'Wed → Pick it up on: “Wed”, '],
  ],
  [
    'what stands beside others and is marked as none of them',
    `<div>${['Mon', 'Tue', 'Wed'].map((day) => `<button>${day}</button>`).join('')}</div>`,
    [],
  ],
  [
    'one of several stars, by the number that all of them set',
    `<div><h3>How was it</h3><div class="stars">${[1, 2, 3].map((n) => `<button class="star" style="color:${n < 3 ? '#fa0' : '#ccc'}" aria-label="Star ${n}">★</button>`).join('')}</div></div>`,
    ['Star 1 → How was it: 1, ', 'Star 2 → How was it: 2, ', 'Star 3 → How was it: 3, '],
  ],
  [
    'stars that nobody calls so, beside what they rate',
    `<div class="stars"><span>Your rating</span>${['One', 'Two', 'Three'].map((n) => `<span role="button" aria-label="${n}">★</span>`).join('')}</div>`,
    ['One → Your rating: 1, ', 'Two → Your rating: 2, ', 'Three → Your rating: 3, '],
  ],
  [
    'signs that are called by words, and the field that they count',
    '<div><span>So many</span><button aria-label="Fewer">−</button><input value="2" aria-label="Packets"><button aria-label="More">+</button></div>',
    ['Fewer → Packets: packets > 0 ? packets - 1 : 0, ', 'More → Packets: one more, '],
  ],
  [
    'what counts after a name in its own row',
    '<div><span>Days</span><button>Less</button><span>2</span><button>More</button></div>',
    ['Less → Days: days > 0 ? days - 1 : 0, ', 'More → Days: one more, '],
  ],
  [
    'what is only drawn as a switch, which becomes one',
    '<span role="switch" aria-checked="true" aria-label="Tell me"></span>',
    ['Tell me → Tell me: the other way round, '],
  ],
  ['a switch that is one needs nothing', '<input type="checkbox" role="switch" aria-label="Tell me">', []],
  [
    'what adds, where nobody said to what',
    '<button>Add to basket</button>',
    ['Add to basket: to which records it adds, and what, is to be said at Junction'],
  ],
  [
    'several that count, each its own',
    '<div><p>Adults</p><div><button>-</button><b>2</b><button>+</button></div><p>Children</p><div><button>-</button><b>0</b><button>+</button></div></div>',
    [
      '- → Adults: adults > 0 ? adults - 1 : 0, ',
      '+ → Adults: one more, ',
      '- → Children: children2 > 0 ? children2 - 1 : 0, ',
      '+ → Children: one more, ',
    ],
  ],
])('%s', (_, html, expected) => {
  expect(made(html)).toEqual(expected);
});

test.each([
  ['on', 'true', true],
  ['off', 'false', false],
])('a drawn switch that is %s is so at first, and follows what is remembered', (_, checked, initial) => {
  const screen = pageOfHtml(`<span role="switch" aria-checked="${checked}" aria-label="Tell me"></span>`);
  const { app } = makeWork(projectOf(screen), { collections: [], forms: [] }, findActions(screen));
  const [[id, variable]] = Object.entries(app.variables);
  expect(variable).toEqual({ name: 'Tell me', initial });
  expect(Object.values(app.bindings)).toEqual([{ value: 'tellMe' }]);
  expect(Object.values(app.interactions)).toMatchObject([
    { on: 'change', target: { kind: 'set', condition: id, value: '!tellMe' } },
  ]);
});

test('what a record is called removes nothing, whatever it says', () => {
  const screen = pageOfHtml(
    `<ul>${['Inbox', 'Trash', 'Spam'].map((name) => `<li><a><b>${name}</b></a><button>Delete</button></li>`).join('')}</ul>`,
  );
  const keys = (tag: string): string[] => {
    const found: string[] = [];
    walkElements(screen.root, (element) => void (element.tag === tag && found.push(element.key)));
    return found;
  };
  const [[list], rows, names, links, buttons] = ['ul', 'li', 'b', 'a', 'button'].map(keys);
  const bare = projectOf(screen);
  const folders = {
    name: 'folders',
    fields: [{ name: 'name', type: 'text' as const }],
    rows: rows.map((element, i) => ({ element, within: list, shows: { name: names[i] } })),
  };
  const project = { ...bare, app: applyChange(bare.app, putCollection('folders', folders)) };
  const removing = (element: string): ActionProposal => ({
    screen: screen.key,
    element,
    label: 'Trash',
    does: 'remove',
    confidence: 0.9,
    reason: '',
  });
  const work = makeWork(project, { collections: [], forms: [] }, [removing(links[1]), removing(buttons[1])]);
  expect(work.left.map(({ why }) => why)).toEqual(['it is what its record is called']);
  expect(work.made.map(({ action }) => action.element)).toEqual([buttons[1]]);
});

test.each([
  ['to the screen by whose form one signs in', {}, ['screen', 'sign-in']],
  [
    'to where screens lead that ask for it',
    { guard: { condition: 'in', is: true, otherwise: 'welcome' } },
    ['screen', 'welcome'],
  ],
])('signing out leads %s', (_what, desk, expected) => {
  const door = pageOfHtml(
    '<form><input aria-label="Email" type="email"><input aria-label="Password" type="password"><button>Sign in</button></form>',
    'sign-in',
  );
  const screen = pageOfHtml('<h1>Desk</h1><button>Sign out</button>', 'desk');
  const project = projectOf(door, screen, pageOfHtml('<h1>Welcome</h1>', 'welcome'));
  const screens = { ...project.app.screens, desk: { ...project.app.screens.desk!, ...desk } };
  const variables = { in: { name: 'Signed in', initial: false } };
  const at = { ...project, app: { ...project.app, screens, variables } };
  const { forms } = proposeData(at.design);
  const { made } = makeWork(at, { collections: [], forms }, findActions(screen));
  expect(made.map(({ interaction: { target, before } }) => [target, before])).toEqual([
    [{ kind: expected[0], screen: expected[1] }, [{ kind: 'set', condition: 'in', value: false }]],
  ]);
});
