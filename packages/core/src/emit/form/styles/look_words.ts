import { channelsOf } from '../../../roles/sight.ts';
import { labOf } from '../../../tokens/find.ts';
import { capital } from '../../../model/names.ts';
import { hueOf } from './palette.ts';
import type { Declarations } from '../../../model/design.ts';
import type { StyleRule } from '../markup.ts';

/** What says how an element is coloured and what stands around it, rather than how large it is. */
const DRESS = /color|background|border|shadow|opacity|decoration|filter|outline/;

/** Words for what a look has, the most telling first; then for what it has in states. */
export function* lookWords(look: StyleRule): Generator<string> {
  yield* allWords(look, undefined);
  for (const block of Object.values(look.states)) yield* wordsFor(block, {});
}

/** A word for a look, from how it differs from the usual one; null where that is in nothing that has a word. */
export const lookWord = (
  look: StyleRule | undefined,
  usual: StyleRule | undefined,
  taken: (word: string) => boolean = () => false,
): string | null => {
  for (const word of allWords(look, usual)) if (!taken(word)) return word;
  return null;
};

/** Words for how a look differs as it is drawn; then for how it does so in windows of other widths. */
function* allWords(look: StyleRule | undefined, usual: StyleRule | undefined): Generator<string> {
  const [own, other] = [look?.base ?? {}, usual?.base ?? {}];
  yield* wordsFor(own, other);
  for (const kind of ['at', 'from'] as const)
    for (const width of Object.keys({ ...look?.[kind], ...usual?.[kind] }))
      yield* wordsFor({ ...own, ...look?.[kind][width] }, { ...other, ...usual?.[kind][width] });
}

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
  for (const property of ['width', 'flex-basis']) if (differs(property)) yield* shareWord(look[property]);
  yield* sizeWords(sizeOf(look, usual));
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
  for (const [side, word] of Object.entries(BORDERED))
    if (parseFloat(look[`border-${side}-width`] ?? '0') > parseFloat(usual[`border-${side}-width`] ?? '0'))
      yield word;
  if (SPACES.some(differs)) yield spaceOf(look) > spaceOf(usual) ? 'roomy' : 'tight';
  if (SIDES.some((side) => differs(`margin-${side}`))) {
    yield 'spaced';
    for (const side of SIDES) if (differs(`margin-${side}`)) yield APART[side];
  }
  if (differs('justify-content') || differs('align-items')) yield 'aligned';
  if (differs('max-width') && look['max-width']) yield 'bounded';
  if (differs('overflow-x') || differs('overflow')) yield 'clipped';
  if (differs('background-image') && look['background-image']) yield 'shaded';
  if (differs('flex-wrap') && look['flex-wrap'] === 'wrap') yield 'wrapping';
  if (differs('flex-grow') && look['flex-grow']) yield 'growing';
  if (differs('white-space-collapse') || differs('text-wrap-mode')) yield 'unbroken';
  if (differs('vertical-align')) yield 'shifted';
  if (differs('transform') && look.transform) yield 'turned';
  if (differs('min-height') || differs('height')) yield 'tall';
  if (differs('display') && look.display?.includes('flex')) yield 'flexible';
  if (differs('display') && look.display?.startsWith('inline')) yield 'inlined';
  if (differs('font-family')) yield /mono|courier/i.test(look['font-family'] ?? '') ? 'mono' : 'otherFont';
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
const BORDERED = { top: 'ruledAbove', bottom: 'ruledBelow', left: 'ruledLeft', right: 'ruledRight' };
const APART: Readonly<Record<string, string>> = {
  top: 'spacedAbove',
  right: 'spacedRight',
  bottom: 'spacedBelow',
  left: 'spacedLeft',
};
const SPACES = [...SIDES.map((side) => `padding-${side}`), 'row-gap', 'column-gap'];

const isFilled = (look: Declarations): boolean =>
  look['background-image'] !== undefined ||
  (channelsOf(look['background-color'] ?? 'transparent')?.[3] ?? 0) > 0;
const hasLine = (look: Declarations): boolean =>
  SIDES.some((side) => parseFloat(look[`border-${side}-width`] ?? '0') > 0);
const spaceOf = (look: Declarations): number =>
  SPACES.reduce((sum, property) => sum + (parseFloat(look[property] ?? '0') || 0), 0);

/** How many times as large a look is as the other; 0 where nothing tells. */
function sizeOf(look: Declarations, usual: Declarations): number {
  for (const property of ['font-size', 'height', 'width', 'line-height']) {
    const [own, other] = [look[property] ?? '', usual[property] ?? ''];
    const [a, b] = [parseFloat(own), parseFloat(other)];
    if (a > 0 && b > 0 && a !== b && own.endsWith('%') === other.endsWith('%')) return a / b;
  }
  return 0;
}
/** From so many times as large on a look is called huge, and the other way round tiny. */
const MUCH = 1.7;

function* sizeWords(times: number): Generator<string> {
  if (!times) return;
  if (times > MUCH) yield 'huge';
  if (times < 1 / MUCH) yield 'tiny';
  yield times > 1 ? 'large' : 'small';
}

/** Shares of a row that have a word, in percent. */
const SHARES: readonly (readonly [number, string])[] = [
  [100, 'full'],
  [75, 'threeQuarters'],
  [66.67, 'twoThirds'],
  [50, 'half'],
  [33.33, 'third'],
  [25, 'quarter'],
  [16.67, 'sixth'],
];

function* shareWord(length = ''): Generator<string> {
  const share = length.endsWith('%') ? parseFloat(length) : NaN;
  const known = SHARES.find(([percent]) => Math.abs(share - percent) < 0.1);
  if (known) yield known[1];
}

/** The share of a row that something takes, in a word; null where none is said, or it has no word. */
export const shareOf = (look: Declarations): string | null => {
  const [word] = [...shareWord(look.width), ...shareWord(look['flex-basis'])];
  return word ?? null;
};

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
  else for (const word of tones(lightness)) yield `${word}${capital(hue)}`;
  // As the property is called that has its value: of many of one hue nothing else tells one from the other.
  yield `${hue}${Math.round(lightness)}`;
}

/** What a hue of this lightness, 0 to 100, is called beside another. */
function* tones(lightness: number): Generator<string> {
  if (lightness > 80) yield 'pale';
  if (lightness > 58) yield 'light';
  if (lightness < 30) yield 'deep';
  if (lightness < 50) yield 'dark';
}

const COLOR = /color$|^box-shadow$|^fill$|^stroke$/;
const SIZE =
  /^((min-|max-)?(width|height)|flex-basis|font-size|line-height|padding-.*|border-.*-(radius|width)|(row|column)-gap)$/;

/** What it is that looks differ in, as a prop is called that chooses between them; null where that is more than one thing. */
export function lookAspect(looks: readonly (StyleRule | undefined)[]): 'color' | 'shape' | 'size' | null {
  const [first = {}, ...others] = looks.map((look) => look?.base ?? {});
  const differing = new Set(
    others.flatMap((look) =>
      [...new Set([...Object.keys(first), ...Object.keys(look)])].filter(
        (property) => first[property] !== look[property],
      ),
    ),
  );
  const all = [...differing];
  if (!all.length) return null;
  if (all.every((property) => property.endsWith('radius'))) return 'shape';
  return all.every((property) => COLOR.test(property))
    ? 'color'
    : all.every((property) => SIZE.test(property))
      ? 'size'
      : null;
}
