import {
  all,
  applyChange,
  putBinding,
  putCollection,
  putDelivery,
  putForm,
  putState,
} from '../change/change.ts';
import { makeWork } from '../data/make_work.ts';
import { proposeData } from '../data/propose.ts';
import type { FormField } from '../model/app.ts';
import { walkElements } from '../model/project.ts';
import { desk, pageOf } from '../testing/desk.ts';
import { findingsOf } from './rules.ts';

const drawn = desk();
const found = proposeData(drawn.design);
const works = {
  ...drawn,
  app: applyChange(drawn.app, makeWork(drawn, found, found.actions).change!),
};
const codes = (project: typeof drawn): string[] =>
  findingsOf(project)
    .map(({ code }) => code)
    .filter((code) => code === 'expression' || code === 'plain-records');

test('plain pages say once that they leave records out, and can be written otherwise', () => {
  expect(codes(works)).toEqual([]);
  expect(codes({ ...drawn, app: applyChange(drawn.app, putDelivery('target', 'html')) })).toEqual([]);
  const plain = { ...works, app: applyChange(works.app, putDelivery('target', 'html')) };
  expect(codes(plain)).toEqual(['plain-records']);
  const [finding] = findingsOf(plain).filter(({ code }) => code === 'plain-records');
  expect(codes({ ...plain, app: applyChange(plain.app, finding.fix!.change) })).toEqual([]);
});

test('an expression that cannot be read is told with what is wrong, and can be given up', () => {
  let text = '';
  walkElements(drawn.design.screens[0].root, ({ key, text: says }) => {
    if (says?.includes('of 214')) text = key;
  });
  const bound = {
    ...works,
    app: applyChange(works.app, all([putBinding(text, { text: 'count(membres)' })])),
  };
  const [finding] = findingsOf(bound).filter(({ code }) => code === 'expression');
  expect(finding.message).toContain('nothing is called membres; there are members');
  expect(codes({ ...bound, app: applyChange(bound.app, finding.fix!.change) })).toEqual([]);
  const right = { ...works, app: applyChange(works.app, putBinding(text, { text: 'count(members)' })) };
  expect(codes(right)).toEqual([]);
});

const withForm = (...rules: Omit<FormField, 'element' | 'field'>[]): typeof drawn => {
  let field = '';
  walkElements(drawn.design.screens[0].root, ({ key, tag }) => {
    if (tag === 'input') field ||= key;
  });
  const fields = rules.map((rule, i): FormField => ({ element: field, field: `field${i}`, ...rule }));
  return { ...drawn, app: applyChange(drawn.app, putForm(field, { fields })) };
};

test.each<[string, Omit<FormField, 'element' | 'field'>, RegExp | null]>([
  ['more letters than there may be', { least: 5, most: 3 }, /needs 5 letters and may have 3/],
  ['a number above its largest', { from: '10', to: '9' }, /nothing is 10 or more and 9 or less/],
  ['a day after the last', { from: '2026-02-01', to: '2026-01-31' }, /nothing is 2026-02-01 or more/],
  ['a field that is not there', { same: 'password' }, /the same as “password”/],
  ['what can be right', { least: 3, most: 3, from: '9', to: '10' }, null],
])('a form that asks for %s is told', (_, rule, message) => {
  const told = findingsOf(withForm(rule)).filter(({ code }) => code === 'form-impossible');
  if (message) expect(told[0].message).toMatch(message);
  else expect(told).toEqual([]);
});

test('records whose API is gone are told, and can be kept in the app', () => {
  const [id] = Object.keys(works.app.collections);
  const behind = { api: 'gone', list: 'listMembers', key: 'id', fields: {} };
  const app = applyChange(works.app, putCollection(id, { ...works.app.collections[id], behind }));
  const found = (made: typeof app) =>
    findingsOf({ ...works, app: made }).filter(({ code }) => code === 'api-operation');
  const [finding] = found(app);
  expect(finding.message).toMatch(/come from “listMembers”, which no described API has any more/);
  expect(found(applyChange(app, finding.fix!.change))).toEqual([]);
});

test('a list that can be empty asks for a drawing of that, until there is one', () => {
  const none = pageOf('none', 'Members, none', (read) => [read('h1', { y: '150' }, 'Members')]);
  const both = desk(none);
  const asking = (app: typeof both.app) =>
    findingsOf({ ...both, app }).filter(({ code }) => code === 'state-undrawn');
  expect(asking(both.app)).toEqual([]);
  const app = applyChange(both.app, makeWork(both, found, found.actions).change!);
  const [finding, ...others] = asking(app);
  expect(others).toEqual([]);
  expect(finding).toMatchObject({ level: 'info', screen: both.design.screens[0].key });
  expect(finding.message).toMatch(/^Members: nobody drew what stands here when there are none\./);
  expect(asking(applyChange(app, putState(app, 'none', finding.screen!, 'empty')))).toEqual([]);
});
