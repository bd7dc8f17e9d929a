export interface Size {
  readonly width: number;
  readonly height: number;
}

/** Height of a picture among others, in px, from which a page shows its beginning only. */
const TALLEST = 420;

/** The size of a screen's picture where all stand side by side, in px. */
export const pictureSize = (screen: Size, scale: number): Size => ({
  width: Math.max(1, Math.round(screen.width * scale)),
  height: Math.min(TALLEST, Math.max(1, Math.round(screen.height * scale))),
});
