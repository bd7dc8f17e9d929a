import { isAttributeName } from '../../vocabulary/attributes.ts';
import { VOID_TAGS } from '../../vocabulary/tags.ts';
import {
  type EmittedScreen,
  isElement,
  isText,
  type MarkupElement,
  type MarkupNode,
} from '../form/markup.ts';
import { MESSAGE_TAG } from '../form/live/forms.ts';
import { baseCss, closedCss } from '../styles/base_css.ts';
import { printRules } from '../styles/print_css.ts';
import { defaultPlan } from '../../intake/html/reading.ts';
import { escapeText, escapeValue } from '../quoting.ts';
import { facesUsedIn, fontCss } from '../styles/font_css.ts';
import type { Token } from '../../model/app.ts';
import type { FontFace, Screen } from '../../model/design.ts';
import { tokenCss } from '../../tokens/values.ts';

/**
 * An emitted screen as one page without scripts: what thumbnails and stages show in their frames. Elements carry
 * their key in `data-key`; links and buttons are there but lead nowhere.
 * @param windowHeight how high in px the window counts as where the picture is higher than it (`windowHeightOf`); null for its own
 */
export function printHtml(
  screen: EmittedScreen,
  assetUrl: (hash: string) => string,
  fonts: readonly FontFace[] = [],
  tokens: Readonly<Record<string, Token>> = {},
  windowHeight: number | null = null,
): string {
  const { text } = printRules(
    screen.rules,
    (name) => `.${name}`,
    (address) => assetUrl(hashInAddress(address)),
  );
  const css =
    windowHeight === null
      ? text
      : text.replace(WINDOW_HEIGHTS, (_, share: string) => `${(Number(share) * windowHeight) / 100}px`);
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><style>${fontCss(facesUsedIn([screen], fonts), assetUrl)}${tokenCss(tokens).replace(/<\//g, '<\\/')}${baseCss}${closedCss}${css.replace(/<\//g, '<\\/')}</style></head><body>${printNode(screen.root, assetUrl)}</body></html>`;
}

/**
 * The height in px of the window that a picture of a whole screen counts as: of a page, that of the window that it was read in;
 * null for a drawing, which is as high as its window.
 */
export const windowHeightOf = ({ source }: Pick<Screen, 'source'>): number | null =>
  /\.x?html?$/i.test(source.file) ? defaultPlan.height : null;

const WINDOW_HEIGHTS = /(?<=[\s:(,+*/-])(\d+(?:\.\d+)?|\.\d+)[dsl]?vh\b/g;

/** Pictures in style sheets are named by their hash. */
export const hashInAddress = (address: string): string => /[0-9a-f]{64}/.exec(address)?.[0] ?? '';

function printNode(node: MarkupNode, assetUrl: (hash: string) => string): string {
  if (isText(node)) return escapeText(node.text);
  if (!isElement(node) || node.tag === MESSAGE_TAG) return '';
  if (node.each) {
    const { each, ...one } = node;
    return each.firsts.map((text) => printNode({ ...one, children: [{ text }] }, assetUrl)).join('');
  }
  const attributes = attributesOf(node, assetUrl);
  const open = `<${node.tag}${attributes}>`;
  if (VOID_TAGS.has(node.tag)) return open;
  const text = node.tag === 'textarea' ? escapeText(String(node.attributes.value ?? '')) : '';
  return `${open}${text}${node.children.map((child) => printNode(child, assetUrl)).join('')}</${node.tag}>`;
}

function attributesOf(node: MarkupElement, assetUrl: (hash: string) => string): string {
  const all: Record<string, string | true> = { ...node.attributes };
  if (node.key) all['data-key'] = node.key;
  if (node.part?.isOpen === false && !node.part.isNarrow) all.hidden = true;
  if (node.part?.choice) all['data-among'] = node.part.choice.name;
  if (node.className) all.class = node.className;
  if (node.asset) all[node.tag === 'source' ? 'srcset' : 'src'] = assetUrl(node.asset);
  if (node.tag === 'textarea' || node.tag === 'select') delete all.value;
  return Object.entries(all)
    .filter(([name]) => isAttributeName(name))
    .map(([name, value]) => (value === true ? ` ${name}` : ` ${name}="${escapeValue(value)}"`))
    .join('');
}
