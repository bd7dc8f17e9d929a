import fc from 'fast-check';
import { all, applyChange, invertChange, putLayer, putRegion, putSetting } from '../change/change.ts';
import { EmissionPlan, emitScreenOf } from '../emit/form/plan.ts';
import { printHtml } from '../emit/html/print_html.ts';
import { graphOf } from '../graph/graph.ts';
import { walkElements } from '../model/project.ts';
import type { Layer } from '../model/app.ts';
import type { Element, Screen } from '../model/design.ts';
import { type Project, screensByKey } from '../model/project.ts';
import { named, namesOf, projectOf, screenOf, screenWith, svg } from '../testing/build.ts';
import { settle } from './settle.ts';

const drawing = screenOf(
  svg(
    '<g id="Notes" display="none"><rect width="90" height="40" fill="#eee"/></g><g id="Card_button"><rect x="20" y="100" width="200" height="48" rx="6" fill="#234"/><text x="120" y="130" text-anchor="middle">Go</text></g><text x="20" y="300">Below</text>',
  ),
  'home',
);
const project = projectOf(drawing, screenWith('other', 'Stay'));
const after = (base: Project, ...changes: Parameters<typeof all>[0]): Project => ({
  ...base,
  app: applyChange(base.app, all(changes)),
});
const screenIn = (base: Project, key = 'home'): Screen => screensByKey(settle(base).design).get(key)!;

test('what is hidden in the file is gone until somebody shows it', () => {
  const notes = drawing.root.children.find((child) => child.hidden)!;
  expect(namesOf(screenIn(project))).not.toContain('Notes');
  const shown = screenIn(after(project, putLayer(notes.key, { show: true })));
  expect(namesOf(shown)).toContain('Notes');
  expect(named(shown, 'Notes').hidden).toBeUndefined();
  expect(namesOf(screenIn(after(project, putSetting('hidden', 'in'))))).toContain('Notes');
});

test('an element that is left out is left out everywhere, and a link to it is not counted', () => {
  const button = named(drawing, 'Card button');
  const less = after(project, putLayer(button.key, { show: false }));
  expect(graphOf(project).elements.get('home')).toHaveLength(1);
  expect(graphOf(less).elements.get('home')).toHaveLength(0);
  expect(printHtml(emitScreenOf(new EmissionPlan(less), 'home'), () => '')).not.toContain('>Go<');
});

test('screens that nothing is decided about stay the same value, and so does the design', () => {
  const plain = projectOf(screenWith('a', 'Go'), screenWith('b', 'Stay'));
  expect(settle(plain)).toBe(plain);
  const button = named(plain.design.screens[0], 'Button');
  const changed = settle(after(plain, putLayer(button.key, { name: 'Start' })));
  expect(changed.design.screens[1]).toBe(plain.design.screens[1]);
  expect(changed.design.screens[0]).not.toBe(plain.design.screens[0]);
  expect(settle(changed)).toBe(changed);
});

test.each<[Layer, (element: Element) => unknown, unknown]>([
  [{ name: 'Start' }, (element) => element.name, 'Start'],
  [{ role: 'link' }, (element) => element.role, 'link'],
  [{ through: true }, (element) => element.style.base['pointer-events'], 'none'],
  [{ scrolls: true }, (element) => element.style.base['overflow-y'], 'auto'],
  [{ flat: true }, (element) => element.attributes?.['aria-label'], 'Card button'],
])('%j', (layer, look, expected) => {
  const { key } = named(drawing, 'Card button');
  let found: Element | undefined;
  walkElements(
    screenIn(after(project, putLayer(key, layer))).root,
    (element) => void (element.key === key && (found = element)),
  );
  expect(look(found!)).toBe(expected);
});

test('a flattened group holds nothing that can be pressed; of pictures it becomes one', () => {
  const { key } = drawing.root;
  expect(graphOf(after(project, putLayer(key, { flat: true }))).elements.get('home')).toHaveLength(0);
  const image = (asset: string, x: number): Element => ({
    ...named(drawing, 'Below'),
    key: `home:${asset}`,
    kind: 'image',
    asset: asset.repeat(64),
    box: { x, y: 0, width: 10, height: 10 },
    text: undefined,
  });
  const group: Element = {
    ...drawing.root,
    key: 'home:g',
    box: { x: 5, y: 0, width: 30, height: 10 },
    style: { base: {} },
    children: [image('a', 5), image('b', 25)],
  };
  const layered = projectOf({ ...drawing, root: { ...drawing.root, children: [group] } });
  const flat = screenIn(after(layered, putLayer('home:g', { flat: true }))).root.children[0];
  expect(flat.children).toEqual([]);
  expect(flat.style.base['background-position']).toBe('20px 0px, 0px 0px');
  expect(flat.style.base['background-image']).toMatch(/^url\("asset:b+"\), url\("asset:a+"\)$/);
});

test('a region is an element over its picture that grows with it and can be wired', () => {
  const more = after(
    project,
    putRegion('home:~r1', { kind: 'box', box: { x: 39, y: 84.4, width: 195, height: 42.2 }, name: 'Pay' }),
  );
  expect(screenIn(more).root.children.at(-1)).toMatchObject({
    key: 'home:~r1',
    role: 'button',
    style: { base: { position: 'absolute', left: '10%', top: '10%', width: '50%', height: '5%' } },
  });
  expect(
    graphOf(more)
      .elements.get('home')!
      .map((state) => state.label),
  ).toEqual(['Go', 'Pay']);
});

test('undoing any decisions gives the very same screens', () => {
  const keys: string[] = [];
  walkElements(drawing.root, (element) => void keys.push(element.key));
  const layer = fc.record(
    { show: fc.boolean(), flat: fc.constant(true as const), role: fc.constantFrom('button', 'none') },
    { requiredKeys: [] },
  );
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.constantFrom(...keys), layer), { maxLength: 6 }), (decisions) => {
      const change = all(decisions.map(([key, value]) => putLayer(key, value)));
      const changed = after(project, change);
      screenIn(changed);
      const back: Project = { ...changed, app: applyChange(changed.app, invertChange(project.app, change)) };
      expect(screenIn(back)).toEqual(screenIn(project));
    }),
  );
});
