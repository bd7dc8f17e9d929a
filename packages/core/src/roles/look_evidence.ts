import type { VectorNode } from '../model/design.ts';
import { hasDownArrow, inputTypeOf, labelOfField, looksLikeField, pointsOf, textsIn } from './fields.ts';
import { guess, isBox, isInControl, letters, type RoleRule, wordCount } from './evidence.ts';
import type { RoleGuess } from './guess.ts';
import { displayOf, type Sight } from './sight.ts';

/** What an element looks like by itself. */
export const CONTROL_RULES: readonly RoleRule[] = [
  // Pictures.
  (s) => {
    const { element } = s;
    const { width, height } = element.box;
    if (element.kind === 'image') {
      // An empty alternative text says that the picture only decorates.
      if (s.isAuthored && element.attributes?.alt === '') return null;
      const isRound = s.look.radius >= Math.min(width, height) * 0.4 && Math.abs(width - height) < 4;
      if (isRound && width <= 120)
        return guess('avatar', 0.75, 'it is a small round picture', {
          label: element.attributes?.alt ?? element.name,
        });
      return guess('image', 0.85, 'it is a picture', { label: element.attributes?.alt ?? element.name });
    }
    if (element.kind !== 'vector') return null;
    const drawn = drawnChart(s) ?? drawnSwitch(s);
    if (drawn) return drawn;
    if (Math.min(width, height) <= 3 && Math.max(width, height) >= 24)
      return guess('separator', 0.75, 'it is a thin line');
    if (Math.max(width, height) <= 64) return guess('icon', 0.88, 'it is a small drawing');
    return guess('image', 0.7, 'it is a drawing', { label: element.name });
  },
  // Thin lines.
  (s) => {
    const { width, height } = s.element.box;
    const isThin = Math.min(width, height) <= 2.5 && Math.max(width, height) >= 40;
    if (s.element.kind !== 'box' || s.children.length || s.text || !isThin) return null;
    return s.look.hasFill || s.look.hasUnderline || hasLine(s)
      ? guess('separator', 0.85, 'it is a thin line')
      : null;
  },
  // What the page itself draws as its buttons.
  (s) =>
    s.isAuthored && s.element.style.base.appearance === 'button'
      ? guess('button', 0.95, 'the page draws it as one of its buttons')
      : null,
  // Buttons: a filled or framed box with one short text in its middle, or with an icon alone.
  (s, { screen }) => {
    const { element, look } = s;
    const { width, height } = element.box;
    if (!isBox(s) || height < 22 || height > 76 || width > Math.min(460, screen.width * 0.96)) return null;
    if (!look.hasFill && !look.hasBorder) return null;
    if (/ (header|footer|body|content|title|caption|card) /.test(s.words) && s.isAuthored) return null;
    const texts = textsIn(s);
    const label = s.text;
    const isShort = letters(label) >= 2 && wordCount(label) <= 5 && label.length <= 32;
    if (texts.length <= 1 && isShort && (isCentred(s, texts[0]) || s.cursor === 'pointer') && !isBadge(s)) {
      const isSure = look.radius > 0 && height >= 30;
      return guess(
        'button',
        s.cursor === 'pointer' ? 0.86 : isSure ? 0.8 : 0.6,
        'a short text stands in the middle of a box',
      );
    }
    const [only] = s.children;
    const isSquare = Math.abs(width - height) <= 8 && width <= 72;
    if (!label && isSquare && s.children.length === 1 && only.element.kind === 'vector' && look.radius > 0)
      return guess('button', 0.7, 'an icon stands alone in a small box', { label: only.element.name });
    return null;
  },
  // Fields and selects.
  (s) => {
    const found = looksLikeField(s);
    if (!found) return null;
    if (
      s.isAuthored &&
      (s.cursor === 'pointer' ||
        s.children.some(({ element }) => element.kind === 'box' || element.kind === 'text'))
    )
      return null;
    if (hasDownArrow(s)) return guess('combobox', 0.84, 'a frame with a text and an arrow down');
    const label = labelOfField(s)?.text ?? '';
    const isNamed = !s.isAuthored && / (field|input|search) /.test(`${s.words}${s.parent?.words ?? ''}`);
    const confidence = isNamed ? 0.92 : found.isSure ? 0.82 : label ? 0.72 : 0.45;
    return guess(
      'textbox',
      s.isAuthored && !found.isSure ? confidence - 0.2 : confidence,
      found.isSure ? 'a frame with a pale text at its left' : 'a frame to type in',
      { input: inputTypeOf(s, label) },
    );
  },
  // Small squares, circles and pills.
  (s) => {
    const { element, look } = s;
    const { width, height } = element.box;
    if (element.kind !== 'box' || s.text || height < 10) return null;
    const isSquare = Math.abs(width - height) <= 2 && width <= 30;
    const isRound = look.radius >= height * 0.45;
    const hasMark = s.children.length <= 1;
    if (isSquare && hasMark && look.hasBorder && nextToText(s))
      return isRound
        ? guess('radio', 0.78, 'a small framed circle beside a text')
        : guess('checkbox', 0.82, 'a small framed square beside a text');
    if (
      isSquare &&
      !isRound &&
      look.hasFill &&
      s.children.length === 1 &&
      s.children[0].element.kind === 'vector' &&
      nextToText(s)
    )
      return guess('checkbox', 0.7, 'a small square with a tick beside a text');
    const knob = s.children.length === 1 ? s.children[0] : null;
    if (
      isRound &&
      width > height * 1.4 &&
      width <= 72 &&
      height <= 36 &&
      knob &&
      !knob.children.length &&
      Math.abs(knob.element.box.width - knob.element.box.height) <= 2 &&
      knob.element.box.height <= height
    )
      return guess('switch', 0.85, 'a pill with a round knob in it');
    return null;
  },
  // Bars that are partly filled.
  (s) => {
    const { element, look, children } = s;
    const { width, height, x } = element.box;
    if (
      element.kind !== 'box' ||
      s.text.length > 5 ||
      height > 32 ||
      width < 60 ||
      width < height * 4 ||
      !children.length
    )
      return null;
    const [bar, ...more] = children;
    if (/ progress bar /.test(bar.words)) return null;
    const other = bar.element.box;
    if (
      !look.hasFill ||
      more.length > 1 ||
      !bar.look.hasFill ||
      Math.abs(other.x - x) > 3 ||
      other.width >= width
    )
      return null;
    const knob = more[0]?.element.box;
    if (knob && Math.abs(knob.width - knob.height) <= 2)
      return guess('slider', 0.75, 'a bar with a knob on it');
    return !more.length && Math.abs(other.height - height) <= 4
      ? guess('progressbar', 0.8, 'a bar that is partly filled')
      : null;
  },
  barChart,
  // Initials in a circle.
  (s) => {
    const { width, height } = s.element.box;
    const isRound = s.look.radius >= Math.min(width, height) * 0.45 && Math.abs(width - height) <= 3;
    return isBox(s) &&
      s.look.hasFill &&
      isRound &&
      width >= 20 &&
      width <= 120 &&
      /^\p{Lu}{1,3}$/u.test(s.text)
      ? guess('avatar', 0.9, 'initials in a circle')
      : null;
  },
  // What the page itself says can be pressed.
  (s, context) => {
    if (!s.isAuthored || s.cursor !== 'pointer' || s.parent?.cursor === 'pointer' || isInControl(s, context))
      return null;
    if (!s.text && !s.children.length && s.element.kind === 'box' && !s.look.hasFill) return null;
    if (s.element.box.height > 400) return null;
    // A whole card that can be pressed leads somewhere.
    const isCard = s.element.box.height > 80 && s.children.length > 1;
    if (isCard) return guess('link', 0.72, 'a whole card can be pressed');
    return s.look.hasFill || s.look.hasBorder
      ? guess('button', 0.66, 'the pointer shows that it can be pressed')
      : guess('link', 0.78, 'the pointer shows that it can be pressed');
  },
  // Tables by their layout.
  (s) => {
    const display = displayOf(s.element);
    if (display === 'table' || display === 'inline-table')
      return s.children.length ? guess('table', 0.92, 'it is laid out as a table') : null;
    if (display === 'table-row') return guess('row', 0.93, 'it is laid out as a row of a table');
    if (display === 'table-cell')
      return isHeaderCell(s)
        ? guess('columnheader', 0.9, 'a cell in the head of a table')
        : guess('cell', 0.92, 'it is laid out as a cell of a table');
    if (display === 'list-item') return guess('listitem', 0.95, 'it is laid out as an item of a list');
    return null;
  },
];

function isHeaderCell(s: Sight): boolean {
  const row = s.parent;
  const group = row?.parent;
  if (!row || !group) return false;
  const inHead =
    / (thead|table head(er)?) /.test(group.words) ||
    /^table-(header|footer)-group$/.test(group.element.style.base.display ?? '');
  if (inHead) return true;
  return row.index === 0 && row.children.length > 1 && row.children.every((cell) => cell.fontWeight >= 600);
}

const hasLine = ({ element: { style } }: Sight): boolean =>
  ['top', 'bottom', 'left', 'right'].some((side) => style.base[`border-${side}-width`] !== undefined);

const isCentred = (s: Sight, text: Sight | undefined): boolean => {
  if (s.align === 'center' || text?.align === 'center') return true;
  const [inner, outer] = [text?.element.box, s.element.box];
  // Text in a page's box is as wide as the box, wherever its letters stand; only what fits its text tells.
  const fits = !s.isAuthored || /inline/.test(s.element.style.base.display ?? '');
  return (
    fits &&
    !!inner &&
    inner.width < outer.width &&
    Math.abs(inner.x + inner.width / 2 - outer.x - outer.width / 2) < 5 &&
    inner.x - outer.x > 5
  );
};

const isBadge = (s: Sight): boolean =>
  / (badge|tag|label|status|step|marker|count|alert|toast|avatar) /.test(s.words) ||
  s.element.box.height < 26 ||
  (s.fontSize <= 11 && s.element.box.height < 30);

function nextToText(s: Sight): boolean {
  const around = [s.parent?.children[s.index + 1], s.parent?.children[s.index - 1]];
  if (around.some((other) => !!other?.text)) return true;
  return (
    !!s.parent?.parent &&
    s.parent.children.length === 1 &&
    !!s.parent.parent.children[s.parent.index + 1]?.text
  );
}

/** Filled boxes of one width that end at one height, directly in an element, or each in a column with its label. */
function barsIn(s: Sight): Sight[] {
  const isBar = ({ element, look, children, text }: Sight): boolean =>
    element.kind === 'box' && look.hasFill && !children.length && !text && element.box.width >= 4;
  const boxes = s.children.flatMap((child) => {
    if (isBar(child)) return [child];
    const bars = child.children.filter(isBar);
    return bars.length === 1 && !child.look.hasFill && !child.element.tag?.match(/^(button|a)$/) ? bars : [];
  });
  const [first] = boxes;
  if (!first) return [];
  const foot = ({ element: { box } }: Sight): number => box.y + box.height;
  return boxes.filter(
    (other) =>
      Math.abs(foot(other) - foot(first)) < 2 &&
      Math.abs(other.element.box.width - first.element.box.width) < 2,
  );
}

/** A pill with a round knob in it, drawn as one picture. */
function drawnSwitch({ element: { vector, box } }: Sight): RoleGuess | null {
  if (!vector || box.width > 80 || box.height > 44 || box.width < box.height * 1.35) return null;
  const nodes: VectorNode[] = [];
  const visit = (node: VectorNode): void => {
    if (node.tag !== 'g' && node.tag !== 'svg') nodes.push(node);
    node.children.forEach(visit);
  };
  visit(vector);
  if (nodes.length !== 2) return null;
  const [pill, knob] = nodes.map(({ tag, attributes: a }) =>
    tag === 'rect'
      ? { width: Number(a.width), height: Number(a.height), radius: Number(a.rx ?? 0) }
      : { width: 2 * Number(a.r), height: 2 * Number(a.r), radius: Number(a.r) },
  );
  const isPill = pill.radius >= pill.height * 0.45 && pill.width > pill.height * 1.35;
  const isKnob =
    Math.abs(knob.width - knob.height) < 1 && knob.radius >= knob.height * 0.45 && knob.height <= pill.height;
  return isPill && isKnob ? guess('switch', 0.85, 'a pill with a round knob in it') : null;
}

/** What is drawn as a chart, whatever it is said to be; null where it is none. */
export const chartByLook = (s: Sight): RoleGuess | null => drawnChart(s) ?? barChart(s);

/** Bars that stand on one line, each a box of its own. */
function barChart(s: Sight): RoleGuess | null {
  const bars = barsIn(s);
  if (bars.length < 4 || s.element.kind !== 'box') return null;
  const heights = new Set(bars.map(({ element }) => Math.round(element.box.height)));
  return heights.size >= 3
    ? guess('chart', 0.8, 'bars of one width stand on one line', { chart: 'bar' })
    : null;
}

/** Bars of one width on one ground, a long line, or a ring: a picture of numbers. */
function drawnChart(s: Sight): RoleGuess | null {
  const { vector, box } = s.element;
  if (!vector || box.width < 100 || box.height < 60) return null;
  const bars: { x: number; width: number; foot: number }[] = [];
  let [lines, rings] = [0, 0];
  const visit = (node: VectorNode): void => {
    const a = node.attributes;
    if (node.tag === 'rect')
      bars.push({ x: Number(a.x ?? 0), width: Number(a.width), foot: Number(a.y ?? 0) + Number(a.height) });
    if (node.tag === 'polyline' && isGraph(pointsOf(`M${a.points ?? ''}`), box.width)) lines++;
    if (node.tag === 'path' && a.fill === 'none' && isGraph(pointsOf(a.d ?? ''), box.width)) lines++;
    if (node.tag === 'circle' && a['stroke-dasharray']) rings++;
    if (
      node.tag === 'path' &&
      /A/i.test(a.d ?? '') &&
      /[Zz]\s*$/.test(a.d ?? '') &&
      Math.abs(box.width - box.height) < 8
    )
      rings++;
    node.children.forEach(visit);
  };
  visit(vector);
  const feet = bars.filter(
    (bar) => Math.abs(bar.foot - bars[0].foot) < 2 && Math.abs(bar.width - bars[0].width) < 2,
  );
  if (feet.length >= 4 && feet.length >= bars.length * 0.6)
    return guess('chart', 0.8, 'bars of one width stand on one line', { chart: 'bar' });
  if (rings >= 2) return guess('chart', 0.7, 'sectors make a circle', { chart: 'pie' });
  return lines >= 1 && box.width > 140
    ? guess('chart', 0.6, 'a line goes up and down across it', { chart: 'line' })
    : null;
}

/** Whether a line goes steadily to the right, through five points or more, over most of a width. */
function isGraph(points: readonly (readonly [number, number])[], width: number): boolean {
  const isSteady = points.every((point, i) => i === 0 || point[0] > points[i - 1][0]);
  return points.length >= 5 && isSteady && points.at(-1)![0] - points[0][0] > width * 0.6;
}
