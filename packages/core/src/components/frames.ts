import { grouped } from '../json/grouped.ts';
import type { Screen } from '../model/design.ts';
import { shapeOf } from '../roles/shape.ts';
import { rootOf, type Sight, sightOf } from '../roles/sight.ts';
import { isThing, sizeOf } from './groups.ts';
import { isEntryWithList, namesOf, wordOf } from './names.ts';

/** Places with the same around what they hold, which differs. */
export interface FrameGroup {
  readonly kind: 'frame' | 'stretch';
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
/** Boxes in boxes around a stretch of a page: so many are worth a component. */
const LEAST_CHAIN = 3;
/** So many of them are looked at: what is deeper was not written by anybody. */
const MOST_CHAINED = 16;
/** Whoever has a component for one stretch has few for all: each saves so many boxes. */
const LEAST_SAVED = 12;
const CHAIN_TAGS = /^(div|section|article)$/;

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
    return around < LEAST_AROUND ? [] : [{ kind: 'frame', sights, around }];
  });
}

/** A word for how something is from outside: its look, its name, and those of its parts; null for what holds nothing. */
function formOf(sight: Sight): string | null {
  const { element, look, children } = sight;
  if (element.hidden || element.kind !== 'box' || !TAGS.test(element.tag ?? '')) return null;
  if (children.length < 2 || children.length > MOST_CHILDREN) return null;
  const word = wordOf(sight);
  if (!isEntryWithList(sight) && !(isThing(look) && word)) return null;
  const parts = children.map((child) => `${child.element.tag} ${wordOf(child)}`);
  return `${element.tag} ${word} ${look.hasBorder} ${look.hasShadow} ${look.hasFill}: ${parts.join(', ')}`;
}

const aroundIn = ({ element, children }: Sight): number =>
  sizeOf(element) - Math.max(...children.map((child) => sizeOf(child.element))) + 1;

/**
 * Boxes that each stand around the next one alone, dressed the same at several places: what stretches of pages stand in. Of all
 * that are there more than once those first that save most; what was found takes part in nothing else.
 */
export function stretchesOf(screens: readonly Screen[]): FrameGroup[] {
  let open = screens.flatMap((screen) =>
    sightOf(screen).all.flatMap((sight) => (sight.parent && innerOf(sight.parent) ? [] : chainsIn(sight))),
  );
  const found: FrameGroup[] = [];
  for (;;) {
    const best = [...grouped(open, ({ form }) => form).values()]
      .filter((group) => group.length >= LEAST_PLACES && savedBy(group) >= LEAST_SAVED)
      .reduce<Chain[]>((most, group) => (savedBy(group) > savedBy(most) ? group : most), []);
    if (!best.length) return found;
    found.push({
      kind: 'stretch',
      sights: best.map(({ boxes: [first] }) => first),
      around: best[0].boxes.length,
    });
    const gone = new Set(best.flatMap(({ boxes }) => boxes));
    open = open.filter(({ boxes }) => !boxes.some((box) => gone.has(box)));
  }
}

/** Boxes of a chain that follow each other. */
interface Chain {
  /** From the outside in. */
  readonly boxes: readonly Sight[];
  /** How they are dressed. */
  readonly form: string;
}

/** What the boxes around a stretch of a page can be called, the best first: by how the innermost of them holds what it holds. */
export function stretchNames({ sights, around }: FrameGroup): ReturnType<typeof namesOf> {
  const [first] = sights;
  let inner = first;
  for (let i = 1; i < around; i++) {
    inner = innerOf(inner) ?? inner;
    if (isThing(inner.look)) return namesOf(first, 'component', sights);
  }
  const name = first.element.tag === 'section' ? 'Section' : 'Container';
  const part = inner.element.box.width / Math.max(1, rootOf(first).element.box.width);
  const words = [
    ...(first.look.hasFill ? ['Filled'] : []),
    ...(inner.align === 'center' ? ['Centered'] : []),
    ...(part < NARROW ? ['Narrow'] : []),
    ...(part > WIDE ? ['Wide'] : []),
  ];
  return { name, others: [...words, words.join('')].map((word) => word + name) };
}
const NARROW = 0.6;
const WIDE = 0.9;

const savedBy = (group: readonly Chain[]): number =>
  group.length ? (group.length - 1) * (group[0].boxes.length - 1) : 0;

/** The box that an element is around and has nothing beside; undefined where there is none. */
function innerOf(sight: Sight): Sight | undefined {
  if (!isPlain(sight) || sight.hasOwnText) return undefined;
  const shown = sight.children.filter(({ element }) => !element.hidden);
  return shown.length === 1 && sight.children.length === 1 && isPlain(shown[0]) ? shown[0] : undefined;
}

const isPlain = ({ element, isAuthored }: Sight): boolean =>
  isAuthored &&
  !element.hidden &&
  element.role !== 'dialog' &&
  element.kind === 'box' &&
  CHAIN_TAGS.test(element.tag ?? '') &&
  !element.attributes?.id?.length;

/** What a chain that begins with an element could be cut to, from each of its boxes on. */
function chainsIn(sight: Sight): Chain[] {
  if (!isPlain(sight)) return [];
  const chain: Sight[] = [];
  for (let at: Sight | undefined = sight; at && chain.length < MOST_CHAINED; at = innerOf(at)) chain.push(at);
  const forms = chain.map(({ element: { tag, classes } }) => `${tag} ${classes ?? ''}`);
  return chain.flatMap((_, from) =>
    chain.slice(from + LEAST_CHAIN - 1).map((__, i) => {
      const to = from + LEAST_CHAIN + i;
      return { boxes: chain.slice(from, to), form: forms.slice(from, to).join('\n') };
    }),
  );
}
