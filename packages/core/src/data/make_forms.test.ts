import { projectOf } from '../testing/build.ts';
import { pageOfHtml } from '../testing/page_of_html.ts';
import { makeForms, sendable } from './make_forms.ts';
import { proposeData } from './propose.ts';

/** The names of the fields that forms of a page are given. */
function fieldsIn(html: string): string[][] {
  const screen = pageOfHtml(html);
  const project = projectOf(screen);
  const found = proposeData(project.design);
  return makeForms(project, found, sendable(found.forms)).made.map(({ form }) =>
    form.fields.map(({ field }) => field),
  );
}

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
