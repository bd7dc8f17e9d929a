import { applyChange, all, putInteraction, invertChange } from '../change/change.ts';
import { graphOf } from '../graph/graph.ts';
import { pressablesOf } from '../links/pressable.ts';
import type { Screen } from '../model/design.ts';
import { pressTo } from '../model/interaction.ts';
import { stringifySorted } from '../json/json.ts';
import type { Project } from '../model/project.ts';
import { projectOf, screenOf, svg } from '../testing/build.ts';
import { applyIteration } from './apply.ts';
import { planIteration } from './plan.ts';
import { reportOf } from './report.ts';

const button = (name: string, x: number, y: number): string =>
  `<g id="${name}" data-name="${name} button"><rect x="${x}" y="${y}" width="120" height="40" rx="8" fill="#234"/><text x="${x + 60}" y="${y + 25}" font-size="14" text-anchor="middle" fill="#fff">${name}</text></g>`;
const shelf = `<text x="24" y="60" font-size="22">Tools on the shelf</text>${['Ladder', 'Pillar drill', 'Tile cutter'].map((name, i) => button(name, 24, 100 + i * 60)).join('')}`;
const asking = `<text x="60" y="640" font-size="20">Keep it until Friday?</text>${button('Not yet', 50, 700)}${button('Keep', 200, 700)}`;
const shade = '<rect width="390" height="844" fill="#000" fill-opacity="0.4"/>';
const panel = `<g id="Ask"><rect x="40" y="600" width="310" height="180" fill="#fff"/>${asking}</g>`;

const list = screenOf(svg(shelf), 'list');
const ask = screenOf(svg(`${button('Home', 24, 780)}${asking}`), 'ask');
const keyOf = (screen: Screen, label: string): string =>
  pressablesOf(screen).find((one) => one.label === label)!.element.key;
const project: Project = (() => {
  const made = projectOf(list, ask);
  const links = all([
    putInteraction(keyOf(list, 'Ladder'), pressTo({ kind: 'screen', screen: 'ask' })),
    putInteraction(keyOf(ask, 'Keep'), pressTo({ kind: 'screen', screen: 'list' })),
    putInteraction(keyOf(ask, 'Home'), pressTo({ kind: 'screen', screen: 'list' })),
  ]);
  return { ...made, app: applyChange({ ...made.app, start: 'ask' }, links) };
})();

function taken(incoming: readonly Screen[], whole = true) {
  const plan = planIteration(project, incoming, { whole });
  const { design, change } = applyIteration(project, plan, { assets: [], notices: [] }, 2);
  return { plan, design, app: applyChange(project.app, change), change };
}

test.each([
  ['with all that there is', [list, screenOf(svg(shelf + shade + panel), 'ask')], true],
  ['by itself', [screenOf(svg(shelf + shade + panel), 'ask')], false],
])('a screen that is drawn over another one now, %s, is its overlay', (_, incoming, whole) => {
  const { plan, design, app, change } = taken(incoming, whole);
  expect(plan.screens.find(({ old }) => old?.key === 'ask')?.standing).toBe('overlay');
  expect(reportOf(project, plan).screens.find(({ old }) => old === 'ask')?.over).toBe('List');
  const graph = graphOf({ design, app });
  expect([graph.screens, graph.overlays]).toEqual([['list'], ['ask']]);
  expect(app.interactions[keyOf(list, 'Ladder')].target).toEqual({ kind: 'open', overlay: 'ask' });
  expect(app.start).toBe('list');
  // What is in it stays, and what the screen had around it waits.
  expect(app.interactions[keyOf(ask, 'Keep')].target).toEqual({ kind: 'screen', screen: 'list' });
  expect(Object.values(app.setAside).map(({ label }) => label)).toEqual(['Home']);
  expect(stringifySorted(applyChange(app, invertChange(project.app, change)))).toBe(
    stringifySorted(project.app),
  );
});

test('a screen that went into the drawing of another one, over the rest, is its overlay', () => {
  const { plan, design, app } = taken([screenOf(svg(shelf + shade + panel), 'list')]);
  expect(plan.screens.map(({ old, standing }) => `${old?.key} ${standing}`).sort()).toEqual([
    'ask overlay',
    'list changed',
  ]);
  const graph = graphOf({ design, app });
  expect([graph.screens, graph.overlays]).toEqual([['list'], ['ask']]);
  expect(app.screens['ask']).toMatchObject({ use: 'overlay', of: 'list', name: 'Ask' });
  expect(app.interactions[keyOf(list, 'Ladder')].target).toEqual({ kind: 'open', overlay: 'ask' });
  expect(app.interactions[keyOf(ask, 'Keep')].target).toEqual({ kind: 'screen', screen: 'list' });
  expect(graph.elements.get('ask')!.map(({ element }) => element.key)).toContain(keyOf(ask, 'Keep'));
});

test('what only shows more than before, and what was drawn over something before, stays a screen', () => {
  const grown = taken([list, screenOf(svg(asking + button('Help', 24, 100)), 'ask')]);
  expect(grown.plan.screens.map(({ standing }) => standing)).toEqual(['same', 'changed']);
});
