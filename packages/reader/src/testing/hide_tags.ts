import { createHash } from 'node:crypto';
import { type CssNode, generate, parse as parseCss, walk } from 'css-tree';
import { type DefaultTreeAdapterMap, parse, serialize } from 'parse5';
import { roleByTag, roleFromAria, type Element, type Role } from '@tovel/core';

type Node = DefaultTreeAdapterMap['node'];
type Parsed = DefaultTreeAdapterMap['element'];

/** A page whose tags say nothing any more, and what they said. */
export interface HiddenPage {
  readonly html: string;
  /** Role of each element that has one, by its path from the document's root element. */
  readonly truth: ReadonlyMap<string, Role>;
  /** Paths of the items of each list, and of the rows of each table body, where there are two or more. */
  readonly lists: readonly (readonly string[])[];
}

const isElement = (node: Node): node is Parsed => 'tagName' in node;
const attributeOf = (element: Parsed, name: string): string | undefined =>
  element.attrs.find((attr) => attr.name === name)?.value;

/** Elements that cannot be drawn by another, and parts of drawings. */
const KEPT = new Set([
  'html',
  'head',
  'body',
  'img',
  'br',
  'wbr',
  'svg',
  'canvas',
  'picture',
  'source',
  'style',
  'link',
  'meta',
  'title',
  'script',
  'noscript',
  'template',
  'base',
]);
const NAMES_OF_MEANING =
  /^(role|aria-.*|href|type|for|placeholder|value|alt|name|scope|action|method|title|label|tabindex|data-(bs-)?(toggle|target|dismiss|parent))$/;

/**
 * Puts a neutral element in the place of every element that has a meaning, and takes roles, ARIA and other telling
 * attributes away; the page looks as before, since style sheets are rewritten and the browser's own styles are spelt
 * out. With `neutralNames`, class names and ids say nothing either.
 */
export function hideTags(
  text: string,
  sheets: ReadonlyMap<string, string>,
  neutralNames = false,
): HiddenPage {
  const document = parse(text);
  const truth = new Map<string, Role>();
  const lists: string[][] = [];
  const css: string[] = [BROWSER_STYLES];
  const rename = (name: string): string => (neutralNames ? `c${short(name)}` : name);
  const visit = (element: Parsed, path: string, isInVector: boolean): void => {
    const role = isInVector ? null : truthOf(element);
    if (role && path.startsWith('1/')) truth.set(path, role);
    const items = isInVector ? [] : itemsOf(element, path);
    if (items.length > 1) lists.push(items);
    let index = 0;
    element.childNodes.forEach((child) => {
      if (isElement(child))
        visit(child, path ? `${path}/${index++}` : String(index++), isInVector || element.tagName === 'svg');
    });
    if (isInVector) return;
    if (element.tagName === 'link' && /stylesheet/.test(attributeOf(element, 'rel') ?? '')) {
      const sheet = [...sheets].find(([file]) => sameFile(file, attributeOf(element, 'href') ?? ''));
      if (sheet) css.push(neutralCss(sheet[1], rename));
      return;
    }
    if (element.tagName === 'style')
      css.push(neutralCss(element.childNodes.map((n) => ('value' in n ? n.value : '')).join(''), rename));
    if (!KEPT.has(element.tagName) || element.tagName === 'body' || element.tagName === 'img')
      neutralise(element, rename);
  };
  const root = document.childNodes.find((node): node is Parsed => node.nodeName === 'html')!;
  visit(root, '', false);
  const head = root.childNodes.find((node): node is Parsed => node.nodeName === 'head')!;
  const body = root.childNodes.find((node): node is Parsed => node.nodeName === 'body')!;
  // Style sheets stand in the body's own place in the head, so that paths stay the same.
  head.childNodes = [];
  const html = serialize(document).replace(
    '</head>',
    () => `<style>${css.join('\n').replace(/<\//g, '<\\/')}</style></head>`,
  );
  void body;
  return { html, truth, lists };
}

/** Paths of the items that an element lists. */
function itemsOf(element: Parsed, path: string): string[] {
  const item = { ul: 'li', ol: 'li', tbody: 'tr' }[element.tagName];
  if (!item) return [];
  const children = element.childNodes.filter(isElement);
  return children.flatMap((child, i) => (child.tagName === item ? [`${path}/${i}`] : []));
}

function truthOf(element: Parsed): Role | null {
  const authored = roleFromAria(attributeOf(element, 'role'));
  if (authored) return authored === 'none' ? null : authored;
  const attributes = Object.fromEntries(element.attrs.map((attr) => [attr.name, attr.value]));
  if (element.tagName === 'label') return null;
  return roleByTag({ tag: element.tagName, attributes } as unknown as Element)?.role ?? null;
}

const short = (text: string): string =>
  String(parseInt(createHash('sha1').update(text).digest('hex').slice(0, 8), 16));
const sameFile = (file: string, href: string): boolean => {
  const plain = href.replace(/[?#].*$/, '').replace(/^(\.{1,2}\/)+/, '');
  return plain !== '' && (file === plain || file.endsWith(`/${plain}`));
};
const classOfTag = (tag: string): string => `k${short(`tag ${tag}`)}`;
const classOfAttribute = (name: string, value?: string): string => `k${short(`${name}=${value ?? ''}`)}`;

const classOfInput = (type: string): string => `k${short(`input ${type}`)}`;

function neutralise(element: Parsed, rename: (name: string) => string): void {
  const { tagName } = element;
  const classes = (attributeOf(element, 'class') ?? '').split(/\s+/).filter(Boolean).map(rename);
  classes.push(classOfTag(tagName));
  for (const { name, value } of element.attrs)
    if (NAMES_OF_MEANING.test(name)) classes.push(classOfAttribute(name), classOfAttribute(name, value));
  if (tagName === 'input') classes.push(classOfInput(attributeOf(element, 'type') ?? 'text'));
  const id = attributeOf(element, 'id');
  const shown = shownText(element);
  element.attrs = [
    ...element.attrs.filter(
      ({ name }) =>
        !['class', 'id'].includes(name) &&
        (!NAMES_OF_MEANING.test(name) || (tagName === 'img' && name === 'alt')) &&
        !name.startsWith('data-') &&
        !name.startsWith('on'),
    ),
    { name: 'class', value: classes.join(' ') },
    ...(id ? [{ name: 'id', value: rename(id) }] : []),
  ];
  if (shown !== null)
    element.childNodes = shown
      ? [{ nodeName: '#text', value: shown, parentNode: element } as DefaultTreeAdapterMap['textNode']]
      : [];
  if (!KEPT.has(tagName)) {
    element.tagName = 'div';
    element.nodeName = 'div';
  }
}

/** What a control shows; null for what is no control. */
function shownText(element: Parsed): string | null {
  if (element.tagName === 'input') {
    const type = attributeOf(element, 'type') ?? 'text';
    if (['checkbox', 'radio', 'range'].includes(type)) return '';
    return (
      attributeOf(element, 'value') ||
      attributeOf(element, 'placeholder') ||
      (type === 'file' ? 'Choose file' : '')
    );
  }
  if (element.tagName === 'select') {
    const options = element.childNodes.filter(
      (node): node is Parsed => isElement(node) && node.tagName === 'option',
    );
    const [first] = options;
    return `${first?.childNodes.map((n) => ('value' in n ? n.value.trim() : '')).join('') ?? ''} ▾`;
  }
  if (element.tagName === 'textarea') return attributeOf(element, 'placeholder') ?? '';
  return null;
}

/** A style sheet whose selectors no longer name tags, telling attributes or, where they are renamed, classes. */
function neutralCss(text: string, rename: (name: string) => string): string {
  const sheet = parseCss(text, { parseValue: false, parseCustomProperty: false });
  walk(sheet, {
    visit: 'Selector',
    enter(node: CssNode) {
      if (node.type !== 'Selector') return;
      node.children.forEach((part, item, list) => {
        const put = (value: string): void => {
          list.replace(item, list.createItem({ type: 'Raw', value } as CssNode));
        };
        if (
          part.type === 'TypeSelector' &&
          !['*', 'html', 'body', ...KEPT].includes(part.name) &&
          !/^[\d.]+%$/.test(part.name)
        )
          put(`:where(.${classOfTag(part.name)})`);
        else if (
          part.type === 'AttributeSelector' &&
          NAMES_OF_MEANING.test(part.name.name) &&
          (part.matcher === null || part.matcher === '=')
        ) {
          const value = part.value
            ? part.value.type === 'String'
              ? part.value.value
              : part.value.name
            : undefined;
          put(`.${classOfAttribute(part.name.name, value)}`);
        } else if (part.type === 'ClassSelector') part.name = rename(part.name);
        else if (part.type === 'IdSelector') part.name = rename(part.name);
        else if (part.type === 'PseudoClassSelector' && ['link', 'any-link'].includes(part.name))
          put(`:where(.${classOfTag('a')})`);
      });
    },
  });
  return generate(sheet);
}

const where = (tags: string, declarations: string): string =>
  `:where(${tags
    .split(' ')
    .map((tag) => (tag.startsWith('.') ? tag : `.${classOfTag(tag)}`))
    .join(',')}){${declarations}}`;

/** What browsers do by themselves for the tags that are hidden (the HTML standard's rendering section). */
const BROWSER_STYLES = [
  where(
    'a abbr b button cite code em i input kbd label q s samp select small span strong sub sup textarea u var time mark img',
    'display:inline',
  ),
  where(
    'button input select textarea',
    'display:inline-block;font:13.33px Arial;text-align:start;letter-spacing:normal;color:#000',
  ),
  where(
    'button',
    'text-align:center;padding:1px 6px;border:2px outset #767676;background:#efefef;cursor:default',
  ),
  where(
    'input textarea',
    'padding:1px 2px;border:2px inset #767676;background:#fff;width:170px;min-height:1.2em;color:#757575',
  ),
  where('textarea', 'min-height:2.4em;white-space:pre-wrap'),
  where('select', 'border:1px solid #767676;background:#fff;white-space:nowrap'),
  where(
    `.${classOfInput('checkbox')}`,
    'width:13px;height:13px;min-height:0;margin:3px;border:1px solid #767676;border-radius:2px;padding:0',
  ),
  where(
    `.${classOfInput('radio')}`,
    'width:13px;height:13px;min-height:0;margin:3px;border:1px solid #767676;border-radius:50%;padding:0',
  ),
  where(`.${classOfInput('hidden')} template script dialog`, 'display:none'),
  where('h1', 'font-size:2em;font-weight:bold;margin:.67em 0'),
  where('h2', 'font-size:1.5em;font-weight:bold;margin:.83em 0'),
  where('h3', 'font-size:1.17em;font-weight:bold;margin:1em 0'),
  where('h4', 'font-weight:bold;margin:1.33em 0'),
  where('h5', 'font-size:.83em;font-weight:bold;margin:1.67em 0'),
  where('h6', 'font-size:.67em;font-weight:bold;margin:2.33em 0'),
  where('p dl figure blockquote ul ol', 'margin:1em 0'),
  where('ul ol', 'padding-left:40px;list-style:disc'),
  where('ol', 'list-style:decimal'),
  where('li', 'display:list-item'),
  where('b strong th', 'font-weight:bold'),
  where('i em cite', 'font-style:italic'),
  where('small', 'font-size:smaller'),
  where('a', 'color:#0000ee;text-decoration:underline;cursor:pointer'),
  where('hr', 'border:1px inset gray;margin:.5em auto'),
  where('table', 'display:table;border-spacing:2px;border-collapse:separate'),
  where('thead', 'display:table-header-group'),
  where('tbody', 'display:table-row-group'),
  where('tfoot', 'display:table-footer-group'),
  where('tr', 'display:table-row'),
  where('td th', 'display:table-cell;padding:1px;vertical-align:middle'),
  where('th', 'text-align:center'),
  where('caption', 'display:table-caption'),
  where('fieldset', 'border:2px groove #ccc;padding:.35em .75em .625em;margin:0 2px'),
].join('\n');
