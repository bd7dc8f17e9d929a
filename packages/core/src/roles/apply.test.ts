import type { Element, Screen } from '../model/design.ts';
import { elementsByKey } from '../model/project.ts';
import { named, screenOf, svg } from '../testing/build.ts';
import { applyRoles } from './apply.ts';
import type { RoleDetail } from './names.ts';

const field = screenOf(
  svg(
    '<g id="Mail_field"><text x="24" y="50" font-size="13" fill="#222">Email</text><rect x="24.5" y="60.5" width="341" height="47" rx="6" fill="#fff" stroke="#bbb"/><text x="40" y="90" font-size="15" fill="#999999">you@example.org</text></g>',
  ),
);

function applied(
  screen: Screen,
  decisions: Readonly<Record<string, RoleDetail>>,
): ReadonlyMap<string, Element> {
  const root = applyRoles(screen, new Map(Object.entries(decisions)));
  return elementsByKey({ ...screen, root });
}

test('a flat drawing of a field becomes an input with its placeholder and its label', () => {
  const elements = applied(field, { 'test:0/1': { role: 'textbox', input: 'email' } });
  const input = elements.get('test:0/1')!;
  expect(input).toMatchObject({ tag: 'input', kind: 'control', children: [] });
  expect(input.attributes).toMatchObject({ type: 'email', placeholder: 'you@example.org' });
  expect(input.style.placeholder).toMatchObject({ color: '#999999' });
  expect(elements.get('test:0/0')).toMatchObject({ tag: 'label', attributes: { for: input.attributes!.id } });
});

test('a field without a label is called by its placeholder', () => {
  const screen = screenOf(
    svg(
      '<g><rect x="24.5" y="60.5" width="341" height="47" rx="6" fill="#fff" stroke="#bbb"/><text x="40" y="90" font-size="15" fill="#999">Find a tool</text></g>',
    ),
  );
  const input = applied(screen, { 'test:0': { role: 'textbox', input: 'search' } }).get('test:0')!;
  expect(input.attributes).toMatchObject({ type: 'search', 'aria-label': 'Find a tool' });
});

test('what else a field holds stays behind it', () => {
  const screen = screenOf(
    svg(
      '<g id="Search_field"><rect x="24.5" y="60.5" width="341" height="47" rx="6" fill="#fff" stroke="#bbb"/><path d="M30 70 c8 8 8 8 9 9" stroke="#222" fill="none"/><text x="60" y="90" font-size="15" fill="#999">Find</text></g>',
    ),
  );
  const holder = applied(screen, { 'test:0': { role: 'textbox' } }).get('test:0')!;
  expect(holder.children.map((child) => child.tag)).toEqual(['svg', 'input']);
  expect(holder.children[0].attributes).toMatchObject({ 'aria-hidden': 'true' });
});

const ticks = screenOf(
  svg(
    '<g><rect x="24.5" y="20.5" width="21" height="21" rx="4" fill="#fff" stroke="#222"/></g><text x="60" y="36" font-size="15">Clean</text>' +
      '<g><rect x="24.5" y="60.5" width="21" height="21" rx="4" fill="#2f4a3a" stroke="#2f4a3a"/><path d="M29 71 l4 4 l8 -8" stroke="#fff" fill="none"/></g><text x="60" y="76" font-size="15">Whole</text>',
  ),
);

test('a drawn checkbox is a real one, on where it was drawn with a mark', () => {
  const keys = [...elementsByKey(ticks).values()]
    .filter((e) => e.box.width < 30 && e.box.height > 18 && e.source.path.length === 1)
    .map((e) => e.key);
  const elements = applied(
    ticks,
    Object.fromEntries(keys.map((key) => [key, { role: 'checkbox' as const }])),
  );
  const boxes = keys.map((key) => elements.get(key)!);
  expect(boxes.map((box) => box.attributes?.type)).toEqual(['checkbox', 'checkbox']);
  expect(boxes.map((box) => box.attributes?.checked !== undefined)).toEqual([false, true]);
  expect([...elements.values()].filter((element) => element.tag === 'label')).toHaveLength(2);
});

const simple: readonly [role: RoleDetail, tag: string][] = [
  [{ role: 'button' }, 'button'],
  [{ role: 'navigation' }, 'nav'],
  [{ role: 'banner' }, 'header'],
  [{ role: 'contentinfo' }, 'footer'],
  [{ role: 'form' }, 'form'],
];
test.each(simple)('%j is written as <%s>', (detail, tag) => {
  expect(applied(field, { 'test:0': detail }).get('test:0')!.tag).toBe(tag);
});

test('headings have their level', () => {
  expect(applied(field, { 'test:0/0': { role: 'heading', level: 4 } }).get('test:0/0')!.tag).toBe('h4');
});

test('a list is one only when all in it are items', () => {
  const screen = screenOf(
    svg(
      '<g id="All"><g id="A"><rect y="10" width="390" height="40" fill="#eee"/><text x="9" y="30">A</text></g><g id="B"><rect y="60" width="390" height="40" fill="#eee"/><text x="9" y="80">B</text></g></g>',
    ),
  );
  const at = (name: string): string => named(screen, name).key;
  const items = { [at('A')]: { role: 'listitem' }, [at('B')]: { role: 'listitem' } } as const;
  const whole = applied(screen, { [at('All')]: { role: 'list' }, ...items });
  expect([at('All'), at('A'), at('B')].map((key) => whole.get(key)!.tag)).toEqual(['ul', 'li', 'li']);
  const part = applied(screen, { [at('All')]: { role: 'list' }, [at('A')]: { role: 'listitem' } });
  expect(part.get(at('All'))).toMatchObject({ tag: 'div', attributes: { role: 'list' } });
});

test('a screen that nothing was decided about is returned itself', () => {
  expect(applyRoles(field, new Map())).toBe(field.root);
});

test('a chart says what it shows, to be bound to data later', () => {
  expect(
    applied(field, { 'test:0': { role: 'chart', chart: 'line', label: 'Loans a week' } }).get('test:0'),
  ).toMatchObject({
    role: 'chart',
    attributes: { role: 'img', 'aria-label': 'line chart: Loans a week' },
  });
});

test('a drawing that is a button stands in one, with a name', () => {
  const screen = screenOf(
    svg('<g id="Close_icon" data-name="Close"><path d="M10 10 C20 20 20 20 30 30" stroke="#222"/></g>'),
  );
  const button = applied(screen, { 'test:0': { role: 'button', label: 'Close' } }).get('test:0')!;
  expect(button).toMatchObject({ tag: 'button', attributes: { 'aria-label': 'Close' } });
  expect(button.children[0]).toMatchObject({ tag: 'svg', attributes: { 'aria-hidden': 'true' } });
});
