import { applyChange, putStill } from '../change/change.ts';
import { graphOf } from '../graph/graph.ts';
import { projectOf, screenWith } from '../testing/build.ts';
import { linkDecisions, openLinks, refuseLink, takeLinks } from './decide.ts';
import type { LinkProposal } from '../links/propose/propose.ts';

const project = projectOf(screenWith('home', 'Loans', 'Rules'), screenWith('loans', 'Home'));
const graph = graphOf(project);
const to = (element: string, screen: string, confidence = 0.9): LinkProposal => ({
  element,
  to: screen,
  confidence,
  reason: 'it says so',
});
const proposals = [
  to('home:0', 'loans'),
  to('home:0', 'home', 0.5),
  to('home:1', 'loans', 0.2),
  to('loans:0', 'gone'),
];

test('the best target of each open element is shown, if it is sure enough and on a screen of the app', () => {
  expect([...openLinks(project.app, graph, proposals)]).toEqual([['home:0', proposals[0]]]);
});

test('what is wired or still is not asked about', () => {
  const wired = applyChange(project.app, takeLinks([proposals[0]]));
  expect(wired.interactions['home:0'].target).toEqual({ kind: 'screen', screen: 'loans' });
  expect(openLinks(wired, graphOf({ ...project, app: wired }), proposals).size).toBe(0);
  const still = applyChange(project.app, putStill('home:0', true));
  expect(openLinks(still, graphOf({ ...project, app: still }), proposals).size).toBe(0);
});

test('what is refused gives way to the next, and comes back when its reason changes', () => {
  const app = applyChange(project.app, refuseLink(proposals[0]));
  expect(openLinks(app, graph, proposals).get('home:0')).toEqual(proposals[1]);
  const changed = { ...proposals[0], reason: 'it is the marked entry' };
  expect(openLinks(app, graph, [changed, proposals[1]]).get('home:0')).toEqual(changed);
});

test('an open element does as its like beside it, once two of them lead to one place', () => {
  const { design, app: bare } = projectOf(
    screenWith('list', 'Saw', 'Drill', 'Press'),
    screenWith('tool', 'Back'),
  );
  const one = applyChange(bare, takeLinks([to('list:0', 'tool')]));
  const two = applyChange(one, takeLinks([to('list:1', 'tool')]));
  const proposed = (app: typeof bare) => openLinks(app, graphOf({ design, app }), []).get('list:2');
  expect(proposed(one)).toBeUndefined();
  expect(proposed(two)).toMatchObject({ to: 'tool', reason: '2 like it beside it lead there' });
  const apart = applyChange(one, takeLinks([to('list:1', 'list')]));
  expect(proposed(apart)).toBeUndefined();
});

test('an open element does as those of its label on other screens', () => {
  const { design, app: bare } = projectOf(
    screenWith('a', 'Account'),
    screenWith('b', 'Account'),
    screenWith('c', 'Other'),
  );
  const app = applyChange(bare, takeLinks([to('a:0', 'c')]));
  expect(openLinks(app, graphOf({ design, app }), []).get('b:0')).toMatchObject({
    to: 'c',
    reason: '“Account” is wired so on another screen',
  });
});

test('what the same label leads to on many screens is one decision; what has no name decides for itself', () => {
  const back = (element: string, screen: string): LinkProposal => ({ ...to(element, screen), isBack: true });
  const list = [
    to('a:0', 'loans', 0.9),
    to('b:0', 'loans', 0.7),
    to('c:0', 'help'),
    to('a:1', 'help'),
    to('b:1', 'help'),
    back('a:2', 'home'),
    back('b:2', 'loans'),
  ];
  const labels: Record<string, string> = {
    'a:0': 'Loans',
    'b:0': 'loans',
    'c:0': 'Loans',
    'a:2': 'Back',
    'b:2': 'Back',
  };
  const decisions = linkDecisions(
    list,
    (element) => labels[element] ?? '',
    (element) => element.split(':')[0],
  );
  expect(
    decisions.map(({ label, to: target, screens, isBack }) => [label, target, screens.join(), isBack]),
  ).toEqual([
    ['Back', 'home', 'a,b', true],
    ['Loans', 'loans', 'a,b', false],
    ['', 'help', 'a', false],
    ['', 'help', 'b', false],
    ['Loans', 'help', 'c', false],
  ]);
  expect(decisions[1].confidence).toBeCloseTo(0.8);
  expect(decisions.flatMap(({ proposals: all }) => all).length).toBe(list.length);
});
