import { isElement, mapChildren, type MarkupElement } from './markup.ts';

const placed = new WeakMap<MarkupElement, MarkupElement>();

/** A screen whose links to places of its own do not say where they are, so that the same is said on every screen. */
export function withOwnPlaces(root: MarkupElement, route: string | null): MarkupElement {
  if (route === null) return root;
  const known = placed.get(root);
  if (known) return known;
  const bare = (to: string): string => (to.startsWith(`${route}#`) ? to.slice(route.length) : to);
  const visit = (node: MarkupElement): MarkupElement => {
    const made = mapChildren(node, (child) => (isElement(child) ? visit(child) : child));
    if (made.link?.kind !== 'go' || bare(made.link.to) === made.link.to) return made;
    return { ...made, link: { ...made.link, to: bare(made.link.to) } };
  };
  const made = visit(root);
  placed.set(root, made);
  return made;
}
