import { scoreRoles } from './score.ts';

test('a role that is found where another is true counts against both', () => {
  const truth = new Map([
    ['a', 'button'],
    ['b', 'button'],
    ['c', 'link'],
  ]);
  const found = new Map([
    ['a', 'button'],
    ['b', 'link'],
    ['c', 'link'],
  ]);
  const { byRole, macroF1 } = scoreRoles(truth, found);
  expect(byRole.get('button')).toMatchObject({ precision: 1, recall: 0.5, support: 2 });
  expect(byRole.get('link')).toMatchObject({ precision: 0.5, recall: 1, support: 1 });
  expect(macroF1).toBeCloseTo(2 / 3);
});

test('what is found where nothing is lowers precision only', () => {
  const { byRole } = scoreRoles(
    new Map([['a', 'link']]),
    new Map([
      ['a', 'link'],
      ['b', 'link'],
    ]),
  );
  expect(byRole.get('link')).toMatchObject({ precision: 0.5, recall: 1 });
});

test('roles that never occur do not count', () => {
  const { macroF1 } = scoreRoles(
    new Map([['a', 'link']]),
    new Map([
      ['a', 'link'],
      ['b', 'table'],
    ]),
  );
  expect(macroF1).toBe(1);
});
