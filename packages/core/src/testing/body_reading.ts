import type { PageReading, ReadElement } from '../intake/html/reading.ts';

/** A page as a browser says that it is, whose body has this; nothing else is said of it. */
export const bodyReading = (
  body: Partial<ReadElement>,
  size: Partial<Pick<PageReading, 'width' | 'height'>> = {},
): PageReading => ({
  width: 1280,
  height: 800,
  ...size,
  canvas: {},
  hidden: [],
  body: {
    path: '1',
    tag: 'body',
    attributes: {},
    box: { x: 0, y: 0, width: 9, height: 9 },
    base: {},
    children: [],
    ...body,
  },
});
