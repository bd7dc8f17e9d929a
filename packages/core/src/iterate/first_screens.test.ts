import fc from 'fast-check';
import { applyChange, putScreen } from '../change/change.ts';
import { applyIteration } from './apply.ts';
import { planIteration } from './plan.ts';
import { emptyApp } from '../model/app.ts';
import { emptyDesign, type Screen } from '../model/design.ts';
import { elementsByKey } from '../model/project.ts';
import { pageOfHtml } from '../testing/page_of_html.ts';
import { FirstScreens } from './first_screens.ts';

const part = fc.constantFrom(
  '<p>Some words</p>',
  '<ul><li>One</li><li>Two</li></ul>',
  '<nav><a href="b.html">B</a><a href="c.html">C</a></nav>',
  '<form><input name="x"><button>Send</button></form>',
);
const pages = fc
  .array(fc.array(part, { maxLength: 4 }), { minLength: 1, maxLength: 6 })
  .map((all) => all.map((parts, i) => pageOfHtml(`<h1>Page ${i}</h1>${parts.join('')}`, 'abcdef'[i])));
const readOf = (screens: readonly Screen[]) => ({ screens, assets: [], fonts: [], bytes: new Map() });
const keysOf = (screen: Screen): string[] => [...elementsByKey(screen).keys()];

test('what is there while more is read has the keys that it has once all are there', () => {
  fc.assert(
    fc.property(pages, (all) => {
      const first = new FirstScreens();
      const seen = all.map((_, i) => first.soFar(readOf(all.slice(0, i + 1))).design.screens);
      const empty = { design: emptyDesign, app: emptyApp };
      const plan = planIteration(empty, all, { whole: false });
      const { design, change } = applyIteration(
        empty,
        plan,
        { assets: [], notices: [] },
        emptyDesign.iteration + 1,
      );
      const app = applyChange(emptyApp, change);
      for (const screens of seen)
        for (const [i, screen] of screens.entries()) {
          expect(screen.key).toBe(design.screens[i].key);
          expect(keysOf(screen)).toEqual(keysOf(design.screens[i]));
          expect(app.screens[screen.key]).toBeDefined();
        }
    }),
    { numRuns: 40 },
  );
});

test('a screen that was there is the very same value, unless it is called otherwise by now', () => {
  const [a, b, c] = ['a', 'b', 'c'].map((key) => pageOfHtml(`<h1>${key}</h1>`, key));
  const first = new FirstScreens();
  const one = first.soFar(readOf([a, b]));
  const two = first.soFar(readOf([a, { ...b, name: 'Another' }, c]));
  expect(two.design.screens[0]).toBe(one.design.screens[0]);
  expect(two.design.screens[1]).not.toBe(one.design.screens[1]);
  expect(two.app.screens.b.name).toBe('Another');
  expect(Object.keys(two.app.screens)).toEqual(['a', 'b', 'c']);
});

test('what was decided meanwhile holds for what all of them are', () => {
  const all = ['a', 'b', 'c'].map((key) => pageOfHtml(`<h1>${key}</h1>`, key));
  const meanwhile = new FirstScreens().soFar(readOf(all.slice(0, 1)));
  const renamed = putScreen('a', { ...meanwhile.app.screens.a, name: 'Renamed' });
  const empty = { design: emptyDesign, app: emptyApp };
  const plan = planIteration(empty, all, { whole: false });
  const { change } = applyIteration(empty, plan, { assets: [], notices: [] }, emptyDesign.iteration + 1);
  const app = applyChange(applyChange(emptyApp, change), renamed);
  expect(Object.values(app.screens).map(({ name }) => name)).toEqual(['Renamed', 'b', 'c']);
});
