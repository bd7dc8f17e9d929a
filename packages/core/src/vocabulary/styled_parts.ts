const DATES = ['date', 'time', 'datetime-local', 'month', 'week'];

/** Parts of elements that style sheets draw otherwise, by their pseudo-elements, with the elements that have them. */
export const STYLED_PARTS: ReadonlyMap<string, string> = new Map([
  ['::first-letter', '*'],
  ['::first-line', '*'],
  ['::marker', 'li, summary'],
  ['::file-selector-button', 'input[type="file"]'],
  ['::-webkit-slider-thumb', 'input[type="range"]'],
  ['::-webkit-slider-runnable-track', 'input[type="range"]'],
  ['::-webkit-color-swatch', 'input[type="color"]'],
  ['::-webkit-color-swatch-wrapper', 'input[type="color"]'],
  ['::-webkit-progress-bar', 'progress'],
  ['::-webkit-progress-value', 'progress'],
  ['::-webkit-progress-inner-element', 'progress'],
  ['::-webkit-meter-bar', 'meter'],
  ['::-webkit-meter-inner-element', 'meter'],
  ['::-webkit-meter-optimum-value', 'meter'],
  ['::-webkit-meter-suboptimum-value', 'meter'],
  ['::-webkit-meter-even-less-good-value', 'meter'],
  ['::-webkit-datetime-edit-fields-wrapper', DATES.map((type) => `input[type="${type}"]`).join()],
]);

/** What other engines call the same parts. */
export const SAME_PARTS: ReadonlyMap<string, string> = new Map([
  ['::-webkit-slider-thumb', '::-moz-range-thumb'],
  ['::-webkit-slider-runnable-track', '::-moz-range-track'],
  ['::-webkit-color-swatch', '::-moz-color-swatch'],
  ['::-webkit-progress-value', '::-moz-progress-bar'],
]);

const known = new Set([...STYLED_PARTS.keys(), ...SAME_PARTS.values()]);
export const isStyledPart = (pseudoElement: string): boolean => known.has(pseudoElement);
