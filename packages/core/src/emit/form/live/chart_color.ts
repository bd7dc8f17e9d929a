import type { Element, VectorNode } from '../../../model/design.ts';

/** What is no colour of anything. */
const CLEAR = /^(none|transparent|inherit|initial|url\(.*|rgba\(.*,\s*0\))$/i;

/**
 * The colour in which a chart was drawn: that of most of its bars or sectors, else of its line; undefined where it has none.
 * @param chart the element as it was drawn
 */
export function chartColor(chart: Element): string | undefined {
  const fills = new Map<string, number>();
  const strokes = new Map<string, number>();
  const note = (counts: Map<string, number>, color: string | undefined): void => {
    if (color && !CLEAR.test(color.trim())) counts.set(color, (counts.get(color) ?? 0) + 1);
  };
  const visitVector = ({ tag, attributes, children }: VectorNode): void => {
    if (/^(rect|path|circle|polygon)$/.test(tag)) note(fills, attributes.fill);
    if (/^(path|polyline|line)$/.test(tag) && CLEAR.test(attributes.fill ?? 'none'))
      note(strokes, attributes.stroke);
    children.forEach(visitVector);
  };
  const visit = ({ children, style, text, vector }: Element): void => {
    if (vector) visitVector(vector);
    if (!children.length && !text) note(fills, style.base['background-color']);
    children.forEach(visit);
  };
  chart.children.forEach(visit);
  if (chart.vector) visitVector(chart.vector);
  return mostOf(fills) ?? mostOf(strokes);
}

const mostOf = (counts: ReadonlyMap<string, number>): string | undefined =>
  [...counts].sort((a, b) => b[1] - a[1])[0]?.[0];
