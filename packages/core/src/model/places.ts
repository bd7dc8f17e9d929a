import type { Design, Element, Screen } from './design.ts';

/** Where an element stands in its screen. */
interface Place {
  readonly element: Element;
  readonly parent: string | null;
}

const places = new WeakMap<Screen, ReadonlyMap<string, Place>>();

/** The places of all elements of a screen by key; computed once per screen value. */
function placesIn(screen: Screen): ReadonlyMap<string, Place> {
  let index = places.get(screen);
  if (!index) {
    const made = new Map<string, Place>();
    const visit = (element: Element, parent: string | null): void => {
      made.set(element.key, { element, parent });
      for (const child of element.children) visit(child, element.key);
    };
    visit(screen.root, null);
    places.set(screen, (index = made));
  }
  return index;
}

/** Of a design in which decisions were carried out: the one that was drawn. */
const drawnOf = new WeakMap<Design, Design>();
export const noteDrawn = (settled: Design, drawn: Design): void => void drawnOf.set(settled, drawn);

/** Where elements were found last, so that most are found again at once; what is found is looked at in any case. */
const lastSeen = new Map<string, string>();
const MOST_SEEN = 500_000;
const screenIndexes = new WeakMap<Design, ReadonlyMap<string, Screen>>();

export function screensByKey(design: Design): ReadonlyMap<string, Screen> {
  let index = screenIndexes.get(design);
  if (!index) screenIndexes.set(design, (index = new Map(design.screens.map((s) => [s.key, s]))));
  return index;
}

/** The screen of a design that holds an element. */
function holderIn(design: Design, element: string): Screen | null {
  const last = screensByKey(design).get(lastSeen.get(element) ?? '');
  if (last && placesIn(last).has(element)) return last;
  const found = design.screens.find((screen) => placesIn(screen).has(element));
  if (found) {
    if (lastSeen.size > MOST_SEEN) lastSeen.clear();
    lastSeen.set(element, found.key);
  }
  return found ?? null;
}

/** The screen that holds an element: of the design itself or, for what was left out of it, of the one drawn. */
export function screenWith(design: Design, element: string): Screen | null {
  const found = holderIn(design, element);
  const drawn = found ? undefined : drawnOf.get(design);
  return found ?? (drawn ? screenWith(drawn, element) : null);
}

/** The key of the screen that holds an element; empty where none does. */
export const screenOf = (design: Design, element: string): string => screenWith(design, element)?.key ?? '';

/** The element with this key; null when it is not in the design. */
export function findElement(design: Design, element: string): Element | null {
  const screen = holderIn(design, element);
  return screen && placesIn(screen).get(element)!.element;
}

/** Keys of the containers of an element, the nearest first. */
export function* containersOf(design: Design, element: string): Generator<string> {
  const screen = screenWith(design, element);
  if (!screen) return;
  const index = placesIn(screen);
  for (let at = index.get(element)?.parent ?? null; at !== null; at = index.get(at)?.parent ?? null) yield at;
}

/** Whether an element is another or stands in it. */
export function isWithin(design: Design, element: string, place: string): boolean {
  if (element === place) return true;
  for (const container of containersOf(design, element)) if (container === place) return true;
  return false;
}
