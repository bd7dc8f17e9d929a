/**
 * What an element does, by gesture.
 *
 * @typedef {(entered: string) => void} Act
 * @typedef {object} Acts
 * @property {Act} [press]
 * @property {Act} [doublePress]
 * @property {Act} [longPress]
 * @property {Act} [hover]
 * @property {Act} [change]
 * @property {Act} [submit]
 * @property {Act} [swipeLeft]
 * @property {Act} [swipeRight]
 * @property {Act} [swipeTop]
 * @property {Act} [swipeBottom]
 */

/** Held at least so long, in milliseconds, is a long press; moved at least so far, in px, is a swipe. */
const LONG = 500;
const FAR = 48;

/**
 * Lets an element do something.
 * @param {string} name what it is called in `data-act`
 * @param {Acts} acts
 */
export function act(name, acts) {
  for (const element of document.querySelectorAll(`[data-act='${name}']`))
    if (element instanceof HTMLElement) listen(element, acts);
}

/** @param {HTMLElement} element @param {Acts} acts */
function listen(element, acts) {
  const { press, doublePress, hover, change, submit } = acts;
  if (press) {
    element.addEventListener('click', (event) => {
      if (!isInner(event.target, element)) press('');
    });
    if (element.getAttribute('role') === 'link')
      element.addEventListener('keydown', (event) => {
        if (event.key === 'Enter' && event.target === element) press('');
      });
  }
  if (doublePress) element.addEventListener('dblclick', () => doublePress(''));
  if (hover) element.addEventListener('pointerenter', () => hover(''));
  if (change)
    element.addEventListener('change', ({ target }) =>
      change(
        target instanceof HTMLInputElement ||
          target instanceof HTMLSelectElement ||
          target instanceof HTMLTextAreaElement
          ? target.value
          : '',
      ),
    );
  if (submit)
    element.addEventListener('submit', (event) => {
      event.preventDefault();
      submit('');
    });
  if (acts.longPress || acts.swipeLeft || acts.swipeRight || acts.swipeTop || acts.swipeBottom)
    recognise(element, acts);
}

/** @param {HTMLElement} element @param {Acts} acts */
function recognise(element, acts) {
  /** @type {{ x: number, y: number, timer: ReturnType<typeof setTimeout> } | null} */
  let begin = null;
  const end = () => {
    if (begin) clearTimeout(begin.timer);
    begin = null;
  };
  if (acts.swipeLeft || acts.swipeRight) element.style.touchAction = 'pan-y';
  element.addEventListener('pointerdown', ({ clientX: x, clientY: y }) => {
    end();
    begin = { x, y, timer: setTimeout(() => acts.longPress?.(''), LONG) };
  });
  element.addEventListener('pointermove', ({ clientX, clientY }) => {
    if (!begin) return;
    const [x, y] = [clientX - begin.x, clientY - begin.y];
    if (Math.abs(x) > FAR / 4 || Math.abs(y) > FAR / 4) clearTimeout(begin.timer);
    if (Math.max(Math.abs(x), Math.abs(y)) < FAR) return;
    end();
    if (Math.abs(x) > Math.abs(y)) (x < 0 ? acts.swipeLeft : acts.swipeRight)?.('');
    else (y < 0 ? acts.swipeTop : acts.swipeBottom)?.('');
  });
  element.addEventListener('pointerup', end);
  element.addEventListener('pointercancel', end);
}

/**
 * A press on a link or field inside belongs to that one.
 * @param {EventTarget | null} target
 * @param {HTMLElement} outer
 */
function isInner(target, outer) {
  if (!(target instanceof Element)) return false;
  const inner = target.closest('a, button, input, select, textarea');
  return inner !== null && inner !== outer && outer.contains(inner);
}

/**
 * Does something some milliseconds after the screen was shown.
 * @param {number} ms
 * @param {Act} todo
 */
export const after = (ms, todo) => void setTimeout(() => todo(''), ms);

/**
 * Does something when a key is pressed that no field takes.
 * @param {string} key
 * @param {Act} todo
 */
export function onKey(key, todo) {
  addEventListener('keydown', (event) => {
    const isTyped = event.target instanceof Element && event.target.closest('input, textarea, select');
    if (event.key !== key || event.defaultPrevented || (isTyped && key.length === 1)) return;
    event.preventDefault();
    todo('');
  });
}

/**
 * Saves a file under a name.
 * @param {string} href
 * @param {string} name
 */
export function saveFile(href, name) {
  const link = document.createElement('a');
  link.href = href;
  link.download = name;
  link.click();
}

/** Puts a text where the next paste takes it from. @param {string} text */
export const copyText = (text) => void navigator.clipboard.writeText(text);

const BOXES = 'input[type="checkbox"]:not(:disabled)';

/** Parts of the page in which a box already follows the others. @type {WeakSet<Element>} */
const followed = new WeakSet();

/**
 * Ticks the boxes that stand with a control as it is ticked itself; of a button all of them, or none where all are.
 * @param {string} name what the control is called in `data-ticks`
 */
export function tickAll(name) {
  const control = document.querySelector(`[data-ticks="${name}"]`);
  /** @param {Element} around @returns {HTMLInputElement[]} */
  const boxesIn = (around) =>
    /** @type {HTMLInputElement[]} */ ([...around.querySelectorAll(BOXES)]).filter((box) => box !== control);
  let around = control?.parentElement;
  while (around && !boxesIn(around).length) around = around.parentElement;
  if (!control || !around) return;
  const boxes = boxesIn(around);
  const isBox = control instanceof HTMLInputElement;
  const isTicked = isBox ? control.checked : boxes.some((box) => !box.checked);
  for (const box of boxes) if (box.checked !== isTicked) box.click();
  if (!isBox || followed.has(around)) return;
  followed.add(around);
  const all = around;
  all.addEventListener('change', ({ target }) => {
    if (target === control) return;
    const ticked = boxesIn(all).map((box) => box.checked);
    control.checked = ticked.every(Boolean);
    control.indeterminate = !control.checked && ticked.some(Boolean);
  });
}
