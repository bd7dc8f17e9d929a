/**
 * Text as it stands in each language that is written: one function a language and place, and no other way in. Files are put
 * together from typed pieces that call them (`script`, `hypertext`), markup and styles by the printers of their nodes. What
 * may be a name is never quoted but checked (`named`, `isAttributeName`, `isStyleProperty`).
 */

/** A string literal of TypeScript with single quotes, or double ones where that needs fewer escapes. */
export function quote(text: string): string {
  const mark = (text.match(/'/g)?.length ?? 0) > (text.match(/"/g)?.length ?? 0) ? '"' : "'";
  const body = text.replace(/[\\\n\r\u2028\u2029]/g, (c) =>
    c === '\\' ? '\\\\' : c === '\n' ? '\\n' : c === '\r' ? '\\r' : `\\u${c.charCodeAt(0).toString(16)}`,
  );
  return mark + body.replaceAll(mark, `\\${mark}`) + mark;
}

/** From so many lines on a text is written line by line. */
const MANY_LINES = 4;

/** A text as an expression of TypeScript: a literal, or the lines that it is joined of. */
export function quoteLines(text: string): string {
  const lines = text.split('\n');
  return lines.length < MANY_LINES ? quote(text) : `[${lines.map(quote).join(', ')}].join('\\n')`;
}

/** The value of an attribute of TSX, with its quotes or braces. */
export function jsxValue(value: string): string {
  if (/[\n\r\\\u2028\u2029]/.test(value)) return `{${quote(value)}}`;
  const escaped = value.replace(/&/g, '&amp;');
  return escaped.includes('"')
    ? escaped.includes("'")
      ? `"${escaped.replace(/"/g, '&quot;')}"`
      : `'${escaped}'`
    : `"${escaped}"`;
}

/** Text among the children of an element of TSX. */
export const jsxText = (text: string): string =>
  text.replace(
    /[&<>{}'"\u00a0]/g,
    (char) =>
      ({
        '&': '&amp;',
        '<': '&lt;',
        '>': '&gt;',
        '{': '&#123;',
        '}': '&#125;',
        "'": '&apos;',
        '"': '&quot;',
        '\u00a0': '&nbsp;',
      })[char]!,
  );

/**
 * Text in a comment of TypeScript or CSS: on one line, and never its end. A dash at the very end of a word and the comment
 * keeps TypeScript 6.0 from ever coming to the end of it.
 */
export const commentText = (text: string): string =>
  text
    .replace(/\s+/g, ' ')
    .replace(/\*(?=\/)/g, '* ')
    .replace(/-$/, '- ');

/** A string of CSS, with its quotes. */
export const cssText = (text: string): string =>
  `'${text.replace(/['\\\n\r\f]|<(?=\/)/g, (char) => `\\${char.charCodeAt(0).toString(16)} `)}'`;

/**
 * An expression in an attribute of a template, between double quotes. Only what would end it or be read as a character of another
 * name is escaped: tools that check the expression read it as it is written.
 */
export const expressionValue = (code: string): string =>
  code.replace(/&(?=[#a-z])/gi, '&amp;').replace(/"/g, '&quot;');

/** Text as the content of an HTML or XML element. */
export const escapeText = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');

/** Text as the value of an attribute of HTML or XML in double quotes. */
export const escapeValue = (text: string): string => escapeText(text).replace(/"/g, '&quot;');

/** A quoted string of DOT. Backslashes are doubled, as labels give meaning to single ones. */
export const dotText = (text: string): string =>
  `"${text.replace(/\\/g, '\\\\').replace(/"/g, '\\"').replace(/\r?\n/g, '\\n')}"`;
