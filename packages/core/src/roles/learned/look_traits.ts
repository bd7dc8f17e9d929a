import { letters, wordCount } from '../evidence.ts';
import { channelsOf, displayOf, isPale, px, type ScreenSight, type Sight } from '../sight.ts';
import type { Contents } from './contents.ts';
import { range, type Say } from './say.ts';

const DISPLAYS: ReadonlySet<string> = new Set([
  'block',
  'inline',
  'inline-block',
  'flex',
  'inline-flex',
  'grid',
  'list-item',
  'none',
]);

/** How an element is laid out, in as many words as tell roles apart. */
export function layoutOf(s: Sight): string {
  const display = displayOf(s.element) || 'block';
  return DISPLAYS.has(display) || display.startsWith('table') ? display : 'other';
}

/** Traits of how an element looks and stands by itself. */
export function lookTraits(s: Sight, screen: ScreenSight, contents: Contents, say: Say): void {
  const { element, parent } = s;
  say(`kind ${element.kind}`);
  say(`display ${layoutOf(s)}`);
  if (s.cursor === 'pointer') say(parent?.cursor === 'pointer' ? 'within what is pointed at' : 'pointed at');
  else if (s.children.length)
    say(contents.isPointedAt ? 'holds what is pointed at' : 'holds nothing pointed at');
  sizeTraits(s, screen, say);
  if (s.hasOwnText) textTraits(s, screen, say);
  else if (s.text) say(`holds words ${range(wordCount(s.text), [2, 5, 12, 30, 100])}`);
  else say('holds no text');
  boxTraits(s, say);
  placeTraits(s, screen, say);
  say(`children ${range(s.children.length, [1, 2, 3, 6])}`);
  if (!s.children.length) return;
  say(`leaves ${range(contents.leaves, [1, 2, 3, 6, 15, 50])}`);
  if (contents.pictures) say(contents.pictures === 1 ? 'one picture in it' : 'pictures in it');
  if (contents.pictures === 1 && !s.text) say('only a picture in it');
}

function sizeTraits(s: Sight, screen: ScreenSight, say: Say): void {
  const { width, height } = s.element.box;
  say(`height ${range(height, [1, 3, 12, 22, 32, 48, 80, 160, 400, 900])}`);
  say(`width ${range(width / Math.max(1, screen.width), [0.001, 0.02, 0.05, 0.15, 0.3, 0.6, 0.95])}`);
  if (Math.abs(width - height) <= 2 && width > 4) say(`square ${range(width, [18, 30, 50, 130])}`);
  if (Math.min(width, height) <= 3 && Math.max(width, height) >= 24) say('thin line');
  const outer = s.parent?.element.box;
  if (!outer) return;
  if (width >= outer.width * 0.97) say('as wide as its parent');
  if (height >= outer.height * 0.97) say('as high as its parent');
}

function textTraits(s: Sight, { bodySize }: ScreenSight, say: Say): void {
  const { text, parent } = s;
  say(`letters ${range(s.fontSize / bodySize, [0.8, 0.95, 1.05, 1.2, 1.45, 1.9])}`);
  say(`weight ${range(s.fontWeight, [400, 500, 600, 700])}`);
  if (s.fontSize > bodySize * 1.1 && s.fontWeight >= 600) say('large and bold');
  if (s.fontSize <= bodySize && s.fontWeight >= 600) say('bold only');
  say(`words ${range(wordCount(text), [1, 2, 4, 8, 16, 40])}`);
  if (/[.!?…]["”’)]?$/.test(text)) say('ends like a sentence');
  if (/\d/.test(text) && letters(text) < 3) say('a figure');
  if (/^\p{Lu}[^\p{Ll}]{2,}$/u.test(text)) say('capitals');
  if (!letters(text) && !/\d/.test(text)) say('signs only');
  if (parent && s.color !== parent.color) say(isColourful(s.color) ? 'colour of its own' : 'grey of its own');
  if (isPale(s.color)) say('pale letters');
  if (/[▾▼⌄]\s*$/.test(text) && text.length < 80) say('arrow down at its end');
}

function boxTraits(s: Sight, say: Say): void {
  const { element, look } = s;
  const { base } = element.style;
  if ((base['text-transform'] ?? '') === 'uppercase') say('set in capitals');
  if (/underline/.test(base['text-decoration-line'] ?? base['text-decoration'] ?? '')) say('underlined');
  if (s.align === 'center') say('centred');
  if (look.hasFill) say(isColourful(base['background-color'] ?? '') ? 'colourful ground' : 'ground');
  if (look.hasBorder) say('frame');
  if (look.hasFill || look.hasBorder) say('box of its own');
  if (look.hasUnderline) say('line at its foot');
  if (look.hasShadow) say('shadow');
  if (look.radius > 0)
    say(look.radius >= Math.min(element.box.width, element.box.height) * 0.45 ? 'round' : 'round corners');
  if (base.appearance === 'button') say('drawn as a button');
  say(
    `padding ${range(px(base['padding-left']) ?? 0, [1, 8, 20])} ${range(px(base['padding-top']) ?? 0, [1, 8, 20])}`,
  );
  const margin = Math.max(px(base['margin-bottom']) ?? 0, px(base['margin-top']) ?? 0);
  say(`distance ${range(margin, [1, 6, 14, 28])}`);
  if (s.hasOwnText && layoutOf(s) === 'block')
    say(`block of text, distance ${range(margin, [1, 6, 14, 28])}`);
  if (isFlatBar(s))
    say(s.children.some(({ look: inner }) => inner.hasFill) ? 'partly filled bar' : 'flat bar');
  if (s.parent && isFlatBar(s.parent) && look.hasFill) say('filled part of a flat bar');
}

function placeTraits(s: Sight, screen: ScreenSight, say: Say): void {
  const { base } = s.element.style;
  const { width, height, x, y } = s.element.box;
  if (['fixed', 'absolute', 'sticky'].includes(base.position ?? '')) say(`stands ${base.position}`);
  if (Number(base['z-index']) >= 100) say('over what else there is');
  if (s.element.hidden || layoutOf(s) === 'none') say('not shown');
  say(`depth ${range(s.depth, [2, 3, 4, 6, 9])}`);
  if (y <= 4) say('at the top');
  if (y + height >= screen.height - 8) say('at the foot');
  if (x <= 4 && width < screen.width * 0.3)
    say(height > screen.height * 0.4 ? 'down the left edge' : 'at the left edge');
  if (width >= screen.width * 0.9 && height <= 130 && y < 140) say('across the top');
}

const isColourful = (color: string): boolean => {
  const channels = channelsOf(color);
  if (!channels) return false;
  const [r, g, b] = channels;
  return Math.max(r, g, b) - Math.min(r, g, b) > 60;
};

/** A low wide box without text, as gauges have. */
const isFlatBar = ({ element: { box }, text, look }: Sight): boolean =>
  box.width > box.height * 4 && box.height >= 2 && box.height <= 34 && text.length <= 5 && look.hasFill;
