import { contains, hasLook, type Placed, union } from '../../layout/placed.ts';
import type { Box } from '../../model/design.ts';

/**
 * Puts together what was drawn without structure: things into the boxes that they lie on, with the heading told.
 * @param base the screen itself, as large as it is drawn
 * @param drawn all that is on it, in the order in which it is drawn
 */
export function assembleScreen(base: Placed, drawn: readonly Placed[]): Placed {
  const whole = adoptBackground({ ...base, children: nest(withoutCovered(drawn, base.box)) });
  return withHeading({
    ...whole,
    box: base.box,
    border: 0,
    look: { 'background-color': '#ffffff', ...withoutBorder(whole.look) },
  });
}

/** Text smaller than this, in px, is no heading, however large it is beside the others. */
const SMALLEST_HEADING = 18;

/** The largest text, the first of it, is the screen's heading. */
function withHeading(root: Placed): Placed {
  const isText = (item: Placed): boolean => item.kind === 'text' && item.tag === 'p' && !item.hidden;
  let largest = 0;
  const measure = (item: Placed): void => {
    if (isText(item)) largest = Math.max(largest, parseFloat(item.look['font-size']));
    else if (!item.hidden) item.children.forEach(measure);
  };
  measure(root);
  let found = largest < SMALLEST_HEADING;
  const visit = (item: Placed): Placed => {
    if (found || item.hidden) return item;
    if (isText(item) && parseFloat(item.look['font-size']) === largest) {
      found = true;
      return { ...item, tag: 'h1' };
    }
    return item.children.length && item.kind !== 'text'
      ? { ...item, children: item.children.map(visit) }
      : item;
  };
  return visit(root);
}

function withoutBorder(look: Placed['look']): Record<string, string> {
  return Object.fromEntries(Object.entries(look).filter(([name]) => name.startsWith('background')));
}

/** A box that lies under everything else in its group is the group's own look. */
export function adoptBackground(group: Placed): Placed {
  const [first, ...rest] = group.children.filter((child) => !child.hidden);
  const hidden = group.children.filter((child) => child.hidden);
  if (!first || first.kind !== 'box' || !hasLook(first)) return group;
  if (rest.length && !contains(first.box, union(rest.map((item) => item.box)), 4)) return group;
  if (!rest.length && !contains(first.box, group.box, 1)) return group;
  return {
    ...group,
    look: first.look,
    border: first.border,
    box: first.box,
    children: [...first.children, ...rest, ...hidden],
  };
}

/** Share of the screen that a box takes at least that covers what was drawn before it. */
const SHEET = 0.9;

/** What lies beneath a sheet that was drawn over it is not seen, and so no part of the app until somebody shows it. */
function withoutCovered(items: readonly Placed[], screen: Box): readonly Placed[] {
  const last = items.findLastIndex(
    (item) => isOpaque(item) && item.box.width * item.box.height >= SHEET * screen.width * screen.height,
  );
  if (last <= 0) return items;
  const sheet = items[last].box;
  return items.map((item, i) =>
    i < last && !item.hidden && contains(sheet, item.box, 1) ? { ...item, hidden: true } : item,
  );
}

const isOpaque = ({ kind, hidden, look, children }: Placed): boolean =>
  kind === 'box' &&
  !hidden &&
  !children.length &&
  look.opacity === undefined &&
  !Object.keys(look).some((name) => name.endsWith('radius')) &&
  /^#([0-9a-f]{3}|[0-9a-f]{6})$/i.test(look['background-color'] ?? '');

/** Areas that differ by less than this are the same: what was drawn over all of another lies beside it. */
const ALIKE = 1.002;

/** Puts what lies wholly on a box, and was drawn after it, into that box. */
export function nest(all: readonly Placed[]): Placed[] {
  const items = all.filter((item) => !item.hidden);
  // Areas stand in an array of their own: a flat drawing of 20,000 boxes is held against itself.
  const areas = Float64Array.from(items, ({ box }) => box.width * box.height);
  const holders = Int32Array.from(
    items.flatMap((item, i) => (item.kind === 'box' && hasLook(item) ? [i] : [])),
  );
  const into = new Map<number, number[]>();
  const top: number[] = [];
  items.forEach((item, i) => {
    let holder = -1;
    for (const k of holders) {
      if (k >= i) break;
      // The smallest, and of those alike the last.
      if (areas[k] <= areas[i] * ALIKE || (holder >= 0 && areas[k] > areas[holder] * ALIKE)) continue;
      if (contains(items[k].box, item.box, 1)) holder = k;
    }
    const inner = into.get(holder);
    if (holder < 0) top.push(i);
    else if (inner) inner.push(i);
    else into.set(holder, [i]);
  });
  const make = (i: number): Placed => {
    const inner = into.get(i);
    return inner ? { ...items[i], children: [...items[i].children, ...inner.map(make)] } : items[i];
  };
  return [...top.map(make), ...all.filter((item) => item.hidden)];
}
