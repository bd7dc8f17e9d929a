import { pressablesOf } from '../links/pressable.ts';
import type { Screen } from '../model/design.ts';
import { shapeOf } from '../roles/shape.ts';
import { type Sight, sightOf } from '../roles/sight.ts';

/** One of several controls of which one is chosen. */
export interface ChoiceControl {
  readonly label: string;
  /** Keys of all of them, in order, with their labels. */
  readonly all: ReadonlyMap<string, string>;
  /** Label of the one that is drawn as the chosen one. */
  readonly chosen: string;
  /** What they stand in. */
  readonly within: Sight;
}

const FEWEST = 3;
const MOST = 12;
const LONGEST_LABEL = 30;
/** Of the width of the screen; and in px. */
const WIDEST = 0.4;
const HIGHEST = 72;
/** What is said of a chosen one, and of no other. */
const PAINT =
  /^(color|background-color|background|border-(top|bottom|left|right)-color|font-weight|fill|stroke)$/;

/** Controls that stand beside each other, are built alike, and of which just one is painted otherwise; by their keys. */
export function choicesOf(screen: Screen): ReadonlyMap<string, ChoiceControl> {
  const { byKey } = sightOf(screen);
  const labels = new Map(pressablesOf(screen).map(({ element, label }) => [element.key, label.trim()]));
  const parents = new Map<Sight, Sight[]>();
  for (const key of labels.keys()) {
    let at = byKey.get(key)!;
    while (at.parent && at.parent.children.length === 1) at = at.parent;
    if (at.parent) parents.set(at.parent, [...(parents.get(at.parent) ?? []), byKey.get(key)!]);
  }
  const found = new Map<string, ChoiceControl>();
  for (const [within, controls] of parents) {
    if (controls.length < FEWEST || controls.length > MOST || controls.length < within.children.length)
      continue;
    const shape = shapeOf(controls[0].element);
    const all = new Map(controls.map(({ element }) => [element.key, labels.get(element.key)!]));
    const areNames = [...all.values()].every((label) => label !== '' && label.length <= LONGEST_LABEL);
    if (!areNames || new Set(all.values()).size < all.size) continue;
    if (!controls.every(({ element }) => shapeOf(element) === shape)) continue;
    // What is as wide as the screen, or as high as a card, is a row or a card, of which one is seen otherwise.
    const isSmall = controls.every(
      ({ element: { box } }) => box.width <= screen.width * WIDEST && box.height <= HIGHEST,
    );
    if (!isSmall) continue;
    const marked = theOneOf(controls.map(paintOf));
    if (marked === null) continue;
    const chosen = all.get(controls[marked].element.key)!;
    for (const [key, label] of all) found.set(key, { label, all, chosen, within });
  }
  return found;
}

/** The place of the one that differs from all others, which are the same; null where there is none. */
function theOneOf(paints: readonly string[]): number | null {
  const counts = new Map<string, number>();
  for (const paint of paints) counts.set(paint, (counts.get(paint) ?? 0) + 1);
  const at = paints.findIndex((paint) => counts.get(paint) === 1);
  return counts.size === 2 && at >= 0 ? at : null;
}

/** How an element and what is in it is painted. */
export function paintOf({ element, children }: Sight): string {
  const own = Object.entries(element.style.base).filter(([property]) => PAINT.test(property));
  return JSON.stringify([own.sort(), children.map(paintOf)]);
}
