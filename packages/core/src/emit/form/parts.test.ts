import { Folders } from './parts.ts';

test.each([
  [['Loans'], ['Loans']],
  [
    ['Loans', 'loans'],
    ['Loans', 'Loans2'],
  ],
  // What the language has, and what the target has.
  [['Error'], ['ErrorScreen']],
  [['Link'], ['LinkScreen']],
  [['404'], ['N404']],
  [['فرم'], ['FormRtl']],
])('screens called %j have the folders %j', (titles, expected) => {
  const folders = new Folders(['Link']);
  expect(titles.map((title) => folders.take(title, 'Screen', () => 'form-rtl'))).toEqual(expected);
});
