import type { App } from '../model/app.ts';
import type { Element, Screen } from '../model/design.ts';

const kept = new WeakMap<Screen, { disclosures: App['disclosures']; screen: Screen }>();

/** A settled screen as it is seen at first: without the parts that are closed then. Itself where it has none. */
export function atFirst(screen: Screen, { disclosures }: Pick<App, 'disclosures'>): Screen {
  const known = kept.get(screen);
  if (known?.disclosures === disclosures) return known.screen;
  const root = withoutClosed(screen.root, disclosures);
  const made = root === screen.root ? screen : { ...screen, root };
  kept.set(screen, { disclosures, screen: made });
  return made;
}

function withoutClosed(element: Element, disclosures: App['disclosures']): Element {
  const open = element.children.filter(
    ({ key }) => !disclosures[key] || disclosures[key].open || disclosures[key].below !== undefined,
  );
  const children = open.map((child) => withoutClosed(child, disclosures));
  const isSame =
    children.length === element.children.length &&
    children.every((child, i) => child === element.children[i]);
  return isSame ? element : { ...element, children };
}
