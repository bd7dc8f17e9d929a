import type { Gesture, Side } from '../../model/app.ts';
import { type EmittedAct, findMarkup, type MarkupElement } from '../form/markup.ts';
import { canBeReached } from './deeds.ts';
import { type Effect, effectsOf, type Known, type OnScreen, rowAround } from './effects.ts';
import { FoundNames, type Opens, waysOf } from './presses.ts';
import { eachWithin } from './within.ts';

/** What is done otherwise than by pressing, entering and sending, and what is so then. */
export interface TestedGesture {
  readonly from: string;
  readonly on: Exclude<Gesture, 'press' | 'change' | 'submit'>;
  readonly key?: string;
  readonly side?: Side;
  /** How long one waits for it, in milliseconds. */
  readonly ms?: number;
  /** The tag of what it is done to, what that says or how that begins, and which of several such it is, from 0; not there where it is done on the whole screen. */
  readonly tag?: string;
  readonly name?: string;
  readonly at?: number;
  readonly does: readonly Effect[];
  readonly given?: Readonly<Record<string, boolean>>;
  /** What is pressed first, where it stands in what opens over its screen. */
  readonly opens?: Opens;
}

/** Held so long, in milliseconds, is a long press in all apps. */
const LONG_PRESS = 500;

/** What the test does on a screen besides pressing, entering and sending. Of the rows of a list the first stands for all. */
export function testedGesturesIn(
  root: MarkupElement,
  known: Known,
  here: OnScreen,
): Omit<TestedGesture, 'from'>[] {
  const found: Omit<TestedGesture, 'from'>[] = [];
  const names = new FoundNames(known.unsure);
  // Names are counted from the top of the screen on, which is of use only where something is done there.
  if (!findMarkup(root, ({ acts }) => acts?.some((act) => howToDo(act) !== null) === true)) return found;
  eachWithin(root, (node, within) => {
    const { tag, acts = [] } = node;
    const called = names.next(tag, node);
    const row = rowAround([...within, node], known.collections);
    const isOneOfRows = row !== null && (!row.isFirst || row.view.options.of !== undefined);
    if (canBeReached({ node, within }) && !isOneOfRows)
      for (const act of acts) {
        const how = howToDo(act);
        // What says nothing is found by nobody.
        if (!how || (!isOfScreen(how.on) && !called?.name)) continue;
        for (const { given, steps } of waysOf(act)) {
          const all = effectsOf(steps, known, { ...here, row, given, filled: {} }) ?? [];
          const does = how.on === 'load' ? all.filter(isSeenAfter) : all;
          if (!does.length) continue;
          const needs = Object.keys(given).length ? { given } : {};
          found.push({ ...how, ...(isOfScreen(how.on) ? {} : { tag, ...called }), does, ...needs });
        }
      }
  });
  return found;
}

const isOfScreen = (on: Gesture): boolean => on === 'key' || on === 'after' || on === 'load';

/** How an act is brought about; null by pressing, entering and sending, which are tried by tests of their own. */
function howToDo({
  on,
  key,
  side,
  ms,
}: EmittedAct): Pick<TestedGesture, 'on' | 'key' | 'side' | 'ms'> | null {
  switch (on) {
    case 'press':
    case 'change':
    case 'submit':
      return null;
    case 'key':
      return { on, key: key ?? 'Enter' };
    case 'swipe':
      return { on, side: side ?? 'left' };
    case 'long-press':
      return { on, ms: LONG_PRESS };
    case 'after':
      return { on, ms: ms ?? 0 };
    case 'double-press':
    case 'hover':
    case 'load':
      return { on };
  }
}

/** What is done while a screen is opened is done before a test can look at what was there before. */
const isSeenAfter = (effect: Effect): boolean =>
  !(
    'more' in effect ||
    'copied' in effect ||
    'printed' in effect ||
    'ticked' in effect ||
    'answered' in effect
  ) && !('says' in effect && effect.id === undefined);
