import type { TextAlign } from '../../layout/placed.ts';
import { lengthOf } from './shape.ts';
import type { SvgStyle } from './style.ts';
import type { XmlElement } from './xml.ts';

export interface ForeignText {
  readonly text: string;
  readonly look: Readonly<Record<string, string>>;
  readonly align: TextAlign;
}

const BLOCKS = /^(p|div|h[1-6]|li|ul|ol|section|article|header|footer|br|tr|table|blockquote)$/;
const SILENT = /^(script|style|head|title|noscript|template)$/;

/** The text of a piece of a page within a drawing. Of its styles those count that stand nearest to the text. */
export function readForeignText(element: XmlElement, inherited: SvgStyle, scale: number): ForeignText | null {
  const lines: string[] = [''];
  let css: Record<string, string> = {};
  const visit = (node: XmlElement, above: Record<string, string>): void => {
    if (SILENT.test(node.name)) return;
    const own = { ...above, ...declarationsIn(node.attributes.style ?? '') };
    if (own.display === 'none') return;
    const isBlock = BLOCKS.test(node.name);
    if (isBlock && lines.at(-1)) lines.push('');
    for (const child of node.children) {
      if (typeof child !== 'string') visit(child, own);
      else if (child.trim()) {
        if (!Object.keys(css).length) css = own;
        lines[lines.length - 1] += child.replace(/\s+/g, ' ');
      }
    }
    if (isBlock && lines.at(-1)) lines.push('');
  };
  visit(element, {});
  const text = lines
    .map((line) => line.trim())
    .filter(Boolean)
    .join('\n');
  if (!text) return null;
  const size = lengthOf(css['font-size'] ?? inherited['font-size'], 0, 16) * scale;
  const height = css['line-height'];
  const factor = Number(height);
  const lineHeight = height?.endsWith('px') ? lengthOf(height) * scale : size * (factor > 0 ? factor : 1.3);
  const look: Record<string, string> = {
    'font-size': `${round(size)}px`,
    color: css.color ?? '#000000',
    'line-height': `${round(lineHeight)}px`,
  };
  const family = css['font-family'] ?? inherited['font-family'];
  if (family) look['font-family'] = family;
  for (const name of ['font-weight', 'font-style', 'letter-spacing'])
    if (css[name] && css[name] !== 'normal') look[name] = css[name];
  const align = css['text-align'];
  return {
    text,
    look,
    align: align === 'center' ? 'center' : align === 'right' || align === 'end' ? 'end' : 'start',
  };
}

/** Declarations of a `style` attribute; those that could load something are left out. */
function declarationsIn(style: string): Record<string, string> {
  const found: Record<string, string> = {};
  for (const piece of style.split(';')) {
    const colon = piece.indexOf(':');
    const value = piece.slice(colon + 1).trim();
    if (colon > 0 && value && !/url\(|[{}<>]/i.test(value))
      found[piece.slice(0, colon).trim().toLowerCase()] = value;
  }
  return found;
}

const round = (n: number): number => Math.round(n * 100) / 100;
