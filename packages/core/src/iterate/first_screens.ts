import { applyChange } from '../change/change.ts';
import { addToDesign, type ReadSoFar } from '../intake/batch.ts';
import { placeKey, rekeyed } from './rekey.ts';
import { emptyApp } from '../model/app.ts';
import { emptyDesign, type Screen } from '../model/design.ts';
import { uniqueName } from '../model/names.ts';
import type { Project } from '../model/project.ts';
import { takeIn } from '../project/take_in.ts';

/**
 * The project that the first screens are while more of them are being read. Its screens and elements have the keys that they will
 * have once all are there, so that what is decided about them meanwhile holds; nothing is parted yet. A screen that was there the
 * last time is the very same value.
 */
export class FirstScreens {
  #known = new Map<Screen['root'], Screen>();

  /** @param read all that was read until now */
  soFar({ screens, assets, fonts }: ReadSoFar): Project {
    const known = this.#known;
    this.#known = new Map(
      screens.map((screen) => {
        const before = known.get(screen.root);
        return [screen.root, before?.name === screen.name ? before : keyedByPlace(screen)];
      }),
    );
    const keyed = [...this.#known.values()];
    const design = addToDesign(emptyDesign, { screens: keyed, assets, fonts, notices: [] });
    return { design, app: applyChange(emptyApp, takeIn({ design, app: emptyApp }, keyed)) };
  }
}

/** A screen with its elements under the keys that those of first screens have. */
function keyedByPlace(screen: Screen): Screen {
  const taken = new Set<string>();
  return rekeyed(screen, screen.key, (element) => {
    const key = uniqueName(placeKey(screen.key, element), (candidate) => taken.has(candidate), '.');
    taken.add(key);
    return key;
  });
}
