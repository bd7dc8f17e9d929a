/**
 * How much of what stands behind the screens is recognised: tables of templates from the registry with the heads that their
 * authors gave them (found at all, fields, types that a head says), forms by what their pages are for, and pagers. The truth
 * is read from the source of the pages, apart from what Tovel finds. Then the time, at two sizes beside walking all elements.
 * `npm run bench -- data [PACKAGE...]` measures others; with `--misses` it says which were missed.
 */
import path from 'node:path';
import { proposeData, readBatch, type Screen, walkElements } from '@tovel/core';
import { HeadlessHost } from '@tovel/reader/headless';
import { parse } from 'parse5';
import { folderFiles } from '../packages/reader/src/testing/folder_files.ts';
import { installed } from './installed.ts';

/** Those that rules were made on, and those that were only measured. */
const DEVELOPED = [
  'startbootstrap-sb-admin-2@4.1.4',
  'soft-ui-dashboard@1.0.1',
  'now-ui-kit@1.3.0',
  'admin-lte@3.2.0',
];
const MEASURED = [
  'startbootstrap-sb-admin@7.0.7',
  '@creative-tim-official/argon-dashboard-free@1.2.0',
  'black-dashboard@1.0.0',
  'material-kit@2.0.4',
  'gentelella@4.2.0',
];

interface Node {
  readonly tagName?: string;
  readonly value?: string;
  readonly attrs?: readonly { readonly name: string; readonly value: string }[];
  readonly childNodes?: readonly Node[];
}

const attribute = (node: Node, name: string): string =>
  node.attrs?.find((one) => one.name === name)?.value ?? '';
const textIn = (node: Node): string =>
  [node.value ?? '', ...(node.childNodes ?? []).map(textIn)].join(' ').replace(/\s+/g, ' ').trim();
const within = (node: Node, test: (node: Node) => boolean): Node[] =>
  (node.childNodes ?? []).flatMap((child) => [...(test(child) ? [child] : []), ...within(child, test)]);
const isTag =
  (tag: string) =>
  (node: Node): boolean =>
    node.tagName === tag;

/** What a head says that the values under it are. */
const SAYS: readonly (readonly [RegExp, readonly string[]])[] = [
  [/\b(date|employed|created|updated|since|due)\b/i, ['date']],
  [/\b(price|salary|budget|amount|total|revenue|cost)\b/i, ['money', 'number']],
  [/\b(status|state|priority|role)\b/i, ['one-of']],
  [/\be-?mail\b/i, ['email']],
  [/\b(age|qty|quantity|loans|visitors|visits)\b/i, ['number']],
  [/\b(completion|progress|bounce rate)\b/i, ['percent']],
];
/** What pages of such names have a form for. */
const PAGES: readonly (readonly [RegExp, string])[] = [
  [/(sign-?in|log-?in)/i, 'sign-in'],
  [/(sign-?up|register)/i, 'sign-up'],
  [/(forgot|recover|reset)/i, 'reset-password'],
  [/contact/i, 'send'],
];

interface Tally {
  right: number;
  all: number;
}
const tally = (): Tally => ({ right: 0, all: 0 });
const share = ({ right, all }: Tally): string => (all ? `${right}/${all}` : '–').padStart(9);

const arguments_ = process.argv.slice(2);
const isTold = arguments_.includes('--misses');
const wanted = arguments_.filter((one) => !one.startsWith('--'));
const packages = wanted.length ? wanted : [...DEVELOPED, ...MEASURED];
const packaged = await installed(packages);
const host = new HeadlessHost();
const all: Screen[] = [];
try {
  console.log(
    `  ${'template'.padEnd(48)}${['pages', 'tables', 'heads', 'types', 'forms', 'pagers'].map((one) => one.padStart(9)).join('')}`,
  );
  for (const name of packages) {
    if (name === MEASURED[0] && !wanted.length) console.log('  only measured:');
    all.push(...(await measure(name)));
  }
} finally {
  await host.close();
  await packaged.remove();
}

for (const size of [0.25, 1]) {
  const screens = all.slice(0, Math.ceil(all.length * size)).map((screen) => ({ ...screen }));
  let elements = 0;
  const walking = timed(() =>
    screens.forEach((screen) => walkElements(screen.root, () => (elements++, true))),
  );
  const proposing = timed(() => proposeData({ screens }));
  console.log(
    `  ${screens.length} screens, ${elements} elements: ${proposing.toFixed(0)} ms with all roles; walking them ${walking.toFixed(1)} ms`,
  );
}

function timed(work: () => unknown): number {
  const begun = performance.now();
  work();
  return performance.now() - begun;
}

async function measure(name: string): Promise<readonly Screen[]> {
  const files = (await folderFiles(packaged.rootOf(name))).filter(
    (file) => !/(^|\/)(node_modules|src|scss|less|docs|plugins|\.[^/]*)\//.test(file.path),
  );
  const { screens } = await readBatch(files, host);
  const found = proposeData({ screens });
  const [tables, heads, types, forms, pagers] = [tally(), tally(), tally(), tally(), tally()];
  const miss = (what: string): void => void (isTold && console.log(`    missed: ${what}`));
  const sources = new Map(files.map((file) => [file.path, file.bytes]));
  for (const screen of screens) {
    const bytes = sources.get(screen.source.file);
    if (!bytes || !screen.source.file.endsWith('.html')) continue;
    const page = parse(new TextDecoder().decode(bytes)) as unknown as Node;
    const here = found.collections.filter(({ places }) =>
      places.some((place) => place.screen === screen.key),
    );
    for (const table of within(page, isTag('table'))) {
      const rows = within(table, isTag('tr'));
      const body = rows.filter((row) => within(row, isTag('td')).length > 1);
      const labels = within(rows[0] ?? table, isTag('th'))
        .map(textIn)
        .filter((label) => /\p{L}{2}/u.test(label) && !/^(actions?|options?)$/i.test(label));
      if (body.length < 2 || labels.length < 2) continue;
      tables.all++;
      const best = here
        .map(({ fields }) => ({
          fields,
          hits: labels.filter((label) => fields.some((field) => field.label === label)),
        }))
        .sort((a, b) => b.hits.length - a.hits.length)[0];
      heads.all += labels.length;
      if (!best || best.hits.length < labels.length * 0.5) {
        miss(`${screen.source.file}: a table of ${labels.join(', ')}`);
        continue;
      }
      tables.right++;
      heads.right += best.hits.length;
      for (const label of best.hits) {
        const says = SAYS.find(([pattern]) => pattern.test(label))?.[1];
        if (!says) continue;
        const of = best.fields.filter((field) => field.label === label).map(({ type }) => type);
        types.all++;
        if (of.some((type) => says.includes(type))) types.right++;
        else miss(`${screen.source.file}: ${label} is ${of.join(', ')}`);
      }
    }
    const purpose = PAGES.find(([pattern]) => pattern.test(path.basename(screen.source.file)))?.[1];
    if (purpose && within(page, isTag('input')).length) {
      forms.all++;
      const seen = found.forms.filter((form) => form.screen === screen.key).map((form) => form.purpose);
      if (seen.includes(purpose as (typeof seen)[number])) forms.right++;
      else miss(`${screen.source.file}: for ${purpose}, found ${seen.join(', ') || 'none'}`);
    }
    const pages = within(page, (node) => /\bpagination\b/.test(attribute(node, 'class')))
      .flatMap((pager) => within(pager, isTag('a')))
      .filter((link) => /^\d+$/.test(textIn(link)));
    if (pages.length) {
      pagers.all += pages.length;
      pagers.right += Math.min(
        pages.length,
        found.actions.filter(({ screen: on, does }) => on === screen.key && does === 'page').length,
      );
    }
  }
  console.log(
    `  ${name.padEnd(48)}${String(screens.length).padStart(9)}${[tables, heads, types, forms, pagers].map(share).join('')}`,
  );
  return screens;
}
