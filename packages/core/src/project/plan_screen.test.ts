import { applyChange, putInteraction } from '../change/change.ts';
import { emitReact } from '../emit/react/emit_react.ts';
import { findingsOf } from '../findings/rules.ts';
import { graphOf } from '../graph/graph.ts';
import type { Design } from '../model/design.ts';
import { projectOf, screenWith } from '../testing/build.ts';
import { to } from '../testing/wired.ts';
import { planFor } from './plan_screen.ts';
import { takeIn } from './take_in.ts';

const project = projectOf(screenWith('home', 'Help', 'Contact us'));
const app = applyChange(project.app, planFor(project.app, 'Help', 'home:0'));
const planned = { design: project.design, app };

test('a planned screen has a name, a route and a place in the graph, and counts as open work', () => {
  expect(app.screens['planned-help']).toEqual({ name: 'Help', route: '/help', use: 'planned', order: 2 });
  const graph = graphOf(planned);
  expect(graph.reached.has('planned-help')).toBe(true);
  expect(graph.counts).toMatchObject({ planned: 1, broken: 0 });
  expect(findingsOf(planned).map(({ code }) => code)).toContain('to-be-drawn');
});

test('it is delivered as a page that says so', () => {
  const file = emitReact(planned, 'Test').files.find(({ path }) => path === 'src/screens/Help/Help.tsx');
  expect(file && 'text' in file ? file.text : '').toContain('This screen is still to be drawn.');
});

test('the drawn screen of that name takes its place, with all that leads to it', () => {
  const more = applyChange(app, putInteraction('home:1', to({ kind: 'back', fallback: 'planned-help' })));
  const drawn = { ...screenWith('help', 'Back'), name: 'Help' };
  const design: Design = { ...project.design, screens: [...project.design.screens, drawn] };
  const after = applyChange(more, takeIn({ design, app: more }, [drawn]));
  expect(after.screens['planned-help']).toBeUndefined();
  expect(after.screens.help).toMatchObject({ name: 'Help', route: '/help', use: 'screen' });
  expect(Object.values(after.interactions).map(({ target }) => target)).toEqual([
    { kind: 'screen', screen: 'help' },
    { kind: 'back', fallback: 'help' },
  ]);
  expect(graphOf({ design, app: after }).counts).toMatchObject({ planned: 0, broken: 0 });
});
