import { applyChange, putInteraction } from '../change/change.ts';
import { emitReact } from '../emit/react/emit_react.ts';
import { graphOf } from '../graph/graph.ts';
import { settle } from '../layers/settle.ts';
import { screensByKey } from '../model/project.ts';
import { labelOf } from '../links/pressable.ts';
import { named, projectOf, screenOf, svg } from '../testing/build.ts';
import { to } from '../testing/wired.ts';
import { cutApart, cutOverlay, joinAgain, proposePanel, uncutOverlay } from './cut.ts';

const button = (name: string, x: number, y: number): string =>
  `<g id="${name}" data-name="${name} button"><rect x="${x}" y="${y}" width="120" height="40" rx="8" fill="#234"/><text x="${x + 60}" y="${y + 25}" font-size="14" text-anchor="middle" fill="#fff">${name}</text></g>`;
const page = `${button('Return', 24, 100)}${button('Lend', 24, 160)}<text x="24" y="60" font-size="22">Loans</text>`;
const shade = '<rect width="390" height="844" fill="#000" fill-opacity="0.4"/>';
const panel = (name: string, box: string): string =>
  `<g id="${name}"><rect ${box} fill="#fff"/><text x="60" y="640" font-size="20">Really?</text>${button('Cancel', 50, 700)}${button('Yes', 200, 700)}</g>`;
const middle = 'x="40" y="600" width="310" height="180"';

const base = screenOf(svg(page), 'loans');
const proposal = (over: string, under = base) => proposePanel(screenOf(svg(over), 'over'), under)!;

test.each([
  ['a dialog', panel('Confirm dialog', middle), 'dialog', undefined],
  ['a sheet at the bottom', panel('Panel', 'x="0" y="600" width="390" height="244"'), 'sheet', 'bottom'],
  ['a drawer at the left', panel('Panel', 'x="0" y="0" width="300" height="844"'), 'drawer', 'left'],
  ['a drawer at the right', panel('Panel', 'x="90" y="0" width="300" height="844"'), 'drawer', 'right'],
  ['a menu by its name', panel('Menu', middle), 'menu', undefined],
])('%s is known by its place or name', (_, over, kind, side) => {
  const { overlay } = proposal(page + shade + over);
  expect([overlay.kind, overlay.side]).toEqual([kind, side]);
  expect(overlay.escape).toBe(true);
});

test('without the screen beneath it is what lies on the shade, or is called so', () => {
  const on = proposePanel(screenOf(svg(page + shade + panel('Box', middle)), 'over'), null);
  expect(on?.reason).toBe('it lies on a shade over the screen');
  const called = proposePanel(screenOf(svg(page + panel('Confirm dialog', middle)), 'over'), null);
  expect(called?.reason).toBe('it is called “Confirm dialog”');
  expect(proposePanel(base, null)).toBeNull();
});

test('a drawing is cut into the screen and what opens over it, and put together again', () => {
  const over = screenOf(svg(page + shade + panel('Confirm dialog', middle)), 'confirm');
  const project = projectOf(base, over);
  const opener = named(base, 'Return button').key;
  const lost = named(over, 'Lend button').key;
  const app = [
    putInteraction(opener, to({ kind: 'screen', screen: 'confirm' })),
    putInteraction(lost, to({ kind: 'screen', screen: 'loans' })),
  ].reduce(applyChange, project.app);
  const found = proposePanel(over, base)!;
  const cut = {
    design: project.design,
    app: applyChange(app, cutOverlay({ ...project, app }, 'confirm', found, 'loans')),
  };

  const settled = screensByKey(settle(cut).design).get('confirm')!;
  expect([settled.width, settled.height]).toEqual([310, 180]);
  const graph = graphOf(cut);
  expect(graph.overlays).toEqual(['confirm']);
  expect(graph.elements.get('confirm')!.map((state) => labelOf(state.element))).toEqual(['Cancel', 'Yes']);
  expect(cut.app.interactions[opener].target).toEqual({ kind: 'open', overlay: 'confirm' });
  expect(cut.app.interactions[lost]).toBeUndefined();
  const closing = graph.departures.get('confirm')!.map((link) => [link.label, link.interaction.target.kind]);
  expect(closing).toEqual([['Cancel', 'close']]);

  const whole = { design: project.design, app: applyChange(cut.app, uncutOverlay(cut, 'confirm')) };
  expect(graphOf(whole).screens).toEqual(['loans', 'confirm']);
  expect(whole.app.interactions[opener].target).toEqual({ kind: 'screen', screen: 'confirm' });
  expect(
    graphOf(whole)
      .departures.get('confirm')!
      .map((link) => link.interaction.target.kind),
  ).toEqual(['back']);
});

test('where the screen beneath was not drawn by itself, the drawing is parted into both', () => {
  const both = screenOf(svg(page + shade + panel('Confirm dialog', middle)), 'loans');
  const project = projectOf(both);
  const found = proposePanel(both, null)!;
  const opener = named(both, 'Return button').key;
  const parted = applyChange(project.app, cutApart(project, 'loans', found));
  const key = Object.keys(parted.screens).find((one) => one !== 'loans')!;
  const app = applyChange(parted, putInteraction(opener, to({ kind: 'open', overlay: key })));
  const cut = { design: project.design, app };
  const graph = graphOf(cut);
  const labels = (screen: string) => graph.elements.get(screen)!.map((state) => labelOf(state.element));
  expect([graph.screens, graph.overlays]).toEqual([['loans'], [key]]);
  expect(labels('loans')).toEqual(['Return', 'Lend']);
  expect(labels(key)).toEqual(['Cancel', 'Yes']);
  expect(graph.reached.has(key)).toBe(true);
  expect(graph.departures.get(key)!.map((link) => link.interaction.target.kind)).toEqual(['close']);
  const { files } = emitReact(cut, 'Test');
  const text = (path: RegExp): string => {
    const file = files.find((one) => path.test(one.path));
    return file && 'text' in file ? file.text : '';
  };
  expect(text(/screens\/Loans\/Loans\.tsx$/)).not.toContain('Really?');
  expect(text(/overlays\/\w+\/\w+\.tsx$/)).toContain('Really?');
  const whole = applyChange(app, joinAgain(cut, key));
  expect(graphOf({ design: project.design, app: whole }).elements.get('loans')).toHaveLength(4);
});
