// npm run faces: writes how wide the letters of well-known fonts are, by which a font is told where only outlines came along.
// Reads the fonts that Tovel ships, and those of Debian's package "fonts-liberation" and "fonts-dejavu" where they are.
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { launchChromium } from '@tovel/renderer/chromium';
import { root } from './lib/setup.mjs';

const LETTERS =
  'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789.,:;!?()[]/&@#%+=*$€"’‘“”-–—_·|äöüÄÖÜßéèàç';
const SYSTEM = '/usr/share/fonts/truetype';
const system = (file) => path.join(SYSTEM, file);
const shipped = (name, pattern) => {
  const folder = path.join(root, 'node_modules', name, 'files');
  const file = readdirSync(folder).find((entry) => pattern.test(entry));
  return path.join(folder, file);
};
const variable = (name) => shipped(`@fontsource-variable/${name}`, /-latin-wght-normal\.woff2$/);
const fixed = (name, weight) =>
  shipped(`@fontsource/${name}`, new RegExp(`-latin-${weight}-normal\\.woff2$`));

const FACES = [
  [
    '"Liberation Sans", Arial, Helvetica, sans-serif',
    [system('liberation/LiberationSans-Regular.ttf'), system('liberation/LiberationSans-Bold.ttf')],
  ],
  [
    '"Liberation Serif", "Times New Roman", Times, serif',
    [system('liberation/LiberationSerif-Regular.ttf'), system('liberation/LiberationSerif-Bold.ttf')],
  ],
  [
    '"Liberation Mono", "Courier New", monospace',
    [system('liberation/LiberationMono-Regular.ttf'), system('liberation/LiberationMono-Bold.ttf')],
  ],
  [
    '"DejaVu Sans", Verdana, sans-serif',
    [system('dejavu/DejaVuSans.ttf'), system('dejavu/DejaVuSans-Bold.ttf')],
  ],
  ['"DM Sans", sans-serif', variable('dm-sans')],
  ['Inter, sans-serif', variable('inter')],
  ['Montserrat, sans-serif', variable('montserrat')],
  ['Nunito, sans-serif', variable('nunito')],
  ['"Open Sans", sans-serif', variable('open-sans')],
  ['"Playfair Display", serif', variable('playfair-display')],
  ['Roboto, sans-serif', variable('roboto')],
  ['"Work Sans", sans-serif', variable('work-sans')],
  ['Lato, sans-serif', [fixed('lato', 400), fixed('lato', 700)]],
  ['Poppins, sans-serif', [fixed('poppins', 400), fixed('poppins', 700)]],
];

const browser = await launchChromium('Measuring fonts');
const page = await browser.newPage();
const rows = [];
for (const [family, files] of FACES)
  for (const [i, weight] of [400, 700].entries()) {
    const file = Array.isArray(files) ? files[i] : files;
    if (!existsSync(file)) {
      console.log(`${file} is not here; ${family} ${weight} is left out.`);
      continue;
    }
    const widths = await page.evaluate(measure, [readFileSync(file).toString('base64'), weight, LETTERS]);
    rows.push(`  ['${family}', ${weight}, '${widths.join(' ')}'],`);
  }
await browser.close();
writeFileSync(
  path.join(root, 'packages/core/src/intake/painted/face_widths.ts'),
  `/** Written by \`npm run faces\`: how wide the letters of well-known fonts are, in thousandths of their size. */
export const LETTERS = ${JSON.stringify(LETTERS)};
export const FACE_WIDTHS: readonly (readonly [family: string, weight: number, widths: string])[] = [
${rows.join('\n')}
];
`,
);
console.log(`${rows.length} faces`);

/* Runs in the page. */
async function measure([bytes, weight, letters]) {
  const face = new FontFace('measured', `url(data:font/any;base64,${bytes})`, { weight: '100 900' });
  document.fonts.clear();
  document.fonts.add(await face.load());
  const context = document.createElement('canvas').getContext('2d');
  context.font = `${weight} 1000px measured`;
  return [...letters].map((letter) => Math.round(context.measureText(letter).width));
}
