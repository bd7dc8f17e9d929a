import { grouped } from '../json/grouped.ts';
import type { Screen } from '../model/design.ts';
import { shapeOf } from '../roles/shape.ts';
import { type Sight, sightOf } from '../roles/sight.ts';
import { sizeOf } from './groups.ts';
import { isEntryWithList, wordOf } from './names.ts';

/** Places with the same around what they hold, which differs. */
export interface FrameGroup {
  readonly sights: readonly Sight[];
  /** How many elements stand around what a place holds, in the middle. */
  readonly around: number;
}

/** So often the same stands around something at least before a person makes a component of it. */
export const LEAST_PLACES = 3;
/** What is around has so many elements at least, and so many children at most, of which one holds what differs. */
const LEAST_AROUND = 3;
const MOST_CHILDREN = 4;
const TAGS = /^(div|section|article|aside|li|fieldset)$/;

/**
 * Groups of places that look like one thing from outside, have parts of the same names, and hold something else each: cards with
 * a heading and whatever beneath it.
 */
export function framesOf(screens: readonly Screen[]): FrameGroup[] {
  const formed = screens.flatMap((screen) =>
    sightOf(screen).all.flatMap((sight) => {
      const form = formOf(sight);
      return form === null ? [] : [{ form, sight }];
    }),
  );
  return [...grouped(formed, ({ form }) => form).values()].flatMap((group) => {
    const sights = group.map(({ sight }) => sight);
    if (sights.length < LEAST_PLACES) return [];
    // What is built the same everywhere is found as that, but for lists that are longer here than there.
    if (new Set(sights.map(({ element }) => `${shapeOf(element)} ${sizeOf(element)}`)).size < 2) return [];
    const around = sights.map(aroundIn).sort((a, b) => a - b)[sights.length >> 1];
    return around < LEAST_AROUND ? [] : [{ sights, around }];
  });
}

/** A word for how something is from outside: its look, its name, and those of its parts; null for what holds nothing. */
function formOf(sight: Sight): string | null {
  const { element, look, children } = sight;
  if (element.hidden || element.kind !== 'box' || !TAGS.test(element.tag ?? '')) return null;
  if (children.length < 2 || children.length > MOST_CHILDREN) return null;
  const isThing = look.hasBorder || look.hasShadow || (look.hasFill && look.radius > 0);
  const word = wordOf(sight);
  if (!isEntryWithList(sight) && !(isThing && word)) return null;
  const parts = children.map((child) => `${child.element.tag} ${wordOf(child)}`);
  return `${element.tag} ${word} ${look.hasBorder} ${look.hasShadow} ${look.hasFill}: ${parts.join(', ')}`;
}

const aroundIn = ({ element, children }: Sight): number =>
  sizeOf(element) - Math.max(...children.map((child) => sizeOf(child.element))) + 1;
