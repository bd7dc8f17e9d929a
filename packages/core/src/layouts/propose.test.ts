import { all, applyChange, putInteraction, putLayout, putRefused } from '../change/change.ts';
import { emitReact } from '../emit/react/emit_react.ts';
import { settle } from '../layers/settle.ts';
import type { Screen } from '../model/design.ts';
import { pressTo } from '../model/interaction.ts';
import { type Project, walkElements } from '../model/project.ts';
import { projectOf, screenOf, svg } from '../testing/build.ts';
import { pageOfHtml } from '../testing/page_of_html.ts';
import { entry, TABS, tabbed, wired } from '../testing/tabbed.ts';
import { typeErrors } from '../testing/typecheck.ts';
import { proposeLayouts, surelyShared } from './propose.ts';

const plain = (key: string): Screen =>
  screenOf(svg(`<text x="24" y="60" font-size="26">Nothing like the others: ${key}</text>`), key);

const namesOf = (project: Project): string[] =>
  proposeLayouts(settle(project)).map(({ name, screens }) => `${name}: ${screens.join(' ')}`);

test('screens with the same bar are one layout, wherever the mark is; others stay out of it', () => {
  expect(namesOf(wired(...TABS.map((name) => tabbed(name)), plain('cover')))).toEqual([
    'Tab bar: home tools loans help',
  ]);
});

test('pages of one part of an app are called after the entry that their menu marks', () => {
  const parts = ['Learn', 'Parts'].flatMap((part) =>
    [1, 2, 3, 4].map((n) => [part, `${part} ${n}`] as const),
  );
  const pages = parts.map(([part, name]): Screen => {
    const top = ['Learn', 'Parts', 'Help']
      .map((one) => `<li${one === part ? ' class="active"' : ''}><a href="#">${one}</a></li>`)
      .join('');
    const side = [1, 2, 3, 4]
      .map((n) => `<a href="#" data-box="0 ${100 * n} 200 30">${part} ${n}</a>`)
      .join('');
    const page = pageOfHtml(
      `<header data-box="0 0 1280 60"><ul>${top}</ul></header><nav data-box="0 60 200 700">${side}</nav><main data-box="200 60 1080 700"><h1>${name}</h1></main>`,
      name.replace(' ', ''),
    );
    return { ...page, title: name };
  });
  const project = projectOf(...pages);
  const app = pages.reduce((made, { root }) => {
    walkElements(root, (element) => {
      const target = pages.find(({ title }) => title === element.text || title === `${element.text} 1`);
      if (element.tag === 'a' && target)
        made = applyChange(
          made,
          putInteraction(element.key, pressTo({ kind: 'screen', screen: target.key })),
        );
      return true;
    });
    return made;
  }, project.app);
  expect(namesOf({ ...project, app }).map((name) => name.replace(/:.*/, ''))).toEqual(['Learn', 'Parts']);
});

test('what is refused, or a layout already, is not proposed again', () => {
  const project = wired(...TABS.map((name) => tabbed(name)));
  const [{ id }] = proposeLayouts(settle(project));
  expect(namesOf({ ...project, app: applyChange(project.app, putRefused(id, true)) })).toEqual([]);
  const some = putLayout('own', { name: 'Own', screens: ['home', 'tools'] });
  expect(namesOf({ ...project, app: applyChange(project.app, some) })).toEqual(['Tab bar: loans help']);
});

test('two families of screens are two layouts, whose components do not get into each other’s way', () => {
  const desk = ['Today', 'Members', 'Repairs'];
  const project = wired(...TABS.map((name) => tabbed(name)), ...desk.map((name) => tabbed(name, desk)));
  const app = applyChange(project.app, surelyShared(project));
  expect(Object.values(app.layouts).map(({ screens }) => screens.join(' '))).toEqual([
    'home tools loans help',
    'today members repairs',
  ]);
  // Of two bars that are called the same, the second is told by the screens that it is on.
  expect(Object.values(app.components).map(({ name }) => name)).toEqual(['Tab bar', 'Today tab bar']);
  expect(Object.values(app.layouts).map(({ name }) => name)).toEqual(['Tab bar', 'Today tab bar']);
});

test('what no other screen has around it is no layout of one', () => {
  expect(
    namesOf(wired(...TABS.map((name) => tabbed(name)), tabbed('Sheds', ['Sheds', 'Keys', 'Doors']))),
  ).toEqual(['Tab bar: home tools loans help']);
});

test('two screens are too few to be taken without being asked', () => {
  const project = wired(tabbed('Home'), tabbed('Tools'));
  expect(namesOf(project)).toHaveLength(1);
  expect(applyChange(project.app, surelyShared(project))).toBe(project.app);
});

test('the code of a layout is written once: what the compiler takes, and grows by the screens’ own alone', () => {
  const labels = Array.from({ length: 12 }, (_, i) => `Part ${i}`);
  const emitted = [3, 12].map((count) => {
    const project = wired(...labels.slice(0, count).map((name) => tabbed(name, labels.slice(0, 4))));
    return emitReact({ ...project, app: applyChange(project.app, surelyShared(project)) }, 'Made');
  });
  expect(typeErrors(emitted)).toEqual([]);
  for (const { files } of emitted)
    expect(files.filter(({ path }) => path.startsWith('src/layouts/') && path.endsWith('.tsx'))).toHaveLength(
      1,
    );
  const bars = emitted.map(
    ({ files }) =>
      files.filter((file) => 'text' in file && file.path.endsWith('.tsx') && />\s*Part 3\s*</.test(file.text))
        .length,
  );
  expect(bars[1]).toBe(bars[0]);
});

/** A page with a side bar, so many lines of its own, and a footer after them; some have the side bar in other words. */
const long = (key: string, lines: number, isOther = false): Screen =>
  pageOfHtml(
    `<aside class="side" data-box="0 0 220 800">${(isOther ? ['Eins', 'Zwei', 'Drei'] : ['One', 'Two', 'Three']).map((name) => `<a class="entry" href="/${name}"><span>${name}</span></a>`).join('')}</aside><main><h1>${key}</h1>${`<p>What ${key} says by itself.</p>`.repeat(lines)}</main><footer class="foot" data-box="0 ${900 + lines * 40} 1280 200"><a href="/help"><span>Help</span></a><a href="/terms"><span>Terms</span></a><span>Open daily</span></footer>`,
    key,
  );

test('what stands at the end of pages is a bar of theirs, however long they are', () => {
  const project = projectOf(long('short', 1), long('longer', 5), long('longest', 30));
  const app = applyChange(project.app, surelyShared(project));
  expect(Object.values(app.components).map(({ name, places }) => `${name} ${places.length}`)).toEqual(
    expect.arrayContaining(['Side bar 3', 'Footer 3']),
  );
  expect(Object.values(app.layouts).map(({ name }) => name)).toEqual(['Side bar']);
});

test('one page that says its bar otherwise takes no bar from the layout of the others', () => {
  const keys = ['a', 'b', 'c', 'd'];
  const project = projectOf(...keys.map((key, i) => long(key, i + 1)), long('other', 3, true));
  const [{ screens, change }] = proposeLayouts(settle(project));
  expect(screens).toEqual(keys);
  // The same part stands there, too, in no layout.
  const { components } = applyChange(project.app, change);
  expect(Object.values(components).find(({ name }) => name === 'Footer')!.places).toHaveLength(5);
});

test('what is nested deeply is compared in no time', () => {
  const deep = (name: string): Screen =>
    screenOf(
      svg(
        `${'<g data-name="Layer"><rect width="390" height="844" fill="#fff"/>'.repeat(40)}<text x="20" y="40">${name}</text>${'</g>'.repeat(40)}<g id="Bar"><rect y="780" width="390" height="64" fill="#ddd"/>${entry('One', 20, false)}${entry('Two', 110, false)}</g>`,
      ),
      name,
    );
  expect(() => proposeLayouts(settle(projectOf(deep('a'), deep('b'), deep('c'))))).not.toThrow();
});

test('what a screen has several times is no bar around it, wherever it stands', () => {
  const menu = (n: number): string =>
    `<div class="more" style="height:40px"><button class="opener">More</button><ul class="menu"><li><a href="/edit/${n}">Edit</a></li><li><a href="/copy/${n}">Copy</a></li></ul></div>`;
  const page = (key: string): Screen =>
    pageOfHtml(
      `<main><h1>${key}</h1>${[1, 2, 3].map((n) => `<section><h2>${key} ${n}</h2><p>Of ${key} alone</p>${menu(n)}</section>`).join('')}</main>`,
      key,
    );
  expect(namesOf(projectOf(page('a'), page('b'), page('c')))).toEqual([]);
});

test('a menu is a bar where a page holds little else, and links to a page’s own main part are in the layout', () => {
  const entries = Array.from(
    { length: 20 },
    (_, i) => `<a class="entry" href="/e${i}"><i>○</i><span>Entry ${i}</span></a>`,
  );
  const page = (key: string, lines: number): Screen =>
    pageOfHtml(
      `<a class="skip" href="#main-content">To what it is about</a><aside class="side" data-box="0 0 220 800">${entries.join('')}</aside><main id="main-content"><h1>${key}</h1>${`<p>What ${key} says by itself.</p>`.repeat(lines)}</main>`,
      key,
    );
  const project = projectOf(page('short', 1), page('longer', 30), page('longest', 90));
  const skips = project.design.screens.map(({ key, root }) =>
    putInteraction(
      root.children[0].key,
      pressTo({ kind: 'anchor', screen: key, element: root.children[2].key }),
    ),
  );
  const app = applyChange(project.app, all([...skips, surelyShared(project)]));
  expect(Object.values(app.layouts).map(({ screens }) => screens.length)).toEqual([3]);
  const emitted = emitReact({ ...project, app }, 'Made');
  const { files } = emitted;
  const texts = (folder: string): string =>
    files.flatMap((file) => ('text' in file && file.path.startsWith(folder) ? file.text : '')).join('\n');
  expect(texts('src/layouts/')).toContain('to="#main-content"');
  expect(texts('src/screens/')).toContain('id="main-content"');
  expect(texts('src/links.json')).toContain('"to": "/short#main-content"');
  expect(typeErrors([emitted])).toEqual([]);
});

test('which group of a menu is open is told by the address, however many pages the group leads to', () => {
  const groups = [12, 10].map((count, g) => Array.from({ length: count }, (_, i) => `g${g}p${i}`));
  const menu = (at: string): string =>
    groups
      .map(
        (keys, g) =>
          `<section class="group"><h4 style="color:${keys.includes(at) ? '#ff0000' : '#222222'}">Group ${g}</h4>${keys.map((key) => `<a class="entry" href="#"><span>Entry ${key}</span></a>`).join('')}</section>`,
      )
      .join('');
  const page = (key: string): Screen =>
    pageOfHtml(
      `<aside class="side" data-box="0 0 220 800">${menu(key)}</aside><main><h1>${key}</h1>${`<p>What ${key} says by itself.</p>`.repeat(9)}</main>`,
      key,
    );
  const keys = groups.flat();
  const project = projectOf(...keys.map(page));
  const links = project.design.screens.flatMap(({ root }) =>
    root.children[0].children.flatMap((group, g) =>
      group.children
        .slice(1)
        .map((entry, i) => putInteraction(entry.key, pressTo({ kind: 'screen', screen: groups[g][i] }))),
    ),
  );
  const linked = { ...project, app: applyChange(project.app, all(links)) };
  expect(proposeLayouts(settle(linked)).map(({ screens }) => screens.length)).toEqual([22]);
});

test('what several pages show and is as high as a window is called by its author’s word', () => {
  const rows = Array.from({ length: 12 }, (_, i) => `<a class="row" href="#"><span>Row ${i}</span></a>`).join(
    '',
  );
  const page = (key: string): Screen =>
    pageOfHtml(
      `<main><h1>${key}</h1>${`<p>What ${key} says by itself.</p>`.repeat(9)}<div class="records" data-box="0 40 1280 700">${rows}</div></main>`,
      key,
    );
  const project = projectOf(page('a'), page('b'), page('c'));
  const names = Object.values(applyChange(project.app, surelyShared(project)).components).map(
    ({ name }) => name,
  );
  expect(names).not.toContain('Top bar');
});

test('what some have before their bars parts them, rather than that none of them has those', () => {
  const bar = (tag: string, label: string): string =>
    `<${tag} class="${label.toLowerCase()}-bar">${['One', 'Two', 'Three'].map((word) => `<a class="entry" href="/${label}/${word}"><i>○</i><span>${label} ${word}</span></a>`).join('')}</${tag}>`;
  const page = (key: string, hasNote: boolean): Screen =>
    pageOfHtml(
      `${hasNote ? '<p class="note">Closed on Monday</p>' : ''}${bar('header', 'Top')}${bar('nav', 'Side')}<main><h1>${key}</h1><p>What ${key} says.</p></main>${bar('aside', 'Last')}${bar('footer', 'Foot')}`,
      key,
    );
  const [plainOnes, noted] = [
    ['ada', 'bo', 'cy', 'dan'],
    ['eve', 'flo', 'gus', 'hal'],
  ].map((keys, i) => keys.map((key) => page(key, i > 0)));
  const found = proposeLayouts(settle(projectOf(...plainOnes, ...noted)));
  expect(found.map(({ screens }) => screens.join(' ')).sort()).toEqual(['ada bo cy dan', 'eve flo gus hal']);
});
