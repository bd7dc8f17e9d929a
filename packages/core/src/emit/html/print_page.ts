import { isAttributeName } from '../../vocabulary/attributes.ts';
import { VOID_TAGS } from '../../vocabulary/tags.ts';
import type { EmittedIcon } from '../form/icons.ts';
import type { EmittedArrival, EmittedLink, MarkupElement, MarkupNode, StyleRule } from '../form/markup.ts';
import { isElement, isText, type MarkupText } from '../form/markup.ts';
import type { Value } from '../../expression/expression.ts';
import { shown, valueOf } from '../../expression/value_of.ts';
import type { ClassUse } from '../form/styles/places.ts';
import { classInSheet } from '../styles/class_names.ts';
import { escapeText, escapeValue } from '../quoting.ts';
import { arrivalText, type PageScript } from './page_script.ts';
import type { PageLink } from './pages.ts';

/** What the markup of a page needs to know around it. */
export interface PageContext {
  readonly linkTo: (address: string) => PageLink;
  readonly assetUrl: (hash: string) => string;
  readonly classes: ReadonlyMap<string, readonly ClassUse[]>;
  readonly ruleOf: (className: string) => StyleRule | undefined;
  /** Drawings that stand in the one file of all of them, and where that lies. */
  readonly iconOf: (node: MarkupElement) => EmittedIcon | null;
  readonly icons: string;
  readonly script: PageScript;
  /** What the variables are when the app opens, by their names. */
  readonly variables: Readonly<Record<string, Value>>;
  /** The ids of parts that are open at first. */
  readonly open: ReadonlySet<string>;
}

/** The ids of parts in an element that are open at first. */
export function openParts(root: MarkupElement, found = new Set<string>()): ReadonlySet<string> {
  const { id } = root.attributes;
  if (root.part?.isOpen === true && typeof id === 'string') found.add(id);
  for (const child of root.children) if (isElement(child)) openParts(child, found);
  return found;
}

/** A line of a page, with the design element that it writes. */
export interface PageLine {
  readonly text: string;
  readonly key: string | null;
}

/** Lines are at most this long, where they can be parted. */
const WIDTH = 100;

/**
 * The lines of an element and what stands in it. Breaks between lines stand only where they are not seen: within tags, between
 * the parts of a flexible box or grid, between blocks, and in drawings.
 */
export function printMarkup(node: MarkupElement, depth: number, context: PageContext): PageLine[] {
  const indent = '  '.repeat(depth);
  const lines = (text: string): PageLine[] =>
    text.split('\n').map((one, i) => ({ text: (i ? '' : indent) + one, key: node.key }));
  const { name, attributes } = openingOf(node, context);
  const opening = (end: string): PageLine[] => {
    const flat = [`<${name}`, ...attributes].join(' ');
    if (indent.length + flat.length + end.length <= WIDTH || attributes.length < 2) return lines(flat + end);
    return [
      ...lines(`<${name}`),
      ...attributes.flatMap((attribute) => lines(`  ${attribute}`)),
      ...lines(`${end.startsWith('>') ? '' : ' '}${end}`.trim()),
    ];
  };
  if (isClosed(node)) return opening(' />');
  const children = context.iconOf(node) ? [] : node.children;
  if (children.length > 0 && isApart(node, children, context))
    return [
      ...opening('>'),
      ...children.flatMap((child) => printMarkup(child as MarkupElement, depth + 1, context)),
      ...lines(`</${name}>`),
    ];
  return opening(`>${contentOf(node, context)}</${name}>`);
}

function inLine(node: MarkupNode, context: PageContext): string {
  if (isText(node)) return textOf(node, context);
  if (!isElement(node)) return '';
  const { name, attributes } = openingOf(node, context);
  const open = [`<${name}`, ...attributes].join(' ');
  if (isClosed(node)) return `${open} />`;
  return `${open}>${contentOf(node, context)}</${name}>`;
}

/** A text as it is at first; one that follows what is worked out can be told by its name. */
function textOf({ text, given }: MarkupText, { script, variables }: PageContext): string {
  if (!given) return escapeText(text);
  const name = script.says(given, null);
  return `<span data-says="${escapeValue(name)}">${escapeText(shown(valueOf(given, { variables })))}</span>`;
}

/** Whether an element closes itself: what can hold nothing, and parts of drawings that hold nothing. */
const isClosed = ({ tag, children }: MarkupElement): boolean =>
  VOID_TAGS.has(tag) || (SHAPES.has(tag) && !children.length);

const SHAPES = new Set([
  'path',
  'rect',
  'circle',
  'ellipse',
  'line',
  'polyline',
  'polygon',
  'stop',
  'use',
  'image',
]);

function contentOf(node: MarkupElement, context: PageContext): string {
  const icon = context.iconOf(node);
  if (icon) return `<use href="${escapeValue(`${context.icons}#${icon.name}`)}" />`;
  if (node.tag === 'textarea') return escapeText(String(node.attributes.value ?? ''));
  return node.children.map((child) => inLine(child, context)).join('');
}

const BLOCKS = new Set(
  'address article aside blockquote body dd details dialog div dl dt fieldset figcaption figure footer form h1 h2 h3 h4 h5 h6 header hr li main nav ol p section summary table tbody td tfoot th thead tr ul'.split(
    ' ',
  ),
);

/** Whether spaces between the parts of an element are not seen. */
function isApart(node: MarkupElement, children: readonly MarkupNode[], { ruleOf }: PageContext): boolean {
  if (!children.every(isElement)) return false;
  const says = (of: MarkupElement, property: string): string[] => {
    const rule = of.className ? ruleOf(of.className) : undefined;
    if (!rule) return [];
    return [rule.base, ...Object.values(rule.at), ...Object.values(rule.from)].flatMap(
      (css) => css[property] ?? [],
    );
  };
  if (says(node, 'white-space-collapse').length || node.tag === 'pre') return false;
  if (TAGS_OF_DRAWINGS.has(node.tag))
    return !children.some((child) => isElement(child) && child.tag === 'tspan');
  const shown = says(node, 'display').filter((value) => value !== 'none');
  if (shown.length > 0 && shown.every((value) => /flex|grid/.test(value))) return true;
  return (
    !shown.some((value) => /flex|grid/.test(value)) &&
    children.every(
      (child) =>
        isElement(child) &&
        BLOCKS.has(child.tag) &&
        !says(child, 'display').some((value) => value.startsWith('inline')),
    )
  );
}

const TAGS_OF_DRAWINGS = new Set([
  'svg',
  'g',
  'defs',
  'symbol',
  'clipPath',
  'mask',
  'linearGradient',
  'radialGradient',
]);

/** The tag and its attributes as they are written, with all that an element does by itself. */
function openingOf(
  node: MarkupElement,
  context: PageContext,
): { readonly name: string; readonly attributes: readonly string[] } {
  const all = new Map<string, string | true>();
  for (const [name, value] of linkAttributes(node, context)) all.set(name, value);
  if (node.className) {
    const uses = context.classes.get(node.className) ?? [{ from: 'own', name: node.className }];
    all.set('class', uses.map(({ name }) => classInSheet(name)).join(' '));
  }
  for (const [name, value] of Object.entries(node.attributes)) {
    const isContent = name === 'value' && (node.tag === 'textarea' || node.tag === 'select');
    if (!isContent && !all.has(name) && isAttributeName(name)) all.set(name, value);
  }
  if (node.asset) all.set(node.tag === 'source' ? 'srcset' : 'src', context.assetUrl(node.asset));
  return {
    name: node.tag,
    attributes: [...all].map(([name, value]) => (value === true ? name : `${name}="${escapeValue(value)}"`)),
  };
}

function linkAttributes(node: MarkupElement, context: PageContext): [string, string | true][] {
  const { link, form, acts = [] } = node;
  const said: [string, string | true][] = [...partAttributes(node)];
  if (node.when) {
    said.push(['data-shown', context.script.shows(node.when, node.key)]);
    if (!valueOf(node.when, { variables: context.variables })) said.push(['hidden', true]);
  }
  const unusable = node.slots?.['@disabled'];
  if (unusable?.kind === 'not') {
    said.push(['data-enabled', context.script.enables(unusable.of, node.key)]);
    if (!valueOf(unusable.of, { variables: context.variables })) said.push(['disabled', true]);
  }
  const isScripted =
    link !== undefined &&
    form !== 'anchor' &&
    !(form === 'button' && ['back', 'drawer', 'disclose'].includes(link.kind));
  if (link && !isScripted) said.push(...plainLink(link, context));
  const all = isScripted ? [...acts, { on: 'press' as const, ways: [{ steps: [link] }] }] : acts;
  if (all.length) {
    const name = context.script.act(node, all, context);
    if (name !== null) said.push(['data-act', name]);
  }
  const isPressed = isScripted || acts.some((act) => act.on === 'press');
  if (form === 'other' && isPressed) said.push(['role', 'link'], ['tabindex', '0']);
  return said;
}

/** A link that the browser follows by itself, or a button that goes back. */
function plainLink(link: EmittedLink, context: PageContext): [string, string | true][] {
  switch (link.kind) {
    case 'external':
      return [
        ['href', link.href],
        ['rel', 'noreferrer'],
      ];
    case 'file':
      return [
        ['href', context.assetUrl(link.asset)],
        ['download', link.name],
      ];
    case 'go': {
      const { href, keeps } = context.linkTo(link.to);
      return [
        ['href', href],
        ...(keeps.length ? [['data-keeps', keeps.join(' ')] as [string, string]] : []),
        ...arrivalAttribute(link.arrival),
      ];
    }
    case 'back':
      return [['data-back', context.linkTo(link.fallback).href], ...arrivalAttribute(link.arrival)];
    case 'drawer':
      return [];
    case 'disclose': {
      const isShown = link.choice?.first === link.id;
      return [
        ['data-discloses', link.does],
        ['aria-controls', link.id],
        link.choice
          ? ['aria-current', String(isShown)]
          : ['aria-expanded', String(context.open.has(link.id))],
      ];
    }
  }
}

/** What says of a part that it is closed, how it closes, and of which it is one. */
function partAttributes({ part }: MarkupElement): [string, string | true][] {
  if (!part) return [];
  if (part.isNarrow)
    return [
      ['data-narrow', true],
      ['data-leaves', 'menu'],
    ];
  const closed: [string, true][] = part.isOpen === false ? [['hidden', true]] : [];
  if (part.choice) return [...closed, ['data-among', part.choice.name]];
  return part.kind === 'menu' || part.kind === 'dialog' ? [...closed, ['data-leaves', part.kind]] : closed;
}

function arrivalAttribute(arrival: EmittedArrival): [string, string][] {
  const told = arrivalText(arrival);
  return told === null ? [] : [['data-arrival', told]];
}
