/** Runs in a published app: visitors press an element and leave a note, and see those that others left. */

import { elementAlike, saidBy, type Seen, seenOf } from './pointing.ts';

interface LeftNote {
  readonly path: string;
  readonly text: string;
  readonly author: string;
  readonly answer: string | null;
  readonly isSettled: boolean;
  readonly seen: Seen;
}

const LOOK = `
* { -webkit-tap-highlight-color: transparent; }
:host { all: initial; }
* { box-sizing: border-box; font: 15px/1.45 system-ui, sans-serif; color: #15211f; }
button { padding: 10px 14px; border: 1px solid #15211f; background: #fbfbf8; cursor: pointer; }
button.main { background: #15211f; color: #fbfbf8; }
:focus-visible { outline: 3px solid #0a6767; outline-offset: 2px; }
.bar { position: fixed; left: 12px; bottom: 12px; z-index: 2147483000; display: flex; gap: 8px; max-width: calc(100vw - 24px); }
button { white-space: nowrap; }
.hint { background: #15211f; color: #fbfbf8; padding: 10px 14px; }
.frame { position: fixed; z-index: 2147482000; border: 3px solid #0a6767; background: rgb(10 103 103 / 0.12); pointer-events: none; }
.pin { position: absolute; z-index: 2147481000; min-width: 26px; height: 26px; padding: 0 6px; background: #0a6767; color: #fff; border: 2px solid #fff; font-weight: 700; font-size: 13px; line-height: 20px; }
form, article { position: fixed; left: 12px; right: 12px; bottom: 12px; z-index: 2147483001; width: min(380px, calc(100vw - 24px)); display: grid; gap: 8px; padding: 14px; background: #fbfbf8; border: 1px solid #15211f; }
h2 { margin: 0; font-weight: 700; overflow-wrap: anywhere; }
p { margin: 0; overflow-wrap: anywhere; }
small { font-size: 13px; color: #56635f; }
label { font-size: 13px; font-weight: 600; }
textarea, input { width: 100%; padding: 8px; border: 1px solid #87938c; background: #fff; }
textarea { min-height: 84px; resize: vertical; }
.row { display: flex; gap: 8px; }
.problem { color: #b3261e; }
`;

export function letNotesBeLeft(): void {
  new Notes();
}

class Notes {
  readonly #root: ShadowRoot;
  readonly #host: HTMLElement;
  #notes: readonly LeftNote[] = [];
  #frame: HTMLElement | null = null;
  #stopPicking: (() => void) | null = null;

  constructor() {
    this.#host = document.createElement('div');
    this.#root = this.#host.attachShadow({ mode: 'open' });
    // Next to the body: what the app puts there stays its own.
    document.documentElement.append(this.#host);
    this.#root.append(made('style', { textContent: LOOK }));
    this.#showBar();
    void this.#load();
    // Single-page apps change what they show without loading anything.
    new MutationObserver(() => this.#placeSoon()).observe(document.body, { childList: true, subtree: true });
    addEventListener('resize', () => this.#placeSoon());
  }

  async #load(): Promise<void> {
    const response = await fetch('/_notes').catch(() => null);
    if (response?.ok) this.#notes = (await response.json()) as LeftNote[];
    this.#placePins();
  }

  #isWaiting = false;
  #placeSoon(): void {
    if (this.#isWaiting) return;
    this.#isWaiting = true;
    setTimeout(() => {
      this.#isWaiting = false;
      this.#placePins();
    }, 200);
  }

  #placePins(): void {
    for (const pin of this.#root.querySelectorAll('.pin')) pin.remove();
    const here = this.#notes.filter(({ path }) => pathOnly(path) === pathOnly(location.pathname));
    const byElement = new Map<Element, LeftNote[]>();
    for (const note of here) {
      const element = note.isSettled ? null : elementAlike(note.seen);
      if (element) byElement.set(element, [...(byElement.get(element) ?? []), note]);
    }
    for (const [element, notes] of byElement) {
      const { left, top } = element.getBoundingClientRect();
      const pin = made('button', {
        className: 'pin',
        textContent: String(notes.length),
        ariaLabel: `${notes.length === 1 ? 'A note' : `${notes.length} notes`} about “${saidBy(element)}”`,
        onclick: () => this.#show(notes),
      });
      pin.style.left = `${Math.max(0, left + scrollX - 8)}px`;
      pin.style.top = `${Math.max(0, top + scrollY - 8)}px`;
      this.#root.append(pin);
    }
  }

  #clear(): void {
    this.#stopPicking?.();
    this.#stopPicking = null;
    for (const one of this.#root.querySelectorAll('.bar, form, article')) one.remove();
  }

  #showBar(): void {
    this.#clear();
    const leave = made('button', {
      className: 'main',
      textContent: 'Leave a note',
      onclick: () => this.#pick(),
    });
    this.#root.append(made('div', { className: 'bar' }, leave));
  }

  /** The next press means an element, and does nothing else. */
  #pick(): void {
    this.#clear();
    const stop = made('button', { textContent: 'Cancel', onclick: () => this.#showBar() });
    this.#root.append(
      made(
        'div',
        { className: 'bar' },
        made('span', { className: 'hint', role: 'status', textContent: 'Press what the note is about' }),
        stop,
      ),
    );
    stop.focus();
    const meant = (event: Event): Element | null => {
      const [first] = event.composedPath();
      if (!(first instanceof Element) || event.composedPath().includes(this.#host)) return null;
      return first.closest('svg') ?? first;
    };
    const hover = (event: Event): void => this.#mark(meant(event));
    const press = (event: Event): void => {
      const element = meant(event);
      if (!element) return;
      event.preventDefault();
      event.stopImmediatePropagation();
      if (event.type === 'click' || event.type === 'keydown') this.#write(element);
    };
    const keys = (event: KeyboardEvent): void => {
      if (event.key === 'Escape') this.#showBar();
      else if (event.key === 'Enter' || event.key === ' ') press(event);
    };
    const kinds = ['pointerdown', 'pointerup', 'mousedown', 'mouseup', 'click', 'submit'];
    for (const kind of kinds) addEventListener(kind, press, true);
    addEventListener('pointermove', hover, true);
    addEventListener('focusin', hover, true);
    addEventListener('keydown', keys, true);
    this.#stopPicking = () => {
      for (const kind of kinds) removeEventListener(kind, press, true);
      removeEventListener('pointermove', hover, true);
      removeEventListener('focusin', hover, true);
      removeEventListener('keydown', keys, true);
      this.#mark(null);
    };
  }

  #mark(element: Element | null): void {
    this.#frame?.remove();
    this.#frame = null;
    if (!element) return;
    const { left, top, width, height } = element.getBoundingClientRect();
    this.#frame = made('div', { className: 'frame' });
    Object.assign(this.#frame.style, {
      left: `${left}px`,
      top: `${top}px`,
      width: `${width}px`,
      height: `${height}px`,
    });
    this.#root.append(this.#frame);
  }

  #write(element: Element): void {
    this.#clear();
    this.#mark(element);
    const seen = seenOf(element);
    const path = location.pathname + location.search;
    const text = made('textarea', { id: 'text', required: true, maxLength: 2000 });
    const author = made('input', { id: 'author', maxLength: 80, autocomplete: 'name' });
    author.value = localStorage.getItem('notes-author') ?? '';
    const problem = made('p', { className: 'problem', role: 'alert' });
    const send = made('button', { className: 'main', textContent: 'Send' });
    const form = made(
      'form',
      { ariaLabel: 'A note' },
      made('h2', { textContent: seen.says ? `About “${seen.says}”` : 'About this place' }),
      made('label', { htmlFor: 'text', textContent: 'Note' }),
      text,
      made('label', { htmlFor: 'author', textContent: 'Your name, if you like' }),
      author,
      problem,
      made(
        'div',
        { className: 'row' },
        send,
        made('button', { type: 'button', textContent: 'Cancel', onclick: () => this.#showBar() }),
      ),
    );
    form.onsubmit = async (event) => {
      event.preventDefault();
      send.disabled = true;
      const response = await fetch('/_notes', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ path, text: text.value, author: author.value, seen }),
      }).catch(() => null);
      send.disabled = false;
      if (!response?.ok) {
        problem.textContent = response
          ? await response.text()
          : 'It cannot be sent now. Try again in a moment.';
        return;
      }
      localStorage.setItem('notes-author', author.value);
      this.#mark(null);
      this.#showBar();
      this.#root
        .querySelector('.bar')!
        .append(
          made('span', { className: 'hint', role: 'status', textContent: 'Thank you. The note was sent.' }),
        );
      await this.#load();
    };
    form.onkeydown = (event) => {
      if (event.key === 'Escape') this.#showBar();
    };
    // What the note is about stays in sight.
    const { top, height } = element.getBoundingClientRect();
    if (top + height / 2 > innerHeight / 2) Object.assign(form.style, { top: '12px', bottom: 'auto' });
    this.#root.append(form);
    text.focus();
    this.#stopPicking = () => this.#mark(null);
  }

  #show(notes: readonly LeftNote[]): void {
    this.#clear();
    const close = made('button', { textContent: 'Close', onclick: () => this.#showBar() });
    this.#root.append(
      made(
        'article',
        { ariaLabel: 'Notes' },
        ...notes.flatMap(({ text, author, answer }) => [
          made('p', { textContent: text }),
          made('small', { textContent: author || 'a visitor' }),
          ...(answer ? [made('p', { textContent: `Answer: ${answer}` })] : []),
        ]),
        made('div', { className: 'row' }, close),
      ),
    );
    close.focus();
  }
}

const pathOnly = (path: string): string => path.replace(/[?#].*$/, '').replace(/\/+$/, '') || '/';

function made<T extends keyof HTMLElementTagNameMap>(
  tag: T,
  props: Partial<HTMLElementTagNameMap[T]>,
  ...children: Node[]
): HTMLElementTagNameMap[T] {
  const element = Object.assign(document.createElement(tag), props);
  element.append(...children);
  return element;
}
