import { PLACE_TAGS } from './kept_places.ts';
import { withOwnIds } from '../drawing_ids.ts';
import { sentenceCase } from '../../model/names.ts';
import type {
  Declarations,
  Element,
  ElementKind,
  ElementStyle,
  Notice,
  Screen,
  VectorNode,
} from '../../model/design.ts';
import { attributeRule, isAttributeName } from '../../vocabulary/attributes.ts';
import { OPEN_STATE } from '../../vocabulary/style_values.ts';
import { VOID_TAGS } from '../../vocabulary/tags.ts';
import {
  isInheritedVectorStyle,
  isVectorStyle,
  VECTOR_ATTRIBUTES,
  VECTOR_TAGS,
} from '../../vocabulary/vectors.ts';
import type { GlyphOutline } from '../../fonts/outline.ts';
import { textOf } from '../../model/project.ts';
import { baseName } from '../files.ts';
import { iconName } from './icon_name.ts';
import { iconHolder, iconVector, withCutOutColor, type Over } from './icon_vector.ts';
import { type GlyphSource, isSign } from './icon_glyphs.ts';
import { CALLS_ATTRIBUTE, type PageReading, type ReadElement } from './reading.ts';

export interface PageInput {
  readonly file: string;
  readonly screenKey: string;
  readonly title: string;
  /** The SHA-256 of the asset that a shown address stands for. */
  readonly asset: (address: string) => string | null;
  /** Drawings of icons that are written as text. */
  readonly glyphs?: GlyphSource;
}

const CONTROLS = new Set([
  'input',
  'select',
  'textarea',
  'option',
  'optgroup',
  'datalist',
  'progress',
  'meter',
]);

/** So much is kept of the classes of an element, in UTF-16 units: a page of utility classes has some hundred. */
const MOST_CLASSES = 600;

/** Class names, and what an element opens by script, which says as much about it. */
function classesOf(read: ReadElement): string {
  const { class: own = '', ...attributes } = read.attributes;
  const opens = attributes['data-toggle'] ?? attributes['data-bs-toggle'];
  return `${wholeWords(own)}${opens ? ` ${opens}-toggle` : ''}`.trim();
}

const wholeWords = (text: string): string =>
  text.length <= MOST_CLASSES ? text : text.slice(0, MOST_CLASSES).replace(/\S*$/, '').trim();

/** Makes a screen of what a browser read. */
export function assembleScreen(
  input: PageInput,
  reading: PageReading,
): { screen: Screen; notices: Notice[] } {
  const notices: Notice[] = [...replacedTags(reading.body)].map(([tag, { count, path }]) => ({
    level: 'info',
    code: 'tag-replaced',
    file: input.file,
    path,
    message: `<${tag}>${count > 1 ? ` (${count} times)` : ''} is no element that screens are written with; it stands as a plain one, with its look.`,
  }));
  for (const hidden of reading.hidden) {
    const called = hidden.label ? `“${hidden.label}”` : `<${hidden.tag}>`;
    notices.push({
      level: 'info',
      code: 'hidden-layer',
      file: input.file,
      path: hidden.path,
      message: hidden.covered
        ? `${called} covers the whole page until a script takes it away; it stays out, so that the page is seen.`
        : hidden.isAwaited
          ? `${called} is not seen before a script shows it; it stands as it looks then.`
          : `${called} is hidden at first, and stays out unless something opens it.`,
    });
  }
  if (!reading.body.children.length)
    notices.push({
      level: 'warning',
      code: 'page-empty',
      file: input.file,
      message: 'The page is empty: nothing in it is drawn without its scripts.',
    });
  const name = nameOfPage(input);
  const ids = new Set<string>();
  noteIds(reading.body, ids);
  const body = toElement({ ...input, ids }, { ...reading.body, tag: 'div' });
  const screen: Screen = {
    key: input.screenKey,
    name,
    ...(input.title ? { title: input.title.slice(0, 300) } : {}),
    source: { file: input.file, path: '' },
    width: reading.width,
    height: reading.height,
    root: { ...pageRoot(body, reading), name },
    use: 'screen',
  };
  return { screen, notices };
}

/** Elements of the page that are written as others, by their tag. */
function replacedTags(
  read: ReadElement,
  found = new Map<string, { count: number; readonly path: string }>(),
): Map<string, { count: number; readonly path: string }> {
  if (read.was !== undefined && !PLACE_TAGS.includes(read.was)) {
    const known = found.get(read.was);
    if (known) known.count++;
    else found.set(read.was, { count: 1, path: read.path });
  }
  for (const child of read.children) if (typeof child !== 'string') replacedTags(child, found);
  return found;
}

/** A page is named by its title; what follows a separator is the name of the whole site. */
function nameOfPage(input: PageInput): string {
  const title = input.title.split(/\s+[|·•–—-]\s+/)[0].trim();
  return title || sentenceCase(baseName(input.file));
}

/** The page's canvas as an element: it is as high as the window and holds the body with its margins. */
function pageRoot(asRead: Element, reading: PageReading): Element {
  const body = withoutCell(asRead, reading);
  const { style } = body;
  const hasMargin = Object.keys(style.base).some((property) => property.startsWith('margin-'));
  const fill = {
    ...reading.canvas,
    // The margin of what is first or last in a page may reach past its body; the app's own root has to hold it. Said of
    // every page, so that what is around them is the same.
    ...(style.base.display ? {} : { display: 'flow-root' }),
    // What lies beneath everything still lies on the canvas.
    ...(isPainted(body, reading.canvas) && liesBeneath(body) ? { isolation: 'isolate' } : {}),
    'min-height': '100vh',
  };
  if (!hasMargin)
    return {
      ...body,
      style: {
        ...style,
        base: { ...fill, ...style.base, 'min-height': style.base['min-height'] ?? '100vh' },
      },
    };
  // Where nothing is said of the canvas itself, it shows what is behind the body, however small that is.
  const { own, rest } = Object.keys(reading.canvas).length
    ? { own: { base: {} }, rest: style }
    : backgroundOf(style);
  return {
    ...body,
    key: `${body.key}~page`,
    tag: 'div',
    kind: 'box',
    box: { x: 0, y: 0, width: reading.width, height: reading.height },
    style: { ...own, base: { ...fill, ...own.base, display: 'flow-root' } },
    children: [{ ...body, style: rest }],
    source: { ...body.source, path: `${body.source.path}~page`, id: undefined },
  };
}

/** A body that is the cell of a table as high as the window, as pages were once put in its middle: it is no cell within the app. */
function withoutCell(body: Element, { height }: PageReading): Element {
  const { display, 'vertical-align': align, ...base } = body.style.base;
  if (display !== 'table-cell') return body;
  const middle = body.box.height >= height - 1 ? ALIGNED_AS[align ?? ''] : undefined;
  // The margins of a cell are nothing.
  const own = Object.entries(base).filter(([property]) => !property.startsWith('margin-'));
  return {
    ...body,
    style: {
      ...body.style,
      base: { ...Object.fromEntries(own), ...(middle ? { 'align-content': middle } : {}) },
    },
  };
}
const ALIGNED_AS: Readonly<Record<string, string>> = { middle: 'center', bottom: 'end' };

/** What a style says of what is behind an element, at all widths, and the rest of it. */
function backgroundOf(style: Element['style']): {
  readonly own: Element['style'];
  readonly rest: Element['style'];
} {
  const part = (css: Declarations, isBehind: boolean): Declarations =>
    Object.fromEntries(
      Object.entries(css).filter(([property]) => property.startsWith('background-') === isBehind),
    );
  const parted = (isBehind: boolean): Element['style'] => ({
    ...(isBehind ? {} : style),
    base: part(style.base, isBehind),
    ...(style.at
      ? {
          at: Object.fromEntries(
            Object.entries(style.at).flatMap(([width, css]) => {
              const own = part(css, isBehind);
              return Object.keys(own).length ? [[width, own]] : [];
            }),
          ),
        }
      : {}),
  });
  return { own: parted(true), rest: parted(false) };
}

const isPainted = ({ style }: Element, canvas: Declarations): boolean =>
  [style.base, canvas].some((base) => 'background-color' in base || 'background-image' in base);

/** Whether anything in an element is put beneath what it stands in. */
const liesBeneath = ({ style, children }: Element): boolean =>
  Number(style.base['z-index'] ?? 0) < 0 || children.some(liesBeneath);

/** What is known while a page is put together. */
interface Known extends PageInput {
  /** Ids of its elements. */
  readonly ids: ReadonlySet<string>;
}

function noteIds({ attributes, children }: ReadElement, ids: Set<string>): void {
  if (attributes.id) ids.add(attributes.id);
  for (const child of children) if (typeof child !== 'string') noteIds(child, ids);
}

/** Attributes that name others for other reasons than to open them. */
const REFERS =
  /^(id|class|style|for|form|list|headers|name|value|aria-(labelledby|describedby|details|errormessage|owns|flowto)|data-parent|data-bs-parent)$/;

/** What an element says that it opens, chooses or turns. */
function controlsOf({ attributes }: ReadElement, ids: ReadonlySet<string>): Element['controls'] | null {
  const named = new Set<string>();
  let turn: string | undefined;
  for (const [name, value] of Object.entries(attributes)) {
    if (REFERS.test(name)) continue;
    if (
      name === 'aria-controls' ||
      name === 'href' ||
      name === 'popovertarget' ||
      name === 'commandfor' ||
      name.startsWith('data-')
    )
      for (const word of value.length > 1000 ? [] : value.split(/\s+/)) {
        const id = word.replace(/^#/, '');
        if (ids.has(id) && (word.startsWith('#') || name !== 'href')) named.add(id);
      }
    // Settings are written in one value: `{target: '#menu'}`.
    if (name.startsWith('data-') && value.length < 1000)
      for (const [, id] of value.matchAll(/['":(]\s*#([\w-]+)/g)) if (ids.has(id)) named.add(id);
    if (name.startsWith('data-') && TURNS.test(value) && (TURNING.test(name) || !/^\d/.test(value)))
      turn = value;
  }
  return named.size ? { ids: [...named].slice(0, 20), ...(turn === undefined ? {} : { turn }) } : null;
}

const TURNS = /^(next|prev(ious)?|\d{1,3})$/i;
const TURNING = /slide|step|go|to|index|turn/;

function toElement(input: Known, given: ReadElement): Element {
  const read = isTofu(given, input) ? { ...given, children: [] } : given;
  const attributes = keptAttributes(read);
  const icon = iconOf(read, input);
  const { before, after, ...rest } = styleOf(read, input);
  let style: ElementStyle = {
    ...rest,
    ...(before && icon?.stands !== 'before' ? { before: withoutTofu(before, read, input) } : {}),
    ...(after ? { after: withoutTofu(after, read, input) } : {}),
  };
  const key = `${input.screenKey}:${read.path}`;
  const source = {
    file: input.file,
    path: read.path,
    ...(read.attributes.id ? { id: read.attributes.id } : {}),
  };
  const controls = controlsOf(read, input.ids);
  const common = {
    key,
    tag: read.tag,
    box: read.box,
    style,
    source,
    ...(attributes ? { attributes } : {}),
    ...(read.attributes.role ? { role: read.attributes.role } : {}),
    ...(classesOf(read) ? { classes: classesOf(read) } : {}),
    ...(controls ? { controls } : {}),
    ...(read.isHidden ? { hidden: true } : {}),
  };
  if (read.tag === 'svg')
    return {
      ...common,
      kind: 'vector',
      name: nameOf(read, 'drawing'),
      vector: withOwnIds(toVector(read)),
      children: [],
    };
  if (read.tag === 'img') {
    const asset = input.asset(read.attributes.src ?? '');
    return {
      ...common,
      kind: 'image',
      name: nameOf(read, read.attributes.alt || 'picture'),
      ...(asset ? { asset } : {}),
      children: [],
    };
  }
  if (read.tag === 'source') {
    const asset = input.asset(read.attributes.srcset ?? '');
    return { ...common, kind: 'image', name: 'candidate', ...(asset ? { asset } : {}), children: [] };
  }
  const [only] = read.children;
  const drawn = (outline: GlyphOutline, name: string, over?: Over): Element =>
    iconVector(outline, `${key}~icon`, { ...source, path: `${read.path}~icon` }, name, read, over);
  if (icon?.stands === 'instead') {
    const { base, over } = iconHolder(withCutOutColor(style.base), icon.outline);
    return {
      ...common,
      style: { ...style, base },
      kind: 'box',
      name: nameOf(read, icon.name),
      children: [drawn(icon.outline, icon.name, over)],
    };
  }
  if (read.children.length === 1 && typeof only === 'string' && !CONTROLS.has(read.tag)) {
    return { ...common, kind: 'text', name: nameOf(read, only.trim()), text: only, children: [] };
  }
  // What a field holds is its text, whatever an attribute says.
  if (read.tag === 'textarea') {
    const text = read.children.filter((child) => typeof child === 'string').join('');
    const { value: _, ...others } = attributes ?? {};
    const { attributes: __, ...field } = common;
    return {
      ...field,
      ...(Object.keys(others).length ? { attributes: others } : {}),
      kind: 'control',
      name: nameOf(read, text.trim() || 'field'),
      ...(text ? { text } : {}),
      children: [],
    };
  }
  let runs = 0;
  const children = read.children.map((child): Element => {
    if (typeof child !== 'string') return toElement(input, child);
    const path = `${read.path}~${runs++}`;
    return {
      key: `${input.screenKey}:${path}`,
      kind: 'text',
      name: child.trim() || 'space',
      box: read.box,
      style: { base: {} },
      text: child,
      children: [],
      source: { file: input.file, path },
    };
  });
  if (icon) {
    const { base, over } = children.length
      ? { base: style.base, over: undefined }
      : iconHolder(withCutOutColor(style.base), icon.outline);
    style = { ...style, base };
    children.unshift(drawn(icon.outline, icon.name, over));
  }
  const kind: ElementKind = CONTROLS.has(read.tag) ? 'control' : 'box';
  const element: Element = { ...common, style, kind, name: '', children };
  return {
    ...element,
    name: nameOf(
      read,
      kind === 'control'
        ? (read.attributes.placeholder ?? read.attributes.name ?? read.tag)
        : textOf(element).slice(0, 60) || read.tag,
    ),
  };
}

/** Whether an element is nothing but a sign of an icon font that did not come along. */
function isTofu({ children, iconFont }: ReadElement, { glyphs }: PageInput): boolean {
  const [only] = children;
  if (!glyphs || !iconFont || children.length !== 1 || typeof only !== 'string') return false;
  const sign = only.trim();
  return isSign(sign) && !glyphs.find(iconFont.family, iconFont.weight, sign);
}

/** What stands beside an element, without a sign of an icon font that did not come along: browsers draw an empty box for it. */
function withoutTofu(
  css: Declarations,
  { base, iconFont }: ReadElement,
  { glyphs }: PageInput,
): Declarations {
  const sign = /^"(.+)"$/u.exec(css.content ?? '')?.[1];
  if (!glyphs || !sign || !isSign(sign)) return css;
  const family = css['font-family'] ?? iconFont?.family ?? base['font-family'] ?? '';
  const weight = css['font-weight'] ?? iconFont?.weight ?? base['font-weight'] ?? '';
  return glyphs.find(family, weight, sign) ? css : { ...css, content: '""' };
}

interface Icon {
  readonly outline: GlyphOutline;
  readonly name: string;
  /** In place of the element's text, or before what else is in it. */
  readonly stands: 'instead' | 'before';
}

/** The icon that an element shows by writing it in an icon font, as its text or as what stands before it. */
function iconOf(read: ReadElement, input: PageInput): Icon | null {
  const { glyphs } = input;
  // What can hold nothing keeps its sign beside it.
  if (!glyphs || !read.iconFont || VOID_TAGS.has(read.tag)) return null;
  const { family, weight, content } = read.iconFont;
  const [only] = read.children;
  const isText = content === null;
  // What is placed apart from the flow stands where it says, and not before what else is there.
  if (!isText && read.children.length && /^(absolute|fixed)$/.test(read.before?.position ?? '')) return null;
  const text = isText ? (typeof only === 'string' && read.children.length === 1 ? only.trim() : '') : content;
  const outline = text ? glyphs.find(family, weight, text) : null;
  if (!outline) return null;
  const name =
    isText && /^[a-z0-9_ ]+$/i.test(text) ? text.replace(/_/g, ' ') : iconName(read.attributes.class ?? '');
  return { outline, name, stands: isText ? 'instead' : 'before' };
}

const nameOf = (read: ReadElement, otherwise: string): string =>
  (read.attributes['aria-label'] ?? read.attributes.title ?? otherwise)
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, 80) || read.tag;

/** Attributes that carry meaning into the emitted app; all others only served the page they came from. */
function keptAttributes(read: ReadElement): Record<string, string> | null {
  const kept = Object.entries(read.attributes).filter(
    // An id that says nothing is none.
    ([name, value]) =>
      name !== CALLS_ATTRIBUTE &&
      attributeRule(read.tag, name) &&
      !(name === 'id' && (read.tag === 'div' || !value)),
  );
  return kept.length ? Object.fromEntries(kept) : null;
}

function styleOf(read: ReadElement, input: PageInput): ElementStyle {
  const named = (css: Declarations): Declarations =>
    Object.values(css).some((value) => value.includes('url(')) ? withAssetNames(css, input) : css;
  const style: Record<string, unknown> = { base: named(read.base) };
  for (const part of ['hover', 'focus', 'before', 'after', 'placeholder'] as const)
    if (read[part]) style[part] = named(read[part]);
  const parts = Object.entries(read.parts ?? {}).map(([part, css]) => [part, named(css)] as const);
  if (read.open || parts.length)
    style.states = { ...(read.open ? { [OPEN_STATE]: read.open } : {}), ...Object.fromEntries(parts) };
  if (read.at)
    style.at = Object.fromEntries(Object.entries(read.at).map(([width, css]) => [width, named(css)]));
  return style as unknown as ElementStyle;
}

/** Pictures in styles are named by their hash, as all pictures are. */
function withAssetNames(css: Declarations, input: PageInput): Declarations {
  const rename = (value: string): string =>
    value.replace(/url\(\s*["']?((?:[^"')\\]|\\.)*)["']?\s*\)/g, (whole, address: string) => {
      if (address.startsWith('#')) return whole;
      const hash = input.asset(address);
      return hash ? `url("asset:${hash}")` : 'none';
    });
  return Object.fromEntries(
    Object.entries(css).map(([name, value]) => [name, value.includes('url(') ? rename(value) : value]),
  );
}

const DRAWN: ReadonlySet<string> = new Set(VECTOR_ATTRIBUTES);

/** An inline drawing; its style is in its declarations, and what only the page had use for goes. */
function toVector(read: ReadElement): VectorNode {
  const convert = (node: ReadElement, parent: ReadElement | null): VectorNode => {
    const attributes: Record<string, string> = {};
    for (const [name, value] of Object.entries(node.attributes)) {
      // A name that is none is left to the gate, which says so.
      if (
        name === 'id' ||
        name === 'href' ||
        name === 'xlink:href' ||
        DRAWN.has(name) ||
        !isAttributeName(name)
      ) {
        if (parent || name !== 'role') attributes[name === 'xlink:href' ? 'href' : name] = value;
      }
    }
    // The root's declarations go into its class like those of any element.
    if (parent)
      for (const [property, value] of Object.entries(node.base))
        if (isVectorStyle(property) && !isInherited(property, value, node, parent))
          attributes[property] = value;
    const text = node.children.filter((child) => typeof child === 'string').join('');
    return {
      tag: node.tag,
      attributes,
      children: node.children.flatMap((child) =>
        typeof child === 'string' || !VECTOR_TAGS.has(child.tag) ? [] : [convert(child, node)],
      ),
      ...(text.trim() ? { text } : {}),
    };
  };
  return convert(read, null);
}

/** Whether a part of a drawing has from what it stands in what its style says, so that it need not say it again. */
const isInherited = (property: string, value: string, node: ReadElement, parent: ReadElement): boolean =>
  isInheritedVectorStyle(property) &&
  parent.base[property] === value &&
  (node.attributes[property] === undefined || node.attributes[property] === value);
