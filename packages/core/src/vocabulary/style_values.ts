import { isStyledPart } from './styled_parts.ts';
import { listItems } from './list_items.ts';
import definitions from 'css-tree/dist/data';
import { Lexer } from 'css-tree/lexer';
import { tokenize, tokenTypes } from 'css-tree/tokenizer';
import { string, url } from 'css-tree/utils';

/**
 * Which CSS a design may hold: properties that CSS has, and values that their grammar allows, read by css-tree's own
 * dictionary. A value can name a picture of the project or a part of its own drawing, and nothing else can be fetched.
 */

/** Longest value of a declaration, in UTF-16 units: long gradients and clip paths have a few thousand. */
const LONGEST = 20_000;
/** From here on a matcher may stop before it is through, in UTF-16 units. */
const LONG_LIST = 1_000;
const MOST_KNOWN = 50_000;
const known = new Map<string, string | null>();

/** The dictionary alone: every window loads this, and the parser and the printer are as large again. */
const dictionary = new Lexer({ generic: true, ...definitions });

const REFERENCE = /^(asset:[0-9a-f]{64}|#[\w.~%:-]{1,200})$/;

/** Properties that would run or fetch where a browser still knows them, or that are no style of an element. */
const REFUSED = new Set(['behavior', '-moz-binding', 'src', 'all']);

/** What browsers draw with and the dictionary does not have; their values are only held to be plain. */
const BEYOND: ReadonlySet<string> = new Set(
  '-webkit-box-align -webkit-box-decoration-break -webkit-box-direction -webkit-box-flex -webkit-box-ordinal-group -webkit-box-orient -webkit-box-pack -webkit-line-break -webkit-text-orientation -webkit-writing-mode border-shape color-interpolation color-rendering row-rule-color row-rule-style row-rule-width text-fit'.split(
    ' ',
  ),
);

/** Whether CSS has a property of this name. */
export const isStyleProperty = (name: string): boolean =>
  /^-?[a-z][a-z-]*$/.test(name) &&
  !REFUSED.has(name) &&
  (BEYOND.has(name) || Object.hasOwn(dictionary.properties, name));

/** What is wrong with a declaration; null when nothing is. Kept, since screens say the same over and over. */
export function styleProblem(property: string, value: string): string | null {
  const key = `${property}\n${value}`;
  const found = known.get(key);
  if (found !== undefined) return found;
  if (known.size >= MOST_KNOWN) known.clear();
  const problem = findStyleProblem(property, value);
  known.set(key, problem);
  return problem;
}

function findStyleProblem(property: string, value: string): string | null {
  if (!isStyleProperty(property)) return `“${property.slice(0, 40)}” is no property of a style`;
  if (!value.trim()) return `${property} has no value`;
  if (value.length > LONGEST) return `the value of ${property} is longer than ${LONGEST} characters`;
  const unsafe = unsafePart(value);
  if (unsafe !== null) return `the value of ${property} holds “${unsafe.slice(0, 40)}”`;
  // A variable can stand for any part of a value, so there is no grammar to hold it to.
  if (/\bvar\(/i.test(value) || BEYOND.has(property)) return null;
  // Names of assets hold a colon, which a grammar of addresses does not mind but one of bare words does.
  return isValueOf(property, value) ? null : `“${value.slice(0, 60)}” is no value of ${property}`;
}

/** The matcher gives up on long lists (a hundred shadows in a row), so those are held to the grammar item by item. */
function isValueOf(property: string, value: string): boolean {
  const isOne = (text: string): boolean => !dictionary.matchProperty(property, text).error;
  return (value.length > LONG_LIST && listItems(value).every(isOne)) || isOne(value);
}

/** The first token that would leave its declaration, hide something, or fetch; null when there is none. */
export function unsafePart(value: string): string | null {
  const t = tokenTypes;
  const open: string[] = [];
  let unsafe: string | null = null;
  tokenize(value, (type, start, end) => {
    if (unsafe !== null) return;
    const text = value.slice(start, end);
    const refuse = (): void => void (unsafe = text);
    switch (type) {
      case t.Semicolon:
      case t.LeftCurlyBracket:
      case t.RightCurlyBracket:
      case t.AtKeyword:
      case t.BadString:
      case t.BadUrl:
      case t.CDO:
      case t.CDC:
      case t.Comment:
        return refuse();
      case t.Delim:
        // `!important`, and what no value has.
        return '!<\\@`$'.includes(text) ? refuse() : undefined;
      case t.Url:
        return REFERENCE.test(url.decode(text)) ? undefined : refuse();
      case t.Function: {
        const name = text.slice(0, -1).toLowerCase();
        open.push(')');
        // Escapes in names hide them from whoever looks.
        if (text.includes('\\') || /^(expression|src|image|(-webkit-)?image-set|element|paint)$/.test(name))
          refuse();
        if (name === 'url') open[open.length - 1] = 'url';
        return;
      }
      case t.LeftParenthesis:
        return void open.push(')');
      case t.LeftSquareBracket:
        return void open.push(']');
      case t.RightParenthesis:
      case t.RightSquareBracket: {
        const last = open.pop();
        return last === undefined || (last === 'url' ? ')' : last) !== text ? refuse() : undefined;
      }
      case t.String:
        if (!/^(["'])[^]*\1$/.test(text) || text.length < 2 || text.includes('\n')) return refuse();
        return open.at(-1) === 'url' && !REFERENCE.test(string.decode(text)) ? refuse() : undefined;
      case t.Ident:
      case t.Hash:
      case t.Dimension:
        return text.includes('\\') ? refuse() : undefined;
    }
  });
  if (unsafe === null && open.length) return '(';
  return unsafe;
}

/**
 * Mixed colours with the space that they are mixed in, which browsers leave out where it is the usual one: not all of them
 * know which that is.
 */
const withSpace = (value: string): string =>
  value.replace(/\bcolor-mix\(\s*(?!in\s)/gi, 'color-mix(in oklab, ');

/**
 * Declarations without those that are not CSS, which `leftOut` hears of, and with what browsers leave out written out. The
 * same value where all are good.
 */
export function cleanStyle<T extends Readonly<Record<string, string>>>(
  css: T,
  leftOut: (problem: string) => void,
): T {
  let made: Record<string, string> | null = null;
  for (const [property, given] of Object.entries(css)) {
    const value: unknown = typeof given === 'string' ? withSpace(given) : given;
    if (value !== given) (made ??= { ...css })[property] = value as string;
    const problem = typeof value === 'string' ? styleProblem(property, value) : `${property} is no text`;
    if (problem === null) continue;
    leftOut(problem);
    delete (made ??= { ...css })[property];
  }
  return (made as T | null) ?? css;
}

/** What is drawn before or after an element in windows up to a width in px: `::before@767`. */
const DRAWN_UP_TO = /^(::(?:before|after))@(\d{1,5})$/;

/** The part of an element that a state is of, and up to which width of the window, where it is of narrow ones alone. */
export function drawnUpTo(state: string): { readonly part: string; readonly width: number } | null {
  const [, part, width] = DRAWN_UP_TO.exec(state) ?? [];
  return part === undefined ? null : { part, width: Number(width) };
}

/** A state of an element in a selector, such as `:checked::before`; also that it is open, or what is drawn with it up to a width. */
export const isStateSelector = (text: string): boolean =>
  text === OPEN_STATE ||
  DRAWN_UP_TO.test(text) ||
  isStyledPart(text) ||
  /^(:{1,2}[a-z]+(-[a-z]+)*){1,4}$/.test(text);

/** Of what only narrow windows hide, where somebody has opened it. */
export const OPEN_STATE = '[data-open]';
