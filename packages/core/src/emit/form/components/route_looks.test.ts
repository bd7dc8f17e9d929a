import { atOneOf, choice, type Expression, literal, not, propNamed } from '../../../expression/expression.ts';
import { isRouteTerm, lookAsked, routeLooks } from './route_looks.ts';

const at = (...routes: string[]): Expression => atOneOf(...routes.map(literal));
const yesNo = { true: 'a', false: 'b' };
const three = { own: 'a', group: 'b', plain: 'c' };
const entry = choice(
  at('/saws'),
  literal('own'),
  choice(at('/saws', '/drills'), literal('group'), literal('plain')),
);

test.each<[string, Expression, Readonly<Record<string, string>>, unknown]>([
  ['one of two', at('/saws'), yesNo, { looks: [{ when: at('/saws'), value: 'true' }], otherwise: 'false' }],
  [
    'one of three',
    entry,
    three,
    {
      looks: [
        { when: at('/saws'), value: 'own' },
        { when: at('/saws', '/drills'), value: 'group' },
      ],
      otherwise: 'plain',
    },
  ],
  ['what is given', propNamed('isActive'), yesNo, null],
  ['what is given as one of several', propNamed('variant'), three, null],
  ['a choice by what is given', choice(propNamed('is'), literal('own'), literal('plain')), three, null],
  ['a choice of what is given', choice(at('/saws'), propNamed('variant'), literal('plain')), three, null],
])('how something looks by the route: %s', (_, by, classes, expected) => {
  expect(routeLooks({ by, classes })).toEqual(expected);
});

test('the same looks are asked for otherwise', () => {
  const told = routeLooks({ by: entry, classes: three })!;
  expect(lookAsked(told, [at('/saws'), propNamed('isInGroup')])).toEqual(
    choice(at('/saws'), literal('own'), choice(propNamed('isInGroup'), literal('group'), literal('plain'))),
  );
  expect(
    lookAsked(
      told,
      told.looks.map(({ when }) => when),
    ),
  ).toEqual(entry);
  const two = routeLooks({ by: at('/saws'), classes: yesNo })!;
  expect(lookAsked(two, [propNamed('isActive')])).toEqual(propNamed('isActive'));
});

test.each<[Expression | undefined, boolean]>([
  [undefined, true],
  [at('/a', '/b'), true],
  [not(at('/a')), true],
  [{ kind: 'and', of: [at('/a'), not(at('/b'))] }, true],
  [{ kind: 'or', of: [at('/a'), propNamed('is')] }, false],
  [atOneOf(propNamed('to')), false],
  [literal(true), false],
])('%j asks for the present route alone: %s', (term, expected) => {
  expect(isRouteTerm(term)).toBe(expected);
});
