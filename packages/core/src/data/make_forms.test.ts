import { applyChange, putInteraction } from '../change/change.ts';
import { pressablesOf } from '../links/pressable.ts';
import type { App } from '../model/app.ts';
import { pressTo } from '../model/interaction.ts';
import type { Project } from '../model/project.ts';
import { projectOf } from '../testing/build.ts';
import { pageOfHtml } from '../testing/page_of_html.ts';
import { makeForms, sendable } from './make_forms.ts';
import { makeWork } from './make_work.ts';
import { proposeData } from './propose.ts';

/** The forms of a page as they are made to work. */
function formsIn(html: string): ReturnType<typeof makeForms>['made'] {
  const project = projectOf(pageOfHtml(html));
  const found = proposeData(project.design);
  return makeForms(project, found, sendable(found.forms)).made;
}

/** The names of the fields that forms of a page are given. */
const fieldsIn = (html: string): string[][] =>
  formsIn(html).map(({ form }) => form.fields.map(({ field }) => field));

test.each([
  [
    'each its own name',
    '<label>Subject <input name="subject"></label><textarea name="text" aria-label="Message"></textarea>',
    2,
  ],
  [
    'also those that are called the same',
    '<label>Subject <input name="subject"></label><textarea name="subject" aria-label="Subject"></textarea>',
    2,
  ],
  [
    'of three the third, too',
    ['a', 'b', 'c'].map(() => '<label>Note <input name="note"></label>').join(''),
    3,
  ],
])('fields of a form that adds to records that are there have %s', (_, fields, count) => {
  const before =
    '<form><label>Subject <input name="subject"></label><label>Note <input name="note"></label><button type="submit">Send message</button></form>';
  const [, names] = fieldsIn(
    `<h1>New message</h1>${before}<form>${fields}<button type="submit">Send message</button></form>`,
  );
  expect(names).toHaveLength(count);
  expect(new Set(names).size).toBe(count);
});

const field = (label: string, type: string): string => `<label>${label} <input type="${type}"></label>`;

test.each([
  ['an address', [field('E-mail', 'email'), field('Repeat e-mail', 'email')], [undefined, 'email']],
  [
    'the one before of its kind',
    [field('E-mail', 'email'), field('Phone', 'tel'), field('Confirm phone', 'tel')],
    [undefined, undefined, 'phone'],
  ],
  [
    'a password, whatever it says',
    [field('Password', 'password'), field('So', 'password')],
    [undefined, 'password'],
  ],
  [
    'nothing of another kind',
    [field('Name', 'text'), field('Repeat e-mail', 'email')],
    [undefined, undefined],
  ],
])('what is asked for again is the same: %s', (_, fields, same) => {
  const [{ form }] = formsIn(`<form>${fields.join('')}<button type="submit">Sign up</button></form>`);
  expect(form.fields.map((one) => one.same)).toEqual(same);
});

test.each([
  ['Place order', 'orders'],
  ['Pay now', 'payments'],
])('what “%s” sends is among %s', (label, collection) => {
  const [made] = formsIn(
    `<form>${field('Card number', 'text')}${field('Postcode', 'text')}<button type="submit">${label}</button></form>`,
  );
  expect(made.collection).toBe(collection);
});

const LOANS =
  '<main><h1>Loans</h1><ul><li><b>Saw</b><i>Ann</i></li><li><b>Drill</b><i>Ben</i></li><li><b>Rake</b><i>Cara</i></li></ul></main>';
const newLoan = (more: string): string =>
  `<main><h1>New loan</h1><form>${field('Member', 'text')}${field('Back on', 'date')}<button type="submit">Lend it</button>${more}</form></main>`;
const signIn = `<main><h1>Sign in</h1><form>${field('Name', 'text')}${field('Password', 'password')}<button type="submit">Sign in</button></form></main>`;

/** What the last screen's form does once it is sent. */
function sentFrom(screens: Readonly<Record<string, string>>, change?: (project: Project) => App): object {
  const bare = projectOf(
    ...Object.entries(screens).map(([key, html]) => ({
      ...pageOfHtml(html, key),
      name: key === 'other' ? 'New loan' : key,
    })),
  );
  const project = { ...bare, app: change ? change(bare) : bare.app };
  const found = proposeData(project.design);
  const { app, made } = makeForms(project, found, sendable(found.forms));
  const { before = [], target } = app.interactions[made.at(-1)!.proposal.submit!.element] ?? {};
  return [...before, target].map((step) =>
    step?.kind === 'screen' ? `to ${step.screen}` : step?.kind === 'record' ? step.deed.kind : step?.kind,
  );
}

test('a form that is sent leads to where its records are seen, or where its Cancel leads', () => {
  const help = '<main><h1>Help</h1></main>';
  const menu = '<a href="loans.html">Loans</a>';
  expect(sentFrom({ loans: LOANS, other: menu + newLoan('') })).toEqual(['add', 'to loans']);
  expect(sentFrom({ loans: `<a href="other.html">New</a>${LOANS}`, other: newLoan('') })).toEqual([
    'add',
    'to loans',
  ]);
  // Who cannot get there from here is not sent there.
  expect(sentFrom({ loans: LOANS, other: newLoan('') })).toEqual(['add']);
  expect(
    sentFrom({ loans: LOANS, help, other: newLoan('<a href="help.html">Cancel</a>') }, (project) => {
      const cancel = pressablesOf(project.design.screens[2]).find(({ label }) => label === 'Cancel')!;
      return applyChange(
        project.app,
        putInteraction(cancel.element.key, pressTo({ kind: 'screen', screen: 'help' })),
      );
    }),
  ).toEqual(['add', 'to help']);
});

test('who signs in comes to the start, and what was said before is done first', () => {
  expect(sentFrom({ loans: LOANS, other: signIn })).toEqual(['to loans']);
  expect(
    sentFrom({ loans: LOANS, other: signIn }, (project) => {
      const found = proposeData(project.design);
      return makeWork(project, found, found.actions).app;
    }),
  ).toEqual(['set', 'to loans']);
});

test('what leads somewhere already does so', () => {
  expect(
    sentFrom({ loans: LOANS, help: '<main><h1>Help</h1></main>', other: newLoan('') }, (project) => {
      const { element } = pressablesOf(project.design.screens[2]).find(({ label }) => label === 'Lend it')!;
      return applyChange(
        project.app,
        putInteraction(element.key, pressTo({ kind: 'screen', screen: 'help' })),
      );
    }),
  ).toEqual(['add', 'to help']);
});
