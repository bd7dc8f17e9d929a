/** Bounds on what intake reads; every one of them is said in a notice when it is met. */
export const limits = {
  /** Bytes of one design, style sheet or picture. */
  fileBytes: 25 * 2 ** 20,
  /** Bytes of one archive, packed. */
  archiveBytes: 100 * 2 ** 20,
  /** Bytes that an archive may unpack to. */
  unpackedBytes: 400 * 2 ** 20,
  /** Files in one batch. */
  files: 2000,
  /** Elements of one screen. */
  elements: 20_000,
  /** Pixels of one picture. */
  pixels: 40_000_000,
  /** Pages of one PDF. */
  pages: 200,
  /** Nesting of elements. */
  depth: 200,
} as const;

export const megabytes = (bytes: number): string => `${Math.round(bytes / 2 ** 20)} MB`;
