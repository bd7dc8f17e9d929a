import type { Design, Element, Screen } from '../model/design.ts';
import { Matcher, type ElementPair } from './elements.ts';
import { matchScreens, type ScreenPair } from './screens.ts';
import { type Traits, traitsOf } from './traits.ts';

/** Which screens and elements of a design are which in its next version. */
export interface DesignMatch {
  readonly screens: readonly ScreenPair[];
  /** Pairs of elements, in reading order of the newer screens. */
  readonly pairs: readonly (ElementPair & { readonly from: Screen; readonly to: Screen })[];
  readonly gone: readonly Screen[];
  readonly fresh: readonly Screen[];
}

/** A screen that has not changed at all is paired without a look at its elements. */
const isUnchanged = (old: Traits, now: Traits): boolean => old.exact === now.exact && old.size === now.size;

/**
 * Matches two versions of a design: the screens, then the elements of each pair of screens; what is left of a screen
 * that was parted or joined is looked for where its parts went.
 * @param tell hears how many screens have been compared; what it throws ends the work
 * @param beneath screens that do not come again, over which some may be drawn now
 */
export function matchDesigns(
  old: Pick<Design, 'screens'>,
  now: Pick<Design, 'screens'>,
  tell?: (done: number, total: number) => void,
  beneath: readonly Screen[] = [],
): DesignMatch {
  const screens = matchScreens(old.screens, now.screens, beneath);
  const pairs: DesignMatch['pairs'][number][] = [];
  const taken = new Set<Element>();
  const add = (from: Screen, to: Screen, found: readonly ElementPair[]): void => {
    for (const pair of found) {
      pairs.push({ ...pair, from, to });
      taken.add(pair.old).add(pair.now);
    }
  };
  screens.forEach(({ old: from, now: to, kinship }, done) => {
    tell?.(done, screens.length);
    if (kinship === 'width') return;
    const [olds, nows] = [traitsOf(from.root), traitsOf(to.root)];
    if (kinship !== 'same') add(from, to, new Matcher(olds, nows, taken).run());
    else if (isUnchanged(olds[0], nows[0]))
      add(
        from,
        to,
        olds.map((one, i) => ({ old: one.element, now: nows[i].element, score: 1 })),
      );
    else add(from, to, new Matcher(olds, nows).run());
  });
  tell?.(screens.length, screens.length);
  const stayed = new Set(
    screens.filter(({ kinship }) => kinship === 'same').flatMap((pair) => [pair.old, pair.now]),
  );
  return {
    screens,
    pairs,
    gone: old.screens.filter((screen) => !stayed.has(screen)),
    fresh: now.screens.filter((screen) => !stayed.has(screen)),
  };
}
