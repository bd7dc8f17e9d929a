import type { VectorNode } from '../model/design.ts';
import { isExternalAddress, isPlainAddress } from './addresses.ts';
import {
  ATTRIBUTE_NAMES,
  attributeProblem,
  attributeRule,
  isAttributeName,
  jsxAttribute,
} from './attributes.ts';
import { cleanStyle, isStateSelector, styleProblem } from './style_values.ts';
import { TAGS, writtenTag } from './tags.ts';
import { cleanVector, vectorAttributeProblem } from './vectors.ts';

test.each([
  ['', true],
  ['tools.html', true],
  ['#top', true],
  ['/a:b', true],
  ['https://example.org/', true],
  ['mailto:a@example.org', true],
  ['javascript:x', false],
  [' \u0001jAvA\nscript:x', false],
  ['data:text/html,x', false],
  ['vbscript:x', false],
  ['blob:x', false],
  ['file:///etc', false],
  ['view-source:x', false],
])('address %j: %s', (address, isGood) => expect(isPlainAddress(address)).toBe(isGood));

test('an address outside is of a scheme that leads somewhere', () => {
  expect(isExternalAddress('https://a/')).toBe(true);
  expect(isExternalAddress('a.html')).toBe(false);
});

test.each([
  ['color', 'red', null],
  ['color', 'rgb(1 2 3 / 0.5)', null],
  ['color', 'var(--ink)', null],
  ['margin-top', 'calc(10vw - 4px)', null],
  ['background-image', `url("asset:${'a'.repeat(64)}")`, null],
  ['background-image', `url(asset:${'a'.repeat(64)})`, null],
  ['clip-path', 'url(#a-b)', null],
  ['content', '"‹ <"', null],
  ['font-family', '"Archivo", sans-serif', null],
  ['-webkit-box-orient', 'vertical', null],
  ['-webkit-box-orient', 'vertical;x', /holds “;”/],
  ['color', 'red;background:url(http://x)', /holds “;”/],
  ['color', 'red}*{color:red', /holds “}”/],
  ['color', 'blurple', /no value of color/],
  ['color', 'red !important', /holds “!”/],
  ['color', 'red/**/', /holds “\/\*/],
  ['color', 'var(--x,url(http://x))', /holds “url\(http/],
  ['background-image', 'url(http://x/a.png)', /holds/],
  ['background-image', 'url("http://x/a.png")', /holds/],
  ['background-image', 'u\\72l(http://x)', /holds/],
  ['background-image', 'image-set("http://x" 1x)', /holds “image-set/],
  ['background-image', '-webkit-image-set("http://x" 1x)', /holds/],
  ['background-image', 'src("http://x")', /holds “src/],
  ['background-image', 'linear-gradient(red, blue', /holds “\(”/],
  ['width', 'expression(alert(1))', /holds “expression/],
  ['content', '"a', /holds/],
  ['behavior', 'url(#a)', /no property/],
  ['-moz-binding', 'url(#a)', /no property/],
  ['all', 'unset', /no property/],
  ['constructor', 'red', /no property/],
  ['__proto__', 'red', /no property/],
  ['color:red;x', 'red', /no property/],
  ['color', '', /no value/],
  ['color', ' ', /no value/],
])('style %s: %s', (property, value, problem) => {
  const found = styleProblem(property, value);
  if (problem) expect(found).toMatch(problem);
  else expect(found).toBeNull();
});

test.each([
  [
    'shadows by the hundred',
    Array.from({ length: 240 }, (_, at) => `rgba(0, 50, 126, 0.12) ${at}px 0px 0px -6px`),
    null,
  ],
  [
    'one wrong among them',
    [...Array<string>(99).fill('red 1px 0px'), 'red sideways'],
    /no value of box-shadow/,
  ],
  ['nothing between two commas', [...Array<string>(99).fill('red 1px 0px'), ''], /no value of box-shadow/],
])('a list too long for the matcher is held to the grammar by its items: %s', (_, shadows, problem) => {
  const found = styleProblem('box-shadow', shadows.join(', '));
  if (problem) expect(found).toMatch(problem);
  else expect(found).toBeNull();
});

test('a style keeps what is good of it, and is the same value where all is', () => {
  const good = { color: 'red' };
  expect(cleanStyle(good, () => {})).toBe(good);
  const said: string[] = [];
  expect(cleanStyle({ color: 'red', width: 'x;y' }, (problem) => said.push(problem))).toEqual(good);
  expect(
    cleanStyle({ color: 'color-mix(red 80%, color-mix(in srgb, blue, lime))' }, (problem) =>
      said.push(problem),
    ),
  ).toEqual({ color: 'color-mix(in oklab, red 80%, color-mix(in srgb, blue, lime))' });
  expect(said).toEqual(['the value of width holds “;”']);
});

test.each([
  [':hover', true],
  [':checked::before', true],
  ['::-webkit-x', false],
  ['::file-selector-button', true],
  ['::-webkit-slider-thumb', true],
  ['::-moz-range-thumb', true],
  ['::before@767', true],
  ['::before@', false],
  [':hover@767', false],
  [':hover, *', false],
  [':not(a)', false],
  ['', false],
])('state %j: %s', (text, isGood) => expect(isStateSelector(text)).toBe(isGood));

test.each([
  ['div', 'title', 'x', null],
  ['a', 'href', 'b.html', null],
  ['td', 'colspan', '2', null],
  ['div', 'aria-expanded', 'true', null],
  ['div', 'role', 'tab', null],
  ['input', 'type', 'week', null],
  ['div', 'aria-expanded', 'maybe', /no value/],
  ['div', 'aria-label{x}', '', /is no name/],
  ['div', "{...(fetch('x'))}b", '', /is no name/],
  ['div', 'onclick', 'x', /no attribute/],
  ['div', 'style', 'x', /no attribute/],
  ['div', 'dangerouslySetInnerHTML', 'x', /no attribute/],
  ['div', 'constructor', 'x', /no attribute/],
  ['div', 'aria-constructor', 'x', /no attribute/],
  ['div', 'disabled', '', /no attribute/],
  ['img', 'src', 'x', /no attribute/],
  ['a', 'href', 'javascript:x', /no value/],
  ['td', 'colspan', '{x}', /no value/],
  ['input', 'type', 'x"><b', /no value/],
  ['div', 'role', 'x onclick', /no role/],
  ['div', 'id', 'a b', /no value/],
  ['div', 'title', 'x'.repeat(5001), /longer/],
])('attribute <%s %s=%j>', (tag, name, value, problem) => {
  const found = attributeProblem(tag, name, value);
  if (problem) expect(found).toMatch(problem);
  else expect(found).toBeNull();
});

test('every attribute that can be had has a name in all languages, and one in JSX', () => {
  for (const name of ATTRIBUTE_NAMES) {
    expect(isAttributeName(name)).toBe(true);
    const rule = attributeRule('input', name) ?? attributeRule('td', name) ?? attributeRule('ol', name);
    if (rule) expect(jsxAttribute('input', name).name).toMatch(/^[a-zA-Z]+(-[a-z]+)*$/);
  }
});

test.each([
  ['section', false, 'section'],
  ['marquee', true, 'span'],
  ['my-card', false, 'div'],
  ['xmp', false, 'pre'],
  ['x"y', true, 'span'],
  ['constructor', true, 'span'],
])('<%s> is written as', (tag, isInline, written) => {
  expect(writtenTag(tag, isInline)).toBe(written);
  expect(TAGS.has(written)).toBe(true);
});

test.each([
  ['d', 'M0 0 L10,10 a5 5 0 015 5Z', null],
  ['fill', '#123', null],
  ['fill', 'url(#g)', null],
  ['stroke-width', '1.5', null],
  ['stroke-dasharray', '4 2', null],
  ['transform', 'matrix(1 0 0 1 2 3) rotate(45deg)', null],
  ['viewBox', '0 0 24 24', null],
  ['href', '#a', null],
  ['offset', '50%', null],
  ['d', 'M0 0"/><script>', /no value/],
  ['fill', 'red;background:url(http://x)', /no value/],
  ['fill', 'url(http://x#a)', /no value/],
  ['filter', 'url("http://x#a")', /no value/],
  ['href', 'http://x#a', /no value/],
  ['href', 'javascript:x', /no value/],
  ['transform', 'expression(1)', /no value/],
  ['onload', 'x', /no attribute/],
  ['style', 'x', /no attribute/],
  ['xlink:href', '#a', /no attribute/],
  ['stroke-linecap', 'wavy', /no value/],
  ['viewBox', '0 0 "', /no value/],
])('in a drawing %s=%j', (name, value, problem) => {
  const found = vectorAttributeProblem(name, value);
  if (problem) expect(found).toMatch(problem);
  else expect(found).toBeNull();
});

test.each([
  ['transform', 'scale('.repeat(4000)],
  ['points', '1'.repeat(400_000) + 'x'],
  ['viewBox', '1.'.repeat(9000) + 'x'],
  ['d', `${'a'.repeat(900_000)}"`],
  ['fill', `rgb(${'1,'.repeat(9000)}`],
])('a long %s takes one pass', (name, value) => {
  expect(vectorAttributeProblem(name, value)).toMatch(/no value|longer/);
});

test.each([
  ['rgba(255,255,255,0.40', 'rgba(255,255,255,0.40)'],
  ['rgb(calc(1 + (2', undefined],
  ['url(https://elsewhere.example/x', undefined],
])('what ends too early is read as browsers do: %s', (fill, expected) => {
  const path: VectorNode = { tag: 'path', attributes: { d: 'M0 0', fill }, children: [] };
  expect(cleanVector(path, () => {})?.attributes.fill).toBe(expected);
});

test('a drawing keeps what draws', () => {
  const path: VectorNode = { tag: 'path', attributes: { d: 'M0 0' }, children: [] };
  const good: VectorNode = { tag: 'svg', attributes: { viewBox: '0 0 1 1' }, children: [path] };
  expect(cleanVector(good, () => {})).toBe(good);
  const script: VectorNode = { tag: 'script', attributes: {}, children: [] };
  const said: string[] = [];
  const made = cleanVector<VectorNode>(
    { ...good, attributes: { ...good.attributes, onload: 'x' }, children: [script, path] },
    (problem) => said.push(problem),
  );
  expect(made).toEqual(good);
  expect(said).toEqual(['a drawing has no attribute “onload”', '<script> cannot be part of a drawing']);
  expect(cleanVector(script, () => {})).toBeNull();
});
