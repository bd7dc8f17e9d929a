import { emptyDesign, type Screen } from '../model/design.ts';
import { applyChange, putScreen } from '../change/change.ts';
import { named, projectOf, screenOf, screenWith, svg } from '../testing/build.ts';
import { isPressable, roleOf } from '../roles/role.ts';
import { pageOfHtml } from '../testing/page_of_html.ts';
import { authoredLinks } from './authored.ts';
import { pressablesOf } from './pressable.ts';
import { describeArrival, describeTarget, matchText, targetChoices } from './target.ts';
import { targetProblem } from './problem.ts';

const labels = (screen: Screen): string[] =>
  pressablesOf(screen).map((p) => `${p.number} ${p.within ? `${p.within}: ` : ''}${p.label}`);
const box = (id: string, y: number, inside = '', more = 'rx="6"'): string =>
  `<g data-name="${id}"><rect x="24" y="${y}" width="200" height="44" fill="#246" ${more}/>${inside}</g>`;
const words = (text: string, y: number): string =>
  `<text x="124" y="${y}" text-anchor="middle" font-size="15">${text}</text>`;

describe('what looks pressable on a drawing', () => {
  test.each([
    ['by its layer name', box('Buy button', 100), true],
    [
      'by its shape: a filled box with a short text in its middle',
      box('Thing', 100, words('Send', 127)),
      true,
    ],
    ['not a badge', box('Badge', 100, words('New', 127)), false],
    ['not a number in a circle', box('Thing', 100, words('1', 127)), false],
    ['not a paragraph on a panel', box('Thing', 100, words('One two three four five six', 127)), false],
    ['not a field', box('Search field', 100, words('Search', 127)), false],
    ['not a check box', box('Terms checkbox', 100), false],
    ['a row of a list', box('Tool row', 100, '<text x="40" y="127">Drill</text>'), true],
  ])('%s', (_, body, expected) => {
    const screen = screenOf(svg(`${body}<text y="600">Below</text>`));
    expect(pressablesOf(screen).length > 0).toBe(expected);
  });

  test('numbers go in reading order, and what stands in a bar says so', () => {
    const screen = screenOf(
      svg(
        `${box('Go button', 60)}<g id="Tab_bar"><rect y="780" width="390" height="64" fill="#fff"/><g data-name="Tab Home"><text x="90" y="820" text-anchor="middle">Home</text></g><g data-name="Tab Me"><text x="300" y="820" text-anchor="middle">Me</text></g></g>`,
      ),
    );
    expect(labels(screen)).toEqual(['1 Go button', '2 Tab bar: Home', '3 Tab bar: Me']);
  });

  test('a button in a row can be pressed apart from the row, and is not part of its name', () => {
    const row = `<g data-name="Loan row"><rect y="100" width="390" height="80" fill="#fff"/><text x="20" y="140">Pillar drill</text><g data-name="Return button"><rect x="300" y="120" width="80" height="40" rx="6" fill="#246"/><text x="340" y="145" text-anchor="middle">Return</text></g></g>`;
    expect(labels(screenOf(svg(`${row}<text y="600">x</text>`)))).toEqual(['1 Pillar drill', '2 Return']);
  });

  test('a drawn link is one, and HTML goes by its tags', () => {
    const link = named(
      screenOf(
        svg(
          '<a xlink:href="b.svg" id="More"><rect width="9" height="9" fill="red"/><text x="20" y="20">More</text></a><text y="600">x</text>',
        ),
      ),
      'More',
    );
    expect(roleOf(link)).toBe('link');
    const html = (tag: string, attributes = {}): boolean =>
      isPressable({ ...link, tag, attributes, source: { file: 'a.html', path: '0' } });
    expect([
      html('a'),
      html('button'),
      html('input', { type: 'submit' }),
      html('input', { type: 'text' }),
      html('div'),
    ]).toEqual([true, true, true, false, false]);
  });

  test('what is around a link has its pointer, and does nothing itself', () => {
    const [around] = screenOf(svg('<g id="Entry"><text x="9" y="20">Tools</text></g>'), 'home').root.children;
    const pointing = {
      ...around,
      style: { ...around.style, base: { ...around.style.base, cursor: 'pointer' } },
    };
    const inner = { ...around, key: 'home:9', tag: 'a', children: [] };
    expect(isPressable({ ...pointing, kind: 'box', children: [] })).toBe(true);
    expect(
      isPressable({
        ...pointing,
        kind: 'box',
        children: [{ ...around, key: 'home:8', tag: 'span', children: [inner] }],
      }),
    ).toBe(false);
  });
});

describe('links that pages have', () => {
  const drawn = screenOf(
    svg(
      '<a xlink:href="list.svg" id="To_list"><rect width="90" height="30" fill="red"/></a><a xlink:href="list.svg#Row" id="To_row"><rect y="50" width="90" height="30" fill="red"/></a><a xlink:href="#" id="Nowhere"><rect y="100" width="90" height="30" fill="red"/></a><a xlink:href="gone.svg" id="Gone"><rect y="150" width="90" height="30" fill="red"/></a><a xlink:href="mailto:a@b.example" id="Mail"><rect y="200" width="90" height="30" fill="red"/></a>',
    ),
    'home',
  );
  const list = screenOf(
    svg(
      '<g id="Row"><rect width="390" height="50" fill="#eee"/><text x="9" y="30">Row</text></g><text y="600">x</text>',
    ),
    'list',
  );

  test('lead to screens, places and outside; those that lead nowhere stay open', () => {
    const links = authoredLinks([drawn, list]);
    const targetOf = (name: string) => links.get(named(drawn, name).key)?.target;
    expect(targetOf('To list')).toEqual({ kind: 'screen', screen: 'list' });
    expect(targetOf('To row')).toEqual({ kind: 'anchor', screen: 'list', element: named(list, 'Row').key });
    expect(targetOf('Mail')).toEqual({ kind: 'external', href: 'mailto:a@b.example' });
    expect([targetOf('Nowhere'), targetOf('Gone')]).toEqual([undefined, undefined]);
  });

  test('are looked up among all screens of the design', () => {
    expect(authoredLinks([drawn], [drawn]).size).toBe(1);
    expect(authoredLinks([drawn], [...emptyDesign.screens, drawn, list]).size).toBe(3);
  });
});

describe('links of menus that were copied into another folder', () => {
  const pageAt = (file: string, html = '<p>Text</p>'): Screen => {
    const page = pageOfHtml(html, file.replace(/\W/g, '-'));
    return { ...page, source: { ...page.source, file } };
  };
  const from = pageAt(
    'pages/ui/alerts.html',
    [
      'navbar.html',
      '../lists/tools.html',
      'list.html',
      'gone.html',
      '../charts.html?all#x',
      'read.pdf',
      'shown/index.html',
      '../help/index.html',
    ]
      .map((href) => `<a href="${href}">${href}</a>`)
      .join(''),
  );
  const pages = [
    'navbar.html',
    'lists/tools.html',
    'old/tools.html',
    'a/list.html',
    'b/list.html',
    'pages/charts.html',
    'index.html',
    'old/help/index.html',
  ];
  test.each([
    ['navbar.html', 'navbar.html'],
    ['../lists/tools.html', 'lists/tools.html'],
    ['list.html', undefined],
    ['gone.html', undefined],
    ['../charts.html?all#x', 'pages/charts.html'],
    ['read.pdf', undefined],
    ['shown/index.html', undefined],
    ['../help/index.html', 'old/help/index.html'],
  ])('%s leads to %s', (href, file) => {
    const all = [from, ...pages.map((one) => pageAt(one)), pageAt('read.pdf')];
    const link = from.root.children.find(({ attributes }) => attributes?.href === href)!;
    const target = authoredLinks(all).get(link.key)?.target;
    const screen = target?.kind === 'screen' ? target.screen : undefined;
    expect(all.find(({ key }) => key === screen)?.source.file).toBe(file);
  });
});

describe('targets by typing', () => {
  const project = projectOf(
    screenWith('home', 'Go'),
    screenWith('tool-detail', 'Back'),
    screenWith('tools', 'Back'),
  );

  test.each([
    ['tools', 'tools', 0],
    ['Tool detail', 'tool', 1],
    ['Tool detail', 'det', 2],
    ['Tool detail', 'ool', 3],
    ['Tool detail', 'td', 4],
    ['Tool detail', 'xyz', null],
  ])('%s against %s', (name, typed, score) => expect(matchText(name, typed)).toBe(score));

  test.each([
    ['tools', ['Tools']],
    ['tool', ['Tool detail', 'Tools']],
    ['/to', ['Tool detail', 'Tools']],
    ['ba', ['Back']],
    ['https://example.org', ['https://example.org']],
    ['javascript:x', []],
    ['', ['Home', 'Tool detail', 'Tools', 'Back']],
  ])('%j offers %j', (typed, expected) =>
    expect(targetChoices(project, typed).map((choice) => choice.label)).toEqual(expected),
  );

  test('a target says why it cannot be reached', () => {
    const entry = project.app.screens.tools;
    const target = { kind: 'screen', screen: 'tools' } as const;
    const skipped = {
      ...project,
      app: applyChange(project.app, putScreen('tools', { ...entry, use: 'skip' })),
    };
    const gone = { ...project, app: applyChange(project.app, putScreen('tools', null)) };
    expect([
      targetProblem(project, target),
      targetProblem(skipped, target),
      targetProblem(gone, target),
    ]).toEqual([null, 'Tools is skipped', 'Tools is gone']);
    expect(targetProblem(project, { kind: 'anchor', screen: 'tools', element: 'tools:99' })).toMatch(
      /place on Tools is gone/,
    );
    expect(describeTarget(gone, target).label).toBe('Tools');
    expect(describeTarget(project, { kind: 'back', fallback: 'home' })).toEqual({
      label: 'Back',
      detail: 'or Home',
    });
  });

  test.each([
    [{ kind: 'none' }, 'none'],
    [{ kind: 'fade', ms: 200 }, 'fade 200 ms'],
    [{ kind: 'slide', from: 'left', ms: 90 }, 'slide from left 90 ms'],
  ] as const)('%j in words', (arrival, words) => expect(describeArrival(arrival)).toBe(words));
});

test('what is called by its words is called so without the number that waits there', () => {
  const badge =
    '<g data-name="Badge"><rect x="180" y="108" width="24" height="20" rx="10" fill="#e33"/><text x="192" y="122" text-anchor="middle" font-size="11">12</text></g>';
  const one = screenOf(svg(box('Loans button', 100, `${words('Loans', 127)}${badge}`)));
  expect(labels(one)).toEqual(['1 Loans']);
  // A number that is part of the name stays.
  const day = screenOf(svg(box('Day button', 100, `${words('Mon', 122)}${words('25', 138)}`)));
  expect(labels(day)).toEqual(['1 Mon 25']);
});
