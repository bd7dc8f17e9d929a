import { all, applyChange, putInteraction } from '../change/change.ts';
import { emitReact } from '../emit/react/emit_react.ts';
import { pressablesOf } from '../links/pressable.ts';
import type { Screen } from '../model/design.ts';
import { pressTo } from '../model/interaction.ts';
import { type Project, screensByKey } from '../model/project.ts';
import { pageOfHtml } from '../testing/page_of_html.ts';
import { projectOf, screenOf, svg } from '../testing/build.ts';
import { typeErrors } from '../testing/typecheck.ts';
import { partedAtFirst } from './part_first.ts';

const card = (name: string, i: number): string =>
  `<g data-name="Tool card ${i}"><rect x="24" y="${80 + i * 90}" width="342" height="80" rx="8" fill="#eee"/><circle cx="60" cy="${120 + i * 90}" r="20" fill="#a33"/><text x="100" y="${115 + i * 90}" font-size="16">${name}</text><text x="100" y="${140 + i * 90}" font-size="12">on shelf ${i}</text></g>`;
const shelf = (key: string, names: readonly string[]) =>
  screenOf(svg(`<text x="24" y="50" font-size="24">Shelf ${key}</text>${names.map(card).join('')}`), key);
const parted = (project: Project): Project => ({
  ...project,
  app: applyChange(project.app, partedAtFirst(project)),
});

test('what surely repeats is taken, by a name without numbers, and the code is shorter for it', () => {
  const project = projectOf(
    shelf('a', ['Saw', 'Drill', 'Ladder', 'Press', 'Planer']),
    shelf('b', ['Lathe', 'Vice', 'Anvil', 'Hoist']),
  );
  const made = parted(project);
  const components = Object.values(made.app.components);
  expect(components.map(({ name }) => name)).toEqual(['ToolCard']);
  expect(components[0].places.length).toBe(9);
  const emitted = emitReact(made, 'Made');
  expect(typeErrors([emitted])).toEqual([]);
  const lines = (files: typeof emitted.files): number =>
    files.reduce(
      (sum, file) => sum + ('text' in file && /screens|components/.test(file.path) ? file.text.length : 0),
      0,
    );
  expect(lines(emitted.files)).toBeLessThan(lines(emitReact(project, 'Made').files));
}, 60_000);

test('what does not repeat is left as it is', () => {
  const project = projectOf(shelf('a', ['Saw']), screenOf(svg('<text x="24" y="50">Help</text>'), 'b'));
  expect(parted(project).app).toEqual(project.app);
});

const PAGES = ['home', 'tools', 'loans', 'members'] as const;
/** A page with the bar that all have, whose entry for the page itself looks otherwise. */
const page = (own: (typeof PAGES)[number], more = ''): Screen =>
  pageOfHtml(
    `<nav class="bar" style="display:flex"><ul class="entries">${PAGES.map(
      (key) =>
        `<li class="entry" style="padding:8px"><a class="entry-link" href="/${key}" style="color:${key === own ? '#fff' : '#ccd'};background-color:${key === own ? '#234' : '#456'}"><span class="dot" style="width:8px">•</span><span class="label" style="font-size:14px">${key}</span></a></li>`,
    ).join(
      '',
    )}</ul></nav><main><h1>${own}</h1><p>What stands on ${own} alone, and nowhere else.</p>${more}</main>`,
    own,
  );

test('the entries of a bar that screens share are one component, which looks where it is', () => {
  const bare = projectOf(...PAGES.map((key) => page(key)));
  const linked = PAGES.flatMap((screen) =>
    pressablesOf(screensByKey(bare.design).get(screen)!).flatMap(({ element, label }) => {
      const to = PAGES.find((key) => label.includes(key));
      return to ? [putInteraction(element.key, pressTo({ kind: 'screen', screen: to }))] : [];
    }),
  );
  const made = parted({ ...bare, app: applyChange(bare.app, all(linked)) });
  const { files } = emitReact(made, 'Bar');
  const textOf = (end: RegExp): string =>
    files.flatMap((file) => ('text' in file && end.test(file.path) ? [file.text] : [])).join('');
  expect(textOf(/components\/Entry\/Entry\.tsx$/)).toContain('pathname === to');
  // Whether an entry is the present one is said once, and by no place.
  expect(files.some((file) => 'text' in file && /isActive|isMarked/.test(file.text))).toBe(false);
  expect(typeErrors([emitReact(made, 'Bar')])).toEqual([]);
}, 60_000);

test('what stands in a component and elsewhere is one of its own within it', () => {
  const chip = (text: string): string =>
    `<span class="chip" style="background-color:#eef;border-radius:9px;padding:4px"><b class="dot">•</b><span>${text}</span><i class="count">3</i></span>`;
  const offer = (name: string): string =>
    `<article class="offer"><h2>${name}</h2><p>In the shed</p><p>Ask at the desk</p>${chip(`About ${name}`)}</article>`;
  const kind = (name: string): string => `<p>For ${name}, ${name.length} sheds have it:</p>${chip(name)}`;
  const project = projectOf(
    pageOfHtml(`<main>${['Saw', 'Drill', 'Rasp'].map(offer).join('')}<h1>Shelf</h1></main>`, 'shelf'),
    pageOfHtml(
      `<main><h1>Kinds</h1>${['Wood', 'Metal', 'Bikes', 'Garden'].map(kind).join('')}</main>`,
      'kinds',
    ),
  );
  const emitted = emitReact(parted(project), 'Made');
  const textOf = (name: string): string =>
    emitted.files
      .flatMap((file) => ('text' in file && file.path.endsWith(`/${name}.tsx`) ? [file.text] : []))
      .join();
  expect(textOf('Offer')).toContain('<Chip ');
  expect(textOf('Kinds')).toContain('<Chip ');
  expect(typeErrors([emitted])).toEqual([]);
}, 60_000);

test('an entry that is something else on one screen stands by itself, and the others are one component', () => {
  const bare = projectOf(
    ...PAGES.map((key) => page(key)),
    pageOfHtml(
      `<nav class="bar" style="display:flex"><ul class="entries">${PAGES.map((key) =>
        key === 'tools'
          ? '<li class="entry" style="padding:8px"><b>Tools</b></li>'
          : `<li class="entry" style="padding:8px"><a class="entry-link" href="/${key}" style="color:#ccd;background-color:#456"><span class="dot" style="width:8px">•</span><span class="label" style="font-size:14px">${key}</span></a></li>`,
      ).join('')}</ul></nav><main><h1>Closed</h1><p>Today nothing is lent.</p></main>`,
      'closed',
    ),
  );
  const emitted = emitReact(parted(bare), 'Made');
  const entry = emitted.files.find(({ path }) => /components\/Entr\w+\/Entr\w+\.tsx$/.test(path));
  expect(entry && 'text' in entry ? entry.text : '').not.toContain('Tools');
  expect(typeErrors([emitted])).toEqual([]);
}, 60_000);

test('things that are called the same are told apart by where they stand, and not by numbers', () => {
  const words = ['Rake', 'Hoe', 'Saw', 'Vice', 'Lathe', 'Press'];
  const inner = [
    (word: string) => `<b>${word}</b><p>On its shelf</p><i>free</i>`,
    (word: string) => `<h3>${word}</h3><div><em>due</em><u>soon</u><s>late</s></div>`,
    (word: string) => `<h4>${word}</h4><span><b>1</b></span><span><i>2</i></span><a href="/x">on</a>`,
    (word: string) => `<p>${word}</p><p><b>1</b><b>2</b></p><p><i>3</i></p>`,
    (word: string) => `<div><h5>${word}</h5></div><div><p>Some</p><p>More</p><p>Most</p></div>`,
  ];
  const screens = ['tools', 'loans', 'members', 'sheds', 'rules'].map((key, i) =>
    pageOfHtml(
      `<ul class="list">${words.map((word) => `<li class="item" style="padding:8px">${inner[i](word)}</li>`).join('')}</ul>`,
      key,
    ),
  );
  const names = Object.values(parted(projectOf(...screens)).app.components).map(({ name }) => name);
  expect(names.length).toBeGreaterThan(3);
  expect(names.filter((name) => /\d$/.test(name))).toEqual([]);
  expect(names.some((name) => /^(Tools|Loans|Members|Sheds|Rules)/.test(name))).toBe(true);
});

test('what stands elsewhere, too, than in the bar that screens share is one thing there', () => {
  const bar = `<nav class="bar" style="display:flex"><ul class="entries">${PAGES.map(
    (key) =>
      `<li class="entry" style="padding:8px"><a class="entry-link" href="/${key}" style="color:#ccd;background-color:#456"><span class="dot" style="width:8px">•</span><span class="label" style="font-size:14px">${key}</span></a></li>`,
  ).join('')}</ul></nav>`;
  const samples = pageOfHtml(
    `<main><h1>Samples</h1><p>Above.</p>${bar}<table><tr><td>In a cell</td><td>${bar}</td></tr></table><form><label>Name<input></label>${bar}</form></main>`,
    'samples',
  );
  const made = parted(projectOf(...PAGES.map((key) => page(key)), samples));
  expect(Object.keys(made.app.layouts)).toHaveLength(1);
  const inSamples = Object.values(made.app.components).filter(({ places }) =>
    places.every((place) => place.startsWith('samples:')),
  );
  expect(inSamples.map(({ kind, places }) => [kind, places.length])).toContainEqual(['component', 2]);
});

test('things that are called the same on many screens are told apart by what they look like', () => {
  const shelves = (own: string): string =>
    [1, 2, 3]
      .map(
        (n) =>
          `<div class="card" style="width:90px;padding:8px"><h3>${own} ${n}</h3><p>Lent</p><p>Since ${n}</p></div>`,
      )
      .join('<hr>');
  const notes = (own: string): string =>
    [1, 2]
      .map(
        (n) =>
          `<div class="card" style="padding:8px;background-color:#234"><img src="" alt=""><b>${own} note ${n}</b><i>By post</i><u>Read</u></div>`,
      )
      .join('<hr>');
  const pages = ['Saws', 'Rakes', 'Vices', 'Hoists', 'Lathes', 'Planers'].map((own) =>
    pageOfHtml(`<main><h1>${own}</h1>${shelves(own)}<h2>Notes</h2>${notes(own)}</main>`, own.toLowerCase()),
  );
  const names = Object.values(parted(projectOf(...pages)).app.components).map(({ name }) => name);
  expect(names.length).toBeGreaterThan(1);
  expect(names.filter((name) => /\d$/.test(name))).toEqual([]);
});
