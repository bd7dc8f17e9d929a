import { all, applyChange, putInteraction, putScreen, putToken, setStart } from '../change/change.ts';
import { pressTo } from '../model/interaction.ts';
import { pressablesOf } from '../links/pressable.ts';
import { projectOf, screenWith } from '../testing/build.ts';
import { graphDifferences, projectDifferences } from './projects.ts';

const home = screenWith('home', 'Browse', 'Loans');
const list = screenWith('list', 'Back');
const before = projectOf(home, list);
const browse = pressablesOf(home)[0].element.key;
const link = putInteraction(browse, pressTo({ kind: 'screen', screen: 'list' }));

test('a project differs in nothing from itself', () => {
  expect(projectDifferences(before, before)).toEqual([]);
});

test('names, routes, links, tokens and the first screen are told in words', () => {
  const app = applyChange(
    before.app,
    all([
      link,
      putScreen('list', { ...before.app.screens.list, name: 'Catalogue', route: '/catalogue' }),
      putToken('ink', { kind: 'color', value: '#112233', from: ['#112233'] }),
      setStart('list'),
    ]),
  );
  const after = { ...before, app };
  expect(
    projectDifferences(before, after).map(
      ({ part, became, label, says }) => `${part} ${became} ${label}: ${says}`,
    ),
  ).toEqual([
    'screens changed Catalogue: was called “List”',
    'routes changed Catalogue: was /list, is /catalogue',
    'routes changed The first screen: was “Home”, is “Catalogue”',
    'links new Browse on Home: leads to Catalogue',
    'tokens new ink: #112233: ',
  ]);
});

test('the graph tells which screens and ways are new and which are gone', () => {
  const wired = { ...before, app: applyChange(before.app, link) };
  expect([...graphDifferences(before, wired).links]).toEqual([['home list', 'new']]);
  expect([...graphDifferences(wired, before).links]).toEqual([['home list', 'gone']]);
  const more = projectOf(home, list, screenWith('help', 'Back'));
  expect([...graphDifferences(before, more).screens]).toEqual([['help', 'new']]);
});
