import {
  all,
  applyChange,
  type Change,
  putComponent,
  putInteraction,
  putScreen,
  putStill,
} from '../change/change.ts';
import { emitReact } from '../emit/react/emit_react.ts';
import { graphOf } from '../graph/graph.ts';
import type { Project } from '../model/project.ts';
import { named, projectOf, screenOf, screenWith, svg } from '../testing/build.ts';
import { to } from '../testing/wired.ts';
import { componentAround, wiringOf } from './wiring.ts';
import { rowFields, sharedPairs } from './shared.ts';

const row = (name: string, i: number, badge = ''): string =>
  `<g id="Row_${i}" data-name="Row"><rect x="20" y="${100 + 80 * i}" width="350" height="70" fill="#fff"/>${badge}<text x="40" y="${130 + 80 * i}" font-size="16">${name}</text><text x="40" y="${155 + 80 * i}" font-size="12">Shed ${i}</text></g>`;
const list = screenOf(
  svg(['Hedge trimmer', 'Pillar drill', 'Apple press'].map((name, i) => row(name, i)).join('')),
  'list',
);
const detail = screenOf(svg('<text x="20" y="60" font-size="28">Hedge trimmer</text>'), 'detail');
const rows = ['list:0', 'list:1', 'list:2'];
const base = projectOf(list, detail);
const made = (...changes: Change[]): Project => ({
  design: base.design,
  app: applyChange(
    base.app,
    all([putComponent('rows', { name: 'Tool row', kind: 'list', places: rows }), ...changes]),
  ),
});
const everywhere = { ...to({ kind: 'screen', screen: 'detail' }), everywhere: true } as const;
const targets = (project: Project): string =>
  (graphOf(project).elements.get('list') ?? [])
    .map(
      (state) =>
        `${state.element.key.slice(5)}${state.wired.map((one) => (one.component ? '~' : '=') + (one.interaction.target.kind === 'screen' ? one.interaction.target.screen : one.interaction.target.kind)).join(' ')}`,
    )
    .join(' ');

test('what counts for all places of a list counts for each, unless one says otherwise or is still', () => {
  expect(targets(made(putInteraction('list:0', everywhere)))).toBe('0=detail 1~detail 2~detail');
  expect(
    targets(made(putInteraction('list:0', everywhere), putInteraction('list:1', to({ kind: 'back' })))),
  ).toBe('0=detail 1=back 2~detail');
  expect(targets(made(putInteraction('list:0', everywhere), putStill('list:2', true)))).toBe(
    '0=detail 1~detail 2',
  );
  expect(targets(made(putInteraction('list:0', to({ kind: 'back' }))))).toBe('0=back 1 2');
});

test('a row passes what is written in it', () => {
  const project = made(
    putScreen('detail', { ...base.app.screens.detail, route: '/tools/:toolId', params: { toolId: 'saw' } }),
    putInteraction('list:0', {
      ...everywhere,
      target: {
        kind: 'screen',
        screen: 'detail',
        params: { toolId: { field: rowFields(made(), 'list:0')[0].field } },
      },
    }),
  );
  const params = rows.map((key) => {
    const { target } = wiringOf(project).get('list')!.get(key)![0].interaction;
    return target.kind === 'screen' ? target.params : null;
  });
  expect(params).toEqual([
    { toolId: 'hedge-trimmer' },
    { toolId: 'pillar-drill' },
    { toolId: 'apple-press' },
  ]);
  const { files } = emitReact(project, 'Test');
  const data = files.find((file) => file.path.endsWith('List.data.ts'));
  expect(data && 'text' in data ? data.text : '').toContain("'/tools/pillar-drill'");
});

test('the fields of a row and the component around an element are known', () => {
  const project = made();
  expect(rowFields(project, 'list:1').map(({ text }) => text)).toEqual(['Pillar drill', 'Shed 1']);
  expect(componentAround(project, rowFields(project, 'list:1')[0].field)).toMatchObject({
    id: 'rows',
    place: 'list:1',
  });
  expect(componentAround(project, 'list:10')).toBeNull();
  expect(rowFields(project, 'detail:0')).toEqual([]);
});

test('elements that both screens have are found for a shared transition', () => {
  const project = made();
  const pairs = sharedPairs(project, 'list:0', 'detail');
  expect(pairs).toEqual([{ from: named(list, 'Hedge trimmer').key, to: named(detail, 'Hedge trimmer').key }]);
  expect(sharedPairs(project, 'list:1', 'detail')).toEqual([]);
});

test('an element does several things, in the order of their numbers', () => {
  const project = projectOf(screenWith('a', 'Go'), screenWith('b', 'Go'));
  const app = [
    putInteraction('a:0|10', { ...to({ kind: 'back' }), on: 'hover' }),
    putInteraction('a:0|2', { ...to({ kind: 'back' }), on: 'long-press' }),
    putInteraction('a:0', to({ kind: 'screen', screen: 'b' })),
  ].reduce(applyChange, project.app);
  expect(
    wiringOf({ ...project, app })
      .get('a')!
      .get('a:0')!
      .map((one) => one.interaction.on),
  ).toEqual(['press', 'long-press', 'hover']);
});
