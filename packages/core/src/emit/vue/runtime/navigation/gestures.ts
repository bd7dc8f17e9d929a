import { type Gestures, recogniser } from './pointer';

/** Attributes that recognise what is done with a pointer beyond pressing. */
export function gestures(acts: Gestures) {
  const { style, down, move, end } = recogniser(acts);
  return {
    style,
    onPointerdown: down,
    onPointermove: move,
    onPointerup: end,
    onPointercancel: end,
  };
}
