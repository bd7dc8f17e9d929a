import { openAround } from './open_parts';

const page = (): void => {
  document.body.innerHTML = `
    <div data-key="menu" hidden><p data-key="entry">Sign out</p><div data-key="inner" hidden><b data-key="deep">…</b></div></div>
    <div data-key="one" data-among="tabs"><p data-key="first">1</p></div>
    <div data-key="two" data-among="tabs" hidden><p data-key="second">2</p></div>`;
};
const hidden = (): string[] =>
  [...document.querySelectorAll<HTMLElement>('[hidden]')].map(({ dataset }) => dataset.key!);

test.each([
  ['entry', ['inner', 'two']],
  ['deep', ['two']],
  ['second', ['menu', 'inner', 'one']],
  ['first', ['menu', 'inner', 'two']],
  ['nowhere', ['menu', 'inner', 'two']],
])('around %s what is closed opens, and closes again', (key, expected) => {
  page();
  const close = openAround(document, key);
  expect(hidden()).toEqual(expected);
  close();
  expect(hidden()).toEqual(['menu', 'inner', 'two']);
});
