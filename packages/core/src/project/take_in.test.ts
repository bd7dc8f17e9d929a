import { projectOf } from '../testing/build.ts';
import { pageOfHtml } from '../testing/page_of_html.ts';

const page = (key: string): ReturnType<typeof pageOfHtml> =>
  pageOfHtml(`<h1>${key}</h1><p>Of ${key}.</p>`, key);

const usesOf = (...screens: Parameters<typeof projectOf>): Record<string, string> => {
  const { app } = projectOf(...screens);
  return Object.fromEntries(
    Object.entries(app.screens).map(([key, { route, use }]) => [
      key,
      `${use} ${route}${app.start === key ? ', start' : ''}`,
    ]),
  );
};

test.each([
  ['', 'nothing at all'],
  ['<div></div>', 'an empty element'],
])('a page with %s on it only leads on: the next first page is home and start', (html) => {
  const uses = usesOf(pageOfHtml(html, 'index'), page('desk/index'), page('desk/tools'));
  expect(uses['desk/index']).toBe('screen /, start');
  expect(uses.index).toMatch(/^skip /);
  expect(uses['desk/tools']).toMatch(/^screen /);
});

test('a page with little on it is a screen like any other', () => {
  const uses = usesOf(pageOfHtml('<p>Soon</p>', 'index'), page('desk/index'));
  expect(uses.index).toBe('screen /, start');
});

test('where every page is blank, the first is the start all the same', () => {
  expect(usesOf(pageOfHtml('', 'index'), pageOfHtml('', 'later')).index).toBe('screen /, start');
});

test('a screen whose name has other letters than addresses is where its file says', () => {
  const named = { ...page('form-rtl'), name: 'فرم' };
  expect(usesOf(page('index'), named)['form-rtl']).toBe('screen /form-rtl');
});

test('where nothing is called the start it is what most menus begin with', () => {
  const linked = (key: string, ...links: string[]): ReturnType<typeof pageOfHtml> =>
    pageOfHtml(
      `<nav>${links.map((to) => `<a href="${to}.html">${to}</a>`).join('')}</nav><h1>${key}</h1>`,
      key,
    );
  const startOf = (...screens: Parameters<typeof projectOf>): string | undefined =>
    Object.entries(usesOf(...screens)).find(([, use]) => use.endsWith('start'))?.[0];
  const menu = ['harbour', 'boats', 'trips'];
  expect(startOf(linked('boats', ...menu), linked('harbour', ...menu), linked('trips', ...menu))).toBe(
    'harbour',
  );
  expect(startOf(linked('boats', 'trips'), linked('harbour', 'boats'), linked('trips', 'harbour'))).toBe(
    'boats',
  );
  expect(startOf(linked('boats', ...menu), linked('home', ...menu), linked('harbour'))).toBe('home');
});
