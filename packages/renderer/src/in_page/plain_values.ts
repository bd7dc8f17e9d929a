import { listItems } from '@tovel/core';
import { converter, parse } from 'culori';

/** Colours of other spaces than that of screens, where a browser computes no others from them. */
const OTHER_SPACE = /\b(?:oklch|oklab|lch|lab|color)\((?:[^()]|\([^()]*\))*\)/g;
/** Corners that are rounder than anything is large, in px. */
const ROUNDEST = 9999;
/** A shadow that has no place, size or softness, or no colour. */
const UNSEEN_COLOR =
  /\btransparent\b|#(?:[0-9a-f]{3}0|[0-9a-f]{6}00)\b|\brgba?\([^()]*[,/]\s*0(?:\.0+)?%?\s*\)/i;

const toScreen = converter('rgb');
const known = new Map<string, string>();

/** A colour as screens show it: what they have not is the nearest that they have, a channel at a time, as browsers draw it. */
function onScreen(color: string): string {
  let shown = known.get(color);
  if (shown === undefined) {
    const read = parse(color);
    const rgb = read && toScreen(read);
    if (!rgb) shown = color;
    else {
      const parts = [rgb.r, rgb.g, rgb.b].map((part) => Math.round(Math.min(1, Math.max(0, part)) * 255));
      const alpha = Number((rgb.alpha ?? 1).toFixed(3));
      shown = alpha < 1 ? `rgba(${parts.join(', ')}, ${alpha})` : `rgb(${parts.join(', ')})`;
    }
    known.set(color, shown);
  }
  return shown;
}

/** Large numbers come in powers of ten, which some properties do not take; what is in quotes is an address or a text. */
const inDigits = (value: string): string =>
  value.replace(/"[^"]*"|(?<![\w.])\d+(\.\d+)?e\+?\d+(?=px\b|%|[^\w.]|$)/g, (said) =>
    said.startsWith('"') ? said : String(Number(said)),
  );

const isSeenShadow = (layer: string): boolean => {
  const lengths = layer.replace(/\b[a-z-]+\((?:[^()]|\([^()]*\))*\)/gi, '').match(/-?[\d.]+(?=px\b)/g) ?? [];
  return (
    !UNSEEN_COLOR.test(layer) && (lengths.length === 0 || lengths.some((length) => Number(length) !== 0))
  );
};

/**
 * A value of a style as it comes out on a screen and as a person would write it: colours in red, green and blue, no layers of
 * shadow that draw nothing, round ends as such.
 * @param property a longhand
 */
export function plainValue(property: string, value: string): string {
  let plain = /\b(?:ok)?l(?:ch|ab)\(|\bcolor\(/.test(value) ? value.replace(OTHER_SPACE, onScreen) : value;
  if (/\de\+?\d/.test(plain)) plain = inDigits(plain);
  // What attributes say puts parts to a side as well, which is told by their margins.
  if (property === 'text-align') return plain.replace(/^-webkit-(?=left|center|right)/, '');
  if (property === 'appearance') return plain === 'button' ? 'auto' : plain;
  if (property.endsWith('-radius'))
    return plain.replace(/\b\d{5,}(?:\.\d+)?px/g, `${ROUNDEST}px`).replace(/^(\S+) \1$/, '$1');
  if (property === 'box-shadow' && plain !== 'none')
    return listItems(plain).filter(isSeenShadow).join(', ') || 'none';
  return plain;
}
