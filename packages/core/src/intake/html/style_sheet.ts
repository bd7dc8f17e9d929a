import { HOLDING_PLACE, placeTag } from './kept_places.ts';
import type { IconSource } from './scripted_icons.ts';
import * as csstree from 'css-tree';
import { cleanFontFace } from '../gate.ts';
import { limits } from '../limits.ts';

/** Where a page's references lead. Style sheets come as text; pictures and fonts as addresses that may be shown. */
export interface PageFiles {
  readonly styleSheet: (
    reference: string,
    from: string,
  ) => { readonly text: string; readonly file: string } | null;
  readonly picture: (reference: string, from: string) => string | null;
  readonly font: (reference: string, from: string) => string | null;
  /** Where a link leads in truth, from the root of the batch; null where it leads where it says. */
  readonly leadsOn?: (reference: string, from: string) => string | null;
  /** The drawing that a script of a library of icons would put in a place, as SVG; null where there is none. */
  readonly icon?: IconSource;
  /** Style sheets that were cleaned before, by their file: pages of a batch share them. */
  readonly cleaned?: Map<string, CleanSheet>;
}

/** One `@font-face` whose file came along. */
export interface FontRule {
  readonly family: string;
  /** `400` or a range, `100 900`. */
  readonly weight: string;
  readonly style: string;
  readonly stretch?: string;
  readonly unicodeRange?: string;
  /** The address that the file is shown under. */
  readonly address: string;
}

export interface Remark {
  readonly code: string;
  readonly text: string;
  /** What was referred to, where it is a picture that is not there. */
  readonly picture?: string;
}

export interface CleanSheet {
  readonly css: string;
  readonly fonts: readonly FontRule[];
  readonly remarks: readonly Remark[];
}

/** An address at which there is nothing, and nothing is asked for. */
const NOTHING = 'data:,';
const IMPORT_DEPTH = 5;

interface Token {
  readonly type: number;
  readonly text: string;
}

function tokensOf(css: string): Token[] {
  const tokens: Token[] = [];
  csstree.tokenize(css, (type, start, end) => void tokens.push({ type, text: css.slice(start, end) }));
  return tokens;
}

/**
 * Only references to what came along stay; imports are taken in, everything else that would load goes. Works on tokens
 * and builds no tree, so that a sheet that is broken in any way takes no longer than a whole one.
 */
export function cleanStyleSheet(css: string, from: string, files: PageFiles, depth = 0): CleanSheet {
  const cacheKey = `${from}\n${css}`;
  const known = files.cleaned?.get(cacheKey);
  if (known) return known;
  if (css.length > limits.sheet) {
    const text = `The style sheet “${from}” has ${css.length} characters and was left out: it may have ${limits.sheet}. Bring in the one that the page is served with.`;
    return { css: '', fonts: [], remarks: [{ code: 'sheet-too-large', text }] };
  }
  const fonts: FontRule[] = [];
  const own: FontRule[] = [];
  const remarks: Remark[] = [];
  /** Imports stand before everything else, so that what they bring does, too. */
  const imported: string[] = [];
  const takeImport = (prelude: string): void => {
    const reference = /["']([^"']+)["']|url\(\s*([^\s"')][^)]*?)\s*\)/i.exec(prelude);
    const href = (reference?.[1] ?? reference?.[2] ?? '').trim();
    const found = depth < IMPORT_DEPTH ? files.styleSheet(href, from) : null;
    if (!found) {
      remarks.push({
        code: 'missing',
        text: `The imported style sheet “${href.slice(0, 120)}” did not come along.`,
      });
      return;
    }
    const inner = cleanStyleSheet(found.text, found.file, files, depth + 1);
    fonts.push(...inner.fonts);
    remarks.push(...inner.remarks);
    const media = prelude
      .slice(reference!.index + reference![0].length)
      .replace(/^[\s)]+|\b(layer|supports)\s*(\([^)]*\))?/gi, ' ')
      .trim();
    imported.push(/^[\w\s():,.>=<-]+$/.test(media) ? `@media ${media}{${inner.css}}` : inner.css);
  };
  const takeFontFace = (block: readonly Token[]): void => {
    const { face, remark } = readFontFace(declarationsIn(block), from, files);
    if (face) own.push(face);
    if (remark) remarks.push(remark);
  };
  const kept: Token[] = [];
  const tokens = tokensOf(css);
  /** Browsers take no import behind a rule: sheets that were bundled often hold such. */
  let hasRules = false;
  for (let i = 0; i < tokens.length; i++) {
    const { type, text } = tokens[i];
    hasRules ||= type === csstree.tokenTypes.LeftCurlyBracket;
    const rule = type === csstree.tokenTypes.AtKeyword ? text.toLowerCase() : '';
    if (rule !== '@import' && rule !== '@font-face') {
      kept.push(tokens[i]);
      continue;
    }
    const end = endOfRule(tokens, i);
    const inside = tokens.slice(i + 1, end);
    if (rule === '@font-face') {
      hasRules = true;
      takeFontFace(inside);
    } else if (!hasRules) takeImport(inside.map((token) => token.text).join(''));
    i = end;
  }
  const { css: safe, remarks: more } = cleanTokens(kept, from, files);
  const faces = [...new Set(own.map(fontFaceCss))].join('');
  const made: CleanSheet = {
    css: (imported.join('') + faces + safe).replace(/<\/style/gi, ''),
    fonts: [...fonts, ...own],
    remarks: [...remarks, ...summedUp(more, from)],
  };
  files.cleaned?.set(cacheKey, made);
  return made;
}

/** More pictures than these that one sheet misses are one thing to say: a sheet of all icons is used by each page. */
const MOST_MISSED = 3;

function summedUp(remarks: readonly Remark[], from: string): readonly Remark[] {
  const missed = [...new Set(remarks.flatMap(({ picture }) => picture ?? []))];
  if (missed.length <= MOST_MISSED) return remarks;
  const named = missed.slice(0, MOST_MISSED - 1).map((one) => `“${one}”`);
  const text = `${missed.length} pictures that “${from}” shows are not there: ${named.join(', ')} and ${missed.length - named.length} more. Bring the files in with the page.`;
  return [...remarks.filter(({ picture }) => picture === undefined), { code: 'missing', text }];
}

/** Where a rule that begins at a token ends: at its semicolon or at the brace that closes its block. */
function endOfRule(tokens: readonly Token[], start: number): number {
  const { LeftCurlyBracket, RightCurlyBracket, Semicolon } = csstree.tokenTypes;
  let depth = 0;
  for (let i = start + 1; i < tokens.length; i++) {
    const { type } = tokens[i];
    if (type === Semicolon && depth === 0) return i;
    if (type === LeftCurlyBracket) depth++;
    else if (type === RightCurlyBracket && --depth <= 0) return i;
  }
  return tokens.length;
}

/** The declarations of a block, by their names; the last of a name counts, as in a browser. */
function declarationsIn(block: readonly Token[]): Map<string, string> {
  const { LeftCurlyBracket, RightCurlyBracket, Semicolon, Comment } = csstree.tokenTypes;
  const declared = new Map<string, string>();
  let declaration = '';
  const flush = (): void => {
    const colon = declaration.indexOf(':');
    if (colon > 0)
      declared.set(declaration.slice(0, colon).trim().toLowerCase(), declaration.slice(colon + 1).trim());
    declaration = '';
  };
  for (const { type, text } of block) {
    if (type === Semicolon || type === LeftCurlyBracket || type === RightCurlyBracket) flush();
    else if (type !== Comment) declaration += text;
  }
  flush();
  return declared;
}

/** The same for the declarations of a `style` attribute. */
export function cleanDeclarations(
  css: string,
  from: string,
  files: PageFiles,
): { css: string; remarks: readonly Remark[] } {
  return /url\(|image-set|\\/i.test(css) ? cleanTokens(tokensOf(css), from, files) : { css, remarks: [] };
}

/**
 * Leads every reference to what came along, or nowhere: nothing that a browser would read as a reference is missed,
 * whatever the rule around it.
 */
function cleanTokens(
  tokens: readonly Token[],
  from: string,
  files: PageFiles,
): { css: string; remarks: readonly Remark[] } {
  const remarks: Remark[] = [];
  const parts: string[] = [];
  let before = '';
  /** Functions that are open; a string within some of them is a reference. */
  const open: string[] = [];
  const replace = (reference: string): string => {
    const { address, remark } = pictureAddress(reference, from, files);
    if (remark) remarks.push(remark);
    return address;
  };
  for (const token of tokens) {
    const { type } = token;
    // A name that hides behind escapes has no honest use.
    const text = token.text.replace(/^[^"']*\\[^"']*\($/, 'none(');
    const {
      Comment,
      Url,
      Function: Call,
      RightParenthesis,
      LeftParenthesis,
      String: Quoted,
      BadUrl,
      AtKeyword,
      Ident,
    } = csstree.tokenTypes;
    if (type === Url) parts.push(`url("${replace(csstree.url.decode(text))}")`);
    else if (type === BadUrl) parts.push('none');
    // An empty comment still keeps apart what stands on either side of it.
    else if (type === Comment) parts.push('/**/');
    // Imports are taken in by now; what is left of the word stands where it means nothing, and shall stay so.
    else if (type === AtKeyword && /^@(import$|.*\\)/i.test(text)) parts.push('@dropped');
    else {
      if (type === Call) open.push(text.slice(0, -1).toLowerCase());
      else if (type === LeftParenthesis) open.push('');
      else if (type === RightParenthesis) open.pop();
      const within = open.at(-1) ?? '';
      parts.push(
        type === Quoted && /^(url|src|image|(-webkit-)?image-set)$/.test(within)
          ? `"${replace(csstree.string.decode(text))}"`
          : // A tag that stands by itself, and no class, attribute or state that is called the same.
            type === Ident && HOLDING_PLACE.has(text.toLowerCase()) && !/[.:[=]$/.test(before)
            ? placeTag(text.toLowerCase())
            : text,
      );
    }
    before = text;
  }
  return { css: parts.join(''), remarks };
}

/** The address that a picture is shown under, and what is to be said where there is none. */
export function pictureAddress(
  reference: string,
  from: string,
  files: PageFiles,
): { address: string; remark?: Remark } {
  if (reference.startsWith('#') || reference === NOTHING) return { address: reference };
  const address = files.picture(reference, from);
  if (address) return { address };
  const where = /^(https?:)?\/\//i.test(reference)
    ? 'is somewhere else and is not fetched'
    : 'did not come along';
  const picture = reference.slice(0, 120);
  return {
    address: NOTHING,
    remark: {
      code: 'missing',
      text: `The picture “${picture}” ${where}; bring the file in with the page.`,
      picture,
    },
  };
}

/** Font files that a browser can show, best first. */
const FONT_FILE = /\.(woff2|woff|ttf|otf)([?#].*)?$/i;

function readFontFace(
  declared: ReadonlyMap<string, string>,
  from: string,
  files: PageFiles,
): { face?: FontRule; remark?: Remark } {
  const family = unquote(declared.get('font-family') ?? '');
  if (!family) return {};
  const references = [...(declared.get('src') ?? '').matchAll(/url\(\s*["']?([^"')]+)["']?\s*\)/g)].map(
    ([, reference]) => reference,
  );
  for (const extension of ['woff2', 'woff', 'ttf', 'otf'])
    for (const reference of references) {
      if (FONT_FILE.exec(reference)?.[1].toLowerCase() !== extension && !reference.startsWith('data:'))
        continue;
      const address = files.font(reference, from);
      if (!address) continue;
      const face = cleanFontFace({
        family,
        weight: numericWeight(declared.get('font-weight') ?? '400'),
        style: (declared.get('font-style') ?? 'normal').toLowerCase(),
        stretch: declared.get('font-stretch')?.toLowerCase(),
        unicodeRange: declared.get('unicode-range'),
        address,
      });
      if (face) return { face };
      const text = `The font “${family.slice(0, 120)}” cannot be taken in under this name; the next one in each list is used. Call it by letters, digits and spaces in its style sheet, and bring that in again.`;
      return { remark: { code: 'font', text } };
    }
  return {
    remark: {
      code: 'font',
      text: `The file of the font “${family}” did not come along; the next one in each list is used. Bring it in with the page.`,
    },
  };
}

const numericWeight = (weight: string): string =>
  weight
    .toLowerCase()
    .replace(/\bnormal\b/g, '400')
    .replace(/\bbold\b/g, '700')
    .trim();

export const unquote = (text: string): string => text.trim().replace(/^["']|["']$/g, '');

/** The rule that defines a face, as one line. */
export function fontFaceCss(face: FontRule): string {
  const rest =
    (face.stretch ? `font-stretch:${face.stretch};` : '') +
    (face.unicodeRange ? `unicode-range:${face.unicodeRange};` : '');
  return `@font-face{font-family:"${face.family.replace(/["\\<]/g, '')}";font-weight:${face.weight};font-style:${face.style};${rest}src:url("${face.address}")}`;
}

/** The first candidate of a list of pictures for resolutions or widths. */
export const firstOfSrcset = (srcset: string): string => srcset.trim().split(/\s+|,\s/)[0];
