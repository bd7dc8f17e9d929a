import { projectOf } from '../testing/build.ts';
import { pageOfHtml } from '../testing/page_of_html.ts';
import { makeForms, sendable } from './make_forms.ts';
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
