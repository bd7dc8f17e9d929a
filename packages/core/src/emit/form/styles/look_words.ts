import { channelsOf } from '../../../roles/sight.ts';
import { labOf } from '../../../tokens/find.ts';
import { hueOf } from './palette.ts';
import type { Declarations } from '../../../model/design.ts';
import type { StyleRule } from '../markup.ts';

/** What says how an element is coloured and what stands around it, rather than how large it is. */
const DRESS = /color|background|border|shadow|opacity|decoration|filter|outline/;

/** Words for what a look has, the most telling first. */
export const lookWords = ({ base }: Pick<StyleRule, 'base'>): Iterable<string> => wordsFor(base, {});

/** A word for a look, from how it differs from the usual one; null where that is in nothing that has a word. */
export const lookWord = (
  look: StyleRule | undefined,
  usual: StyleRule | undefined,
  taken: (word: string) => boolean = () => false,
): string | null => {
  for (const word of wordsFor(look?.base ?? {}, usual?.base ?? {})) if (!taken(word)) return word;
  return null;
};

/** Whether looks differ in how they are coloured, framed or shaded. */
export function isDressedOtherwise(look: StyleRule | undefined, usual: StyleRule | undefined): boolean {
  const [a, b] = [look?.base ?? {}, usual?.base ?? {}];
  return [...new Set([...Object.keys(a), ...Object.keys(b)])].some(
    (property) => DRESS.test(property) && a[property] !== b[property],
  );
}

function* wordsFor(look: Declarations, usual: Declarations): Generator<string> {
  const differs = (property: string): boolean => look[property] !== usual[property];
  if (differs('display') && look.display === 'none') yield 'hidden';
  if (differs('background-color') || differs('background-image')) {
    const [has, had] = [look, usual].map((one) => isFilled(one));
    if (!has && had) yield hasLine(look) ? 'outlined' : 'quiet';
    yield* colorWords(look['background-color'], usual['background-color']);
    if (has && !had) yield 'filled';
  }
  if (hasLine(look) !== hasLine(usual)) yield hasLine(look) ? 'outlined' : 'open';
  if (differs('color')) yield* colorWords(look.color, usual.color);
  if (differs('border-top-color')) yield* colorWords(look['border-top-color'], usual['border-top-color']);
  const size = sizeOf(look, usual);
  if (size) yield size > 0 ? 'large' : 'small';
  if (differs('font-weight')) yield weightWord(Number(look['font-weight'] ?? 400));
  if (differs('font-style') && look['font-style'] === 'italic') yield 'italic';
  if (differs('text-align')) yield ALIGNED[look['text-align'] ?? ''] ?? 'aligned';
  if (differs('text-decoration-line')) yield look['text-decoration-line'] ? 'underlined' : 'undecorated';
  if (differs('opacity')) yield 'faded';
  if (differs('box-shadow')) yield look['box-shadow'] ? 'raised' : 'flat';
  if (differs('border-top-left-radius')) yield look['border-top-left-radius'] ? 'rounded' : 'square';
  if (differs('flex-direction')) yield look['flex-direction'] === 'column' ? 'stacked' : 'inline';
  if (differs('text-transform') && look['text-transform']) yield look['text-transform'];
  if (differs('position') && /^(absolute|fixed|sticky)$/.test(look.position ?? '')) yield 'placed';
  if (SPACES.some(differs)) yield spaceOf(look) > spaceOf(usual) ? 'roomy' : 'tight';
  if (SIDES.some((side) => differs(`margin-${side}`))) yield 'spaced';
  if (differs('justify-content') || differs('align-items')) yield 'aligned';
  if (differs('max-width') && look['max-width']) yield 'bounded';
  if (differs('overflow-x') || differs('overflow')) yield 'clipped';
}

const weightWord = (weight: number): string =>
  weight >= 600 ? 'strong' : weight < 400 ? 'light' : 'regular';

const ALIGNED: Readonly<Record<string, string>> = {
  center: 'centered',
  right: 'right',
  end: 'right',
  left: 'left',
  start: 'left',
};
const SIDES = ['top', 'right', 'bottom', 'left'];
const SPACES = [...SIDES.map((side) => `padding-${side}`), 'row-gap', 'column-gap'];

const isFilled = (look: Declarations): boolean =>
  look['background-image'] !== undefined ||
  (channelsOf(look['background-color'] ?? 'transparent')?.[3] ?? 0) > 0;
const hasLine = (look: Declarations): boolean =>
  SIDES.some((side) => parseFloat(look[`border-${side}-width`] ?? '0') > 0);
const spaceOf = (look: Declarations): number =>
  SPACES.reduce((sum, property) => sum + (parseFloat(look[property] ?? '0') || 0), 0);

/** More than 0 where a look is larger than the other, less where it is smaller. */
function sizeOf(look: Declarations, usual: Declarations): number {
  for (const property of ['font-size', 'height', 'width', 'line-height']) {
    const by = parseFloat(look[property] ?? '') - parseFloat(usual[property] ?? '');
    if (by) return by;
  }
  return 0;
}

/** What tells a colour from another: its hue, else how light it is. */
function* colorWords(color: string | undefined, other: string | undefined): Generator<string> {
  const channels = channelsOf(color ?? '');
  if (!channels || channels[3] === 0) return;
  const [lightness] = labOf(channels);
  const hue = hueOf(channels);
  const before = channelsOf(other ?? '');
  if (hue !== 'gray' && hue !== (before && hueOf(before))) yield hue;
  if (lightness > 97) yield 'white';
  else if (lightness < 8) yield 'black';
  if (before) yield lightness > labOf(before)[0] ? 'light' : 'dark';
  if (hue === 'gray') yield 'muted';
}
