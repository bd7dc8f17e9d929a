import type { Box, Element } from '../model/design.ts';
import { findArrangement } from './cut.ts';
import { bottom, centre, hasLook, middle, type Placed, right, union } from './placed.ts';

type Css = Record<string, string>;

/** What a container says of itself, and what it says of each of its children. */
interface Flow {
  readonly own: Css;
  readonly items: readonly { readonly item: Placed; readonly css: Css }[];
}

const px = (n: number): string => `${Math.round(n * 100) / 100}px`;
const near = (a: number, b: number, slack = 1.5): boolean => Math.abs(a - b) <= slack;
/** A box this much of its container is meant to stretch with it. */
const STRETCHES = 0.6;
/** A picture narrower than this, in px, is an icon that keeps its size. */
const WIDE_PICTURE = 120;
/** A bar at the foot of a screen is at most this high. */
const BAR_HEIGHT = 120;

/**
 * Gives every drawn thing a layout that flows: stacks and rows with padding, gaps and alignment, and free
 * placement only where things overlap. At the drawn width the result lies where it was drawn.
 */
export function arrangeScreen(root: Placed): Element {
  // What was parked beside the screen is no part of its layout, and must not make it wider.
  const parked = root.children.filter((item) => !item.hidden && isBeside(item.box, root.box));
  const drawn = flowOf(
    root.box,
    0,
    parked.length ? root.children.filter((item) => !parked.includes(item)) : root.children,
    root,
  );
  const flow = parked.length ? withFloating(root.box, drawn, parked) : drawn;
  if (parked.length) flow.own['overflow-x'] = 'clip';
  const shown = flow.items.filter(({ item }) => !item.hidden);
  const own: Css = { ...root.look, ...flow.own, 'min-height': '100vh' };
  const last = shown.at(-1);
  const children = flow.items.map(({ item, css }) => {
    const isFoot =
      item === last?.item &&
      own['flex-direction'] === 'column' &&
      shown.length > 1 &&
      near(bottom(item.box), bottom(root.box)) &&
      item.box.height <= BAR_HEIGHT &&
      item.box.width > root.box.width * 0.95;
    return build(item, isFoot ? { ...css, 'margin-top': 'auto', position: 'sticky', bottom: '0px' } : css);
  });
  return toElement(root, own, children);
}

const isBeside = (box: Box, screen: Box): boolean =>
  box.x >= right(screen) || right(box) <= screen.x || box.y >= bottom(screen) || bottom(box) <= screen.y;

function build(item: Placed, outer: Css): Element {
  if (!item.children.length || item.kind === 'text') {
    return toElement(
      item,
      { ...item.look, ...outer },
      item.children.map((run) => build(run, {})),
    );
  }
  const flow = flowOf(item.box, item.border, item.children, item);
  const own = { ...item.look, ...flow.own, ...outer };
  if (outer.position === 'absolute' || outer.position === 'sticky') own.position = outer.position;
  return toElement(
    item,
    own,
    flow.items.map(({ item: child, css }) => build(child, css)),
  );
}

function toElement(item: Placed, base: Css, children: readonly Element[]): Element {
  const { look: _look, border: _border, soft: _soft, piece: _piece, children: _children, ...rest } = item;
  return { ...rest, style: { base }, children };
}

function flowOf(box: Box, border: number, items: readonly Placed[], parent: Placed): Flow {
  const inner: Box = {
    x: box.x + border,
    y: box.y + border,
    width: box.width - 2 * border,
    height: box.height - 2 * border,
  };
  const flow = arrangeIn(inner, items, parent);
  // Sizes are those of the border box.
  if (flow.own['min-height']) flow.own['min-height'] = px(box.height);
  return flow;
}

/** What is hidden takes no part in the layout; it lies where it was drawn, above the rest. */
function arrangeIn(inner: Box, all: readonly Placed[], parent: Placed): Flow {
  const hidden = all.filter((item) => item.hidden);
  if (!hidden.length) return arrangeShown(inner, all, parent);
  const items = all.filter((item) => !item.hidden);
  const flow: Flow = items.length ? arrangeShown(inner, items, parent) : { own: {}, items: [] };
  return withFloating(inner, flow, hidden);
}

function arrangeShown(inner: Box, items: readonly Placed[], parent: Placed): Flow {
  const found = findArrangement(items);
  if (found.axis === null) return freely(inner, items, true);
  const members = found.bands.map((band, i) => {
    if (band.length === 1) return band[0];
    const group = gather(band, parent, i);
    // A row of equal cells is as wide as what it stands in, not only as its cells are drawn.
    const isWhole = found.axis === 'y' && areCells(inner, band);
    if (!isWhole) return group;
    const { soft: _soft, ...rest } = group;
    return { ...rest, box: { ...group.box, x: inner.x, width: inner.width } };
  });
  const flow = found.axis === 'y' ? stack(inner, members) : row(inner, members);
  return found.floating.length
    ? withBehind(withFloating(inner, flow, found.floating), items, found.floating)
    : flow;
}

/** Several things that stand together get a container of their own. */
function gather(band: readonly Placed[], parent: Placed, index: number): Placed {
  const path = `${parent.source.path}~${index}`;
  return {
    key: `${parent.key}~${index}`,
    kind: 'box',
    name: 'group',
    tag: 'div',
    look: {},
    border: 0,
    box: union(band.map((item) => item.box)),
    children: band,
    source: { file: parent.source.file, path },
    ...softOf(band),
  };
}

/** Whether a container without a look of its own is as wide as its text, and how that is aligned. */
export function softOf(children: readonly Placed[]): Pick<Placed, 'soft'> {
  const soft = children.filter((child) => child.soft);
  if (!soft.length) return {};
  const box = union(children.map((child) => child.box));
  const anchor = soft[0].soft!.anchor;
  const areEnding = children.every((child) => child.soft?.align === 'end' && near(child.soft.anchor, anchor));
  if (areEnding) return { soft: { align: 'end', anchor } };
  const isCentred =
    soft.every((child) => child.soft!.align === 'center' && near(child.soft!.anchor, anchor)) &&
    children.every((child) => child.soft || near(middle(child.box), anchor, 4));
  return { soft: isCentred ? { align: 'center', anchor } : { align: 'start', anchor: box.x } };
}

function stack(inner: Box, items: readonly Placed[]): Flow {
  const left = Math.max(0, Math.min(...items.map((item) => item.box.x - inner.x)));
  const hard = items.filter((item) => !item.soft);
  const rest = hard.length ? Math.min(...hard.map((item) => right(inner) - right(item.box))) : left;
  // Room at the right is padding only as far as it matches the left; more of it is just room.
  const padRight = Math.max(0, rest <= left + 8 ? rest : left);
  // Text that holds on to its middle or its end says nothing about where the left edge is.
  const isCentredText =
    items.every((item) => item.soft && item.soft.align !== 'start') || areAllCentred(inner, items);
  const area: Box = isCentredText
    ? inner
    : { ...inner, x: inner.x + left, width: inner.width - left - padRight };
  const gaps = items.slice(1).map((item, i) => item.box.y - bottom(items[i].box));
  const even = gaps.length > 0 && gaps.every((gap) => near(gap, gaps[0], 0.6)) && gaps[0] > 0.3;
  const own: Css = { display: 'flex', 'flex-direction': 'column' };
  setPadding(
    own,
    items[0].box.y - inner.y,
    area.x - inner.x,
    bottom(inner) - bottom(items.at(-1)!.box),
    right(inner) - right(area),
  );
  if (even) own['row-gap'] = px(gaps[0]);
  return {
    own,
    items: items.map((item, i) => {
      const placed = inStack(area, item);
      const above = i === 0 ? items[0].box.y - inner.y : gaps[i - 1];
      if (i === 0 ? above < 0 : !even && Math.abs(above) > 0.3) placed.css['margin-top'] = px(above);
      return placed;
    }),
  };
}

/** Whether text and what stands above or below it share the middle of what they stand in. */
function areAllCentred(inner: Box, items: readonly Placed[]): boolean {
  const text = items.find((item) => item.soft?.align === 'center');
  if (!text || !near(text.soft!.anchor, middle(inner), 8)) return false;
  return items.every((item) => near(anchorOf(item), text.soft!.anchor, 4) && item.soft?.align !== 'start');
}

function inStack(area: Box, item: Placed): { item: Placed; css: Css } {
  const left = item.box.x - area.x;
  const rest = right(area) - right(item.box);
  const isBetween = near(left, rest) && item.box.width > area.width * STRETCHES;
  // A group that leaves the same room on both sides fills what is between, whatever text it holds on to.
  const isGroup = item.kind === 'box' && item.children.some((child) => !child.soft);
  if (item.soft && !(isGroup && isBetween)) return softInStack(area, item);
  const css: Css = sizeOf(item, false);
  if (isFixed(item) && item.box.width >= WIDE_PICTURE && item.box.width > area.width * STRETCHES)
    return spanningPicture(item, left, rest);
  if (near(left, 0) && near(rest, 0)) return { item, css };
  if (isBetween && !isFixed(item)) {
    return { item, css: { ...css, 'margin-left': px(left), 'margin-right': px(rest) } };
  }
  css.width = px(item.box.width);
  if (near(left, rest, isFixed(item) ? 8 : 1.5)) {
    css['align-self'] = 'center';
    if (left - rest > 0.3) css['margin-left'] = px(left - rest);
    if (rest - left > 0.3) css['margin-right'] = px(rest - left);
  } else if (rest < left && rest < area.width * 0.2) {
    css['align-self'] = 'flex-end';
    if (Math.abs(rest) > 0.3) css['margin-right'] = px(rest);
  } else {
    css['align-self'] = 'flex-start';
    if (Math.abs(left) > 0.3) css['margin-left'] = px(left);
  }
  const beside = Math.max(
    0,
    Number.parseFloat(css['margin-left'] ?? '0'),
    Number.parseFloat(css['margin-right'] ?? '0'),
  );
  if (!isFixed(item) && item.box.width > NARROWEST)
    css['max-width'] = beside > 0.3 ? `calc(100% - ${px(beside)})` : '100%';
  return { item, css };
}

/** What is wider than this gives way to a window that is narrower than it was drawn for. */
const NARROWEST = 200;

/** A picture that takes most of the width: it gives way to a narrower window, and fills a wider one if it filled this. */
function spanningPicture(item: Placed, left: number, rest: number): { item: Placed; css: Css } {
  const css: Css = {};
  const isWhole = near(left, 0) && near(rest, 0);
  css.width = isWhole ? '100%' : px(item.box.width);
  if (!isWhole) css['max-width'] = '100%';
  if (item.kind === 'image') {
    css.height = px(item.box.height);
    css['object-fit'] = item.look['object-fit'] ?? 'cover';
  } else
    css['aspect-ratio'] =
      `${Math.round(item.box.width * 100) / 100} / ${Math.round(item.box.height * 100) / 100}`;
  if (isWhole) return { item, css };
  if (near(left, rest, 8)) css['align-self'] = 'center';
  else {
    css['align-self'] = 'flex-start';
    if (Math.abs(left) > 0.3) css['margin-left'] = px(left);
  }
  return { item, css };
}

function softInStack(area: Box, item: Placed): { item: Placed; css: Css } {
  const { align, anchor } = item.soft!;
  const css: Css = {};
  if (align === 'center') {
    const off = anchor - middle(area);
    if (item.kind === 'text') css['text-align'] = 'center';
    if (off > 0.75) css['margin-left'] = px(2 * off);
    if (off < -0.75) css['margin-right'] = px(-2 * off);
    const x = area.x + Math.max(0, 2 * off);
    return { item: { ...item, box: { ...item.box, x, width: area.width - Math.abs(2 * off) } }, css };
  }
  if (align === 'end') {
    css['text-align'] = 'right';
    const rest = right(area) - anchor;
    if (Math.abs(rest) > 0.3) css['margin-right'] = px(rest);
    return { item: { ...item, box: { ...item.box, x: area.x, width: anchor - area.x } }, css };
  }
  const left = item.box.x - area.x;
  if (Math.abs(left) > 0.3) css['margin-left'] = px(left);
  return {
    item: { ...item, box: { ...item.box, width: Math.max(item.box.width, right(area) - item.box.x) } },
    css,
  };
}

function row(inner: Box, items: readonly Placed[]): Flow {
  const cells = evenCells(inner, items);
  if (cells) return cells;
  const left = Math.max(0, items[0].box.x - inner.x);
  const lastRight = edgeOf(items.at(-1)!);
  const own: Css = { display: 'flex' };
  alignAcross(own, inner, items);
  const gapsBefore = items.map((item, i) => (i ? item.box.x - right(items[i - 1].box) : 0));
  const grower = growerOf(items, right(inner) - left);
  const padRight =
    items.at(-1) === grower && items.at(-1)!.soft
      ? Math.min(left, Math.max(0, right(inner) - lastRight))
      : right(inner) - lastRight;
  if (left > 0.3) own['padding-left'] = px(left);
  if (padRight > 0.3 && (padRight <= left + 24 || grower)) own['padding-right'] = px(padRight);
  const pinned = !grower && items.length > 1 && near(padRight, left, 12) && gapsBefore.at(-1)! > 24;
  // Several that keep their size stand in more lines where the window is narrower, if here they surely stand in one.
  const room = right(inner) - lastRight - Math.max(0, Number.parseFloat(own['padding-right'] ?? '0'));
  if (!grower && !pinned && items.length > 2 && items.every((item) => !item.soft) && room >= 2) {
    own['flex-wrap'] = 'wrap';
    own['row-gap'] = px(Math.max(4, Math.min(...gapsBefore.slice(1))));
  }
  let debt = 0;
  return {
    own,
    items: items.map((item, i) => {
      const css: Css = { ...acrossOf(own, inner, item), ...sizeOf(item, true) };
      const next = items[i + 1];
      const gap = gapsBefore[i] + debt;
      debt = 0;
      if (pinned && i === items.length - 1) css['margin-left'] = 'auto';
      else if (Math.abs(gap) > 0.3) css['margin-left'] = px(gap);
      if (!item.soft) {
        if (item === grower) return { item, css: { ...css, flex: '1 1 0', 'min-width': '0px' } };
        return { item, css: { ...css, width: px(item.box.width), 'flex-shrink': '0' } };
      }
      const limit = next ? next.box.x : right(inner) - Math.max(0, padRight);
      const slack = limit - right(item.box);
      // What follows text must not move when the text is narrower or wider than estimated.
      const keep = next ? Math.min(Math.max(slack, 0), 8) : 0;
      const width = Math.max(limit - item.box.x - keep, 1);
      if (next) debt = keep - gapsBefore[i + 1];
      if (item.kind === 'text' && item.soft.align !== 'start')
        css['text-align'] = item.soft.align === 'center' ? 'center' : 'right';
      const x =
        item.soft.align === 'start'
          ? item.box.x
          : item.soft.align === 'end'
            ? item.soft.anchor - width
            : item.soft.anchor - width / 2;
      const wide: Placed = {
        ...item,
        box: { ...item.box, x: item.soft.align === 'start' ? item.box.x : x, width },
      };
      if (item.soft.align !== 'start') {
        debt = 0;
        if (item.soft.align === 'end') {
          css['margin-left'] = 'auto';
          if (item.kind === 'text') css['white-space'] = item.look['white-space'] ?? 'nowrap';
          return { item, css };
        }
        return {
          item,
          css: {
            ...css,
            width: px(item.box.width),
            'flex-shrink': '0',
            'white-space': item.look['white-space'] ?? 'nowrap',
          },
        };
      }
      if (item === grower) return { item: wide, css: { ...css, flex: '1 1 0', 'min-width': '0px' } };
      return {
        item: wide,
        css: {
          ...css,
          width: px(width),
          'flex-shrink': '0',
          ...(item.kind === 'text' ? { 'white-space': item.look['white-space'] ?? 'nowrap' } : {}),
        },
      };
    }),
  };
}

const edgeOf = (item: Placed): number => (item.soft?.align === 'end' ? item.soft.anchor : right(item.box));

/** Of a row, the one that takes the room that is left: the text with most of it, or a field that fills it. */
function growerOf(items: readonly Placed[], width: number): Placed | null {
  let best: Placed | null = null;
  let most = 24;
  items.forEach((item, i) => {
    if (item.soft?.align !== 'start') return;
    const room =
      (items[i + 1]?.box.x ?? right(item.box) + (items.length > 1 ? most + 1 : 0)) - right(item.box);
    if (room > most) [best, most] = [item, room];
  });
  return (
    best ?? items.find((item) => !item.soft && !isFixed(item) && item.box.width > width * STRETCHES) ?? null
  );
}

const anchorOf = (item: Placed): number =>
  item.soft?.align === 'center' ? item.soft.anchor : middle(item.box);

/** Whether the middles of three or more items stand where those of equal cells would. */
function areCells(inner: Box, items: readonly Placed[]): boolean {
  if (items.length < 3) return false;
  const sorted = items.toSorted((a, b) => anchorOf(a) - anchorOf(b));
  const step = (anchorOf(sorted.at(-1)!) - anchorOf(sorted[0])) / (sorted.length - 1);
  return (
    sorted.every((item, i) => near(anchorOf(item), anchorOf(sorted[0]) + i * step, 2)) &&
    near(anchorOf(sorted[0]) - step / 2 - inner.x, 0, 8) &&
    near(step * sorted.length, inner.width, 16)
  );
}

/** Items that stand in equal cells (a bar of tabs): each grows as the others do. */
function evenCells(inner: Box, items: readonly Placed[]): Flow | null {
  if (items.length < 2) return null;
  const at = anchorOf;
  const step = (at(items.at(-1)!) - at(items[0])) / (items.length - 1);
  if (!items.every((item, i) => near(at(item), at(items[0]) + i * step, 2))) return null;
  if (items.some((item) => isFixed(item) && item.kind !== 'vector')) return null;
  const own: Css = { display: 'flex' };
  alignAcross(own, inner, items);
  const first = at(items[0]) - step / 2 - inner.x;
  const across = (item: Placed): Css => ({ ...acrossOf(own, inner, item), ...sizeOf(item, true) });
  if (items.every((item) => !item.soft && near(item.box.width, items[0].box.width))) {
    const gap = step - items[0].box.width;
    const pad = items[0].box.x - inner.x;
    if (
      items[0].kind === 'vector' ||
      !near(pad, right(inner) - right(items.at(-1)!.box)) ||
      step * items.length < inner.width * 0.8
    )
      return null;
    if (pad > 0.3) Object.assign(own, { 'padding-left': px(pad), 'padding-right': px(pad) });
    if (gap > 0.3) own['column-gap'] = px(gap);
    return {
      own,
      items: items.map((item) => ({ item, css: { ...across(item), flex: '1 1 0', 'min-width': '0px' } })),
    };
  }
  if (
    !near(first, 0, 8) ||
    !near(step * items.length, inner.width, 16) ||
    items.some((item) => hasLook(item) && item.kind === 'box')
  )
    return null;
  return {
    own,
    items: items.map((item, i) => {
      const cell = {
        ...item.box,
        x: inner.x + i * (inner.width / items.length),
        width: inner.width / items.length,
      };
      const css: Css = { ...across(item), flex: '1 1 0', 'min-width': '0px' };
      if (item.kind === 'text') css['text-align'] = 'center';
      if (item.kind === 'text' || (item.kind === 'box' && item.children.length))
        return { item: { ...item, box: cell }, css };
      return { item, css: { ...css, width: px(item.box.width) } };
    }),
  };
}

/** Says where the items of a row stand across it: on one middle line, or each from the top. */
function alignAcross(own: Css, inner: Box, items: readonly Placed[]): void {
  const line = centre(items[0].box);
  if (items.every((item) => near(centre(item.box), line, 0.3))) {
    own['align-items'] = 'center';
    if (near(line, centre(inner), 0.3)) {
      own['min-height'] = px(inner.height);
      return;
    }
    const tallest = union(items.map((item) => item.box));
    setPadding(own, tallest.y - inner.y, 0, bottom(inner) - bottom(tallest), 0);
    return;
  }
  own['align-items'] = 'flex-start';
  const all = union(items.map((item) => item.box));
  setPadding(own, all.y - inner.y, 0, bottom(inner) - bottom(all), 0);
}

function acrossOf(own: Css, inner: Box, item: Placed): Css {
  if (own['align-items'] !== 'flex-start') return {};
  const top = item.box.y - inner.y - parseFloat(own['padding-top'] ?? '0');
  return Math.abs(top) > 0.3 ? { 'margin-top': px(top) } : {};
}

function freely(inner: Box, items: readonly Placed[], isWhole: boolean): Flow {
  return {
    own: { position: 'relative', ...(isWhole ? { 'min-height': px(inner.height) } : {}) },
    items: items.map((item) => {
      const css: Css = { position: 'absolute', top: px(item.box.y - inner.y) };
      const { soft } = item;
      const rest = right(inner) - right(item.box);
      if (soft?.align === 'center') {
        css.left = px(soft.anchor - inner.x);
        css.transform = 'translateX(-50%)';
      } else if (soft?.align === 'end') css.right = px(right(inner) - soft.anchor);
      else if (!soft && rest >= 0 && rest < (item.box.x - inner.x) / 2) css.right = px(rest);
      else css.left = px(item.box.x - inner.x);
      if (soft) {
        css.width = 'max-content';
        return { item, css };
      }
      const spans = near(item.box.x, inner.x) && near(rest, 0);
      if (spans && item.kind === 'image') css.width = '100%';
      else if (spans) css.right = '0px';
      else css.width = px(item.box.width);
      css.height = px(item.box.height);
      return { item, css };
    }),
  };
}

function withFloating(inner: Box, flow: Flow, floating: readonly Placed[]): Flow {
  const over = freely(inner, floating, false);
  return { own: { ...flow.own, ...over.own }, items: [...flow.items, ...over.items] };
}

/** What was drawn before all that it overlaps lies behind it, though what is placed freely would be painted last. */
function withBehind(flow: Flow, drawn: readonly Placed[], floating: readonly Placed[]): Flow {
  const behind = new Set(
    floating.filter((item) => {
      const others = drawn.filter(
        (other) => other !== item && !floating.includes(other) && overlaps(item.box, other.box),
      );
      return others.length > 0 && others.every((other) => drawn.indexOf(other) > drawn.indexOf(item));
    }),
  );
  if (!behind.size) return flow;
  return {
    // What lies behind must not lie behind what holds it, too.
    own: { ...flow.own, isolation: 'isolate' },
    items: flow.items.map(({ item, css }) =>
      behind.has(item) ? { item, css: { ...css, 'z-index': '-1' } } : { item, css },
    ),
  };
}

const overlaps = (a: Box, b: Box): boolean =>
  a.x < right(b) && b.x < right(a) && a.y < bottom(b) && b.y < bottom(a);

const isFixed = (item: Placed): boolean => item.kind === 'image' || item.kind === 'vector';

/** The size that an item keeps: leaves and pictures both ways, containers by what is in them. */
function sizeOf(item: Placed, isInRow: boolean): Css {
  if (item.kind === 'text') return {};
  if (isFixed(item))
    return {
      width: px(item.box.width),
      height: px(item.box.height),
      ...(isInRow ? { 'flex-shrink': '0' } : {}),
    };
  return item.children.length ? {} : { height: px(item.box.height) };
}

function setPadding(own: Css, top: number, left: number, foot: number, rest: number): void {
  const sides = { 'padding-top': top, 'padding-right': rest, 'padding-bottom': foot, 'padding-left': left };
  for (const [name, value] of Object.entries(sides)) if (value > 0.3) own[name] = px(value);
}
