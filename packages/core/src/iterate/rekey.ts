import { type Element, nameInCode, type Screen } from '../model/design.ts';

/**
 * A screen under its own key, with each element under the key that it is given.
 * @param oldOf the element that one is; null for a new one
 */
export function rekeyed(
  screen: Screen,
  key: string,
  keyOf: (element: Element) => string,
  oldOf: (element: Element) => Element | null = () => null,
): Screen {
  const visit = (element: Element): Element => {
    const old = oldOf(element);
    const firstName = old ? nameInCode(old) : element.name;
    return {
      ...element,
      key: keyOf(element),
      ...(firstName === element.name ? {} : { firstName }),
      children: element.children.map(visit),
    };
  };
  return { ...screen, key, root: visit(screen.root) };
}

/** The key of an element of the first screens of a project. */
export const placeKey = (screen: string, element: Element): string => `${screen}:${element.source.path}`;

/**
 * A key for an element that no element of the project ever had: what came with one iteration is told from what came
 * with others by the iteration's number.
 */
export const freshKey = (screen: string, iteration: number, element: Element): string =>
  `${screen}:${iteration}.${element.source.path}`;
