/**
 * The base style sheet of every emitted app, and so the ground that readings stand on: a reader asks an element
 * for each property named here for its tag, and leaves out the values that the reset gives it anyway.
 */
const NO_MARGIN: Readonly<Record<string, string>> = {
  'margin-top': '0px',
  'margin-right': '0px',
  'margin-bottom': '0px',
  'margin-left': '0px',
};
const NO_PADDING: Readonly<Record<string, string>> = {
  'padding-top': '0px',
  'padding-right': '0px',
  'padding-bottom': '0px',
  'padding-left': '0px',
};
const NO_BORDER: Readonly<Record<string, string>> = Object.fromEntries(
  ['top', 'right', 'bottom', 'left'].flatMap((side) => [
    [`border-${side}-width`, '0px'],
    [`border-${side}-style`, 'none'],
  ]),
);
const TYPE: Readonly<Record<string, string>> = {
  'font-family': 'inherit',
  'font-size': 'inherit',
  'font-weight': 'inherit',
  'font-style': 'inherit',
  'line-height': 'inherit',
  'letter-spacing': 'inherit',
};
const HEADING: Readonly<Record<string, string>> = {
  ...NO_MARGIN,
  'font-size': 'inherit',
  'font-weight': 'inherit',
};
const LIST: Readonly<Record<string, string>> = { ...NO_MARGIN, ...NO_PADDING, 'list-style-type': 'none' };

export const reset: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  body: NO_MARGIN,
  p: NO_MARGIN,
  h1: HEADING,
  h2: HEADING,
  h3: HEADING,
  h4: HEADING,
  h5: HEADING,
  h6: HEADING,
  ul: LIST,
  ol: LIST,
  dl: NO_MARGIN,
  dd: NO_MARGIN,
  figure: NO_MARGIN,
  blockquote: NO_MARGIN,
  fieldset: { ...NO_MARGIN, ...NO_PADDING, ...NO_BORDER, 'min-width': '0px' },
  legend: NO_PADDING,
  a: { color: 'inherit', 'text-decoration-line': 'none' },
  button: {
    ...NO_MARGIN,
    ...NO_PADDING,
    ...NO_BORDER,
    ...TYPE,
    color: 'inherit',
    'background-color': 'transparent',
    'text-align': 'inherit',
    cursor: 'pointer',
  },
  input: { ...TYPE, color: 'inherit' },
  select: { ...TYPE, color: 'inherit' },
  textarea: { ...TYPE, color: 'inherit' },
  table: { 'border-collapse': 'collapse' },
  th: { ...NO_PADDING, 'text-align': 'inherit', 'font-weight': 'inherit' },
  td: NO_PADDING,
};
