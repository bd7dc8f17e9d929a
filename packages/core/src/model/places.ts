import type { Design, Element, Screen } from './design.ts';
import { onceFor } from '../json/once_for.ts';

/** Visits an element and all beneath it in reading order; return `false` to leave out what is beneath. */
export function walkElements(
  root: Element,
  visit: (element: Element, parents: readonly Element[]) => boolean | void,
): void {
  const parents: Element[] = [];
  const go = (element: Element): void => {
    if (visit(element, parents) === false) return;
    parents.push(element);
    element.children.forEach(go);
    parents.pop();
  };
  go(root);
}

/** All elements of a screen by key; computed once per screen value. */
export const elementsByKey = onceFor((screen: Screen): ReadonlyMap<string, Element> => {
  const made = new Map<string, Element>();
  walkElements(screen.root, (element) => void made.set(element.key, element));
  return made;
});

/** The container of each element of a screen by the element's key; computed once per screen value. */
export const parentsByKey = onceFor((screen: Screen): ReadonlyMap<string, Element> => {
  const made = new Map<string, Element>();
  walkElements(screen.root, (element) => element.children.forEach((child) => made.set(child.key, element)));
  return made;
});

/** Of a design in which decisions were carried out: the one that was drawn. */
const drawnOf = new WeakMap<Design, Design>();
export const noteDrawn = (settled: Design, drawn: Design): void => void drawnOf.set(settled, drawn);
/** The design as it was drawn; itself where nothing was decided of it. */
export const asDrawn = (design: Design): Design => drawnOf.get(design) ?? design;

/** What is made once for each design as it was drawn, whatever is decided of it. */
export function byDrawing<T extends object>(make: () => T): (design: Design) => T {
  const known = onceFor<Design, T>(make);
  return (design) => known(asDrawn(design));
}

/** Whether two designs have the same elements in the same screens, so that they differ in what these are like only. */
export const haveSameElements = (one: Design, other: Design): boolean =>
  one === other ||
  (one.screens.length === other.screens.length &&
    one.screens.every((screen, i) => {
      const now = other.screens[i];
      if (screen === now) return true;
      const [before, after] = [elementsByKey(screen), elementsByKey(now)];
      return (
        screen.key === now.key &&
        screen.aliases === now.aliases &&
        before.size === after.size &&
        [...before.keys()].every((key) => after.has(key))
      );
    }));

/** Where elements were found last, so that most are found again at once; what is found is looked at in any case. */
const lastSeen = new Map<string, string>();
const MOST_SEEN = 500_000;
export const screensByKey = onceFor(
  (design: Design): ReadonlyMap<string, Screen> => new Map(design.screens.map((s) => [s.key, s])),
);

/** The screen of a design that holds an element. */
function holderIn(design: Design, element: string): Screen | null {
  const last = screensByKey(design).get(lastSeen.get(element) ?? '');
  if (last && elementsByKey(last).has(element)) return last;
  const found = design.screens.find((screen) => elementsByKey(screen).has(element));
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
  return screen && elementsByKey(screen).get(element)!;
}

/** Keys of the containers of an element, the nearest first. */
export function* containersOf(design: Design, element: string): Generator<string> {
  const screen = screenWith(design, element);
  if (!screen) return;
  const parents = parentsByKey(screen);
  for (let at = parents.get(element); at; at = parents.get(at.key)) yield at.key;
}

/** Whether an element is another or stands in it. */
export function isWithin(design: Design, element: string, place: string): boolean {
  if (element === place) return true;
  for (const container of containersOf(design, element)) if (container === place) return true;
  return false;
}
