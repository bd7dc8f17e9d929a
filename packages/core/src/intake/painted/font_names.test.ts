import { fontNamed } from './font_names.ts';

test.each([
  ['AAAAAA+LiberationSans-Bold', '"Liberation Sans", "LiberationSans", sans-serif', 700, false],
  ['OpenSans-SemiBoldItalic', '"Open Sans", "OpenSans", sans-serif', 600, true],
  ['BCDEFG+DejaVuSansMono', '"DejaVu Sans Mono", "DejaVuSansMono", monospace', 400, false],
  ['TimesNewRomanPS-BoldMT', '"Times New Roman", "TimesNewRoman", serif', 700, false],
  ['Nunito-ExtraLight', '"Nunito", sans-serif', 200, false],
  ['Source-Serif-Pro-Italic', '"Source Serif Pro", "Source-Serif-Pro", serif', 400, true],
  ['Arial,Bold', '"Arial", sans-serif', 700, false],
  ['Helvetica-Oblique', '"Helvetica", sans-serif', 400, true],
  ['', 'sans-serif', 400, false],
])('%s', (name, family, weight, isItalic) => expect(fontNamed(name)).toEqual({ family, weight, isItalic }));

test('what is told beside the name stands in for it', () =>
  expect(fontNamed('Quill-Regular', 'serif').family).toBe('"Quill", serif'));
