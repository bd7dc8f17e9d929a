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
HTMLCanvasElement.prototype.getContext = () => null;

/** What was asked of the browser. */
const asked = { copied: [] as string[], printed: 0 };
window.print = () => void asked.printed++;
Object.defineProperty(navigator, 'clipboard', {
  configurable: true,
  value: { writeText: async (text: string) => void asked.copied.push(text) },
});

/** What of a page can be seen, and what was asked of the browser so far. */
export function seenOn(page: Document) {
  const all = <T extends HTMLElement>(selector: string): T[] => [
    ...page.querySelectorAll<T>(selector),
  ];
  // What is not hidden is open, but for what only narrow windows close: that is as the first that opens it says.
  const openers = new Map(
    all('[aria-controls][aria-expanded]')
      .map((one) => [one.getAttribute('aria-controls'), one.getAttribute('aria-expanded')] as const)
      .reverse(),
  );
  return {
    ...asked,
    copied: [...asked.copied],
    open: all('[id]')
      .filter(({ id, hidden }) => !hidden && openers.get(id) !== 'false')
      .map(({ id }) => id),
    over: all('[id^="overlay-"]').map(({ id }) => id.slice('overlay-'.length)),
    ticked: all<HTMLInputElement>('input[type="checkbox"]').filter(({ checked }) => checked).length,
  };
}

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
export const calledSo = (container: Element, role: string, name: string): HTMLElement[] =>
  [...container.querySelectorAll<HTMLElement>('a, button, [role="link"]')].filter((element) => {
    const own = element.getAttribute('role') ?? (element.tagName === 'BUTTON' ? 'button' : 'link');
    return own === role && (plain(name) ? beginsSo(element, name) : nameOf(element) === '');
  });

/** Elements of a tag that are called so or say this, or begin with it. */
export const saying = (container: Element, tag: string, name: string): HTMLElement[] =>
  [...container.querySelectorAll<HTMLElement>(tag)].filter((element) => beginsSo(element, name));

const plain = (text: string | null): string => (text ?? '').replace(/\s+/g, '');
const nameOf = (element: Element): string =>
  plain(element.getAttribute('aria-label') ?? textOf(element));
const beginsSo = (element: Element, name: string): boolean =>
  nameOf(element).startsWith(plain(name));

/** The text of an element with what its pictures say. */
function textOf(node: Node): string {
  if (node instanceof HTMLImageElement) return node.alt;
  if (node.nodeType === Node.TEXT_NODE) return node.textContent ?? '';
  return [...node.childNodes].map(textOf).join('');
}

/** How often a text stands in something, however it is spaced. */
export function timesIn(container: Element, text: string): number {
  return plain(container.textContent).split(plain(text)).length - 1;
}

/** The form that has fields of these names; of several the one of this number, from 0. */
export function formWith(container: Element, names: readonly string[], at = 0): HTMLFormElement {
  const forms = [...container.querySelectorAll('form')];
  return forms.filter((form) => names.every((name) => form.elements.namedItem(name)))[at];
}

type Field = HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement;

const fieldsCalled = (form: HTMLFormElement, name: string): Field[] =>
  [...form.elements].filter((one): one is Field => one.getAttribute('name') === name);

/** The fields of a page that are called so, by a label, by what stands in them or by their name. */
export const fieldCalled = (container: Element, called: string): Field[] =>
  [...container.querySelectorAll<Field>('input, select, textarea')].filter((field) => {
    const says = ['aria-label', 'placeholder', 'name'].map((name) => field.getAttribute(name));
    return (says.find((one) => one !== null) ?? '') === called;
  });

/** Enters something as a person does; boxes are ticked by `yes`, and of several round buttons the one that says it is pressed. */
export function enter(field: Field, value: string): void {
  if (field.type === 'checkbox' || field.type === 'radio') {
    const { checked } = field as HTMLInputElement;
    const isWanted = field.type === 'radio' ? field.value === value : value === 'yes';
    if (isWanted !== checked && (isWanted || field.type === 'checkbox')) field.click();
    return;
  }
  // Frameworks take note of what is set in other ways.
  Object.getOwnPropertyDescriptor(Object.getPrototypeOf(field) as object, 'value')!.set!.call(
    field,
    value,
  );
  field.dispatchEvent(new Event('input', { bubbles: true }));
  field.dispatchEvent(new Event('change', { bubbles: true }));
}

/** Fills in the fields of a form that have this name. */
export function fillIn(form: HTMLFormElement, name: string, value: string): void {
  for (const field of fieldsCalled(form, name)) if (field.type !== 'hidden') enter(field, value);
}

/** Leaves a field with nothing in it. */
export const clear = (form: HTMLFormElement, name: string): void => fillIn(form, name, '');
