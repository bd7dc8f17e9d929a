import { plainValue } from './plain_values.ts';

test.each([
  ['color', 'oklch(0.554 0.046 257.417)', 'rgb(98, 116, 142)'],
  ['color', 'oklch(0.279 none none)', 'rgb(41, 41, 41)'],
  ['color', 'oklab(0.5 0.1 0.1 / 0.4)', 'rgba(161, 66, 3, 0.4)'],
  // What a screen has not is the nearest that it has, a channel at a time.
  ['color', 'color(display-p3 1 0 0)', 'rgb(255, 0, 0)'],
  ['color', 'color(srgb 0.5 0.2 0.1 / 0.3)', 'rgba(128, 51, 26, 0.3)'],
  ['color', 'color(nowhere 1 0 0)', 'color(nowhere 1 0 0)'],
  [
    'background-image',
    'linear-gradient(oklch(1 0 0), rgb(1, 2, 3))',
    'linear-gradient(rgb(255, 255, 255), rgb(1, 2, 3))',
  ],
  ['background-image', 'url("colors/oklch.png")', 'url("colors/oklch.png")'],
  ['background-image', 'url("blob:a-4e34-b"), url("1e3.png")', 'url("blob:a-4e34-b"), url("1e3.png")'],
  ['background-size', '1.5e+06px auto', '1500000px auto'],
  ['border-top-left-radius', '3.35544e+07px', '9999px'],
  ['border-top-left-radius', '3.35544e+07px 3.35544e+07px', '9999px'],
  ['border-top-left-radius', '8px', '8px'],
  ['z-index', '2.14748e+09', '2147480000'],
  ['width', '1.5e+06px', '1500000px'],
  ['text-align', '-webkit-center', 'center'],
  ['text-align', 'start', 'start'],
  ['appearance', 'button', 'auto'],
  ['appearance', 'textfield', 'textfield'],
  [
    'box-shadow',
    'rgba(0, 0, 0, 0) 0px 0px 0px 0px, rgba(0, 0, 0, 0.1) 0px 1px 3px 0px',
    'rgba(0, 0, 0, 0.1) 0px 1px 3px 0px',
  ],
  ['box-shadow', 'rgb(255, 255, 255) 0px 0px 0px 0px, rgba(59, 130, 246, 0.5) 0px 0px 0px 0px', 'none'],
  ['box-shadow', 'rgb(13, 148, 136) 0px 0px 0px 2px', 'rgb(13, 148, 136) 0px 0px 0px 2px'],
  ['box-shadow', 'none', 'none'],
])('%s: %s comes out as %s', (property, value, plain) => {
  expect(plainValue(property, value)).toBe(plain);
  // And is not changed again.
  expect(plainValue(property, plain)).toBe(plain);
});
