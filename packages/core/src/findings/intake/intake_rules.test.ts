import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { all, applyChange, putDismissed } from '../../change/change.ts';
import { readSvg } from '../../intake/svg/read_svg.ts';
import { type Screen, emptyDesign } from '../../model/design.ts';
import { emptyApp } from '../../model/app.ts';
import type { Project } from '../../model/project.ts';
import { kebabCase } from '../../model/names.ts';
import { takeIn } from '../../project/take_in.ts';
import { projectOf, screenOf, svg } from '../../testing/build.ts';
import { pageOfHtml } from '../../testing/page_of_html.ts';
import { findingsOf, stationOf } from '../rules.ts';
import { coveredOn } from './element_rules.ts';
import { likenessesOf } from './likeness.ts';
import { namedInBrief } from './word_rules.ts';

const folder = path.resolve(__dirname, '../../../../../e2e/fixtures/pile');
const brief = readFileSync(path.join(folder, 'brief.md'), 'utf8');
const screens = readdirSync(folder)
  .filter((name) => name.endsWith('.svg'))
  .sort()
  .map(
    (file): Screen =>
      readSvg({
        file,
        text: readFileSync(path.join(folder, file), 'utf8'),
        screenKey: kebabCase(file.slice(0, -4)),
        asset: () => null,
      }).screen!,
  );
const design = { ...emptyDesign, screens, brief };
const pile: Project = { design, app: applyChange(emptyApp, takeIn({ design, app: emptyApp }, screens)) };
const found = (project: Project) => findingsOf(project).filter(({ code }) => stationOf(code) === 'intake');

test.each([
  ['same-screen', 'basket-copy', 'Skip Basket copy'],
  ['counterpart', 'checkout-mobile', 'Make it a counterpart'],
  ['overlay', 'basket-dialog', 'Make it an overlay of Basket'],
  ['overlay', 'basket-empty', 'Make it an overlay of Basket'],
  ['sheet', 'colours', 'Skip it'],
  ['sheet', 'components', 'Skip it'],
  ['hidden', 'troubles', 'Show it'],
  ['device-furniture', 'troubles', 'Leave it out'],
  ['outside-screen', 'troubles', 'Leave it out'],
  ['text-overflow', 'troubles', undefined],
  ['covered', 'troubles', 'Let presses through'],
  ['screen-name', 'group-47', 'Call it Opening hours'],
  ['absent-screen', 'troubles', 'To be drawn'],
])('%s is found on %s', (code, screen, fix) => {
  const own = found(pile).filter((finding) => finding.code === code && finding.screen === screen);
  expect(own.length).toBeGreaterThan(0);
  expect(own[0].fix?.label).toBe(fix);
  expect(own[0].message).toMatch(/\p{L}.*[.?]$/u);
});

test('what lies beyond the edge of what scrolls is not outside', () => {
  const page = (style: string) =>
    pageOfHtml(
      `<main data-box="0 0 1280 800"><div data-box="0 0 400 800" style="${style}"><p data-box="1400 100 300 20">Later</p></div></main>`,
      'chat',
    );
  const codes = (style: string) =>
    found(projectOf({ ...page(style), title: 'Chat' })).map(({ code }) => code);
  expect(codes('')).toContain('outside-screen');
  expect(codes('overflow-x: auto')).not.toContain('outside-screen');
});

const words = (...texts: readonly string[]): string =>
  texts.map((text, i) => `<text x="24" y="${60 + i * 40}" font-size="16">${text}</text>`).join('');

test.each([
  ['says it', ['Home', 'Home v2'], ['Borrow', 'Tools'], ['Borrow', 'Sheds', 'Hours'], 'Home v2'],
  [
    'hints at it and most is the same',
    ['Home A', 'Home B'],
    ['Borrow', 'Tools', 'Sheds'],
    ['Borrow', 'Tools', 'Sheds', 'Hours'],
    'Home B',
  ],
  [
    'hints at it and little is the same',
    ['Step 1', 'Step 2'],
    ['Name', 'Street', 'Town'],
    ['Card', 'Month', 'Town'],
    null,
  ],
  ['ends in a letter by chance', ['Card', 'Car'], ['Borrow', 'Tools'], ['Borrow', 'Tools', 'Hours'], null],
])('of two screens whose name %s', (_, names, first, second, alternative) => {
  const two = [first, second].map((texts, i) => ({
    ...screenOf(svg(words(...texts)), `s${i}`),
    name: names[i],
  }));
  const project = projectOf(...two);
  const own = found(project).filter(({ code }) => code === 'alternative');
  expect(own.map(({ screen }) => project.app.screens[screen!].name)).toEqual(
    alternative === null ? [] : [alternative],
  );
});

test('nothing is found on screens that have nothing wrong with them', () => {
  expect(
    found(pile).filter((finding) => ['basket', 'checkout-desktop'].includes(finding.screen ?? '')),
  ).toEqual([]);
});

test('every fix takes its own finding away, and no error comes of it', () => {
  for (const finding of found(pile)) {
    if (!finding.fix) continue;
    const after = { ...pile, app: applyChange(pile.app, finding.fix.change) };
    expect(found(after).map(({ id }) => id)).not.toContain(finding.id);
  }
});

test('all fixes together leave only what needs a person', () => {
  let project = pile;
  for (let round = 0; round < 3; round++)
    project = {
      ...project,
      app: applyChange(
        project.app,
        all(found(project).flatMap((finding) => (finding.fix ? [finding.fix.change] : []))),
      ),
    };
  expect([...new Set(found(project).map(({ code }) => code))].sort()).toEqual(['text-overflow']);
});

test('a finding that was let stand does not come back', () => {
  const [first] = found(pile);
  const app = applyChange(pile.app, putDismissed(first.id, true));
  expect(found({ ...pile, app }).map(({ id }) => id)).not.toContain(first.id);
});

test('findings have ids of their own, and stay the same value while nothing changes', () => {
  const ids = findingsOf(pile).map(({ id }) => id);
  expect(new Set(ids).size).toBe(ids.length);
  expect(findingsOf({ ...pile })).toBe(findingsOf(pile));
});

test('what a dialog dims is covered on purpose', () => {
  expect(found(pile).filter(({ code, screen }) => code === 'covered' && screen === 'basket-dialog')).toEqual(
    [],
  );
});

test.each<[string, string, string, boolean]>([
  ['what comes later', '', 'position:absolute', true],
  ['not what lies on a lower level', 'position:absolute;z-index:9', 'position:absolute', false],
  ['what lies on a higher level', 'position:absolute;z-index:1', 'position:absolute;z-index:2', true],
  ['not what is in the flow, where it is positioned itself', 'position:relative', '', false],
])('a bar is covered by %s', (_, bar, cover, isCovered) => {
  const screen = pageOfHtml(
    `<nav style="${bar}" data-box="0 0 900 60"><a href="/a" data-box="20 20 80 20">Tools</a></nav><div data-box="0 0 900 300"><i style="${cover};background-color:#334455" data-box="0 0 400 300"></i></div>`,
  );
  expect(coveredOn(screen).map(({ cover: { tag } }) => tag)).toEqual(isCovered ? ['i'] : []);
});

test('of a navigation that screens share it is asked what is absent, and not of examples on one of them, nor of buttons', () => {
  const entry = (name: string, to = ''): string =>
    `<a ${to ? `href="${to}"` : ''} data-box="0 0 80 20">${name}</a>`;
  const bar = `<nav data-box="0 0 900 60">${entry('Tools', '/a')}${entry('Members')}<button data-box="0 0 20 20">Toggle menu</button></nav>`;
  const example = `<section data-box="0 80 900 60"><nav data-box="0 80 900 60">${entry('Another action')}</nav></section>`;
  const pages = [bar + example, bar, bar].map((body, i) => ({
    ...pageOfHtml(`<main data-box="0 0 900 600">${body}</main>`),
    key: `page-${i}`,
    name: `Page ${i}`,
  }));
  const rekeyed = pages.map((page): Screen => ({
    ...page,
    root: JSON.parse(
      JSON.stringify(page.root).replaceAll('"key":"', `"key":"${page.key}:`),
    ) as Screen['root'],
  }));
  const absent = found(projectOf(...rekeyed)).filter(({ code }) => code === 'absent-screen');
  expect(absent.map(({ message }) => /“([^”]*)”/.exec(message)![1])).toEqual(['Members']);
});

test('likeness is the same whichever screen comes first', () => {
  const key = ({ a, b }: { a: Screen; b: Screen }): string => [a.key, b.key].sort().join();
  const one = new Map(likenessesOf(design).map((pair) => [key(pair), [pair.texts, pair.boxes]]));
  const other = new Map(
    likenessesOf({ ...design, screens: screens.toReversed() }).map((pair) => [
      key(pair),
      [pair.texts, pair.boxes],
    ]),
  );
  expect(other).toEqual(one);
});

test('a font that did not come along is said with what shows instead', () => {
  const screen = screenOf(
    svg(
      '<text x="9" y="40" font-family="Gotham, Georgia">Hi</text><text x="9" y="90" font-family="Arial">Ho</text>',
    ),
  );
  const [finding, ...more] = found(projectOf(screen)).filter(({ code }) => code === 'missing-font');
  expect(finding.message).toContain('asks for the font “Gotham”, which did not come along; “Georgia” shows');
  expect(more).toEqual([]);
});

test.each([
  ['Screens:\n- Basket\n- Waiting list: new', ['Basket', 'Waiting list']],
  ['# Pages\n1. Home page\n2. Loans (later)\n\nText.\n- not one', ['Home', 'Loans']],
  ['On the Membership screen one renews. The Tool detail page shows it.', ['Membership', 'Tool detail']],
  ['# Budget\n- Money', []],
  ['', []],
])('%j speaks of %j', (text, names) => expect(namedInBrief(text)).toEqual(names));
