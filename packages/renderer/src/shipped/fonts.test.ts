import { shippedFont } from './fonts.ts';

const facesOf = async (family: string, weights = [400], hasItalic = false): Promise<string[]> =>
  (await shippedFont({ family, weights, hasItalic })).map(
    (face) => `${face.file.replace('fonts/', '')} ${face.weight} ${face.style}`,
  );

test.each([
  ['Inter', [400, 700], false, ['inter-latin-wght-normal.woff2 100 900 normal']],
  [
    'open sans',
    [400],
    true,
    ['open-sans-latin-wght-normal.woff2 100 900 normal', 'open-sans-latin-wght-italic.woff2 100 900 italic'],
  ],
  [
    'Lato',
    [400, 700],
    false,
    ['lato-latin-400-normal.woff2 400 normal', 'lato-latin-700-normal.woff2 700 normal'],
  ],
  ['Lato', [450], false, []],
  ['Material Symbols Outlined', [400], false, ['material-symbols-outlined.woff2 100 700 normal']],
  ['Nobody’s Font', [400], false, []],
  ['../../../etc/passwd', [400], false, []],
])('%s %j italic %s', async (family, weights, hasItalic, expected) =>
  expect(await facesOf(family, weights, hasItalic)).toEqual(expected),
);
