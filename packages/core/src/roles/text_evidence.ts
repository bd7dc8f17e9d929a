import {
  FIELDS,
  guess,
  isInControl,
  letters,
  type RoleContext,
  type RoleRule,
  says,
  wordCount,
} from './evidence.ts';
import type { RoleGuess } from './guess.ts';
import { hasParent, px, type Sight } from './sight.ts';

/** What text is by its size, its weight, its length and what it stands beside. */
export const TEXT_RULES: readonly RoleRule[] = [
  (s, context) => label(s, context) ?? heading(s, context) ?? paragraph(s, context),
];

const CALLED_HEADING = / (heading|headline|title|h[1-6]|display [1-6]) /;
const NOT_QUITE = / (subtitle|sub title|sub heading|subheading|title bar) /;

const isSaid = (s: Sight, context: RoleContext): boolean => s.hasOwnText && !isInControl(s, context);

function heading(s: Sight, context: RoleContext): RoleGuess | null {
  const { screen, roleOf } = context;
  const { bodySize } = screen;
  if (!s.hasOwnText || (isInControl(s, context) && !isInLargeLink(s, context))) return null;
  const words = wordCount(s.text);
  const isHuge = s.fontSize >= bodySize * 1.6;
  if (!words || words > (isHuge ? 24 : 16) || letters(s.text) < 2 || s.text.length >= 200) return null;
  if (
    says(s, / (collapse|dropdown|menu|card|box|panel|modal|section) (header|title|heading) /) &&
    words <= 8 &&
    (s.fontWeight >= 500 || s.element.box.height === 0)
  )
    return guess('heading', 0.75, 'it is called the head of what follows');
  const isLarge = s.fontSize >= bodySize * 1.18;
  const isBold = s.fontWeight >= 500;
  if (
    says(s, CALLED_HEADING) &&
    !NOT_QUITE.test(s.words) &&
    (isLarge || (isBold && s.fontSize >= bodySize * 0.95))
  )
    return guess('heading', 0.9, 'it is called a heading, and set larger or bolder');
  if (hasParent(s, (p) => ['cell', 'contentinfo'].includes(roleOf(p) ?? ''))) return null;
  const isFigure = /\d/.test(s.text) && words <= 2 && letters(s.text) < 4;
  if (isLarge && isBold && s.fontSize >= 16)
    return guess(
      'heading',
      isFigure ? 0.4 : s.fontSize >= bodySize * 1.4 ? 0.82 : 0.7,
      'it is larger and bolder than most of the text',
    );
  if (s.fontSize >= bodySize * 1.45 && s.fontSize >= 20 && !isFigure)
    return guess('heading', 0.68, 'it is much larger than most of the text');
  if (
    isBold &&
    words <= 8 &&
    letters(s.text) >= 3 &&
    s.fontSize >= bodySize * 0.98 &&
    namesWhatFollows(s, context)
  )
    return guess('heading', screen.isDrawing ? 0.5 : 0.6, 'a short bold line above what follows');
  return null;
}

/** A link around a whole card may hold a heading. */
function isInLargeLink(s: Sight, { roleOf }: RoleContext): boolean {
  let link = s.parent;
  while (link && roleOf(link) !== 'link') link = link.parent;
  return !!link && link.children.length > 1 && link.element.box.height > 48;
}

function label(s: Sight, context: RoleContext): RoleGuess | null {
  if (!isSaid(s, context) || s.text.length >= 90) return null;
  const { roleOf } = context;
  const [before, after] = [s.parent?.children[s.index - 1], s.parent?.children[s.index + 1]];
  if (after && ['textbox', 'combobox'].includes(roleOf(after) ?? '') && wordCount(s.text) <= 8)
    return guess('label', 0.8, 'it stands above a field');
  const named = [before, after].some(
    (other) => other && FIELDS.includes(roleOf(other)) && !['textbox', 'combobox'].includes(roleOf(other)!),
  );
  return named ? guess('label', 0.72, 'it stands beside what it names') : null;
}

function paragraph(s: Sight, context: RoleContext): RoleGuess | null {
  if (!isSaid(s, context)) return null;
  const words = wordCount(s.text);
  const isSentence = words >= 8 || (words >= 4 && /[.!?…]["”’)]?$/.test(s.text));
  const isRunning = s.element.kind === 'text' || s.children.every(isInline);
  if (!s.isAuthored) {
    if (s.element.kind !== 'text') return null;
    return guess('paragraph', isSentence ? 0.85 : 0.5, isSentence ? 'it is running text' : 'it is text');
  }
  if (
    !isRunning ||
    !letters(s.text) ||
    ['inline', 'inline-block'].includes(s.element.style.base.display ?? '')
  )
    return null;
  const { base } = s.element.style;
  const margin = Math.max(px(base['margin-bottom']) ?? 0, px(base['margin-top']) ?? 0);
  // Paragraphs keep their distance; a container that only happens to hold text has padding.
  const isHolder = (px(base['padding-left']) ?? 0) >= 8 || s.look.hasFill || s.look.hasBorder;
  if (isHolder) return null;
  if (/ (feedback|toast|tooltip) /.test(s.words)) return null;
  const isCaption = / (caption|meta|sub ?heading|text muted|small|lead in) /.test(s.words) && words < 14;
  if (isSentence)
    return guess('paragraph', margin >= 4 ? 0.85 : isCaption ? 0.3 : 0.55, 'it is running text');
  return margin >= 8 && words >= 2 && hasSiblingText(s)
    ? guess('paragraph', 0.5, 'a line of text that keeps its distance')
    : null;
}

const INLINE = new Set([
  'span',
  'a',
  'b',
  'strong',
  'i',
  'em',
  'small',
  'br',
  'code',
  'img',
  'svg',
  'time',
  'sup',
  'sub',
]);
const isInline = ({ element }: Sight): boolean =>
  INLINE.has(element.tag ?? '') || (element.style.base.display ?? '').startsWith('inline');

/** Whether paragraphs stand around it. */
const hasSiblingText = (s: Sight): boolean =>
  (s.parent?.children ?? []).some((other) => other !== s && other.hasOwnText && wordCount(other.text) >= 4);

/** Whether a short line names what stands under it, also where it stands alone in a bar. */
function namesWhatFollows(s: Sight, { roleOf }: RoleContext): boolean {
  let line = s;
  while (
    line.parent?.parent &&
    line.index === 0 &&
    line.parent.element.box.height <= 90 &&
    line.parent.children.length <= 2 &&
    ![...FIELDS, 'listitem'].includes(roleOf(line.parent) as never)
  )
    line = line.parent;
  const next = line.parent?.children[line.index + 1];
  if (!next || line.index > 1) return false;
  const [box, below] = [line.element.box, next.element.box];
  return below.y >= box.y + box.height - 2 && (next.text.length > s.text.length || below.height > 60);
}
