/** What is open, by id: whether a part is, or of several parts which one. What is not said is as it is at first. */
export type Opened = Readonly<Record<string, boolean | string>>;

const listeners = new Set<() => void>();
let now: Opened = {};
/** What had the focus when a part was opened. */
const openedFrom = new Map<string, Element | null>();

export const opened = (): Opened => now;

/** @returns what ends it */
export function onOpened(tell: () => void): () => void {
  if (!listeners.size) listen('addEventListener');
  listeners.add(tell);
  return () => {
    listeners.delete(tell);
    if (!listeners.size) listen('removeEventListener');
  };
}

export function setOpened(id: string, value: boolean | string): void {
  now = { ...now, [id]: value };
  listeners.forEach((tell) => tell());
  if (value === true) {
    openedFrom.set(id, document.activeElement);
    // It can have the focus once it is shown.
    setTimeout(() => isDialog(partOf(id)) && controlsIn(partOf(id))[0]?.focus());
  } else if (value === false) giveBack(id);
}

/** Where the focus was within what was closed, it goes back to what opened it. */
function giveBack(id: string): void {
  const from = openedFrom.get(id);
  const focused = document.activeElement;
  const isLost = focused === document.body || !!partOf(id)?.contains(focused);
  if (isLost && from instanceof HTMLElement) from.focus();
  openedFrom.delete(id);
}

/** What is no longer in the page is as it is at first when it comes again. */
export function forgetGone(): void {
  const kept = Object.entries(now).filter(([id]) => partOf(id));
  if (kept.length < Object.keys(now).length) now = Object.fromEntries(kept);
}

const partOf = (id: string): HTMLElement | null => document.getElementById(id);
const isDialog = (part: HTMLElement | null): boolean => part?.dataset.leaves === 'dialog';
const controlsIn = (part: HTMLElement | null): HTMLElement[] => [
  ...(part?.querySelectorAll<HTMLElement>(
    'a[href], button:not(:disabled), input:not(:disabled), select, textarea, [tabindex="0"]',
  ) ?? []),
];

/** Menus and dialogs that are open, the last one last. */
const leavable = (): [string, HTMLElement][] =>
  Object.keys(now).flatMap((id): [string, HTMLElement][] => {
    const part = now[id] === true ? partOf(id) : null;
    return part?.dataset.leaves ? [[id, part]] : [];
  });

function listen(method: 'addEventListener' | 'removeEventListener'): void {
  document[method]('click', onClick);
  document[method]('keydown', onKey as EventListener);
  document[method]('beforematch', onMatch);
}

/** What an address or a search leads to within closed parts is shown with all that it stands in. */
function onMatch({ target }: Event): void {
  if (!(target instanceof Element)) return;
  const closed: HTMLElement[] = [];
  for (let at: Element | null = target; at; at = at.parentElement)
    if (at instanceof HTMLElement && at.hidden && at.id && !at.dataset.leaves) closed.push(at);
  for (const { id, dataset } of closed)
    if (dataset.among) setOpened(dataset.among, id);
    else setOpened(id, true);
  if (closed.length) setTimeout(() => target.scrollIntoView());
}

/** Menus close when one presses elsewhere or has chosen, dialogs when one presses the shade around them. */
function onClick({ target }: Event): void {
  if (!(target instanceof Element)) return;
  for (const [id, part] of leavable()) {
    if (target.closest(`[aria-controls="${id}"]`)) continue;
    const isLeft = isDialog(part)
      ? target === part
      : !part.contains(target) || isChosen(target, part);
    if (isLeft) setOpened(id, false);
  }
}

/** Whether something was chosen in a menu, and not only a further part of it opened. */
function isChosen(target: Element, menu: HTMLElement): boolean {
  const control = target.closest('a, button, [role="menuitem"]');
  const further = control?.getAttribute('aria-controls');
  return control !== null && !(further && menu.contains(partOf(further)));
}

/** Escape closes the last one; Tab stays within a dialog. */
function onKey(event: KeyboardEvent): void {
  const [id, part] = leavable().at(-1) ?? [];
  if (!id || !part) return;
  if (event.key === 'Escape') setOpened(id, false);
  if (event.key !== 'Tab' || !isDialog(part)) return;
  const controls = controlsIn(part);
  const at = controls.indexOf(document.activeElement as HTMLElement);
  const next = at + (event.shiftKey ? -1 : 1);
  if (at >= 0 && next >= 0 && next < controls.length) return;
  event.preventDefault();
  controls.at(event.shiftKey ? -1 : 0)?.focus();
}
