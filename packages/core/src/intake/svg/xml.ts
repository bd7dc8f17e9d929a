import { SaxesParser } from 'saxes';
import { limits } from '../limits.ts';

/** An element of a parsed XML document. Names are without prefix; `path` is the element-child index path. */
export interface XmlElement {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly (XmlElement | string)[];
  readonly path: string;
}

export class XmlError extends Error {}

/** Prefixes whose attributes have the same meaning as without. */
const FOLDED_PREFIX = /^(svg|xlink):/;

/**
 * Parses well-formed XML. Entities of the document's own are never expanded.
 * @throws XmlError with line and column for what is malformed, too deep or too large.
 */
export function parseXml(text: string): XmlElement {
  interface Open {
    name: string;
    attributes: Record<string, string>;
    children: (XmlElement | string)[];
    path: string;
    elements: number;
  }
  const parser = new SaxesParser({ position: true });
  const stack: Open[] = [];
  let root: Open | null = null;
  let count = 0;
  const fail = (what: string): never => {
    throw new XmlError(`${what} (line ${parser.line}, column ${parser.column})`);
  };
  parser.on('error', (error) => {
    const what = error.message.replace(/^\d+:\d+:\s*/, '').replace(/\.$/, '');
    // An undeclared or custom entity is left as it stands: it is data lost, not a document lost.
    if (!/entity/i.test(what)) fail(what);
  });
  parser.on('opentag', (tag) => {
    if (++count > limits.written) fail(`more than ${limits.written} elements`);
    if (stack.length >= limits.depth) fail(`nested more than ${limits.depth} deep`);
    const parent = stack.at(-1);
    const attributes: Record<string, string> = {};
    for (const [name, value] of Object.entries(tag.attributes))
      attributes[name.replace(FOLDED_PREFIX, '')] = String(value);
    const element: Open = {
      name: tag.name.replace(FOLDED_PREFIX, ''),
      attributes,
      children: [],
      path: parent ? (parent.path ? `${parent.path}/` : '') + parent.elements++ : '',
      elements: 0,
    };
    if (parent) parent.children.push(element);
    else root = element;
    stack.push(element);
  });
  parser.on('closetag', () => void stack.pop());
  const addText = (data: string): void => void stack.at(-1)?.children.push(data);
  parser.on('text', addText);
  parser.on('cdata', addText);
  parser.write(text.replace(/^\uFEFF/, '')).close();
  return root ?? fail('no root element');
}

export const childElements = (element: XmlElement): XmlElement[] =>
  element.children.filter((child): child is XmlElement => typeof child !== 'string');

export const textContent = (element: XmlElement): string =>
  element.children.map((child) => (typeof child === 'string' ? child : textContent(child))).join('');
