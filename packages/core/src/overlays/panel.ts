import type { Declarations, Element, Screen } from '../model/design.ts';
import { elementsByKey } from '../model/project.ts';
import { findScrims } from './scrim.ts';
import { onceForBoth } from '../json/once_for.ts';

/** Where an element stands in its parent; as the root of an overlay it stands nowhere yet. */
const PLACE =
  /^(position|top|right|bottom|left|inset|z-index|transform|translate|margin-|flex-(grow|shrink|basis)|align-self|justify-self|order|grid-(column|row))/;

/** What an element keeps of its style where it no longer stands in what it was drawn in. */
export function withoutPlace(css: Declarations): Declarations {
  const kept: Record<string, string> = {};
  for (const [name, value] of Object.entries(css)) if (!PLACE.test(name)) kept[name] = value;
  return kept;
}

/** The part of a drawing that is the overlay, as a screen of its own; the drawing itself where that part is gone. */
export const panelScreen = onceForBoth((screen: Screen, panel: string): Screen => {
  const element = elementsByKey(screen).get(panel);
  return element ? cutOut(screen, element) : screen;
});

function cutOut(screen: Screen, element: Element): Screen {
  const { at = {}, from = {}, ...style } = element.style;
  const kept = (table: Readonly<Record<string, Declarations>>) =>
    Object.fromEntries(Object.entries(table).map(([width, css]) => [width, withoutPlace(css)]));
  const base = withoutPlace(style.base);
  const holdsPlaced = element.children.some((child) => child.style.base.position === 'absolute');
  const root: Element = {
    ...element,
    style: {
      ...style,
      base: {
        ...base,
        ...(holdsPlaced ? { position: 'relative', height: `${Math.round(element.box.height)}px` } : {}),
        width: `${Math.round(element.box.width)}px`,
        'max-width': '100%',
      },
      at: kept(at),
      from: kept(from),
    },
  };
  return {
    ...screen,
    root,
    width: Math.max(1, Math.round(element.box.width)),
    height: Math.max(1, Math.round(element.box.height)),
  };
}

/** A drawing without the part that was cut out of it, and without the shade that it lay on. */
export const withoutPanel = onceForBoth((screen: Screen, panel: string): Screen => {
  const gone = new Set([panel, ...findScrims(screen).map((element) => element.key)]);
  return { ...screen, root: without(screen.root, gone) };
});

function without(element: Element, gone: ReadonlySet<string>): Element {
  const children = element.children.flatMap((child) => (!gone.has(child.key) ? [without(child, gone)] : []));
  const isSame =
    children.length === element.children.length &&
    children.every((child, i) => child === element.children[i]);
  return isSame ? element : { ...element, children };
}
