import { parseDesign } from '../project/archive.ts';
import { type Element, emptyDesign, type Notice, type NoticeLevel } from '../model/design.ts';
import { screenWith } from '../testing/build.ts';
import { cleanNotice, cleanScreen, fewEnough } from './gate.ts';

const good = screenWith('home', 'Go');
const withRoot = (part: Partial<Element>) => ({ ...good, root: { ...good.root, ...part } });

test('a good screen comes through as it is', () => {
  const once = cleanScreen(good);
  expect(once).toEqual({ screen: good, notices: [] });
  expect(cleanScreen(once.screen!).screen).toBe(once.screen);
});

test.each<[string, Partial<Element>, (root: Element) => unknown, unknown, RegExp]>([
  [
    'code as a name',
    { attributes: { 'a={x} b': '', title: 'T' } },
    (r) => r.attributes,
    { title: 'T' },
    /is no name/,
  ],
  ['a space before a name', { attributes: { id: ' save' } }, (r) => r.attributes, { id: 'save' }, /^$/],
  ['a label of nothing', { tag: 'label', attributes: { for: '' } }, (r) => r.attributes, {}, /^$/],
  ['an event', { attributes: { onclick: 'x' } }, (r) => r.attributes, {}, /no attribute “onclick”/],
  ['an element of no kind', { tag: 'x"y' }, (r) => r.tag, 'div', /^$/],
  [
    'a style that fetches',
    { style: { base: { color: 'red', 'background-image': 'url(http://x)' } } },
    (r) => r.style.base,
    { color: 'red' },
    /holds “url\(http/,
  ],
  [
    'a state that is a selector',
    { style: { base: {}, states: { ':hover,*': { color: 'red' }, ':checked': { color: 'red' } } } },
    (r) => r.style.states,
    { ':checked': { color: 'red' } },
    /is no state/,
  ],
  ['half a character', { text: 'a\ud800b' }, (r) => r.text, 'a\ufffdb', /^$/],
  [
    'a place that is none',
    { box: { x: NaN, y: 1e300, width: -5, height: 4 } },
    (r) => r.box,
    { x: 0, y: 1e7, width: 0, height: 4 },
    /^$/,
  ],
  [
    'a drawing that runs',
    { vector: { tag: 'script', attributes: {}, children: [] } },
    (r) => r.vector,
    undefined,
    /<script>/,
  ],
])('%s is left out, and the rest stays', (_, part, look, expected, says) => {
  const { screen, notices } = cleanScreen(withRoot(part));
  expect(look(screen!.root)).toEqual(expected);
  expect(notices.map((notice) => notice.message).join('\n')).toMatch(says);
  parseDesign(JSON.parse(JSON.stringify({ ...emptyDesign, screens: [screen], notices })));
});

test('the same thing many times is said once', () => {
  const child = (n: number): Element => ({
    ...good.root,
    key: `home:x${n}`,
    attributes: { onclick: 'x' },
    children: [],
  });
  const { notices } = cleanScreen(withRoot({ children: Array.from({ length: 50 }, (_, n) => child(n)) }));
  expect(notices).toHaveLength(1);
  expect(notices[0].message).toMatch(/\(50 times\)/);
});

test.each([
  ['', 'Screen'],
  ['   ', 'Screen'],
  ['constructor', 'constructor'],
  ['x'.repeat(500), 'x'.repeat(120)],
])('a screen called %j has a name', (name, expected) => {
  expect(cleanScreen({ ...good, name }).screen!.name).toBe(expected);
});

test('what cannot be mended is one notice', () => {
  const { screen, notices } = cleanScreen({ ...good, source: { file: 'a'.repeat(3000), path: '' } });
  expect(screen).toBeNull();
  expect(notices.at(-1)).toMatchObject({ level: 'error', code: 'screen-refused' });
  parseDesign({ ...emptyDesign, notices: notices.map(cleanNotice) });
});

test.each<[string, string[], number, string[]]>([
  ['as many as may be', ['info a', 'error b'], 2, ['info a', 'error b']],
  ['what is said twice', ['info a', 'error b', 'info a'], 2, ['info a', 'error b']],
  [
    'too many',
    ['info a', 'error b', 'info c', 'warning d'],
    3,
    ['error b', 'warning d', 'warning 2 more remarks'],
  ],
])('a design holds %s', (_, said, most, expected) => {
  const notices = said.map((one): Notice => {
    const [level, message] = one.split(' ');
    return { level: level as NoticeLevel, code: 'said', file: 'a.html', message };
  });
  const kept = fewEnough(notices, most).map(({ level, message }) => `${level} ${message}`);
  expect(kept.map((one) => one.replace(/(more remarks).*/, '$1'))).toEqual(expected);
});
