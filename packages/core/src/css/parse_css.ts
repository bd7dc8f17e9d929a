import * as csstree from 'css-tree';

/**
 * Parses a style sheet. css-tree (3.2) keeps the buffer of its tokens from one call to the next and reads one place
 * behind the end of the new ones; where a bracket of an earlier sheet is left there, a broken sheet can keep it busy for
 * ever. A row of plain words puts something harmless into that place first.
 */
export function parseCss(css: string, options: csstree.ParseOptions = {}): csstree.CssNode {
  csstree.parse('a '.repeat((css.length >> 1) + 2), { context: 'value' });
  return csstree.parse(css, { onParseError: () => {}, ...options });
}
