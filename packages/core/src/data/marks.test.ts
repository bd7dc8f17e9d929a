import { applyChange, putInteraction } from '../change/change.ts';
import { pressTo } from '../model/interaction.ts';
import type { Project } from '../model/project.ts';
import { walkElements } from '../model/project.ts';
import { projectOf } from '../testing/build.ts';
import { pageOfHtml } from '../testing/page_of_html.ts';
import { makeBindings } from './make_bindings.ts';
import { makeWork } from './make_work.ts';
import { proposeData } from './propose.ts';

const TRIPS = [
  ['Otter', 'Ann Lowe', 'Out'],
  ['Heron', 'Ben Marsh', 'Back'],
  ['Teal', 'Cara Holt', 'Late'],
  ['Swift', 'Edda Rook', 'Out'],
];
const cell = (tag: string, text: string, column: number, row: number): string =>
  `<${tag} data-box="${20 + column * 150} ${80 + row * 40} 140 36">${text}</${tag}>`;
const table = (button: string): string =>
  `<main data-box="0 0 900 400"><h1 data-box="20 20 300 30">Trips</h1><table data-box="20 80 600 240"><thead data-box="20 80 600 40"><tr data-box="20 80 600 40">${[
    'Boat',
    'Skipper',
    'State',
    '',
  ]
    .map((head, i) => cell('th', head, i, 0))
    .join('')}</tr></thead><tbody data-box="20 120 600 200">${TRIPS.map(
    ([boat, skipper, state], row) =>
      `<tr data-box="20 ${120 + row * 40} 600 36">${[
        `<a href="trip.html">${boat}</a>`,
        skipper,
        state,
        button,
      ]
        .map((text, i) => cell('td', text, i, row + 1))
        .join('')}</tr>`,
  ).join('')}</tbody></table></main>`;
const detail = (buttons: string): string =>
  `<main><h1>Otter</h1><dl><dt>Skipper</dt><dd>Ann Lowe</dd><dt>State</dt><dd>Out</dd></dl>${buttons}</main>`;

/** Trips, and one of them, which a row leads to. */
function boats(rowButton: string, buttons: string): Project {
  const project = projectOf(pageOfHtml(table(rowButton), 'trips'), pageOfHtml(detail(buttons), 'trip'));
  let link = '';
  walkElements(project.design.screens[0].root, (one) => void (link ||= one.tag === 'a' ? one.key : ''));
  const leads = pressTo({ kind: 'screen', screen: 'trip' });
  return { ...project, app: applyChange(project.app, putInteraction(link, leads)) };
}

const worked = (project: Project): ReturnType<typeof makeWork> => {
  const found = proposeData(project.design);
  return makeWork(project, found, found.actions);
};

test.each([
  ['Mark as back', { kind: 'set', field: 'state', value: 'Back' }],
  ['Set to late', { kind: 'set', field: 'state', value: 'Late' }],
])('%s says so of the record of its screen', (label, deed) => {
  const { made, app } = worked(boats('', `<button>${label}</button>`));
  expect(made.map(({ interaction }) => interaction.target)).toEqual([
    { kind: 'record', collection: 'trips', deed },
  ]);
  expect(app.details.trip).toEqual({ collection: 'trips', parameter: 'tripId' });
});

test('in rows it is said of each, once', () => {
  const { made, left } = worked(boats('<button>Mark as back</button>', ''));
  expect(made.map(({ interaction }) => interaction)).toMatchObject([
    { everywhere: true, target: { kind: 'record', deed: { kind: 'set', value: 'Back' } } },
  ]);
  expect(new Set(left.map(({ why }) => why))).toEqual(new Set(['it does so as that of the first row does']));
});

test('what is removed on the screen of a record is that, and the list comes after', () => {
  const { made } = worked(boats('', '<button>Remove trip</button>'));
  expect(made.map(({ interaction }) => interaction)).toMatchObject([
    {
      before: [{ kind: 'record', collection: 'trips', deed: { kind: 'remove' } }],
      target: { kind: 'screen', screen: 'trips' },
    },
  ]);
});

test.each([
  ['another thing', 'Remove photo', 'whether it removes the trip is to be said at Junction'],
  ['what is said nowhere', 'Mark as sunk', null],
])('%s is left to be said', (_, label, why) => {
  const { made, left } = worked(boats('', `<button>${label}</button>`));
  expect(made).toEqual([]);
  expect(left.map((one) => one.why)).toEqual(why === null ? [] : [why]);
});

test('where no screen shows a record it is said what is missing', () => {
  const project = projectOf(
    pageOfHtml(table('').replaceAll('<a href', '<b title'), 'trips'),
    pageOfHtml(detail('<button>Delete</button>'), 'trip'),
  );
  expect(worked(project).left.map(({ why }) => why)).toEqual([
    'it stands in no row of records, and its screen shows none',
  ]);
});

const BARS = [40, 60, 30, 80, 20]
  .map(
    (height, i) =>
      `<div data-box="${20 + i * 50} ${200 - height} 40 ${height + 20}"><i style="background-color: rgb(1, 2, 3)" data-box="${20 + i * 50} ${200 - height} 40 ${height}"></i>Day ${i}</div>`,
  )
  .join('');
test.each([
  [
    'Trips by boat',
    'map(unique(map(trips, (trip) => trip.boat)), (text) => count(filter(trips, (trip) => trip.boat === text)))',
  ],
  [
    'Trips',
    'map(unique(map(trips, (trip) => trip.state)), (text) => count(filter(trips, (trip) => trip.state === text)))',
  ],
  ['Weather', null],
])('a chart on another screen, called %s', (title, values) => {
  const chart = `<main data-box="0 0 900 600"><h1 data-box="20 20 300 30">Harbour</h1><div role="img" aria-label="${title}" data-box="20 100 300 140">${BARS}</div></main>`;
  const project = projectOf(pageOfHtml(table(''), 'trips'), pageOfHtml(chart, 'harbour'));
  const found = proposeData(project.design);
  const of = found.bindings.filter(({ screen }) => screen === 'harbour');
  expect(of.map(({ shows }) => shows)).toEqual(values === null ? [] : ['chart(trips)']);
  expect(makeBindings(project, found, of).made.map(({ source }) => source)).toEqual(
    values === null ? [] : [values],
  );
});
