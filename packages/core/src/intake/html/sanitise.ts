import { sheetsWritten } from './written_sheets.ts';
import { type DefaultTreeAdapterMap, parse, serialize } from 'parse5';
import type { Notice } from '../../model/design.ts';
import { isAttributeName } from '../../vocabulary/attributes.ts';
import { unfoldedCount } from '../../vocabulary/vectors.ts';
import { isPlainAddress } from '../../vocabulary/addresses.ts';
import { resolveReference } from '../files.ts';
import { limits } from '../limits.ts';
import {
  cleanDeclarations,
  cleanStyleSheet,
  firstOfSrcset,
  type FontRule,
  type PageFiles,
  pictureAddress,
} from './style_sheet.ts';
import { HOLDING_PLACE, placeTag } from './kept_places.ts';
import { CALLS_ATTRIBUTE } from './reading.ts';
import { type RootTheme, rootThemeOf } from './root_theme.ts';
import { iconInPlaceOf } from './scripted_icons.ts';
import { readUtilityConfig, UTILITY_SCRIPT, UTILITY_SHEET, type UtilityPlan } from './utilities.ts';
import { webFontsIn, type WebFont } from './web_fonts.ts';

export type { PageFiles } from './style_sheet.ts';

/** Events that are presses. */
const PRESSES: ReadonlySet<string> = new Set(['onclick', 'onmousedown', 'onpointerdown', 'ontouchstart']);
const SCRIPTED = /^\s*javascript:/i;
/** A script in a page's markup is no longer than this, in UTF-16 units, and so many words of it are kept. */
const MOST_CALLING = 2000;
const MOST_CALLED = 20;

/** The words in quotes of a script, as an attribute; nothing of it is ever run. */
function calledBy(script: string): { name: string; value: string }[] {
  const quoted = script.slice(0, MOST_CALLING).matchAll(/(["'`])#?([\w-]{1,80})\1/g);
  const words = [...new Set(Array.from(quoted, ([, , word]) => word))].slice(0, MOST_CALLED);
  return words.length ? [{ name: CALLS_ATTRIBUTE, value: words.join(' ') }] : [];
}

type Node = DefaultTreeAdapterMap['node'];
type ParsedElement = DefaultTreeAdapterMap['element'];

export interface SafePage {
  /** The page with every script, event attribute and outside reference gone, ready for a frame without scripts. */
  readonly html: string;
  readonly title: string;
  readonly notices: Notice[];
  /** The width at which the page was drawn, where it says so. */
  readonly width: number | null;
  /** Faces that the page's style sheets define from files that came along. */
  readonly fonts: readonly FontRule[];
  /** Families that the page asks a font service for. */
  readonly webFonts: readonly WebFont[];
  /** The theme that was chosen for a page whose script would choose one. */
  readonly theme: RootTheme | null;
  /** What has to be compiled before the page looks as it should, where it relies on utility classes. */
  readonly utilities: UtilityPlan | null;
}

/** Marks each element with its path, so that a reading can say where in the file it stood. */
export const PATH_ATTRIBUTE = 'data-tovel-path';

const DROPPED = new Set([
  'script',
  'noscript',
  'iframe',
  'frame',
  'frameset',
  'object',
  'embed',
  'applet',
  'base',
  'template',
  'portal',
  'noembed',
  'noframes',
  'bgsound',
  'animate',
  'animatemotion',
  'animatetransform',
  'set',
  'mpath',
  'discard',
  'feimage',
  'handler',
  'listener',
  'audio',
  'video',
  'track',
  'param',
  'fencedframe',
]);
/** Whether it was made so that nobody sees it: what counts visitors. */
const isUnseen = (element: ParsedElement): boolean =>
  ['width', 'height'].some((name) => /^[01](px)?$/.test(attribute(element, name) ?? '')) ||
  /display\s*:\s*none|visibility\s*:\s*hidden/i.test(attribute(element, 'style') ?? '') ||
  attribute(element, 'hidden') !== undefined;

/** An empty box of the same size and name. */
function placeOf(element: ParsedElement): ParsedElement {
  const tag = placeTag(element.tagName.toLowerCase());
  element.tagName = tag;
  element.nodeName = tag;
  element.childNodes = [];
  element.attrs = element.attrs.filter(
    ({ name, value }) =>
      /^(id|class|style)$/.test(name) || (/^(width|height)$/.test(name) && SIZE.test(value.trim())),
  );
  return element;
}
const SIZE = /^\d+(\.\d+)?(%|px)?$/;

const HTML = 'http://www.w3.org/1999/xhtml';
const SVG = 'http://www.w3.org/2000/svg';
const MATHML = 'http://www.w3.org/1998/Math/MathML';
/** What they hold is text for one parser and elements for another. */
const RAW = new Set(['xmp', 'listing', 'plaintext']);
const ADDRESSES = new Set([
  'href',
  'src',
  'action',
  'formaction',
  'poster',
  'data',
  'background',
  'cite',
  'srcset',
  'ping',
  'xlink:href',
  'longdesc',
  'manifest',
  'archive',
  'codebase',
  'classid',
  'usemap',
  'imagesrcset',
]);

/**
 * Makes a page harmless and self-contained. Never fails: a browser reads any text as HTML, and so does this; only
 * too many elements are refused.
 * @throws RangeError for a page of more elements than the limit.
 */
export function sanitisePage(file: string, text: string, files: PageFiles): SafePage {
  const document = parse(text);
  const cleaner = new PageCleaner(file, files);
  const root = document.childNodes.find((node): node is ParsedElement => node.nodeName === 'html')!;
  cleaner.setBase(baseOf(root));
  cleaner.clean(root, '');
  cleaner.putTheme(root);
  cleaner.dropEndlessReuse(root);
  cleaner.finish();
  // A doctype that browsers take for none is none.
  const isOfOld = document.mode === 'quirks';
  document.childNodes = document.childNodes.filter(
    ({ nodeName }) => nodeName !== '#comment' && !(isOfOld && nodeName === '#documentType'),
  );
  return {
    html: asReadAgain(document),
    title: cleaner.title.replace(/\s+/g, ' ').trim(),
    notices: cleaner.notices,
    width: cleaner.width,
    fonts: cleaner.fonts,
    webFonts: cleaner.webFonts,
    theme: cleaner.theme,
    utilities: cleaner.utilities && { ...cleaner.utilities, classes: [...cleaner.classes] },
  };
}

/** Elements of which a first empty line is left out when they are read. */
const SKIP_FIRST_LINE = new Set(['pre', 'textarea', 'listing']);

/** A document as text; what begins with an empty line gets one more, since the one is left out when it is read. */
function written(document: DefaultTreeAdapterMap['document']): string {
  const visit = (node: ParsedElement): void => {
    const [first] = node.childNodes;
    if (SKIP_FIRST_LINE.has(node.tagName) && first && 'value' in first && first.value.startsWith('\n'))
      first.value = `\n${first.value}`;
    for (const child of node.childNodes) if ('tagName' in child) visit(child);
  };
  visit(document as unknown as ParsedElement);
  return serialize(document);
}

/** Longest chain of readings that each bring something new; honest pages are the same after one. */
const MOST_READINGS = 5;

/**
 * The page as text that a browser reads as the very elements that were cleaned. Some markup turns into other elements
 * when what was written is parsed again; every element that was cleaned has its path, so what has none is new, and goes.
 * @throws RangeError for a page that brings new elements however often it is read.
 */
function asReadAgain(cleaned: DefaultTreeAdapterMap['document']): string {
  let html = written(cleaned);
  for (let i = 0; i < MOST_READINGS; i++) {
    const again = parse(html);
    let found = 0;
    const visit = (node: ParsedElement): void => {
      node.childNodes = node.childNodes.filter((child) => {
        if (!('tagName' in child)) return child.nodeName !== '#comment' || !++found;
        const isOwn = attribute(child, PATH_ATTRIBUTE) !== undefined || child.attrs.length === 0;
        if (isOwn && !DROPPED.has(child.tagName.toLowerCase())) return true;
        found++;
        return false;
      });
      for (const child of node.childNodes) if ('tagName' in child) visit(child);
    };
    visit(again as unknown as ParsedElement);
    if (!found) return html;
    html = written(again);
  }
  throw new RangeError('Its markup reads differently each time. Save the page again from a browser.');
}

/** The texts of all style sheets in a cleaned page. */
function stylesIn(root: ParsedElement): string[] {
  const found: string[] = [];
  const visit = (node: ParsedElement): void => {
    if (node.tagName === 'style') found.push(textIn(node));
    else for (const child of node.childNodes) if ('tagName' in child) visit(child);
  };
  visit(root);
  return found;
}

class PageCleaner {
  readonly notices: Notice[] = [];
  readonly fonts: FontRule[] = [];
  readonly webFonts: WebFont[] = [];
  title = '';
  width: number | null = null;
  utilities: UtilityPlan | null = null;
  theme: RootTheme | null = null;
  readonly classes = new Set<string>();
  readonly #file: string;
  /** A file in the folder that references start from. */
  #from: string;
  readonly #files: PageFiles;
  readonly #counts = new Map<string, number>();
  #elements = 0;

  constructor(file: string, files: PageFiles) {
    this.#file = file;
    this.#from = file;
    this.#files = files;
  }

  /** What the page says its references start from, where it says that. */
  setBase(href: string | null): void {
    if (href === null) return;
    const path = href.trim().replace(/[?#].*$/, '');
    const folder = resolveReference(path.replace(/[^/]*$/, ''), this.#file);
    if (folder !== null) this.#from = folder ? `${folder}/page` : 'page';
  }

  /** Cleans an element's attributes and everything beneath it, in place. Children are numbered before any goes. */
  clean(element: ParsedElement, path: string): void {
    if (++this.#elements > limits.elements)
      throw new RangeError(`The page has more than ${limits.elements} elements.`);
    if (path.split('/').length > limits.depth) {
      element.childNodes = [];
      return;
    }
    this.#cleanAttributes(element);
    element.attrs.push({ name: PATH_ATTRIBUTE, value: path });
    if (element.tagName === 'title' && !this.title) this.title = textIn(element);
    const kept: Node[] = [];
    let index = 0;
    for (const child of element.childNodes) {
      if (child.nodeName === '#comment') continue;
      if (!('tagName' in child)) {
        kept.push(child);
        continue;
      }
      const childPath = path ? `${path}/${index++}` : String(index++);
      const replaced = this.#replace(child);
      if (!replaced) continue;
      // A linked sheet that now stands here is clean already.
      if (child.tagName === 'style') this.#cleanStyle(replaced, this.#from);
      this.clean(replaced, childPath);
      kept.push(replaced);
    }
    element.childNodes = kept as typeof element.childNodes;
  }

  /** A theme that only a script of the page would choose is chosen here, so that its colours are there. */
  putTheme(root: ParsedElement): void {
    const body = root.childNodes.find((node): node is ParsedElement => node.nodeName === 'body');
    const theme = rootThemeOf(stylesIn(root), ({ on, attribute: name, value }) => {
      const element = on === 'body' ? body : root;
      const said = element && attribute(element, name);
      // Other classes say nothing of a theme.
      return said !== undefined && (name !== 'class' || said.split(/\s+/).includes(value));
    });
    const element = theme?.on === 'body' ? body : root;
    if (!theme || !element) return;
    this.theme = theme;
    const { attribute: name, value } = theme;
    const there = element.attrs.find((one) => one.name === name);
    if (there) there.value = `${there.value} ${value}`;
    else element.attrs.push({ name, value });
    this.#count('theme', `A script would choose the theme of the page; it came in with ${name}="${value}".`);
  }

  /** A browser unfolds every reused part of a drawing; where that never ends, nothing is reused. */
  dropEndlessReuse(root: ParsedElement): void {
    const byId = new Map<string, ParsedElement>();
    const uses: ParsedElement[] = [];
    const elementsIn = (node: ParsedElement): ParsedElement[] =>
      node.childNodes.filter((child): child is ParsedElement => 'tagName' in child);
    const visit = (node: ParsedElement): void => {
      const id = attribute(node, 'id');
      if (id) byId.set(id, node);
      if (node.tagName === 'use') uses.push(node);
      elementsIn(node).forEach(visit);
    };
    visit(root);
    if (!uses.length) return;
    const reused = (node: ParsedElement): ParsedElement | undefined =>
      node.tagName === 'use' ? byId.get((attribute(node, 'href') ?? '').replace(/^#/, '')) : undefined;
    const most = limits.elements + limits.unfolded;
    if (unfoldedCount(root, { children: elementsIn, reused }, most) <= most) return;
    for (const use of uses) use.attrs = use.attrs.filter(({ name }) => name !== 'href');
    this.#count('reuse', 'Reused parts of a drawing, which unfold without end, were left out.');
  }

  finish(): void {
    for (const [what, count] of this.#counts) {
      const [code, text] = what.split('\n');
      const times = count > 1 ? ` (${count} times)` : '';
      this.notices.push({
        level: code === 'missing' ? 'warning' : 'info',
        code: `html-${code}`,
        file: this.#file,
        message: `${text}${times}`,
      });
    }
  }

  #count(code: string, text: string): void {
    const what = `${code}\n${text}`;
    this.#counts.set(what, (this.#counts.get(what) ?? 0) + 1);
  }

  /** The element that stands for this one, or null when it goes. */
  #replace(found: ParsedElement): ParsedElement | null {
    const element = this.#plain(found);
    const tag = element.tagName.toLowerCase();
    if (tag === 'link') return this.#styleSheet(element);
    if (tag === 'source')
      return element.parentNode && 'tagName' in element.parentNode && element.parentNode.tagName === 'picture'
        ? element
        : null;
    if (tag === 'style' && attribute(element, 'type') === 'text/tailwindcss') {
      this.#addUtilities({ css: textIn(element) });
      return null;
    }
    if (tag === 'meta') {
      const name = attribute(element, 'name');
      const fixed =
        name === 'viewport' ? /width\s*=\s*(\d{3,4})/.exec(attribute(element, 'content') ?? '') : null;
      if (fixed) this.width = Number(fixed[1]);
      return attribute(element, 'charset') ? element : null;
    }
    if (!DROPPED.has(tag)) return (this.#files.icon && iconInPlaceOf(element, this.#files.icon)) ?? element;
    if (HOLDING_PLACE.has(tag) && element.namespaceURI === HTML && !isUnseen(element)) {
      this.#count('dropped', `<${tag}> was left out; its place stays empty.`);
      return placeOf(element);
    }
    if (tag === 'script' && this.#isUtilityScript(element)) return null;
    const written = tag === 'script' ? this.#sheetWritten(element) : null;
    if (written) return written;
    if (tag === 'script')
      this.#count('script', 'A script was left out; what it would have drawn is not on the screen.');
    else if (tag !== 'noscript' && tag !== 'template' && tag !== 'base')
      this.#count('dropped', `<${tag}> was left out.`);
    return null;
  }

  /**
   * An element that a frame reads as it is read here: formulas are plain text, and tags that only a parser takes for
   * names are containers.
   */
  #plain(element: ParsedElement): ParsedElement {
    const isFormula = element.namespaceURI === MATHML;
    const isName = /^[a-z][a-z0-9]*(-[a-z0-9]+)*$/i.test(element.tagName);
    const isRaw = RAW.has(element.tagName) && element.namespaceURI === HTML;
    if (!isFormula && isName && !isRaw) return element;
    if (isFormula && element.tagName === 'math')
      this.#count('formula', 'A formula was taken in as plain text.');
    else if (!isName)
      this.#count('left-out', `<${element.tagName.slice(0, 40)}> is no element; what is in it stays.`);
    const tag = isRaw ? 'pre' : 'span';
    element.tagName = tag;
    element.nodeName = tag;
    element.namespaceURI = HTML as ParsedElement['namespaceURI'];
    return element;
  }

  #addUtilities(part: Partial<UtilityPlan>): void {
    const { config, css, isLegacy, plugins } = this.utilities ?? {
      config: null,
      css: '',
      isLegacy: false,
      plugins: [],
    };
    this.utilities = {
      config: part.config ?? config,
      css: [css, part.css].filter(Boolean).join('\n'),
      isLegacy: part.isLegacy ?? isLegacy,
      plugins: part.plugins ?? plugins,
      classes: [],
    };
  }

  /** The library's own script, or its configuration, which is read as data and never run. */
  #isUtilityScript(script: ParsedElement): boolean {
    const src = attribute(script, 'src');
    if (src !== undefined) {
      if (!UTILITY_SCRIPT.test(src)) return false;
      const named = /[?&]plugins=([\w,-]*)/.exec(src)?.[1].split(',') ?? [];
      this.#addUtilities({ isLegacy: !/browser/.test(src), plugins: named.filter(Boolean).slice(0, 20) });
      return true;
    }
    const read = readUtilityConfig(textIn(script));
    if (!read) return false;
    this.#addUtilities({ config: read.config });
    for (const what of read.leftOut)
      this.#count('config', `Of the page’s configuration, “${what}” is not plain data and was left out.`);
    return true;
  }

  /** The style sheet that a script writes into its page, where it came along. */
  #sheetWritten(script: ParsedElement): ParsedElement | null {
    if (attribute(script, 'src') !== undefined) return null;
    const href = sheetsWritten(textIn(script)).findLast((one) => this.#files.styleSheet(one, this.#from));
    if (href === undefined) return null;
    const attrs = [
      { name: 'rel', value: 'stylesheet' },
      { name: 'href', value: href },
    ];
    return this.#styleSheet({ ...script, tagName: 'link', nodeName: 'link', attrs } as ParsedElement);
  }

  #styleSheet(link: ParsedElement): ParsedElement | null {
    const href = attribute(link, 'href') ?? '';
    if (!/\bstylesheet\b/i.test(attribute(link, 'rel') ?? '')) return null;
    const webFonts = webFontsIn(href);
    if (webFonts.length) {
      this.webFonts.push(...webFonts);
      return null;
    }
    const found = this.#files.styleSheet(href, this.#from);
    // Of a sheet with all utility classes those are compiled that the page has.
    if (!found && UTILITY_SHEET.test(href)) {
      this.#addUtilities({ isLegacy: true });
      return null;
    }
    if (!found) {
      const outside = /^(https?:)?\/\//i.test(href);
      this.#count(
        'missing',
        `The style sheet “${href.slice(0, 120)}” ${outside ? 'is somewhere else and is not fetched' : 'did not come along'}; bring the file in with the page.`,
      );
      return null;
    }
    const style = {
      ...link,
      tagName: 'style',
      nodeName: 'style',
      attrs: [],
      childNodes: [],
    } as unknown as ParsedElement;
    const media = attribute(link, 'media');
    const css = this.#clean(found.text, found.file);
    setText(style, media && media !== 'all' ? `@media ${media} {${css}}` : css);
    return style;
  }

  #cleanStyle(style: ParsedElement, from: string): void {
    setText(style, this.#clean(textIn(style), from));
  }

  #clean(css: string, from: string): string {
    const sheet = cleanStyleSheet(css, from, this.#files);
    for (const { code, text } of sheet.remarks) this.#count(code, text);
    this.fonts.push(...sheet.fonts);
    return sheet.css;
  }

  #picture(reference: string, from: string): string {
    const { address, remark } = pictureAddress(reference, from, this.#files);
    if (remark) this.#count(remark.code, remark.text);
    return address;
  }

  #cleanAttributes(element: ParsedElement): void {
    // A picture that only has candidates for resolutions shows the first of them.
    if (element.tagName === 'img' && attribute(element, 'src') === undefined) {
      const srcset = attribute(element, 'srcset');
      if (srcset) element.attrs.push({ name: 'src', value: firstOfSrcset(srcset) });
    }
    for (const name of (attribute(element, 'class') ?? '').split(/\s+/)) if (name) this.classes.add(name);
    element.attrs = element.attrs.flatMap((attr) => {
      const name = (attr.prefix ? `${attr.prefix}:` : '') + attr.name.toLowerCase();
      if (!isAttributeName(name)) {
        // What frameworks write into pages is no mistake.
        if (!/^[@:#*_.[(]?[a-z][\w.:@*#()[\]-]*$/i.test(name))
          this.#count('left-out', `“${name.slice(0, 40)}” is no name of an attribute and was left out.`);
        return [];
      }
      if (name.startsWith('on')) {
        this.#count('handler', 'An event attribute was left out; wire the element in Junction instead.');
        return PRESSES.has(name) ? calledBy(attr.value) : [];
      }
      if (
        name === 'srcdoc' ||
        name === 'nonce' ||
        name === 'target' ||
        name === PATH_ATTRIBUTE ||
        name === CALLS_ATTRIBUTE ||
        name === 'autofocus' ||
        name === 'http-equiv'
      )
        return [];
      if (name === 'style') return [{ ...attr, value: this.#cleanInline(attr.value) }];
      // Attributes of drawings are styles by another way of writing, and so can hold references.
      if (element.namespaceURI === SVG && /[(\\]/.test(attr.value) && !ADDRESSES.has(name))
        return [{ ...attr, value: this.#cleanInline(attr.value) }];
      if (!ADDRESSES.has(name)) return [attr];
      const called = name === 'href' && SCRIPTED.test(attr.value) ? calledBy(attr.value) : [];
      return [
        ...called,
        ...this.#cleanAddress(element, name, attr.value).map((value) => ({ ...attr, value })),
      ];
    });
  }

  #cleanInline(css: string): string {
    const { css: clean, remarks } = cleanDeclarations(css, this.#from, this.#files);
    for (const { code, text } of remarks) this.#count(code, text);
    return clean;
  }

  /** Links keep where they lead, as data; nothing is ever fetched from there. Pictures lead to what came along. */
  #cleanAddress(element: ParsedElement, name: string, value: string): string[] {
    if (
      (name === 'href' && element.namespaceURI === 'http://www.w3.org/1999/xhtml') ||
      name === 'action' ||
      name === 'formaction'
    ) {
      if (!isPlainAddress(value)) {
        this.#count(
          'script',
          'A link that would have run a script was left out; the element counts as an open end.',
        );
        // The page's own rules still see a link: many tell one with an address from one without.
        return name === 'href' ? ['#'] : [];
      }
      const end = this.#files.leadsOn?.(value, this.#from);
      if (end) return [end];
      return [this.#from === this.#file ? value : fromRoot(value, this.#from)];
    }
    if (
      name === 'src' &&
      (element.tagName === 'img' || (element.tagName === 'input' && attribute(element, 'type') === 'image'))
    ) {
      return [this.#picture(value, this.#from)];
    }
    if (name === 'xlink:href' || name === 'href') {
      if (value.startsWith('#')) return [value];
      if (element.tagName === 'image') return [this.#picture(value, this.#from)];
    }
    if (name === 'srcset' && element.tagName === 'source')
      return [this.#picture(firstOfSrcset(value), this.#from)];
    if (name === 'srcset' && attribute(element, 'src') !== undefined)
      this.#count('dropped', 'Pictures for other resolutions were left out; the main one is used.');
    return [];
  }
}

/** A link that starts from another folder than its page does, as one that starts from the root of the batch. */
function fromRoot(href: string, from: string): string {
  const path = resolveReference(href, from);
  return path === null ? href : `/${path}${/[?#].*$/.exec(href)?.[0] ?? ''}`;
}

function baseOf(root: ParsedElement): string | null {
  for (const node of root.childNodes) {
    if (!('tagName' in node)) continue;
    if (node.tagName === 'base') return attribute(node, 'href') ?? null;
    const within = node.tagName === 'head' ? baseOf(node) : null;
    if (within !== null) return within;
  }
  return null;
}

const attribute = (element: ParsedElement, name: string): string | undefined =>
  element.attrs.find((attr) => attr.name === name)?.value;

const textIn = (element: ParsedElement): string =>
  element.childNodes.map((node) => ('value' in node ? node.value : '')).join('');

function setText(element: ParsedElement, value: string): void {
  element.childNodes = [
    { nodeName: '#text', value, parentNode: element } as DefaultTreeAdapterMap['textNode'],
  ];
}
