import type { HeardPage } from '@tovel/core';
import { listenTo } from './listen_to.ts';
import { Renderer } from './renderer.ts';

const renderer = new Renderer();
afterAll(() => renderer.close());

/** What a page with this inside is heard to be. */
async function heard(inside: string, css = ''): Promise<HeardPage> {
  let page: HeardPage | undefined;
  await renderer.draw({
    address: 'https://heard.invalid/',
    site: () =>
      Promise.resolve({
        type: 'text/html; charset=utf-8',
        body: `<!doctype html><html lang="en"><title>Desk</title><style>body{margin:0;background:#fff}${css}</style><body>${inside}</body></html>`,
      }),
    width: 600,
    height: 400,
    withScripts: true,
    before: async (tab) => {
      page = await listenTo(tab);
    },
  });
  return page!;
}

test('the Tab key is followed from stop to stop, with what is read out and whether one sees it', async () => {
  const { stops, isTrapped } = await heard(
    '<a href="/a">Tools</a><label>Back on <input type="date"></label><button aria-label="Close">×</button><button class="flat">Lend</button><a>no link</a><button disabled>Off</button>',
    '.flat:focus { outline: none }',
  );
  expect(stops.map(({ name, role, isSeen }) => [name, role, isSeen])).toEqual([
    ['Tools', 'link', true],
    ['Back on', 'textbox', true],
    ['Close', 'button', true],
    ['Lend', 'button', false],
  ]);
  expect(isTrapped).toBe(false);
});

test('what keeps the focus for itself is a trap', async () => {
  const { isTrapped, stops } = await heard(
    '<button id="a">A</button><button id="b">B</button><p><a href="/1">1</a><a href="/2">2</a><a href="/3">3</a><a href="/4">4</a></p><script>b.addEventListener("keydown", (e) => { if (e.key === "Tab") { e.preventDefault(); a.focus(); } })</script>',
  );
  expect(isTrapped).toBe(true);
  expect(stops.map(({ name }) => name)).toEqual(['A', 'B']);
});

test('headings, landmarks, rules and contrast under the pointer are told with where they are', async () => {
  const page = await heard(
    '<header><nav aria-label="Main"><a href="/">Home</a></nav></header><main><h1>Desk</h1><h3>Today</h3><img src="data:," width="20" height="20"><button class="pale">Lend it</button></main>',
    '.pale { color: #000; background: #fff } .pale:hover { color: #bbb }',
  );
  expect(page.headings.map(({ level, says }) => [level, says])).toEqual([
    [1, 'Desk'],
    [3, 'Today'],
  ]);
  expect(page.landmarks.map(({ role, name }) => [role, name])).toEqual([
    ['banner', ''],
    ['navigation', 'Main'],
    ['main', ''],
  ]);
  const alt = page.rules.find(({ id }) => id === 'image-alt');
  expect(alt?.impact).toBe('critical');
  expect(alt?.places[0].box).toMatchObject({ width: 20, height: 20 });
  const pale = page.contrasts.filter(({ says }) => says === 'Lend it');
  expect(pale.map(({ state, ratio, least }) => [state, ratio >= least])).toEqual([
    ['focus', true],
    ['hover', false],
  ]);
});
