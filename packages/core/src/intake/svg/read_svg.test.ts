import { limits } from '../limits.ts';
import { named, namesOf, noticesOf, screenOf, svg } from '../../testing/build.ts';
import { textOf } from '../../model/project.ts';

describe('what is drawn', () => {
  test('nested transforms put things where they are seen', () => {
    const screen = screenOf(
      svg(
        '<g transform="translate(10 20)"><g transform="scale(2)"><rect id="Box" x="5" y="5" width="10" height="20" fill="red"/></g></g><rect id="Other" y="400" width="9" height="9" fill="blue"/>',
      ),
    );
    expect(named(screen, 'Box').box).toEqual({ x: 20, y: 30, width: 20, height: 40 });
  });

  test('the view box scales, and its origin moves', () => {
    const screen = screenOf(
      '<svg xmlns="http://www.w3.org/2000/svg" width="200" height="100" viewBox="10 10 100 50"><rect id="A" x="20" y="20" width="10" height="10" fill="red"/><rect id="B" x="60" y="40" width="10" height="10" fill="red"/></svg>',
    );
    expect([screen.width, screen.height]).toEqual([200, 100]);
    expect(named(screen, 'A').box).toEqual({ x: 20, y: 20, width: 20, height: 20 });
  });

  test('a stroke is half outside its shape', () => {
    const { box, style } = named(
      screenOf(
        svg(
          '<rect id="Card" x="10.5" y="10.5" width="99" height="49" rx="6" fill="#fff" stroke="#ccc"/><rect y="300" width="9" height="9"/>',
        ),
      ),
      'Card',
    );
    expect(box).toEqual({ x: 10, y: 10, width: 100, height: 50 });
    expect(style.base).toMatchObject({
      'background-color': '#fff',
      'border-top-width': '1px',
      'border-top-color': '#ccc',
      'border-top-left-radius': '6.5px',
    });
  });

  test('gradients and shadows become CSS where CSS has them', () => {
    const defs =
      '<defs><linearGradient id="g" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#fff"/><stop offset="100%" stop-color="#000" stop-opacity=".5"/></linearGradient><filter id="f"><feDropShadow dx="0" dy="2" stdDeviation="3" flood-color="#000" flood-opacity=".2"/></filter></defs>';
    const { base } = named(
      screenOf(
        svg(
          `${defs}<rect id="Panel" width="200" height="100" fill="url(#g)" filter="url(#f)"/><rect y="300" width="9" height="9"/>`,
        ),
      ),
      'Panel',
    ).style;
    expect(base['background-image']).toBe('linear-gradient(to bottom, #fff 0%, rgb(0 0 0 / 0.5) 100%)');
    expect(base['box-shadow']).toBe('0px 2px 6px rgb(0 0 0 / 0.2)');
  });

  test('what CSS cannot draw stays one drawing, with its definitions under names of its own', () => {
    const screen = screenOf(
      svg(
        '<defs><radialGradient id="g"><stop stop-color="red"/></radialGradient></defs><circle id="Sun" cx="100" cy="100" r="40" fill="url(#g)"/><rect y="300" width="9" height="9"/>',
      ),
    );
    const sun = named(screen, 'Sun');
    expect(sun.kind).toBe('vector');
    const { id } = sun.vector!.children[0].children[0].attributes;
    expect(id).toMatch(/^d\w+-1$/);
    expect(JSON.stringify(sun.vector)).toContain(`url(#${id})`);
  });

  test('an icon stays one drawing however many paths it has', () => {
    const screen = screenOf(
      svg(
        '<g id="Bell_icon" stroke="#333" fill="none"><path d="M10 10h10"/><path d="M10 14h10"/><circle cx="15" cy="20" r="2"/></g><text y="300">x</text>',
      ),
    );
    const icon = named(screen, 'Bell icon');
    expect(icon.kind).toBe('vector');
    expect(icon.vector!.children[0].attributes).toMatchObject({ fill: 'none', stroke: '#333' });
    expect(namesOf(screen)).toHaveLength(3);
  });

  test('symbols are drawn wherever they are used', () => {
    const screen = screenOf(
      svg(
        '<symbol id="arrow" viewBox="0 0 10 10"><path d="M0 0L10 10"/></symbol><use xlink:href="#arrow" x="50" y="60" width="20" height="20"/><use xlink:href="#arrow" x="50" y="160" width="10" height="10"/>',
      ),
    );
    const arrows = namesOf(screen).filter((name) => name === 'vector').length;
    expect(arrows).toBe(2);
    expect(screen.root.children[0].box).toMatchObject({ x: 49.5 + 0.5, width: 20 });
  });

  test('a symbol that holds itself ends, and is said', () => {
    const notices = noticesOf(svg('<g id="a"><rect width="5" height="5"/><use xlink:href="#a"/></g>'));
    expect(notices.map((notice) => notice.code)).toContain('use-missing');
  });
});

describe('text', () => {
  test('a text keeps its characters, size, colour and anchor', () => {
    const screen = screenOf(
      svg(
        '<text id="Title" x="195" y="100" font-size="20" font-weight="700" text-anchor="middle" fill="#123">Hello &amp; welcome</text><rect y="300" width="390" height="9"/>',
      ),
    );
    const title = named(screen, 'Title');
    expect(title.text).toBe('Hello & welcome');
    expect(title.tag).toBe('h1');
    expect(title.style.base).toMatchObject({
      'font-size': '20px',
      'font-weight': '700',
      color: '#123',
      'text-align': 'center',
      'line-height': '26px',
    });
    expect(title.box.y + 13 + 7).toBeCloseTo(100);
  });

  test('lines are joined into one text with the spacing they had', () => {
    const screen = screenOf(
      svg(
        '<text font-size="15"><tspan x="24" y="100">One line and</tspan><tspan x="24" dy="22">the next</tspan></text><rect y="300" width="9" height="9"/>',
      ),
    );
    const text = named(screen, 'One line and the next');
    expect(text.text).toBe('One line and\nthe next');
    expect(text.style.base).toMatchObject({ 'line-height': '22px', 'white-space': 'pre-line' });
  });

  test('words in another style on a line are runs of their own', () => {
    const screen = screenOf(
      svg(
        '<text x="24" y="100" font-size="15">Due <tspan font-weight="700" fill="red">today</tspan> at six</text><rect y="300" width="9" height="9"/>',
      ),
    );
    const text = named(screen, 'Due today at six');
    expect(text.children.map((run) => [run.tag, run.text])).toEqual([
      [undefined, 'Due '],
      ['span', 'today'],
      [undefined, ' at six'],
    ]);
    expect(textOf(text)).toBe('Due today at six');
  });

  test('turned text stays a drawing', () => {
    const screen = screenOf(
      svg(
        '<text id="Side" transform="rotate(90 20 20)" x="20" y="20">Turned</text><rect y="300" width="9" height="9"/>',
      ),
    );
    expect(named(screen, 'Side').kind).toBe('vector');
  });
});

describe('layers', () => {
  test.each([
    ['<g id="Buy_button">', 'Buy button'],
    ['<g id="g12" inkscape:label="Tool row" xmlns:inkscape="i">', 'Tool row'],
    ['<g id="x" data-name="Card"> ', 'Card'],
    ['<g><title>Menu</title>', 'Menu'],
    ['<g id="Row_3">', 'Row'],
    ['<g id="a_x26_b_panel">', 'A&b panel'],
  ])('%s is called %s', (open, name) => {
    const screen = screenOf(
      svg(
        `${open}<rect width="100" height="50" fill="#eee"/><text x="9" y="30">In it</text></g><text y="300">Below</text>`,
      ),
    );
    expect(namesOf(screen)).toContain(name);
  });

  test.each(['style="display:none"', 'visibility="hidden"', 'opacity="0"', 'display="none"'])(
    'a layer with %s is left out and said',
    (hidden) => {
      const text = svg(
        `<g id="Redlines" ${hidden}><rect width="9" height="9"/></g><text y="300">Seen</text>`,
      );
      expect(namesOf(screenOf(text))).not.toContain('Redlines');
      expect(noticesOf(text)).toEqual([
        expect.objectContaining({
          code: 'hidden-layer',
          level: 'info',
          path: '0',
          message: 'The hidden layer “Redlines” was left out.',
        }),
      ]);
    },
  );

  test('a box holds what lies on it, whichever way it was layered', () => {
    const screen = screenOf(
      svg(
        '<rect id="Card" x="20" y="20" width="350" height="100" fill="#fff"/><text id="Inside" x="40" y="70">Hi</text><text id="Outside" x="40" y="300">Ho</text>',
      ),
    );
    expect(named(screen, 'Card').children.map((child) => child.name)).toEqual(['Inside']);
  });
});

describe('what is hostile or missing', () => {
  test('scripts, event attributes and outside references never get in', () => {
    const screen = screenOf(
      svg(
        '<script>alert(1)</script><g id="Icon" onclick="alert(1)"><path d="M0 0L9 9" onload="x()" style="fill:url(http://evil/x#y)"/><use xlink:href="http://evil/a.svg#b"/><path d="M1 1L5 5"/></g><a xlink:href="javascript:alert(1)"><text x="5" y="99">Press</text></a>',
      ),
    );
    const json = JSON.stringify(screen);
    expect(json).not.toMatch(/alert|onclick|onload|evil/);
  });

  test('a picture that did not come along leaves its place and a notice', () => {
    const text = svg(
      '<image id="Photo" x="10" y="10" width="100" height="80" xlink:href="gone.png"/><text y="300">x</text>',
    );
    expect(noticesOf(text)).toEqual([expect.objectContaining({ code: 'image-missing', level: 'warning' })]);
    expect(named(screenOf(text), 'Photo').box).toEqual({ x: 10, y: 10, width: 100, height: 80 });
    expect(named(screenOf(text.replace('gone', 'known')), 'Photo')).toMatchObject({
      kind: 'image',
      asset: 'a'.repeat(64),
    });
  });

  test.each([
    ['cut off', svg('<g><rect width="9"').slice(0, -10), /not complete or not well formed/],
    ['another kind of document', '<html><body/></html>', /root element is <html>/],
    ['empty', svg(''), /empty/],
    ['too many elements', svg('<rect/>'.repeat(limits.written + 1)), /more than 120000 elements/],
  ])('%s is one notice and no screen', (_, text, message) => {
    expect(noticesOf(text)).toEqual([
      expect.objectContaining({ level: 'error', message: expect.stringMatching(message) }),
    ]);
  });
});

test('what lies beneath a sheet that was drawn over it is hidden, what stands out or lies on it is not', () => {
  const screen = screenOf(
    svg(
      '<rect id="line" width="390" height="1" fill="#ddd8ca"/><rect id="sheet" width="390" height="844" fill="#f7f4ec"/><text x="20" y="60">Tools</text>',
    ),
  );
  expect(screen.root.style.base['background-color']).toBe('#f7f4ec');
  expect(namesOf(screen)).toEqual(['Test', 'Tools']);
  const glass = screenOf(
    svg(
      '<rect id="line" width="390" height="1" fill="#ddd8ca"/><rect id="sheet" width="390" height="844" fill="#f7f4ec" fill-opacity=".5"/>',
    ),
  );
  expect(namesOf(glass)).toEqual(['Test', 'box', 'Sheet']);
});
