import { bottom, right, union } from '../../layout/placed.ts';
import type { Box } from '../../model/design.ts';
import { boxAround } from '../svg/matrix.ts';
import { flatten, segmentsOf } from '../svg/segments.ts';
import { overlap } from './clipping.ts';
import { movedPage } from './moved.ts';
import { boxOfOutline } from './outline.ts';
import { boundsOfPicture } from './picture_place.ts';
import type { Clip, PaintedItem, PaintedPage, PaintedShape } from './painted_page.ts';

/** A page that is filled up to less than this share of its height ended because somebody wanted it to. */
const FILLED = 0.75;
/** More than so many texts at the same place of two pages belong to each of them, as bars do. */
const REPEATED = 3;
/** Margins of less than this, in px, may be room that the page itself has. */
const MARGIN = 8;

/**
 * The pages of a file as screens: one after another where they are one long page that was cut for paper, else each by itself.
 * @param isPrinted whether a browser printed the file, and so all of its pages from one
 */
export function screensOfPages(pages: readonly PaintedPage[], isPrinted: boolean): PaintedPage[] {
  return pages.length > 1 && areOne(pages, isPrinted) ? [joined(pages)] : [...pages];
}

function areOne(pages: readonly PaintedPage[], isPrinted: boolean): boolean {
  const [first] = pages;
  if (
    pages.some(
      ({ width, height }) => Math.abs(width - first.width) > 1 || Math.abs(height - first.height) > 1,
    )
  )
    return false;
  const breaks = pages.slice(1).map((next, i) => ({ before: pages[i], next }));
  const areForced = breaks.every(({ before }) => reach(before) < FILLED * before.height);
  if (areForced) return false;
  if (isPrinted) return true;
  return breaks.every(
    ({ before, next }) =>
      repeated(before, next).size <= REPEATED &&
      reach(before) >= FILLED * before.height &&
      continues(before, next),
  );
}

/** How far down a page is filled, by what does not fill all of it. */
const reach = (page: PaintedPage): number =>
  Math.max(
    0,
    ...boxesOf(page)
      .filter((box) => box.height < 0.9 * page.height)
      .map(bottom),
  );

const boxesOf = ({ items, width, height }: PaintedPage): Box[] =>
  items.flatMap((item) => {
    const seen = overlap({ x: 0, y: 0, width, height }, boundsOf(item));
    return seen.width > 0 && seen.height > 0 ? [seen] : [];
  });

function boundsOf(item: PaintedItem): Box {
  if (item.kind === 'text')
    return { x: item.x, y: item.y - item.size, width: item.width, height: item.size * 1.3 };
  if (item.kind === 'shape') return boxAround(flatten(segmentsOf(item.outline)).flat());
  return boundsOfPicture(item);
}

/** Texts, and letters that were painted as outlines, that stand at the same place of two pages. */
function repeated(a: PaintedPage, b: PaintedPage): ReadonlySet<string> {
  const places = new Set(a.items.flatMap((item) => placeOf(item) ?? []));
  return new Set(b.items.flatMap((item) => placeOf(item) ?? []).filter((place) => places.has(place)));
}

const placeOf = (item: PaintedItem): string | null =>
  item.kind === 'text' && item.text.trim()
    ? `${item.text} ${Math.round(item.x)} ${Math.round(item.y)}`
    : item.kind === 'shape' && item.letter
      ? `${item.letter.id} ${Math.round(item.letter.x)} ${Math.round(item.letter.y)}`
      : null;

/** Things that are printed on every page, since they stay in their place while one scrolls: texts, and what is painted with them. */
function printedAgain(before: PaintedPage, page: PaintedPage): ReadonlySet<PaintedItem> {
  const texts = repeated(before, page);
  if (texts.size <= REPEATED) return new Set();
  const looks = new Set(before.items.flatMap((item) => lookOf(item) ?? []));
  return new Set(
    page.items.filter((item) => {
      if (placeOf(item) !== null) return texts.has(placeOf(item)!);
      // What is as high as the page is one thing on all of them.
      return looks.has(lookOf(item) ?? '') && boundsOf(item).height < 0.9 * page.height;
    }),
  );
}

const lookOf = (item: PaintedItem): string | null =>
  item.kind === 'shape'
    ? `${item.outline} ${JSON.stringify(item.fill)}`
    : item.kind === 'picture'
      ? item.matrix.map(Math.round).join(' ')
      : null;

/** Whether a column that reaches the foot of one page goes on at the head of the next. */
function continues(before: PaintedPage, next: PaintedPage): boolean {
  const at = (page: PaintedPage, isFoot: boolean): Box[] =>
    boxesOf(page).filter(
      (box) =>
        box.width < 0.98 * page.width &&
        (isFoot ? bottom(box) > page.height - 2 : box.y < 2) &&
        box.height > 4,
    );
  const heads = at(next, false);
  return at(before, true).some((foot) =>
    heads.some((head) => Math.abs(head.x - foot.x) < 1 && Math.abs(head.width - foot.width) < 1),
  );
}

function joined(pages: readonly PaintedPage[]): PaintedPage {
  const { top, foot } = marginsOf(pages);
  const [{ width, height }] = pages;
  let down = 0;
  const items: PaintedItem[] = [];
  const links: PaintedPage['links'][number][] = [];
  const leftOut: Record<string, number> = {};
  const seams: number[] = [];
  pages.forEach((page, i) => {
    const last = i === pages.length - 1;
    const above = i ? top : 0;
    const moved = movedPage(withoutPageClips(page), 1, down - above);
    // What stays in its place while one scrolls is printed on every page.
    const again = i ? printedAgain(pages[i - 1], page) : new Set<PaintedItem>();
    const kept = moved.items.filter((_, k) => !again.has(page.items[k]));
    items.push(...kept);
    links.push(...moved.links);
    for (const [what, count] of Object.entries(page.leftOut)) leftOut[what] = (leftOut[what] ?? 0) + count;
    down += height - above - (last ? 0 : foot);
    if (!last) seams.push(down);
  });
  const whole = withoutSeams(items, seams);
  // A last page is mostly empty: the screen ends where it does.
  const end = Math.max(
    seams.at(-1) ?? 0,
    ...whole.map((item) => (isBackdrop(item, down) ? 0 : bottom(boundsOf(item)))),
  );
  const long = Math.min(down, Math.ceil(end) + foot);
  const page: Clip = { outline: `M0 0L${width} 0L${width} ${long}L0 ${long}Z`, isEvenOdd: false };
  return {
    width,
    height: long,
    items: whole.map((item) => placedIn(item, page, long)),
    links,
    leftOut,
  };
}

/** Each thing ends where the page does. */
const placedIn = (item: PaintedItem, page: Clip, height: number): PaintedItem => ({
  ...item,
  ...(bottom(boundsOf(item)) > height ? { clips: [...item.clips, page] } : {}),
});

const isBackdrop = (item: PaintedItem, height: number): boolean =>
  item.kind === 'shape' && bottom(boundsOf(item)) > height - 2;

/** The empty room that all pages have above and below, as paper has. */
function marginsOf(pages: readonly PaintedPage[]): { top: number; foot: number } {
  const all = pages.map((page) => {
    const boxes = boxesOf(page).filter(
      (box) => box.height < 0.995 * page.height || box.width < 0.995 * page.width,
    );
    return boxes.length ? { top: union(boxes).y, foot: page.height - bottom(union(boxes)) } : null;
  });
  const least = (values: readonly number[]): number => {
    const value = values.length ? Math.min(...values) : 0;
    return value > MARGIN ? value : 0;
  };
  return {
    top: least(all.slice(1).flatMap((margins) => margins?.top ?? [])),
    foot: least(all.slice(0, -1).flatMap((margins) => margins?.foot ?? [])),
  };
}

/** Without what only says that nothing is painted beyond the page. */
function withoutPageClips(page: PaintedPage): PaintedPage {
  const isPage = ({ outline }: Clip): boolean => {
    const shape = boxOfOutline(segmentsOf(outline));
    return !!shape && shape.box.y <= 1 && bottom(shape.box) >= page.height - 1;
  };
  const known = new Map<readonly Clip[], readonly Clip[]>();
  const strip = (clips: readonly Clip[]): readonly Clip[] => {
    const done = known.get(clips);
    if (done) return done;
    // What is as high as a page is cut at the sides all the same.
    const left = clips.flatMap((clip) => (isPage(clip) ? sidesOf(clip, page) : [clip]));
    known.set(clips, left);
    return left;
  };
  return {
    ...page,
    items: page.items.map((item): PaintedItem => {
      const box = boundsOf(item);
      if (box.y >= -1 && bottom(box) <= page.height + 1) return { ...item, clips: strip(item.clips) };
      // What is cut by the end of a page must not reach into the next one.
      const cut = item.kind === 'shape' && !item.mask ? plainBox(item) : null;
      if (!cut) return item;
      const seen = overlap({ x: cut.x, y: 0, width: cut.width, height: page.height }, cut);
      return { ...item, outline: boxOutline(seen), clips: strip(item.clips) } as PaintedShape;
    }),
  };
}

function sidesOf({ outline }: Clip, page: PaintedPage): readonly Clip[] {
  const { box } = boxOfOutline(segmentsOf(outline))!;
  if (box.x <= 1 && right(box) >= page.width - 1) return [];
  const far = 100_000;
  return [
    {
      outline: `M${box.x} ${-far}L${right(box)} ${-far}L${right(box)} ${far}L${box.x} ${far}Z`,
      isEvenOdd: false,
    },
  ];
}

/** Boxes that were cut at the end of a page are whole again. */
function withoutSeams(items: readonly PaintedItem[], seams: readonly number[]): PaintedItem[] {
  let left = [...items];
  for (const seam of seams) {
    for (const lower of left.filter((item): item is PaintedShape => item.kind === 'shape')) {
      const below = plainBox(lower);
      if (!below || Math.abs(below.y - seam) > 1.5) continue;
      const upper = left.find(
        (item): item is PaintedShape =>
          item.kind === 'shape' &&
          item !== lower &&
          isSamePaint(item, lower) &&
          isAbove(plainBox(item), below, seam),
      );
      if (!upper) continue;
      const above = plainBox(upper)!;
      const whole: PaintedShape = {
        ...upper,
        outline: boxOutline({ ...above, height: bottom(below) - above.y }),
      };
      left = left.flatMap((item) => (item === upper ? [whole] : item === lower ? [] : [item]));
    }
  }
  return left;
}

const boxOutline = (box: Box): string =>
  `M${box.x} ${box.y}L${right(box)} ${box.y}L${right(box)} ${bottom(box)}L${box.x} ${bottom(box)}Z`;

const plainBox = (shape: PaintedShape): Box | null => {
  const found = boxOfOutline(segmentsOf(shape.outline));
  return found && found.radii.every(([x]) => x === 0) ? found.box : null;
};

const isAbove = (above: Box | null, below: Box, seam: number): boolean =>
  !!above &&
  above.y < seam - 2 &&
  Math.abs(bottom(above) - seam) <= 1.5 &&
  Math.abs(above.x - below.x) < 1 &&
  Math.abs(above.width - below.width) < 1;

const isSamePaint = (a: PaintedShape, b: PaintedShape): boolean =>
  typeof a.fill === 'string' &&
  a.fill === b.fill &&
  !a.stroke &&
  !b.stroke &&
  a.opacity === b.opacity &&
  !a.mask &&
  !b.mask;
