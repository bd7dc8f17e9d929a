import type { App } from '../model/app.ts';
import type { Element, Screen } from '../model/design.ts';
import { whileSame } from '../json/once_for.ts';

/** A settled screen as it is seen at first: without the parts that are closed then. Itself where it has none. */
export const atFirst = (screen: Screen, { disclosures }: Pick<App, 'disclosures'>): Screen =>
  withOpenOnly(screen, disclosures);

const withOpenOnly = whileSame((screen: Screen, disclosures: App['disclosures']): Screen => {
  const root = withoutClosed(screen.root, disclosures);
  return root === screen.root ? screen : { ...screen, root };
});

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
