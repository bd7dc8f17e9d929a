import { elementAlike } from '../pointing.ts';
import type { Frame } from './frame.ts';
import type { Mark } from './open_ends.ts';

/** Longer than this, in ms, and it moves for its own sake. */
const MOST_MOVING = 3000;

/** Does one thing as a person would, for a journey that is made again, and tells whether there was anything to do it to. */
export function actAsTold(frame: Frame): void {
  frame.on('do', ({ mark, name }) => {
    void stillness().then(() => frame.tell('did', { found: act(mark as Mark, name) }));
  });
}

/** Presses an element, or enters a text into it. */
function act({ seen }: Mark, text: string | undefined): boolean {
  const element = elementAlike(seen);
  if (!(element instanceof HTMLElement)) return false;
  if (text === undefined) {
    element.click();
    return true;
  }
  // Frameworks listen to what the browser itself sets.
  const { set } = Object.getOwnPropertyDescriptor(Object.getPrototypeOf(element), 'value') ?? {};
  set?.call(element, text);
  for (const kind of ['input', 'change']) element.dispatchEvent(new Event(kind, { bubbles: true }));
  return true;
}

/** What has just come may still be moving in, and what goes is there until then. */
async function stillness(): Promise<void> {
  await frames(2);
  await Promise.allSettled(
    document
      .getAnimations()
      .filter(({ effect }) => Number(effect?.getComputedTiming().endTime) < MOST_MOVING)
      .map(({ finished }) => finished),
  );
  await frames(1);
}

async function frames(count: number): Promise<void> {
  for (let i = 0; i < count; i++) await new Promise(requestAnimationFrame);
}
