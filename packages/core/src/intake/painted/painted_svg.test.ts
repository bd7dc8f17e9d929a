import { walkElements } from '../../model/project.ts';
import { screenOf, svg } from '../../testing/build.ts';
import { parseXml } from '../svg/xml.ts';
import { isPaintedSvg } from './painted_svg.ts';

/** Letters each with a place, as a converter writes a line. */
const line = (text: string, x: number, y: number, more = ''): string =>
  `<text ${more} font-size="12" font-family="LiberationSans"><tspan y="${y}" x="${[...text].map((_, i) => x + 7 * i).join(' ')}">${text}</tspan></text>`;
const texts = ['Tools', 'Loans', 'Members', 'Help'].map((text, i) => line(text, 20, 40 + 30 * i)).join('');

test.each([
  ['letters with places', svg(texts), true],
  ['outlines used as letters', svg('<use href="#glyph0-1" x="1" y="2"/>'.repeat(9)), true],
  ['words', svg('<text x="2" y="9">Tools</text>'.repeat(6)), false],
  ['shapes', svg('<rect width="9" height="9"/>'), false],
])('%s', (_, text, expected) => expect(isPaintedSvg(parseXml(text))).toBe(expected));

const elementsOf = (body: string) => {
  const found: { text?: string; tag?: string; box: string; base: Readonly<Record<string, string>> }[] = [];
  walkElements(
    screenOf(svg(body)).root,
    ({ text, tag, box, style }) =>
      void found.push({ text, tag, box: `${box.x} ${box.y} ${box.width} ${box.height}`, base: style.base }),
  );
  return found;
};

test('groups that only clip, move or fade are no containers', () => {
  const found = elementsOf(`
    <defs><clipPath id="c"><path transform="matrix(2,0,0,2,0,0)" d="M0 0H50V20H0Z"/></clipPath></defs>
    ${texts}
    <g clip-path="url(#c)"><g opacity=".5"><g transform="translate(0 10)">
      <path d="M0 0H300V200H0Z" style="fill:rgb(100%,0%,0%)"/>
    </g></g></g>`);
  expect(found.find(({ box }) => box === '0 10 100 30')?.base['background-color']).toBe('#ff000080');
});

test('a gradient over a box is its background', () => {
  const found = elementsOf(`
    <defs><linearGradient id="g" gradientUnits="userSpaceOnUse" x1="0" y1="0" x2="0" y2="100" gradientTransform="translate(0 200)">
      <stop offset="0" stop-color="rgb(0%,0%,0%)"/><stop offset="1" stop-color="#fff"/></linearGradient></defs>
    ${texts}<path d="M0 200H390V300H0Z" fill="url(#g)"/>`);
  expect(found.find(({ box }) => box === '0 200 390 100')?.base['background-image']).toBe(
    'linear-gradient(to bottom, #000000 0%, #ffffff 100%)',
  );
});

test('a mask of one colour is how opaque it is, counted as its filter says', () => {
  const found = elementsOf(`
    <defs><filter id="alpha"><feColorMatrix values="0 0 0 0 1 0 0 0 0 1 0 0 0 0 1 0 0 0 1 0"/></filter>
    <mask id="m"><g filter="url(#alpha)"><rect width="390" height="844" style="fill:rgb(0%,0%,0%);fill-opacity:0.5"/></g></mask></defs>
    ${texts}<g mask="url(#m)"><path d="M0 300H90V340H0Z" fill="#204060"/></g>`);
  expect(found.find(({ box }) => box === '0 300 90 40')?.base['background-color']).toBe('#20406080');
});

test('text has its spaces, its face by the name of the font, and no icons that are not there', () => {
  const found = elementsOf(
    texts + line('Two words', 20, 400, 'font-weight="bold"') + line('\ue001', 20, 440),
  );
  const text = found.find((one) => one.text === 'Two words');
  expect(text?.base).toMatchObject({ 'font-weight': '700', 'font-size': '12px' });
  expect(text?.base['font-family']).toBe('"Liberation Sans", "LiberationSans", sans-serif');
  expect(found.some((one) => one.text?.includes('\ue001'))).toBe(false);
});
