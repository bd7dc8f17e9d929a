import { SaxesParser } from 'saxes';
import { all, applyChange, putVariable, putInteraction, putJourney, putScreen } from '../change/change.ts';
import { pressedElement, printJourneyTests } from '../emit/journey_tests.ts';
import { EmissionPlan } from '../emit/form/plan.ts';
import { graphFiles } from '../emit/graph/graph_file.ts';
import { findingsOf } from '../findings/rules.ts';
import { graphOf } from '../graph/graph.ts';
import type { Journey } from '../model/app.ts';
import type { Project } from '../model/project.ts';
import { projectOf, screenWith } from '../testing/build.ts';
import { to } from '../testing/wired.ts';
import { checkJourney, nextSteps, pressStep } from './walk.ts';

const base = projectOf(
  screenWith('home', 'Tools', 'Account'),
  screenWith('sign-in', 'Sign in'),
  screenWith('account', 'Ask', 'Back'),
  screenWith('ask', 'Yes', 'No'),
);
const { screens } = base.app;
const project: Project = {
  design: base.design,
  app: applyChange(
    base.app,
    all([
      putVariable('c1', { name: 'Signed in', initial: false }),
      putScreen('home', { ...screens.home, route: '/' }),
      putScreen('account', {
        ...screens.account,
        guard: { condition: 'c1', is: true, otherwise: 'sign-in' },
      }),
      putScreen('ask', { ...screens.ask, use: 'overlay' }),
      putInteraction('home:1', to({ kind: 'screen', screen: 'account' })),
      putInteraction('sign-in:0', {
        ...to({ kind: 'screen', screen: 'account' }),
        before: [{ kind: 'set', condition: 'c1', value: true }],
      }),
      putInteraction('account:0', to({ kind: 'open', overlay: 'ask' })),
      putInteraction('account:1', to({ kind: 'back' })),
      putInteraction('ask:0', to({ kind: 'close' })),
    ]),
  ),
};
const graph = graphOf(project);
const journey: Journey = {
  name: 'Ask',
  start: 'home',
  steps: [
    { kind: 'do', interaction: 'home:1', to: 'sign-in' },
    { kind: 'do', interaction: 'sign-in:0', to: 'account' },
    { kind: 'do', interaction: 'account:0', to: 'ask' },
    { kind: 'do', interaction: 'ask:0', to: 'account' },
    { kind: 'do', interaction: 'account:1', to: 'sign-in' },
  ],
};

test('what is counted on the way is counted, and what is worked out from it decides', () => {
  const counted = {
    ...project,
    app: applyChange(
      project.app,
      all([
        putVariable('n', { name: 'N', type: 'number', initial: 0 }),
        putVariable('many', { name: 'Many', initial: false, says: 'n > 1' }),
        putInteraction('home:0', to({ kind: 'set', condition: 'n', value: 'n + 1' })),
        putInteraction('home:1', {
          ...to({ kind: 'screen', screen: 'sign-in' }),
          when: { condition: 'many', is: true },
        }),
      ]),
    ),
  };
  const press = { kind: 'do', interaction: 'home:0', to: 'home' } as const;
  const leave = { kind: 'do', interaction: 'home:1', to: 'sign-in' } as const;
  const problem = (...steps: Journey['steps']) =>
    checkJourney(counted, graphOf(counted), { name: 'Count', start: 'home', steps }).problem;
  expect(problem(press, leave)).toEqual({ step: 1, message: 'its condition, many, is not so here' });
  expect(problem(press, press, leave)).toBeNull();
});

test('a journey goes past guards, into overlays, and back where it came from', () => {
  const { places, screens: beneath, problem } = checkJourney(project, graph, journey);
  expect(problem).toBeNull();
  expect(places).toEqual(['home', 'sign-in', 'account', 'ask', 'account', 'sign-in']);
  expect(beneath).toEqual(['home', 'sign-in', 'account', 'account', 'account', 'sign-in']);
});

test.each([
  [putInteraction('account:0', null), 3, /nothing on Account does that any more/],
  [putInteraction('account:0', to({ kind: 'screen', screen: 'home' })), 3, /leads to Home now, not to Ask/],
  [putScreen('home', { ...screens.home, use: 'skip' }), 0, /Home, where it begins, is no screen/],
  [
    putInteraction('home:1', {
      ...to({ kind: 'screen', screen: 'account' }),
      when: { condition: 'c1', is: true },
    }),
    1,
    /its condition, signed in, is not so here/,
  ],
  [putScreen('ask', null), 3, /Ask is gone/],
])('it breaks where a step can no longer be done (%#)', (change, step, message) => {
  const app = applyChange(project.app, all([putJourney('j1', journey), change]));
  const broken = { ...project, app };
  const { problem } = checkJourney(broken, graphOf(broken), journey);
  expect(problem?.step).toBe(step - 1);
  expect(problem?.message).toMatch(message);
  expect(findingsOf(broken).filter(({ code }) => code === 'journey-broken')).toHaveLength(1);
});

test('what can come next is what is done there under the variables as they are', () => {
  const start: Journey = { ...journey, steps: [] };
  expect(nextSteps(project, graph, start)).toEqual([
    { label: 'Account', step: { kind: 'do', interaction: 'home:1', to: 'sign-in' } },
  ]);
  expect(pressStep(project, graph, { ...journey, steps: journey.steps.slice(0, 3) }, 'ask:0')?.step.to).toBe(
    'account',
  );
  expect(pressStep(project, graph, start, 'home:0')).toBeNull();
});

test('it is written as a Playwright test of the delivered app', () => {
  const app = applyChange(project.app, putJourney('j1', journey));
  expect(printJourneyTests({ ...project, app })).toBe(`import { expect, test } from '@playwright/test';

test('Ask', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Account', exact: true }).click();
  await expect(page).toHaveURL(/^https?:\\/\\/[^/]+\\/sign-in([?#]|$)/);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(page).toHaveURL(/^https?:\\/\\/[^/]+\\/account([?#]|$)/);
  await page.getByRole('button', { name: 'Ask', exact: true }).click();
  await expect(page.locator('#overlay-ask')).toBeVisible();
  await page.locator('#overlay-ask').getByRole('button', { name: 'Yes', exact: true }).click();
  await expect(page).toHaveURL(/^https?:\\/\\/[^/]+\\/account([?#]|$)/);
  await expect(page.locator('#overlay-ask')).toBeHidden();
  await page.getByRole('button', { name: 'Back', exact: true }).click();
  await expect(page).toHaveURL(/^https?:\\/\\/[^/]+\\/sign-in([?#]|$)/);
});
`);
  const broken = applyChange(app, putInteraction('account:0', null));
  expect(printJourneyTests({ ...project, app: broken })).toBe(
    "import { expect, test } from '@playwright/test';\n",
  );
});

test('a press in the running app is known by its number, over what is open', () => {
  const plan = new EmissionPlan(project);
  expect(pressedElement(plan, ['home'], 1)).toEqual({ place: 'home', element: 'home:1' });
  expect(pressedElement(plan, ['account', 'ask'], 2)).toEqual({ place: 'ask', element: 'ask:0' });
  expect(pressedElement(plan, ['home'], 9)).toBeNull();
});

test('SCXML has a state a screen, overlays inside, variables as data and guards on transitions', () => {
  const text = graphFiles.scxml.print(project);
  const states: string[] = [];
  const transitions: string[] = [];
  const parser = new SaxesParser();
  parser.on('opentag', ({ name, attributes }) => {
    const a = attributes as Record<string, string>;
    if (name === 'state') states.push(a.id);
    if (name === 'transition') transitions.push([a.event, a.cond, a.target].filter(Boolean).join(' '));
  });
  parser.write(text).close();
  expect(states).toEqual(['home', 'sign-in', 'account', 'account.ask']);
  expect(transitions).toEqual([
    'press.account signedIn account',
    'press.account sign-in',
    'press.sign-in account',
    'press.ask account.ask',
    "press.back previous == 'home' home",
    "press.back previous == 'sign-in' sign-in",
    'press.back home',
    'press.yes account',
  ]);
  expect(text).toContain('<data id="signedIn" expr="false"/>');
});
