/**
 * How calm the delivered code stays: the demo with everything wired, then a second round in which one thing changed on one
 * screen. Prints for each kind of change how many files and lines of the delivered code differ, and how many lines of the
 * drawing itself were changed. Then templates from the registry, of which one page is edited as in a second round: what
 * differs in its own files, in those of other screens, and in what all share. `npm run bench -- calm PACKAGE...` measures
 * others.
 */
import { readFileSync } from 'node:fs';
import path from 'node:path';
import {
  addToDesign,
  applyChange,
  applyIteration,
  type Element,
  elementsByKey,
  emitReact,
  emptyApp,
  emptyDesign,
  planIteration,
  type Project,
  readBatch,
  type Screen,
  takeIn,
} from '@tovel/core';
import { diffLines } from 'diff';
import { folderFiles } from '../packages/server/src/demo/folder_files.ts';
import { HeadlessHost } from '@tovel/reader/headless';
import { bareName, installed } from './installed.ts';
import { editedRevision } from './revisions/prepare.ts';

const demo = path.resolve('demo/iteration-1');
const catalogue = readFileSync(path.join(demo, 'catalogue.svg'), 'utf8');

/** What a round does to the catalogue, or to the pile. */
interface Round {
  readonly drawing?: (svg: string) => string;
  readonly screens?: (screens: readonly Screen[]) => readonly Screen[];
}
const chip =
  '<g id="Chip_Near" data-name="Chip Near" transform="translate(292 0)"><rect x=".5" y=".5" width="50" height="33" rx="16.5" class="card"/><text x="25" y="22" font-size="14" text-anchor="middle" fill="#1f2a24">Near</text></g>';
/** The first group with an id, as it stands in the drawing. */
function groupOf(svg: string, id: string): string {
  const start = svg.indexOf(`<g id="${id}"`);
  let depth = 0;
  for (const tag of svg.slice(start).matchAll(/<(\/?)g\b[^>]*?(\/?)>/g)) {
    depth += tag[1] ? -1 : tag[2] ? 0 : 1;
    if (!depth) return svg.slice(start, start + tag.index + tag[0].length);
  }
  throw new Error(`the catalogue has no group ${id}`);
}
/** All ids with what refers to them called otherwise. */
function renamed(svg: string): string {
  const ids = new Set([...svg.matchAll(/ id="(\w+)"/g)].map(([, id]) => id));
  return svg.replace(/( id="|#)(\w+)(?="|\))/g, (all, before: string, id: string) =>
    ids.has(id) ? `${before}${id}_v2` : all,
  );
}
const exchange = (svg: string, a: string, b: string): string => {
  const [one, other] = [groupOf(svg, a), groupOf(svg, b)];
  return svg.replace(one, '\0').replace(other, one).replace('\0', other);
};

const KINDS: readonly (readonly [what: string, round: Round])[] = [
  ['nothing', {}],
  ['one text', { drawing: (svg) => svg.replace('Search 214 tools', 'Search 230 tools') }],
  ['one colour', { drawing: (svg) => svg.replace(/fill="#2f4a3a"/i, 'fill="#234234"') }],
  ['a group 8 px lower', { drawing: (svg) => svg.replace('translate(24 180)', 'translate(24 188)') }],
  ['a chip put in', { drawing: (svg) => svg.replace('<g id="Chip_Bike"', `${chip}<g id="Chip_Bike"`) }],
  [
    'a hairline put first',
    {
      drawing: (svg) =>
        svg.replace(/(<svg[^>]*>)/, '$1<rect id="Hairline" width="390" height="1" fill="#ddd8ca"/>'),
    },
  ],
  [
    'a group wrapped',
    { drawing: (svg) => svg.replace(groupOf(svg, 'Filters'), `<g id="Wrap">${groupOf(svg, 'Filters')}</g>`) },
  ],
  ['two chips exchanged in the file', { drawing: (svg) => exchange(svg, 'Chip_Garden', 'Chip_Wood') }],
  ['a chip gone', { drawing: (svg) => svg.replace(groupOf(svg, 'Chip_Bike'), '') }],
  ['ids renamed', { drawing: renamed }],
  [
    'a file renamed',
    {
      screens: (screens) =>
        screens.map((one) =>
          one.source.file === 'help.svg' || one.source.file === 'reserve.svg'
            ? { ...one, source: { ...one.source, file: 'lend.svg' } }
            : one,
        ),
    },
  ],
  [
    'a screen gone',
    { screens: (screens) => screens.filter(({ source }) => source.file !== 'report-damage.svg') },
  ],
  ['the pile in another order', { screens: (screens) => [...screens].reverse() }],
];

const TEMPLATES = ['startbootstrap-sb-admin-2@4.1.4', 'soft-ui-dashboard@1.0.1', 'black-dashboard@1.0.0'];

/** Texts of a pile that are changed, one at a time. */
const TEXTS = 24;

const same = <T>(value: T): T => value;
const nothing = { assets: [], notices: [] };

const files = await folderFiles(demo);
const host = new HeadlessHost();
try {
  const read = await readBatch(files, host);
  const design = addToDesign(emptyDesign, read);
  const project: Project = {
    design,
    app: applyChange(emptyApp, takeIn({ design, app: emptyApp }, design.screens)),
  };
  const before = textsOf(project);
  console.log(
    `  ${'what changed in the design'.padEnd(34)}${['files', 'lines out', 'lines in', 'in the drawing'].map((cell) => cell.padStart(16)).join('')}`,
  );
  for (const [what, { drawing = same, screens = same }] of KINDS) {
    const svg = drawing(catalogue);
    const incoming = screens(await readWith(svg));
    const plan = planIteration(project, incoming, { whole: true });
    const made = applyIteration(project, plan, nothing, design.iteration + 1);
    const after = textsOf({ design: made.design, app: applyChange(project.app, made.change) });
    const changed = [...new Set([...before.keys(), ...after.keys()])].filter(
      (file) => before.get(file) !== after.get(file),
    );
    const [out, come] = changed
      .map((file) => linesBetween(before.get(file) ?? '', after.get(file) ?? ''))
      .reduce(([a, b], [c, d]) => [a + c, b + d], [0, 0]);
    const [, drawn] = linesBetween(catalogue.replace(/></g, '>\n<'), svg.replace(/></g, '>\n<'));
    console.log(
      `  ${what.padEnd(34)}${[changed.length, out, come, drawn].map((cell) => String(cell).padStart(16)).join('')}`,
    );
  }
} finally {
  await host.close();
}

const packages = process.argv.length > 2 ? process.argv.slice(2) : TEMPLATES;
const packaged = await installed(packages);
try {
  console.log(
    `\n  ${'one page of a template edited'.padEnd(34)}${['its files', 'lines out, in', 'other screens', 'lines out, in', 'shared files', 'lines out, in'].map((cell) => cell.padStart(15)).join('')}`,
  );
  for (const name of packages)
    await measureTemplate(name, packaged.rootOf(name), path.join(packaged.folder, 'revisions'));
} finally {
  await packaged.remove();
}

/** Takes a template in, then again with one of its pages edited, and says what that did to the code. */
async function measureTemplate(name: string, root: string, kept: string): Promise<void> {
  const { before, after } = await editedRevision(bareName(name), root, 1, kept);
  const first = roundOf({ design: emptyDesign, app: emptyApp }, before.screens);
  // The page in the middle: neither the first, which may be a lone landing page, nor the last.
  const { file } = before.screens[before.screens.length >> 1].source;
  const edited = after.screens.find(({ source }) => source.file === file)!;
  const second = roundOf(
    first,
    before.screens.map((one) => (one.source.file === file ? edited : one)),
  );
  const [was, is] = [first, second].map(textsOf);
  const { fileOfScreen } = emitReact(first, 'Demo');
  const folderOf = (key: string): string => fileOfScreen.get(key)!.replace(/[^/]*$/, '');
  const own = folderOf(first.design.screens.find(({ source }) => source.file === file)!.key);
  const tallies = { own: [0, 0, 0], others: [0, 0, 0], shared: [0, 0, 0] };
  for (const one of new Set([...was.keys(), ...is.keys()])) {
    const [out, come] = linesBetween(was.get(one) ?? '', is.get(one) ?? '');
    if (!out && !come) continue;
    const tally = one.startsWith(own) ? 'own' : one.startsWith('src/screens/') ? 'others' : 'shared';
    tallies[tally] = tallies[tally].map((sum, i) => sum + [1, out, come][i]);
  }
  const cells = Object.values(tallies).flatMap(([count, out, come]) => [String(count), `${out}, ${come}`]);
  console.log(`  ${name.padEnd(34)}${cells.map((cell) => cell.padStart(15)).join('')}`);
  measureTexts(first, before.screens, was);
}

/** Changes one text anywhere, many times over: how many lines of the code that is, and files of other screens. */
function measureTexts(project: Project, screens: readonly Screen[], was: ReadonlyMap<string, string>): void {
  const texts: { readonly screen: Screen; readonly element: Element }[] = [];
  for (const screen of screens)
    for (const element of elementsByKey(screen).values())
      if ((element.text ?? '').trim().length > 3) texts.push({ screen, element });
  const { fileOfScreen } = emitReact(project, 'Demo');
  const lines: number[] = [];
  let touching = 0;
  for (let i = 0; i < TEXTS; i++) {
    const { screen, element } = texts[Math.floor(((i + 0.5) * texts.length) / TEXTS)];
    const root = withText(screen.root, element, `${element.text} anew`);
    const made = textsOf(
      roundOf(
        project,
        screens.map((one) => (one === screen ? { ...one, root } : one)),
      ),
    );
    const own = fileOfScreen.get(
      project.design.screens.find(({ source }) => source.file === screen.source.file)!.key,
    );
    const changed = [...new Set([...was.keys(), ...made.keys()])].filter(
      (file) => was.get(file) !== made.get(file),
    );
    lines.push(
      changed.reduce((sum, file) => sum + linesBetween(was.get(file) ?? '', made.get(file) ?? '')[1], 0),
    );
    if (
      changed.some((file) => file.startsWith('src/screens/') && !file.startsWith(own!.replace(/[^/]*$/, '')))
    )
      touching++;
  }
  lines.sort((a, b) => a - b);
  console.log(
    `    one text, ${TEXTS} times: ${lines[TEXTS >> 1]} line in the middle, ${lines[Math.floor(TEXTS * 0.9)]} in nine of ten, ${lines.at(-1)} at most; ${touching} touch other screens`,
  );
}

function withText(element: Element, at: Element, text: string): Element {
  if (element === at) return { ...element, text };
  const children = element.children.map((child) => withText(child, at, text));
  return children.every((child, i) => child === element.children[i]) ? element : { ...element, children };
}

function roundOf(project: Project, screens: readonly Screen[]): Project {
  const plan = planIteration(project, screens, { whole: true });
  const { design, change } = applyIteration(project, plan, nothing, project.design.iteration + 1);
  return { design, app: applyChange(project.app, change) };
}

async function readWith(svg: string): Promise<readonly Screen[]> {
  const bytes = new TextEncoder().encode(svg);
  const changed = files.map((file) => (file.path === 'catalogue.svg' ? { ...file, bytes } : file));
  return (await readBatch(changed, host)).screens;
}

function textsOf(project: Project): Map<string, string> {
  return new Map(
    emitReact(project, 'Demo').files.flatMap((file) =>
      'text' in file ? [[file.path, file.text] as const] : [],
    ),
  );
}

/** Lines that are only in the one, and only in the other. */
function linesBetween(a: string, b: string): [number, number] {
  const parts = diffLines(a, b);
  const count = (which: 'removed' | 'added'): number =>
    parts.reduce((sum, part) => sum + (part[which] ? (part.count ?? 0) : 0), 0);
  return [count('removed'), count('added')];
}
