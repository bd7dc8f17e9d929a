import { sanitisePage } from './sanitise.ts';
import { rootThemeOf, withRootTheme } from './root_theme.ts';

const USES = 'p{color:var(--ink);background:var(--sheet);border-color:var(--rule)}';
const themed = (selector: string): string => `${selector}{--ink:#111;--sheet:#fff;--rule:#ccc}`;
const never = () => false;

test.each([
  [
    'the light one of two',
    [themed(':root[data-theme=dark]'), themed(':root[data-theme=light]'), USES],
    'html data-theme light',
  ],
  [
    'the first where none is light',
    [themed('[data-look="sand"]'), themed('[data-look="sea"]'), USES],
    'html data-look sand',
  ],
  ['one of the body', [themed('body[data-skin="default"]'), USES], 'body data-skin default'],
  ['one by a class of the root', [themed('html.dusk'), themed('html.daylight'), USES], 'html class daylight'],
  ['none where all is said without one', [themed(':root'), themed('[data-theme=dark]'), USES], null],
  ['none for a class of anything', [themed('.card'), USES], null],
  ['none for what stands within something', [themed('[data-theme=light] .card'), USES], null],
  ['none where hardly anything is said', ['[data-theme=light]{--ink:#111}', USES], null],
  ['none where nobody asks for it', [themed('[data-theme=light]')], null],
  [
    'one of several selectors',
    [themed(':root[data-theme=light], .always-light'), USES],
    'html data-theme light',
  ],
])('a theme that a script would choose: %s', (_, sheets, expected) => {
  const found = rootThemeOf(sheets, never);
  expect(found && `${found.on} ${found.attribute} ${found.value}`).toBe(expected);
});

test('a page that says its theme keeps it', () => {
  const sheets = [themed('[data-theme=light]'), themed('[data-theme=dark]'), USES];
  expect(rootThemeOf(sheets, ({ on, attribute }) => on === 'html' && attribute === 'data-theme')).toBeNull();
  const byClass = [themed('html.light'), themed('html.dark'), USES];
  expect(rootThemeOf(byClass, ({ value }) => value === 'dark')).toBeNull();
});

const page = (html: string) =>
  sanitisePage('page.html', html, { styleSheet: () => null, picture: () => null, font: () => null });
const style = `<style>${themed(':root[data-theme=dark]')}${themed(':root[data-theme=light]')}${USES}</style>`;

test('a page whose script would choose its theme comes in with one, and that is told', () => {
  const { html, notices } = page(
    `<html><head>${style}<script>choose()</script></head><body><p>Tools</p></body></html>`,
  );
  expect(html).toMatch(/<html[^>]* data-theme="light"/);
  expect(notices.map(({ message }) => message).join()).toMatch(/data-theme="light"/);
});

test.each([
  [
    '<!doctype html><html lang="en"><p>Tools',
    'data-theme',
    '<!doctype html><html lang="en" data-theme="light"><p>Tools',
  ],
  ['<html class="wide"><p>Tools', 'class', '<html class="light wide"><p>Tools'],
  ['<html><p>Tools', 'class', '<html class="light"><p>Tools'],
  ['<p>Tools', 'data-theme', '<p>Tools<html data-theme="light">'],
])('%s is given a theme by its %s', (html, attribute, expected) =>
  expect(withRootTheme(html, { on: 'html', attribute, value: 'light' })).toBe(expected),
);

test('a page that names its theme comes in as it is', () => {
  const { html, notices } = page(
    `<html data-theme="dark"><head>${style}</head><body><p>Tools</p></body></html>`,
  );
  expect(html).toMatch(/<html[^>]* data-theme="dark"/);
  expect(notices.map(({ message }) => message).join()).not.toMatch(/data-theme/);
});
