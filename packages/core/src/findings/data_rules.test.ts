import { all, applyChange, putBinding, putDelivery } from '../change/change.ts';
import { makeWork } from '../data/make_work.ts';
import { proposeData } from '../data/propose.ts';
import { walkElements } from '../model/project.ts';
import { desk } from '../testing/desk.ts';
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
