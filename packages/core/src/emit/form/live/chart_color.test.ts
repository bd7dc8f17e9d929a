import type { Element } from '../../../model/design.ts';
import { pageOfHtml } from '../../../testing/page_of_html.ts';
import { screenOf, svg } from '../../../testing/build.ts';
import { chartColor } from './chart_color.ts';

const bars = (...colors: string[]): Element =>
  pageOfHtml(
    `<main>${colors.map((color) => `<div><i style="background-color:${color}"></i>Mon</div>`).join('')}</main>`,
  ).root;
const drawn = (shapes: string): Element => screenOf(svg(shapes)).root;

test.each<[string, Element, string | undefined]>([
  ['that of most bars', bars('#123456', '#3f86a8', '#3f86a8'), '#3f86a8'],
  ['none of what is clear', bars('transparent', 'rgba(0, 0, 0, 0)'), undefined],
  ['none of a chart of text', bars(), undefined],
])('the colour of a chart: %s', (_, chart, color) => expect(chartColor(chart)).toBe(color));

test('a line has the colour of its stroke', () => {
  const line =
    '<path d="M0 80L40 60L80 70L120 20L160 40L200 10" fill="none" stroke="#c8743a" stroke-width="3"/>';
  expect(chartColor(drawn(`<g data-name="Line chart">${line}</g>`))).toBe('#c8743a');
});
