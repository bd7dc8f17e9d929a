import type { Design, Element, Screen } from '../../model/design.ts';
import { walkElements } from '../../model/project.ts';
import { onceFor } from '../../json/once_for.ts';

/** How much two screens have in common. Shares are of what either has. */
export interface Likeness {
  readonly a: Screen;
  readonly b: Screen;
  /** Of the texts, 0 to 1. */
  readonly texts: number;
  /** Of the texts of the one that has fewer, how many the other has as well. */
  readonly contained: number;
  /** Of the boxes, by kind and place. */
  readonly boxes: number;
  /** How many the one has that has fewer. */
  readonly textCount: number;
  readonly boxCount: number;
}

interface Traits {
  readonly screen: Screen;
  readonly texts: ReadonlyMap<string, number>;
  readonly textTotal: number;
  readonly boxes: ReadonlyMap<string, number>;
  readonly boxTotal: number;
}

/** Places are compared on a grid of so many px. */
const GRID = 8;
/** Pairs with less in common than this are not worth telling. */
const LEAST = 0.08;

/**
 * Pairs of screens that have something in common. Only pairs that share a text or a box are looked at, found by an
 * index of both; computed once per design.
 */
export const likenessesOf = onceFor((design: Design): readonly Likeness[] =>
  compareAll(design.screens.map(traitsOf)),
);

const traitsOf = onceFor(readTraits);

function readTraits(screen: Screen): Traits {
  const texts = new Map<string, number>();
  const boxes = new Map<string, number>();
  let [textTotal, boxTotal] = [0, 0];
  walkElements(screen.root, (element) => {
    if (element.hidden) return false;
    const text = element.text?.replace(/\s+/g, ' ').trim().toLowerCase();
    if (text && text.length > 1) {
      texts.set(text, (texts.get(text) ?? 0) + 1);
      textTotal++;
    }
    if (element.tag) {
      const place = placeOf(element);
      boxes.set(place, (boxes.get(place) ?? 0) + 1);
      boxTotal++;
    }
    return true;
  });
  return { screen, texts, textTotal, boxes, boxTotal };
}

function placeOf({ kind, box, asset }: Element): string {
  const grid = (n: number): number => Math.round(n / GRID);
  return `${kind}${asset?.slice(0, 8) ?? ''} ${grid(box.x)} ${grid(box.y)} ${grid(box.width)} ${grid(box.height)}`;
}

/** What is on more screens than this share of them says nothing of any two. */
const COMMON = 0.5;

function compareAll(all: readonly Traits[]): Likeness[] {
  const n = all.length;
  /** How many texts and boxes each pair shares, at `i * n + j` for i < j. */
  const shared = { texts: new Uint16Array(n * n), boxes: new Uint16Array(n * n) };
  for (const kind of ['texts', 'boxes'] as const) {
    const index = new Map<string, [screen: number, times: number][]>();
    all.forEach((one, i) => {
      for (const [trait, times] of one[kind]) {
        const list = index.get(trait);
        if (list) list.push([i, times]);
        else index.set(trait, [[i, times]]);
      }
    });
    const counts = shared[kind];
    for (const list of index.values()) {
      if (list.length < 2 || (list.length > 24 && list.length > n * COMMON)) continue;
      for (let x = 0; x < list.length; x++)
        for (let y = x + 1; y < list.length; y++)
          counts[list[x][0] * n + list[y][0]] += Math.min(list[x][1], list[y][1]);
    }
  }
  const pairs: Likeness[] = [];
  for (let i = 0; i < n; i++)
    for (let j = i + 1; j < n; j++) {
      const [a, b] = [all[i], all[j]];
      const common = shared.texts[i * n + j];
      const texts = share(common, a.textTotal, b.textTotal);
      const boxes = share(shared.boxes[i * n + j], a.boxTotal, b.boxTotal);
      if (texts < LEAST && boxes < LEAST) continue;
      const fewer = Math.min(a.textTotal, b.textTotal);
      pairs.push({
        a: a.screen,
        b: b.screen,
        texts,
        boxes,
        contained: fewer ? common / fewer : 0,
        textCount: fewer,
        boxCount: Math.min(a.boxTotal, b.boxTotal),
      });
    }
  return pairs;
}

const share = (common: number, a: number, b: number): number =>
  a + b > common ? common / (a + b - common) : 0;
