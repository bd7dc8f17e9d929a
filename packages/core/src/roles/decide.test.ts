import { applyChange, invertChange } from '../change/change.ts';
import { projectOf, screenWith } from '../testing/build.ts';
import { settle } from '../layers/settle.ts';
import {
  decideRole,
  elementsLike,
  openRoles,
  refuseRole,
  roleProposals,
  takeRoles,
  undecideRole,
} from './decide.ts';

const home = screenWith('home', 'Go', 'Back');
const more = screenWith('more', 'Stop', 'Wait', 'On');
const project = projectOf(home, more);

test('what is taken is no longer asked about, and its inverse asks again', () => {
  const [first] = roleProposals(project.app, home);
  expect(first.guess.role).toBe('button');
  const change = decideRole(project.app, first.element.key, first.guess);
  const app = applyChange(project.app, change);
  expect(app.layers[first.element.key]).toMatchObject({ role: 'button' });
  expect(roleProposals(app, home)).toHaveLength(roleProposals(project.app, home).length - 1);
  expect(applyChange(app, invertChange(project.app, change))).toEqual(project.app);
  expect(applyChange(app, undecideRole(app, first.element.key)).layers).toEqual({});
});

test('what is refused does not come back', () => {
  const [first] = roleProposals(project.app, home);
  const app = applyChange(project.app, refuseRole(first));
  expect(roleProposals(app, home).map((proposal) => proposal.element.key)).not.toContain(first.element.key);
});

test('only what is sure enough is taken together', () => {
  const proposals = roleProposals(project.app, more);
  const none = applyChange(project.app, takeRoles(project.app, proposals, 1.1));
  expect(none).toEqual(project.app);
  const all = applyChange(project.app, takeRoles(project.app, proposals, 0));
  expect(roleProposals(all, more)).toEqual([]);
  // What is alike is one decision.
  expect(roleProposals(project.app, home)).toHaveLength(2);
  expect(openRoles(settle({ ...project, app: all }))).toBe(1);
});

test('a decision keeps what else was decided about the element', () => {
  const [first] = roleProposals(project.app, home);
  const { key } = first.element;
  const named = { ...project.app, layers: { [key]: { name: 'Go on', scrolls: true as const } } };
  const app = applyChange(
    named,
    decideRole(named, key, { role: 'textbox', input: 'email', label: ' Address ' }),
  );
  expect(app.layers[key]).toEqual({
    name: 'Go on',
    scrolls: true,
    role: 'textbox',
    input: 'email',
    label: 'Address',
  });
});

test('elements that are called and built the same are like each other, on all screens', () => {
  const [first] = home.root.children;
  expect(elementsLike(project.design, first).map((element) => element.key)).toEqual([
    'home:0',
    'home:1',
    'more:0',
    'more:1',
    'more:2',
  ]);
});
