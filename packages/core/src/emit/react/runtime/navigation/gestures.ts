import type { HTMLAttributes } from 'react';
import { type Gestures, recogniser } from './pointer';

/** Attributes that recognise what is done with a pointer beyond pressing. */
export function gestures(acts: Gestures): HTMLAttributes<HTMLElement> {
  const { style, down, move, end } = recogniser(acts);
  return {
    style,
    onPointerDown: down,
    onPointerMove: move,
    onPointerUp: end,
    onPointerCancel: end,
  };
}
