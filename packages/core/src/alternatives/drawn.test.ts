import { applyChange, invertChange, putInteraction, putScreen, putStill } from '../change/change.ts';
import { graphOf } from '../graph/graph.ts';
import { pressablesOf } from '../links/pressable.ts';
import type { Project } from '../model/project.ts';
import { named, projectOf, screenOf, svg } from '../testing/build.ts';
import { pageOfHtml } from '../testing/page_of_html.ts';
import { to } from '../testing/wired.ts';
import { alternativesOf, keepAlternative, makeAlternatives, wiredWithout } from './drawn.ts';

const button = (label: string, x: number, y: number, fill: string): string =>
  `<g data-name="${label} button"><rect x="${x}" y="${y}" width="160" height="44" rx="8" fill="${fill}"/><text x="${x + 20}" y="${y + 28}" font-size="16" fill="#fff">${label}</text></g>`;
const home = (key: string, y: number, fill: string, ...labels: string[]) =>
  screenOf(
    svg(
      `<text x="24" y="60" font-size="30">Borrow what you need</text>${labels.map((label, i) => button(label, 24, y + i * 60, fill)).join('')}`,
    ),
    key,
  );
const main = home('home', 120, '#1f4d3a', 'Browse', 'Sign in');
const other = home('home-v2', 400, '#a33d1f', 'Browse');
const third = home('home-v3', 300, '#15211f', 'Browse', 'Sign in');
const list = screenOf(
  svg(`<text x="24" y="60" font-size="30">Tools</text>${button('Back', 24, 120, '#1f4d3a')}`),
  'list',
);
const [browse, signIn] = ['Browse button', 'Sign in button'].map((name) => named(main, name).key);
const back = named(list, 'Back button').key;

function piled(): Project {
  const project = projectOf(main, other, third, list);
  const screen = (key: string) => to({ kind: 'screen', screen: key });
  let { app } = project;
  app = applyChange(app, putInteraction(browse, screen('list')));
  app = applyChange(app, putInteraction(signIn, screen('list')));
  app = applyChange(app, putInteraction(back, screen('home-v2')));
  return {
    ...project,
    app: applyChange(app, makeAlternatives({ ...project, app }, ['home-v2', 'home-v3'], 'home')),
  };
}
const after = (project: Project, key: string): Project => ({
  ...project,
  app: applyChange(project.app, keepAlternative(project, key)),
});
const edges = (project: Project) =>
  [...graphOf(project).departures.values()]
    .flat()
    .map(({ from, to: leads }) => `${from} ${leads}`)
    .sort();

test('what led to a drawing leads to the screen that it is an alternative of', () => {
  const { app } = piled();
  expect(alternativesOf(app, 'home')).toEqual(['home-v2', 'home-v3']);
  expect(app.interactions[back].target).toEqual({ kind: 'screen', screen: 'home' });
});

test('what is kept takes name, route and links, and its elements do what the same ones did', () => {
  const project = piled();
  const kept = after(project, 'home-v3');
  const [now, was] = [kept.app.screens['home-v3'], project.app.screens.home];
  expect(now).toEqual(was);
  expect(kept.app.interactions[back].target).toEqual({ kind: 'screen', screen: 'home-v3' });
  for (const label of ['Browse button', 'Sign in button'])
    expect(kept.app.interactions[named(third, label).key].target).toEqual({ kind: 'screen', screen: 'list' });
  expect(alternativesOf(kept.app, 'home-v3')).toEqual(['home-v2', 'home']);
});

test('what is not in an alternative is told, and is back when the first one is kept again', () => {
  const project = piled();
  expect(wiredWithout(project, 'home-v3')).toEqual([]);
  expect(wiredWithout(project, 'home-v2')).toEqual(['Sign in']);
  const again = after(after(project, 'home-v2'), 'home');
  expect(edges(again)).toEqual(edges(project));
  expect(again.app.screens.home).toEqual(project.app.screens.home);
});

test('what was decided meanwhile goes along to the one that is kept', () => {
  let project = after(piled(), 'home-v3');
  project = { ...project, app: applyChange(project.app, putStill(named(third, 'Sign in button').key, true)) };
  expect(after(project, 'home').app.still).toMatchObject({ [signIn]: true });
});

test('what opens over a screen opens over the one that is kept', () => {
  const project = piled();
  const app = applyChange(
    project.app,
    putScreen('list', { ...project.app.screens.list, use: 'overlay', of: 'home' }),
  );
  expect(after({ ...project, app }, 'home-v3').app.screens.list).toMatchObject({
    use: 'overlay',
    of: 'home-v3',
  });
});

test('keeping is a change that is taken back whole', () => {
  const { app, design } = piled();
  const change = keepAlternative({ app, design }, 'home-v2');
  expect(applyChange(applyChange(app, change), invertChange(app, change))).toEqual(app);
});

test('a screen of its own is no alternative', () => {
  expect(() => keepAlternative(piled(), 'list')).toThrow(/is no alternative/);
});

test('what is called the same and built otherwise does the same', () => {
  const [link, plain] = ['<p><a href="#">Browse</a></p>', '<button type="button">Browse</button>'].map(
    (body, i) => pageOfHtml(`<div><h1>Borrow</h1>${body}</div>`, `way${i}`),
  );
  const tools = pageOfHtml('<div><h1>Tools</h1></div>', 'tools');
  const project = projectOf(link, plain, tools);
  const keyOf = (screen: typeof link) => pressablesOf(screen)[0].element.key;
  let app = applyChange(project.app, putInteraction(keyOf(link), to({ kind: 'screen', screen: 'tools' })));
  app = applyChange(app, makeAlternatives({ ...project, app }, ['way1'], 'way0'));
  const kept = after({ ...project, app }, 'way1');
  expect(kept.app.interactions[keyOf(plain)]?.target).toEqual({ kind: 'screen', screen: 'tools' });
});
