import { applyChange, putComponent } from '../change/change.ts';
import { projectOf, screenWith } from '../testing/build.ts';
import { screensOfBar } from './bars.ts';

const bare = projectOf(
  ...['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h', 'i', 'j'].map((key) => screenWith(key, 'Search')),
);
const shared = (...keys: readonly string[]): typeof bare => ({
  ...bare,
  app: applyChange(
    bare.app,
    putComponent('bar', {
      name: 'Bar',
      kind: 'component',
      places: keys.map((key) => `${key}:0`),
      props: {},
    } as never),
  ),
});

test.each([
  [['a', 'b', 'c', 'd'], 4],
  [['b', 'c', 'd', 'e', 'f'], 0],
  [['a', 'b', 'c'], 0],
  [['a', 'b'], 0],
])('what stands on %j is around %i screens', (keys, count) => {
  expect(screensOfBar(shared(...keys), 'a:0').size).toBe(count);
});
