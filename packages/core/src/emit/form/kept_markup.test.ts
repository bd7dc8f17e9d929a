import fc from 'fast-check';
import {
  applyChange,
  putCollection,
  putEdit,
  putInteraction,
  putLayer,
  putScreen,
} from '../../change/change.ts';
import { findCollections } from '../../data/collections.ts';
import { takeCollection } from '../../data/take_collection.ts';
import type { Interaction } from '../../model/app.ts';
import { editKey } from '../../model/edit_key.ts';
import type { Screen } from '../../model/design.ts';
import { pressTo } from '../../model/interaction.ts';
import { screenOf } from '../../model/places.ts';
import { type Project, walkElements } from '../../model/project.ts';
import { partedAtFirst } from '../../project/part_first.ts';
import { projectOf } from '../../testing/build.ts';
import { pageOfHtml } from '../../testing/page_of_html.ts';
import { emitReact } from '../react/emit_react.ts';
import { emitVue } from '../vue/emit_vue.ts';
import { keptMarkup } from './kept_markup.ts';
import type { MarkupElement } from './markup.ts';

const SHEDS = ['Mill', 'Harbour', 'Orchard', 'Quarry'];
const TOOLS = ['Hedge trimmer', 'Wheelbarrow', 'Post driver', 'Ladder', 'Log splitter'];

/** Pages with one bar, cards in a row, and a table, so that there are components, lists and a layout. */
const page = (name: string, i: number): Screen => {
  const top = SHEDS.map((one) => `<a href="${one}.html"${one === name ? ' class="on"' : ''}>${one}</a>`).join(
    '',
  );
  const cards = TOOLS.slice(0, 3 + (i % 2)).map(
    (tool, k) =>
      `<div class="card"><h3>${tool}</h3><p>${k} of ${i + 2} are in</p>${k % 2 ? '<span class="badge">New</span>' : ''}<a href="Mill.html">See it</a></div>`,
  );
  const rows = TOOLS.map((tool, k) => `<tr><td>${tool}</td><td>${k + i}</td><td>${name}</td></tr>`);
  const main = `<h1>${name}</h1><div class="cards">${cards.join('')}</div><table><tbody>${rows.join('')}</tbody></table>`;
  return { ...pageOfHtml(`<header><nav>${top}</nav></header><main>${main}</main>`, name), title: name };
};

const drawn = projectOf(...SHEDS.map(page));
const atFirst: Project = { ...drawn, app: applyChange(drawn.app, partedAtFirst(drawn)) };
const parted = findCollections(drawn.design.screens).reduce((project, proposal): Project => {
  const { change } = takeCollection(project, proposal);
  return { ...project, app: applyChange(project.app, change) };
}, atFirst);
const collections = Object.keys(parted.app.collections);

const keys = parted.design.screens.flatMap(({ root }) => {
  const found: string[] = [];
  walkElements(root, ({ key, text }) => {
    if (text !== undefined) found.push(key);
    return true;
  });
  return found;
});

test('there is something to keep: components, a layout, and rows of records', () => {
  expect(collections.length).toBeGreaterThan(1);
  expect(Object.keys(parted.app.components).length).toBeGreaterThan(1);
  expect(Object.keys(parted.app.layouts)).toHaveLength(1);
});

const screens = parted.design.screens.map(({ key }) => key);

const edit = fc.oneof(
  fc.record({
    key: fc.constantFrom(...keys),
    to: fc.constantFrom(...screens),
    at: fc.option(fc.constantFrom(...keys), { nil: null }),
  }),
  fc.record({ screen: fc.constantFrom(...screens), route: fc.constantFrom('/one', '/two/three') }),
  fc.record({ key: fc.constantFrom(...keys), say: fc.constantFrom('Anvil', 'Spade', '') }),
  fc.record({ key: fc.constantFrom(...keys), color: fc.constantFrom('rgb(1, 2, 3)', 'rgb(9, 9, 9)') }),
  fc.record({ key: fc.constantFrom(...keys), hide: fc.boolean() }),
  fc.record({ collection: fc.constantFrom(...collections), call: fc.constantFrom('tools', 'spades') }),
);

/** A link to a screen, or to a place of it. */
const linkTo = ({ to, at }: { readonly to: string; readonly at: string | null }): Interaction =>
  pressTo(
    at === null
      ? { kind: 'screen', screen: to }
      : { kind: 'anchor', screen: screenOf(parted.design, at), element: at },
  );

test('what is written after edits is what is written of the same project from nothing', () => {
  fc.assert(
    fc.property(fc.array(edit, { minLength: 1, maxLength: 4 }), (edits) => {
      let app = parted.app;
      for (const one of edits) {
        app = applyChange(
          app,
          'to' in one
            ? putInteraction(one.key, linkTo(one))
            : 'route' in one
              ? putScreen(one.screen, { ...app.screens[one.screen], route: one.route })
              : 'call' in one
                ? putCollection(one.collection, { ...app.collections[one.collection], name: one.call })
                : 'say' in one
                  ? putEdit(editKey(one.key, 'text'), one.say)
                  : 'color' in one
                    ? putEdit(editKey(one.key, 'color'), one.color)
                    : putLayer(one.key, one.hide ? { show: false } : null),
        );
        const now = { design: parted.design, app };
        const anew = JSON.parse(JSON.stringify(now)) as Project;
        for (const emit of [emitReact, emitVue])
          expect(emit(now, 'Sheds').files).toEqual(emit(anew, 'Sheds').files);
      }
    }),
    { numRuns: 20 },
  );
});

test('a list is called after the collection whose records its rows show by then', () => {
  const table = (name: string): Screen => {
    const rows = TOOLS.map((tool, k) => `<tr><td>${tool}</td><td>${k}</td><td>${name}</td></tr>`);
    const main = `<main><h1>${name}</h1><table><tbody>${rows.join('')}</tbody></table></main>`;
    return { ...pageOfHtml(main, name), title: name };
  };
  const rows = projectOf(...SHEDS.map(table));
  const { id, change } = takeCollection(rows, findCollections(rows.design.screens)[0]);
  const taken = applyChange(rows.app, change);
  const listsOf = (app: Project['app']): string =>
    emitReact({ design: rows.design, app }, 'Sheds')
      .files.flatMap((file) => ('text' in file ? (/export const (\w+): \(/.exec(file.text)?.[1] ?? []) : []))
      .join(' ');
  expect(listsOf(rows.app)).not.toContain(id);
  expect(listsOf(taken)).toContain(id);
  const spades = putCollection(id, { ...taken.collections[id], name: 'spades' });
  expect(listsOf(applyChange(taken, spades))).toContain('spades');
});

const node = (tag: string, more: Partial<MarkupElement> = {}): MarkupElement => ({
  tag,
  key: tag,
  className: null,
  attributes: {},
  children: [],
  ...more,
});

test('elements in which nothing differs stay the very same, and what stands around them is new', () => {
  const made = (text: string) =>
    node('main', {
      children: [node('p', { children: [{ text: 'Stays' }] }), node('b', { children: [{ text }] })],
    });
  const [before, now] = [made('Before'), made('Now')];
  const kept = keptMarkup(before, now);
  expect(kept).toEqual(now);
  expect(kept).not.toBe(before);
  expect(kept.children[0]).toBe(before.children[0]);
  expect(keptMarkup(before, made('Before'))).toBe(before);
});

test('what comes in between leaves those beside it as they are', () => {
  const row = (key: string) => node('li', { key });
  const before = node('ul', { children: [row('a'), row('b')] });
  const kept = keptMarkup(before, node('ul', { children: [row('a'), row('c'), row('b')] }));
  expect(kept.children[2]).toBe(before.children[1]);
});

test('what stands in a link is another thing once the link leads elsewhere', () => {
  const link = (to: string) =>
    node('a', { link: { kind: 'go', to, arrival: { kind: 'none' } }, children: [node('b')] });
  const before = link('/tools');
  expect(keptMarkup(before, link('/tools'))).toBe(before);
  expect(keptMarkup(before, link('/sheds')).children[0]).not.toBe(before.children[0]);
});
