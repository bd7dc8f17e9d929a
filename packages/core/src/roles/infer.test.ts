import { screenOf, screenWith, svg } from '../testing/build.ts';
import { pageOfHtml } from '../testing/page_of_html.ts';
import type { Element, Screen } from '../model/design.ts';
import { elementsByKey } from '../model/project.ts';
import type { RoleGuess } from './guess.ts';
import { inferRoles, roleByTag } from './infer.ts';
import { ariaName, roleFromAria, roleInWords, ROLES } from './names.ts';

/** What is guessed of the element at a path. */
const guessAt = (screen: Screen, path: string): RoleGuess | undefined =>
  inferRoles(screen).get(`${screen.key}:${path}`);
const roleAt = (body: string, path: string): string | undefined => guessAt(screenOf(svg(body)), path)?.role;

const background = '<rect width="390" height="844" fill="#fff"/>';
const rest =
  '<text x="24" y="700" font-size="14" fill="#222">The sheds open at nine and close at six, every day but Monday.</text>';
const row = (y: number, name: string): string =>
  `<g id="r${y}"><rect x="0" y="${y}" width="390" height="80" fill="#fff" stroke="#ddd"/><image x="16" y="${y + 10}" width="60" height="60" xlink:href="known.png"/><text x="96" y="${y + 36}" font-size="15" font-weight="700" fill="#222">${name}</text><text x="96" y="${y + 58}" font-size="13" fill="#666">Shed 2</text></g>`;

describe('what a drawn thing is', () => {
  const cases: readonly [what: string, body: string, path: string, role: string][] = [
    [
      'a filled box with a short text in its middle',
      '<g><rect x="24" y="60" width="342" height="48" rx="8" fill="#234"/><text x="195" y="90" font-size="16" text-anchor="middle" fill="#fff">Send</text></g>',
      '1',
      'button',
    ],
    [
      'a layer that is called a button',
      '<g id="Go_button"><path d="M20 20h200v40h-200z" fill="#eee"/><text x="40" y="46" font-size="16">Go</text></g>',
      '1',
      'button',
    ],
    [
      'a drawing that is called a button',
      '<g id="Menu_button" data-name="Menu button"><path d="M11 14h18M11 20h18" stroke="#000"/></g>',
      '1',
      'button',
    ],
    [
      'a frame with a pale text at its left',
      '<g><rect x="24.5" y="60.5" width="341" height="47" rx="6" fill="#fff" stroke="#bbb"/><text x="40" y="90" font-size="15" fill="#8a938c">you@example.org</text></g>',
      '1',
      'textbox',
    ],
    [
      'a frame with a text and an arrow down',
      '<g><rect x="24.5" y="60.5" width="341" height="47" rx="6" fill="#fff" stroke="#bbb"/><text x="40" y="90" font-size="15" fill="#222">Shed 2</text><path d="M336 80 L342 86 L348 80" fill="none" stroke="#222"/></g>',
      '1',
      'combobox',
    ],
    [
      'a layer that is called a checkbox',
      '<g id="Checkbox"><rect x="24" y="60" width="22" height="22" rx="4" fill="none" stroke="#222"/></g><text x="60" y="76" font-size="15">Agreed</text>',
      '1',
      'checkbox',
    ],
    [
      'a pill with a knob',
      '<g><rect x="300" y="60" width="48" height="28" rx="14" fill="#2a5"/><rect x="322" y="62" width="24" height="24" rx="12" fill="#fff"/></g><text x="24" y="80" font-size="15">Tell me</text>',
      '1',
      'switch',
    ],
    [
      'a bar that is partly filled',
      '<g><rect x="24" y="60" width="300" height="8" rx="4" fill="#ddd"/><rect x="24" y="60" width="120" height="8" rx="4" fill="#2a5"/></g>',
      '1',
      'progressbar',
    ],
    [
      'bars of one width on one line',
      '<g id="Loans"><rect x="30" y="160" width="30" height="40" fill="#2a5"/><rect x="80" y="120" width="30" height="80" fill="#2a5"/><rect x="130" y="140" width="30" height="60" fill="#2a5"/><rect x="180" y="100" width="30" height="100" fill="#2a5"/></g>',
      '1',
      'chart',
    ],
    [
      'a large bold line',
      '<text x="24" y="60" font-size="24" font-weight="700" fill="#222">Tools to borrow</text>',
      '1',
      'heading',
    ],
    [
      'running text',
      '<text x="24" y="60" font-size="14" fill="#222">Somebody may be waiting for it, so bring it back.</text>',
      '1',
      'paragraph',
    ],
    ['a picture', '<image x="24" y="60" width="200" height="120" xlink:href="known.png"/>', '1', 'image'],
    ['a small drawing', '<path d="M24 60 C30 50 40 50 46 60" fill="none" stroke="#222"/>', '1', 'icon'],
    ['a thin line', '<rect x="0" y="60" width="390" height="1" fill="#ccc"/>', '1', 'separator'],
    [
      'initials in a circle',
      '<g><rect x="24" y="60" width="40" height="40" rx="20" fill="#2a5"/><text x="44" y="86" font-size="15" text-anchor="middle" fill="#fff">IO</text></g>',
      '1',
      'avatar',
    ],
  ];
  test.each(cases)('%s', (_, body, path, role) => {
    expect(roleAt(background + body + rest, path)).toBe(role);
  });

  test('a guess has a reason in words and a confidence below certainty', () => {
    for (const guess of inferRoles(screenWith('home', 'Go', 'Back')).values()) {
      expect(guess.reason).toMatch(/\w+ \w+/);
      expect(guess.confidence).toBeGreaterThan(0.3);
      expect(guess.confidence).toBeLessThan(1);
    }
  });
});

describe('what fields take, by what stands at them', () => {
  test.each([
    ['Email', 'email'],
    ['Password', 'password'],
    ['Telephone', 'tel'],
    ['Date of return', 'date'],
    ['How many', 'number'],
    ['Your name', 'text'],
  ])('%s', (label, input) => {
    const screen = screenOf(
      svg(
        `${background}<g id="F_field"><text x="24" y="50" font-size="13" fill="#222">${label}</text><rect x="24.5" y="60.5" width="341" height="47" rx="6" fill="#fff" stroke="#bbb"/><text x="40" y="90" font-size="15" fill="#999">…</text></g>${rest}`,
      ),
    );
    const field = [...inferRoles(screen).values()].find((guess) => guess.role === 'textbox');
    expect(field?.input).toBe(input);
    const labels = [...inferRoles(screen)].filter(([, guess]) => guess.role === 'label');
    expect(labels).toHaveLength(1);
  });

  test('a high frame takes several lines', () => {
    const screen = screenOf(
      svg(
        `${background}<g><rect x="24.5" y="60.5" width="341" height="131" rx="6" fill="#fff" stroke="#bbb"/><text x="40" y="90" font-size="15" fill="#999">In a sentence or two</text></g>${rest}`,
      ),
    );
    expect(guessAt(screen, '1')).toMatchObject({ role: 'textbox', input: 'multiline' });
  });
});

describe('what repeats and what surrounds', () => {
  test('rows beneath each other are items of a list', () => {
    const screen = screenOf(
      svg(
        `${background}<g id="All">${row(100, 'Pillar drill')}${row(184, 'Tile cutter')}${row(268, 'Loft ladder')}</g>`,
      ),
    );
    expect(guessAt(screen, '1')?.role).toBe('list');
    expect(['1/0', '1/1', '1/2'].map((path) => guessAt(screen, path)?.role)).toEqual([
      'listitem',
      'listitem',
      'listitem',
    ]);
  });

  test('rows of one list have one role at one place', () => {
    const screen = screenOf(
      svg(
        `${background}<g id="All">${row(100, 'Pillar drill')}${row(184, 'Saw')}${row(268, 'Loft ladder with hooks')}</g>`,
      ),
    );
    const roles = ['1/0/2', '1/1/2', '1/2/2'].map((path) => guessAt(screen, path)?.role);
    expect(new Set(roles).size).toBe(1);
  });

  test('what a bar of tabs leads with are links', () => {
    const tab = (x: number, name: string): string =>
      `<g data-name="Tab ${name}"><rect x="${x}" y="790" width="24" height="24" rx="4" fill="#345"/><text x="${x + 12}" y="832" font-size="12" text-anchor="middle">${name}</text></g>`;
    const screen = screenOf(
      svg(
        `${background}${rest}<g id="Tab_bar"><rect y="772" width="390" height="72" fill="#fff"/>${tab(53, 'Tools')}${tab(183, 'Loans')}${tab(313, 'Me')}</g>`,
      ),
    );
    const roles = [...inferRoles(screen).values()].map((guess) => guess.role);
    expect(roles.filter((role) => role === 'link')).toHaveLength(3);
    expect(roles).toContain('navigation');
  });

  test('layers of a kind are what the project says, where nothing else is known', () => {
    const screen = screenOf(
      svg(
        `${background}<g id="Thing"><rect x="20" y="60" width="300" height="200" fill="#eee"/><rect x="40" y="90" width="100" height="50" fill="#abc"/></g>${rest}`,
      ),
    );
    expect(inferRoles(screen).get('test:1')).toBeUndefined();
    expect(inferRoles(screen, { box: 'listitem' }).get('test:1')).toMatchObject({
      role: 'listitem',
      confidence: 0.5,
    });
  });

  test.each([
    ['a bar', 'layout-navbar', '0 0 1280 60', 'navigation'],
    ['what is around a page and called after its bar', 'layout-navbar', '0 0 1280 880', undefined],
    ['a head', 'site-header', '0 0 1280 200', 'banner'],
    ['what is around a page and called after its head', 'site-header', '0 0 1280 880', undefined],
  ])('%s', (_, classes, box, role) => {
    const screen = pageOfHtml(
      `<div class="${classes}" data-box="${box}"><div><a href="a.html">A</a><a href="b.html">B</a></div><p>More</p></div>`,
    );
    expect(inferRoles(screen).get(screen.root.children[0].key)?.role).toBe(role);
  });

  test('the same screen is looked at once', () => {
    const screen = screenWith('home', 'Go');
    expect(inferRoles(screen)).toBe(inferRoles(screen));
  });
});

describe('names', () => {
  test('every role has words, and comes back from its ARIA name', () => {
    for (const role of ROLES) {
      expect(roleInWords({ role })).toMatch(/^[a-z ]+$/);
      expect(roleFromAria(ariaName({ role }))).toBe(role);
    }
  });
  test.each([
    ['searchbox', 'textbox'],
    ['img', 'image'],
    ['presentation', 'none'],
    ['GridCell', 'cell'],
    ['button menuitem', 'button'],
    ['doc-subtitle', null],
    [undefined, null],
  ])('%s is %s', (name, role) => expect(roleFromAria(name)).toBe(role));

  const byTag: readonly [tag: string, attributes: Record<string, string>, role: string | null][] = [
    ['a', { href: '#' }, 'link'],
    ['a', {}, null],
    ['h3', {}, 'heading'],
    ['input', { type: 'submit' }, 'button'],
    ['input', { type: 'email' }, 'textbox'],
    ['input', { type: 'range' }, 'slider'],
    ['input', { type: 'hidden' }, null],
    ['img', { alt: '' }, null],
    ['img', { alt: 'A saw' }, 'image'],
    ['hr', {}, 'separator'],
    ['span', {}, null],
  ];
  test.each(byTag)('<%s %j> is %s', (tag, attributes, role) => {
    expect(roleByTag({ tag, attributes } as unknown as Element)?.role ?? null).toBe(role);
  });
  test('elements of a screen are all looked at', () => {
    const screen = screenWith('home', 'Go', 'Back', 'Stop');
    expect([...inferRoles(screen).keys()].every((key) => elementsByKey(screen).has(key))).toBe(true);
  });
});
