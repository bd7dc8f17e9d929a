/** HTML elements that screens are written with. What a page has besides is written as one of these, and that is said. */

const FLOW =
  'a abbr address article aside b bdi bdo blockquote br button canvas caption cite code col colgroup data datalist dd del details dfn dialog div dl dt em fieldset figcaption figure footer form h1 h2 h3 h4 h5 h6 header hgroup hr i img input ins kbd label legend li main mark menu meter nav ol optgroup option output p picture pre progress q rp rt ruby s samp search section select small source span strong sub summary sup svg table tbody td textarea tfoot th thead time tr u ul var wbr';

export const TAGS: ReadonlySet<string> = new Set(FLOW.split(' '));

/** Elements that have no content. */
export const VOID_TAGS: ReadonlySet<string> = new Set(['br', 'col', 'hr', 'img', 'input', 'source', 'wbr']);

/** Elements of old that have an equal today. */
const SUCCESSORS: Readonly<Record<string, string>> = {
  acronym: 'abbr',
  dir: 'ul',
  strike: 's',
  tt: 'code',
  xmp: 'pre',
  listing: 'pre',
  plaintext: 'pre',
  image: 'img',
};

/** The element that stands for one of a page: itself where it is known, else its equal, or a plain container. */
export function writtenTag(tag: string, isInline: boolean): string {
  if (TAGS.has(tag)) return tag;
  return Object.hasOwn(SUCCESSORS, tag) ? SUCCESSORS[tag] : isInline ? 'span' : 'div';
}
