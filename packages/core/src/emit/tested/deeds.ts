import type { MarkupElement } from '../form/markup.ts';
import { type Effect, effectsOf, type Known, type OnScreen, rowAround } from './effects.ts';
import { type GivenWay, type Opens, type Press, type Pressed, pressesIn, waysOf } from './presses.ts';

/** A press that does something besides leading somewhere, and what is so then. */
export interface TestedDeed extends Pressed {
  readonly from: string;
  readonly does: readonly Effect[];
  readonly given?: Readonly<Record<string, boolean>>;
  /** What is pressed first, where it stands in what opens over its screen. */
  readonly opens?: Opens;
}

/** What the test presses on a screen to see what that does. Of the rows of a list the first stands for all. */
export function testedDeedsIn(root: MarkupElement, known: Known, here: OnScreen): Omit<TestedDeed, 'from'>[] {
  return pressesIn(root, known.unsure).flatMap((press): Omit<TestedDeed, 'from'>[] => {
    const { node, within, pressed } = press;
    if (!canBeReached(press)) return [];
    const row = rowAround([...within, node], known.collections);
    if (row && (!row.isFirst || row.view.options.of)) return [];
    return waysByPressing(node).flatMap(({ given, steps }): Omit<TestedDeed, 'from'>[] => {
      const does = effectsOf(steps, known, { ...here, row, given, filled: {} }) ?? [];
      if (does.every((effect) => isOfLinks(effect, here.over))) return [];
      return [{ ...pressed, does, ...(Object.keys(given).length ? { given } : {}) }];
    });
  });
}

/** What pressing does, besides what a link does. */
function waysByPressing({ link, form, acts }: MarkupElement): readonly GivenWay[] {
  if (link) return link.kind === 'disclose' && form === 'button' ? [{ given: {}, steps: [link] }] : [];
  const act = acts?.find(({ on }) => on === 'press');
  return act ? waysOf(act) : [];
}

/** Where links lead, and what they open over a screen, is looked at by a test of its own. */
const isOfLinks = (effect: Effect, over: readonly string[]): boolean =>
  'to' in effect || ('over' in effect && effect.over.length > over.length);

/** Whether something is there and can be used from the first, and is called as it was drawn. */
export const canBeReached = ({ node, within }: Omit<Press, 'pressed'>): boolean =>
  node.attributes.disabled === undefined &&
  !Object.keys(node.slots ?? {}).some((slot) => slot === '@disabled') &&
  ![node, ...within].some(({ when, states }) => when !== undefined || states !== undefined);
