const BOXES = 'input[type="checkbox"]:not(:disabled)';

/** Parts of pages in which a box already follows the others. */
const followed = new WeakSet<Element>();

/**
 * Ticks the boxes that stand with a control as it is ticked itself; of a button all of them, or none where all are.
 * @param name what the control is called in `data-ticks`
 */
export function tickAll(name: string): void {
  const control = document.querySelector(`[data-ticks="${name}"]`);
  const boxesIn = (around: Element): HTMLInputElement[] =>
    [...around.querySelectorAll<HTMLInputElement>(BOXES)].filter((box) => box !== control);
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
    if (target === control || !control.isConnected) return;
    const ticked = boxesIn(all).map((box) => box.checked);
    control.checked = ticked.every(Boolean);
    control.indeterminate = !control.checked && ticked.some(Boolean);
  });
}
