/** What is seen of a drawing: the point at the upper left, in px of the drawing, and how much larger it is than drawn. */
export interface Eye {
  readonly x: number;
  readonly y: number;
  readonly scale: number;
}

interface Size {
  readonly width: number;
  readonly height: number;
}

interface Point {
  readonly x: number;
  readonly y: number;
}

const SCALES = { min: 0.15, max: 2 };

/** All of a drawing, from its beginning; none is drawn larger than it is. */
export const fittedEye = (drawing: Size, room: Size): Eye => ({
  x: 0,
  y: 0,
  scale: Math.max(SCALES.min, Math.min(1, room.width / drawing.width, room.height / drawing.height)),
});

/** Larger or smaller, where a point of the window stays on what it shows. */
export function zoomedEye(eye: Eye, by: number, around: Point): Eye {
  const scale = Math.max(SCALES.min, Math.min(SCALES.max, eye.scale * by));
  const ratio = 1 / eye.scale - 1 / scale;
  return { scale, x: eye.x + around.x * ratio, y: eye.y + around.y * ratio };
}

/** Further by a way in px of the window. */
export const movedEye = (eye: Eye, by: Point): Eye => ({
  ...eye,
  x: eye.x + by.x / eye.scale,
  y: eye.y + by.y / eye.scale,
});

/** As large as before, with a point of the drawing in the middle. */
export const centredEye = ({ scale }: Eye, on: Point, room: Size): Eye => ({
  scale,
  x: on.x - room.width / 2 / scale,
  y: on.y - room.height / 2 / scale,
});
