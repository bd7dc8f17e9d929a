/** Bounds on what intake reads; every one of them is said in a notice when it is met. */
export const limits = {
  /** Bytes of one design, style sheet or picture. */
  fileBytes: 25 * 2 ** 20,
  /** Bytes of one archive, packed. */
  archiveBytes: 100 * 2 ** 20,
  /** Bytes that an archive of screens may unpack to: all of it is held at once, some of it twice. */
  unpackedBytes: 160 * 2 ** 20,
  /** Bytes of one project file, and of what it unpacks to. */
  projectBytes: 400 * 2 ** 20,
  /** UTF-16 units of one style sheet; the largest that people use are a fifth of this. */
  sheet: 3_000_000,
  /** UTF-16 units of the style sheets within one drawing. */
  drawingSheet: 500_000,
  /** UTF-16 units of one path. */
  path: 1_000_000,
  /** UTF-16 units of all paths of one drawing. */
  paths: 3_000_000,
  /** UTF-16 units of the texts that say what the app is to be. */
  brief: 200_000,
  /** How often a rule of a drawing's style sheets is held against an element. */
  styleLookups: 1_000_000,
  /** Elements that one drawing shows once its reused symbols are unfolded. */
  unfolded: 20_000,
  /** Files in one batch. */
  files: 2000,
  /** Elements of one screen. */
  elements: 20_000,
  /** Pixels of one picture. */
  pixels: 40_000_000,
  /** Pages of one PDF. */
  pages: 200,
  /** Elements of a drawing that a machine wrote: each letter is one, before they are words. */
  written: 120_000,
  /** Steps of paths that are followed for one page of what a machine painted, those of clips and masks each time. */
  steps: 1_500_000,
  /** Nesting of elements. */
  depth: 200,
} as const;

export const megabytes = (bytes: number): string => `${Math.round(bytes / 2 ** 20)} MB`;
