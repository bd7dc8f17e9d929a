// What a browser does over the page, and the stand-in for one in tests does not know.
window.scrollTo = () => {};
Element.prototype.scrollIntoView = () => {};
HTMLDialogElement.prototype.showModal ??= function show(this: HTMLDialogElement) {
  this.open = true;
};
HTMLDialogElement.prototype.show ??= HTMLDialogElement.prototype.showModal;
HTMLDialogElement.prototype.close ??= function close(this: HTMLDialogElement) {
  this.open = false;
};
HTMLElement.prototype.showPopover ??= () => {};

/** A link of the app as `links.json` lists it. */
export interface ListedLink {
  from: string;
  role: string;
  name: string;
  at?: number;
  kind: string;
  to: string;
  given?: Record<string, boolean>;
}

/** What can be pressed that has a role and, as far as it is given, a name. */
export function calledSo(container: Element, role: string, name: string): HTMLElement[] {
  const plain = (text: string): string => text.replace(/\s+/g, '');
  const wanted = plain(name);
  return [...container.querySelectorAll<HTMLElement>('a, button, [role="link"]')].filter(
    (element) => {
      const own =
        element.getAttribute('role') ?? (element.tagName === 'BUTTON' ? 'button' : 'link');
      const called = plain(element.getAttribute('aria-label') ?? textOf(element));
      return own === role && (wanted ? called.startsWith(wanted) : called === '');
    },
  );
}

/** The text of an element with what its pictures say. */
function textOf(node: Node): string {
  if (node instanceof HTMLImageElement) return node.alt;
  if (node.nodeType === Node.TEXT_NODE) return node.textContent ?? '';
  return [...node.childNodes].map(textOf).join('');
}
