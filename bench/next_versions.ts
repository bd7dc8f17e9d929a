/**
 * Carry-over between real versions of templates: the older is wired by its own links, the newer comes in with all of its
 * links taken out. Truth is what the newer one's own links say where that cannot be doubted: links of the same words and
 * the same address, as many of them on the page before as after, in their order. What the authors removed, renamed or
 * added has no truth and is counted apart.
 */
import {
  applyChange,
  applyIteration,
  type Design,
  type Element,
  elementsByKey,
  emptyApp,
  findElement,
  planIteration,
  type Screen,
  takeIn,
} from '@tovel/core';
import { HeadlessHost } from '@tovel/reader/headless';
import { installed } from './installed.ts';
import { designOf, templateFiles, withoutLinks } from './revisions/prepare.ts';

const VERSIONS = [
  ['startbootstrap-sb-admin-2', '4.0.7', '4.1.4'],
  ['startbootstrap-clean-blog', '5.1.0', '6.0.9'],
  ['startbootstrap-sb-admin', '6.0.2', '7.0.7'],
] as const;

const named = (name: string, version: string): string => `${name}-v${version.replaceAll('.', '-')}`;
const packaged = await installed(
  VERSIONS.flatMap(([name, ...both]) => both.map((one) => `${named(name, one)}@npm:${name}@${one}`)),
);
const host = new HeadlessHost();
const total = { right: 0, wrong: 0, asked: 0, letGo: 0, untold: 0 };
try {
  for (const [name, ...both] of VERSIONS) {
    const designs: Design[] = [];
    for (const one of both) designs.push(await read(packaged.rootOf(named(name, one))));
    report(`${name} ${both.join(' to ')}`, count(designs[0], designs[1]));
  }
  report('all', total);
} finally {
  await host.close();
  await packaged.remove();
}

/** The pages as they are published: of a package that holds its sources too, only what was built of them. */
async function read(root: string): Promise<Design> {
  const files = await templateFiles(root);
  const built = files.filter(({ path }) => /(^|\/)dist\//.test(path));
  return designOf(
    (built.some(({ path }) => path.endsWith('.html')) ? built : files).map((file) => ({
      ...file,
      path: file.path.replace(/(^|\/)dist\//, '$1'),
    })),
    host,
  );
}

function report(title: string, found: typeof total): void {
  const told = found.right + found.wrong + found.asked + found.letGo;
  const share = (part: number): string => `${((part / Math.max(1, told)) * 100).toFixed(1)} %`;
  console.log(
    `${title}: ${told} links with a truth: right ${share(found.right)}, wrong and unasked ${found.wrong}, asked ${share(found.asked)}, let go ${found.letGo}; ${found.untold} without a truth`,
  );
}

/** What a link says and where it leads, without the folders that a version happens to lie in. */
function linkOf(element: Element): string | null {
  const href = element.attributes?.href;
  if (element.tag !== 'a' || !href) return null;
  return `${wordsIn(element).replace(/\s+/g, ' ').trim().toLowerCase()} → ${href.replace(/^(\.\.?\/)+|\.html$/g, '')}`;
}

function wordsIn(element: Element): string {
  return [element.text ?? '', ...element.children.map(wordsIn)].join(' ');
}

/** Links of a page in their order, by what they say. */
function linksOf(screen: Screen): Map<string, Element[]> {
  const links = new Map<string, Element[]>();
  for (const element of elementsByKey(screen).values()) {
    const link = linkOf(element);
    if (link) links.set(link, [...(links.get(link) ?? []), element]);
  }
  return links;
}

function count(before: Design, after: Design): typeof total {
  const found = { right: 0, wrong: 0, asked: 0, letGo: 0, untold: 0 };
  const app = applyChange(emptyApp, takeIn({ design: before, app: emptyApp }, before.screens));
  const project = { design: before, app };
  const incoming = after.screens.map((screen) => ({ ...screen, root: withoutLinks(screen.root) }));
  const plan = planIteration(project, incoming, { whole: true });
  const { design, change } = applyIteration(project, plan, { assets: [], notices: [] }, 2);
  const made = applyChange(app, change);
  const asked = new Set(plan.asks.map((ask) => ask.element.key));
  for (const screen of before.screens) {
    const next = after.screens.find(({ source }) => source.file === screen.source.file);
    const nows = next ? linksOf(next) : new Map<string, Element[]>();
    for (const [link, olds] of linksOf(screen))
      olds.forEach((old, i) => {
        if (!app.interactions[old.key]) return;
        const same = nows.get(link);
        if (!same || same.length !== olds.length) {
          found.untold++;
          return;
        }
        const now = made.interactions[old.key] ? findElement(design, old.key) : null;
        if (asked.has(old.key)) found.asked++;
        else if (!now) found.letGo++;
        else if (now.source.path === same[i].source.path) found.right++;
        else found.wrong++;
      });
  }
  for (const key of Object.keys(found) as (keyof typeof found)[]) total[key] += found[key];
  return found;
}
