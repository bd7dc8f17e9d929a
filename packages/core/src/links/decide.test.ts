import { applyChange, putStill } from '../change/change.ts';
import { graphOf } from '../graph/graph.ts';
import { projectOf, screenWith } from '../testing/build.ts';
import { openLinks, refuseLink, takeLinks } from './decide.ts';
import type { LinkProposal } from './propose/propose.ts';

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
