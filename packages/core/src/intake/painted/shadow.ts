import type { Box } from '../../model/design.ts';
import { boundsOfPicture } from './picture_place.ts';
import type { PaintedShape } from './painted_page.ts';
import { channelsOf, withAlpha } from './colors.ts';

/** A blurred shape that was painted around a box, or behind it. */
export interface Shadow {
  readonly box: Box;
  readonly color: string;
}

/** The blur of CSS for how far a painted shadow reaches: a Gaussian of half the blur is nothing any more after three of it. */
const BLUR_OF_REACH = 0.7;

/** The shadow that a shape of one colour behind a blurred picture is; null for anything else. */
export function shadowOf(shape: PaintedShape): Shadow | null {
  const [only, ...more] = shape.mask ?? [];
  if (!only || more.length || only.kind !== 'picture' || typeof shape.fill !== 'string') return null;
  const alpha = shape.opacity * only.opacity;
  return { box: boundsOfPicture(only), color: withAlpha(shape.fill, alpha) };
}

/** The shadow as CSS writes it for a box; null where it reaches nowhere beyond the box. */
export function cssShadow(shadow: Shadow, box: Box): string | null {
  if (!channelsOf(shadow.color)) return null;
  const [top, right, bottom, left] = [
    box.y - shadow.box.y,
    shadow.box.x + shadow.box.width - box.x - box.width,
    shadow.box.y + shadow.box.height - box.y - box.height,
    box.x - shadow.box.x,
  ];
  const reach = (top + right + bottom + left) / 4;
  if (!(reach > 0.2)) return null;
  const [dx, dy] = [Math.round((right - left) / 2), Math.round((bottom - top) / 2)];
  return `${dx}px ${dy}px ${Math.round(reach * BLUR_OF_REACH)}px ${shadow.color}`;
}

/** A shadow reaches at most this far, in px. */
const MOST = 160;

/** Whether a shadow can be that of a box: it is as much wider as it is higher. */
export function isShadowOf(shadow: Shadow, box: Box): boolean {
  const [wider, higher] = [shadow.box.width - box.width, shadow.box.height - box.height];
  return wider > -1 && wider < 2 * MOST && Math.abs(wider - higher) <= 4 && cssShadow(shadow, box) !== null;
}
