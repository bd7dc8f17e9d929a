import * as csstree from 'css-tree';
import { type DefaultTreeAdapterMap, parse, serialize } from 'parse5';
import type { Notice } from '../../model/design.ts';
import { isUnsafeAddress } from '../address.ts';
import { limits } from '../limits.ts';

type Node = DefaultTreeAdapterMap['node'];
type ParsedElement = DefaultTreeAdapterMap['element'];

/** Where a page's references lead. Style sheets come as text; a picture as an address that may be shown. */
export interface PageFiles {
  readonly styleSheet: (
    reference: string,
    from: string,
  ) => { readonly text: string; readonly file: string } | null;
  readonly picture: (reference: string, from: string) => string | null;
}

export interface SafePage {
  /** The page with every script, event attribute and outside reference gone, ready for a frame without scripts. */
  readonly html: string;
  readonly title: string;
  readonly notices: Notice[];
  /** The width at which the page was drawn, where it says so. */
  readonly width: number | null;
}

/** Marks each element with its path, so that a reading can say where in the file it stood. */
export const PATH_ATTRIBUTE = 'data-tovel-path';

/** An address at which there is nothing, and nothing is asked for. */
const NOTHING = 'data:,';

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
  'audio',
  'video',
  'source',
  'track',
  'param',
  'fencedframe',
]);
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
  cleaner.clean(root, '');
  cleaner.finish();
  document.childNodes = document.childNodes.filter((node) => node.nodeName !== '#comment');
  return {
    html: serialize(document),
    title: cleaner.title.replace(/\s+/g, ' ').trim(),
    notices: cleaner.notices,
    width: cleaner.width,
  };
}

class PageCleaner {
  readonly notices: Notice[] = [];
  title = '';
  width: number | null = null;
  readonly #file: string;
  readonly #files: PageFiles;
  readonly #shown = new Set<string>();
  readonly #counts = new Map<string, number>();
  #elements = 0;

  constructor(file: string, files: PageFiles) {
    this.#file = file;
    this.#files = files;
  }

  /** Cleans an element's attributes and everything beneath it, in place. Children are numbered before any goes. */
  clean(element: ParsedElement, path: string): void {
    if (++this.#elements > limits.elements)
      throw new RangeError(`The page has more than ${limits.elements} elements.`);
    if (path.split('/').length > limits.depth) {
      element.childNodes = [];
      return;
    }
    this.#cleanAttributes(element, path);
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
      if (replaced.tagName === 'style') this.#cleanStyle(replaced, this.#file);
      this.clean(replaced, childPath);
      kept.push(replaced);
    }
    element.childNodes = kept as typeof element.childNodes;
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
  #replace(element: ParsedElement): ParsedElement | null {
    const tag = element.tagName;
    if (tag === 'link') return this.#styleSheet(element);
    if (tag === 'meta') {
      const name = attribute(element, 'name');
      const fixed =
        name === 'viewport' ? /width\s*=\s*(\d{3,4})/.exec(attribute(element, 'content') ?? '') : null;
      if (fixed) this.width = Number(fixed[1]);
      return attribute(element, 'charset') ? element : null;
    }
    if (!DROPPED.has(tag)) return element;
    if (tag === 'script')
      this.#count('script', 'A script was left out; what it would have drawn is not on the screen.');
    else if (tag !== 'source' && tag !== 'noscript' && tag !== 'template' && tag !== 'base')
      this.#count('dropped', `<${tag}> was left out.`);
    return null;
  }

  #styleSheet(link: ParsedElement): ParsedElement | null {
    const href = attribute(link, 'href') ?? '';
    if (!/\bstylesheet\b/i.test(attribute(link, 'rel') ?? '')) return null;
    const found = this.#files.styleSheet(href, this.#file);
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
    const text = media && media !== 'all' ? `@media ${media} {${found.text}}` : found.text;
    setText(style, this.#cleanCss(text, found.file));
    return style;
  }

  #cleanStyle(style: ParsedElement, from: string): void {
    setText(style, this.#cleanCss(textIn(style), from));
  }

  /** Only references to what came along stay; imports are taken in, everything else that would load goes. */
  #cleanCss(css: string, from: string, depth = 0): string {
    const sheet = csstree.parse(css, {
      parseValue: true,
      parseCustomProperty: true,
      onParseError: () => {},
    }) as csstree.StyleSheet;
    csstree.walk(sheet, {
      visit: 'Atrule',
      enter: (rule, item, list) => {
        if (rule.name === 'import') {
          const reference = /["']([^"']+)["']|url\(([^)]+)\)/.exec(
            rule.prelude ? csstree.generate(rule.prelude) : '',
          );
          const href = (reference?.[1] ?? reference?.[2] ?? '').trim();
          const found = depth < 5 ? this.#files.styleSheet(href, from) : null;
          if (!found)
            this.#count('missing', `The imported style sheet “${href.slice(0, 120)}” did not come along.`);
          else if (list && item) {
            const inner = csstree.parse(
              this.#cleanCss(found.text, found.file, depth + 1),
            ) as csstree.StyleSheet;
            list.insertList(inner.children, item);
          }
          list?.remove(item);
        } else if (rule.name === 'font-face') {
          const family = /font-family\s*:\s*([^;}]+)/.exec(csstree.generate(rule))?.[1].replace(/["']/g, '');
          this.#count(
            'font',
            `The font “${family ?? 'unnamed'}” is not carried over yet; the next one in its list is used.`,
          );
          list?.remove(item);
        }
      },
    });
    csstree.walk(sheet, {
      visit: 'Url',
      enter: (node) => void (node.value = this.#picture(node.value, from)),
    });
    return csstree.generate(sheet).replace(/<\/style/gi, '');
  }

  #picture(reference: string, from: string): string {
    // A style sheet that another imports has been through here before.
    if (reference.startsWith('#') || this.#shown.has(reference)) return reference;
    const address = this.#files.picture(reference, from);
    this.#shown.add(address ?? NOTHING);
    if (!address)
      this.#count(
        'missing',
        `The picture “${reference.slice(0, 120)}” ${/^(https?:)?\/\//i.test(reference) ? 'is somewhere else and is not fetched' : 'did not come along'}; bring the file in with the page.`,
      );
    return address ?? NOTHING;
  }

  #cleanAttributes(element: ParsedElement, path: string): void {
    element.attrs = element.attrs.flatMap((attr) => {
      const name = (attr.prefix ? `${attr.prefix}:` : '') + attr.name.toLowerCase();
      if (name.startsWith('on')) {
        this.#count('handler', 'An event attribute was left out; wire the element in Junction instead.');
        return [];
      }
      if (
        name === 'srcdoc' ||
        name === 'nonce' ||
        name === 'target' ||
        name === PATH_ATTRIBUTE ||
        name === 'autofocus' ||
        name === 'http-equiv'
      )
        return [];
      if (name === 'style') return [{ ...attr, value: this.#cleanInline(attr.value) }];
      if (!ADDRESSES.has(name)) return [attr];
      return this.#cleanAddress(element, name, attr.value, path).map((value) => ({ ...attr, value }));
    });
  }

  #cleanInline(css: string): string {
    if (!/url\(/i.test(css)) return css;
    const list = csstree.parse(css, { context: 'declarationList', onParseError: () => {} });
    csstree.walk(list, {
      visit: 'Url',
      enter: (node) => void (node.value = this.#picture(node.value, this.#file)),
    });
    return csstree.generate(list);
  }

  /** Links keep where they lead, as data; nothing is ever fetched from there. Pictures lead to what came along. */
  #cleanAddress(element: ParsedElement, name: string, value: string, path: string): string[] {
    if (
      (name === 'href' && (element.tagName === 'a' || element.tagName === 'area')) ||
      name === 'action' ||
      name === 'formaction'
    ) {
      if (isUnsafeAddress(value)) {
        this.#count(
          'script',
          'A link that would have run a script was left out; the element counts as an open end.',
        );
        return [];
      }
      return [value];
    }
    if (
      name === 'src' &&
      (element.tagName === 'img' || (element.tagName === 'input' && attribute(element, 'type') === 'image'))
    ) {
      return [this.#picture(value, this.#file)];
    }
    if (name === 'xlink:href' || name === 'href') {
      if (value.startsWith('#')) return [value];
      if (element.tagName === 'image') return [this.#picture(value, this.#file)];
    }
    if (name === 'srcset')
      this.#count('dropped', 'Pictures for other resolutions were left out; the main one is used.');
    void path;
    return [];
  }
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
