import { PRINT_WIDTH } from './line_width.ts';
import { transformSync } from 'esbuild';
import fc from 'fast-check';
import { applyChange, putInteraction, putScreen, setStart } from '../change/change.ts';
import type { Interaction, Target } from '../model/app.ts';
import type { Project } from '../model/project.ts';
import { named, projectOf, screenOf, screenWith, svg } from '../testing/build.ts';
import { typeErrors } from '../testing/typecheck.ts';
import { asInCode } from './styles/class_names.ts';
import { printRules } from './styles/print_css.ts';
import { foldShorthands } from './styles/shorthands.ts';
import { isElement, type MarkupElement, type MarkupNode } from './form/markup.ts';
import { printHtml, windowHeightOf } from './html/print_html.ts';
import { printTsx } from './react/print_tsx.ts';
import { quote } from './quoting.ts';
import { emitReact } from './react/emit_react.ts';
import { EmissionPlan, emitScreenOf } from './form/plan.ts';
import { emitScreen } from './form/screen.ts';

describe('style', () => {
  test.each([
    [
      { 'margin-top': '1px', 'margin-right': '2px', 'margin-bottom': '1px', 'margin-left': '2px' },
      { margin: '1px 2px' },
    ],
    [
      { 'margin-top': '1px', 'margin-right': '2px', 'margin-bottom': '3px', 'margin-left': '2px' },
      { margin: '1px 2px 3px' },
    ],
    [{ 'padding-top': '1px' }, { 'padding-top': '1px' }],
    [{ 'row-gap': '4px', 'column-gap': '8px' }, { gap: '4px 8px' }],
    [{ 'overflow-x': 'auto', 'overflow-y': 'auto' }, { overflow: 'auto' }],
    [{ 'flex-grow': '1', 'flex-shrink': '1', 'flex-basis': '0px' }, { flex: '1 1 0px' }],
    [
      { 'border-top-width': '1px', 'border-top-style': 'solid', 'border-top-color': 'red' },
      { 'border-top': '1px solid red' },
    ],
    [
      {
        'border-top-left-radius': '4px 8px',
        'border-top-right-radius': '4px',
        'border-bottom-right-radius': '4px',
        'border-bottom-left-radius': '4px',
      },
      {
        'border-top-left-radius': '4px 8px',
        'border-top-right-radius': '4px',
        'border-bottom-right-radius': '4px',
        'border-bottom-left-radius': '4px',
      },
    ],
  ])('%j folds to %j', (longhands, expected) => expect(foldShorthands(longhands)).toEqual(expected));

  test('rules print with the element of each line; narrower widths come last', () => {
    const css = printRules(
      [
        {
          className: 'a',
          key: 'k1',
          base: { color: 'red' },
          at: { '600': { color: 'blue' } },
          from: {},
          states: { ':hover': { color: 'lime' } },
        },
        { className: 'b', key: 'k2', base: {}, at: { '900': { display: 'none' } }, from: {}, states: {} },
      ],
      (name) => `.${name}`,
    );
    expect(css.text).toBe(
      '.a {\n  color: red;\n}\n\n.a:hover {\n  color: lime;\n}\n\n@media (width <= 900px) {\n  .b {\n    display: none;\n  }\n}\n\n@media (width <= 600px) {\n  .a {\n    color: blue;\n  }\n}\n',
    );
    expect(css.text.trimEnd().split('\n')).toHaveLength(css.lines.length);
    expect(css.lines[css.text.split('\n').indexOf('  .b {')]).toBe('k2');
  });
});

describe('TSX', () => {
  const print = (...children: MarkupNode[]): string =>
    printTsx(
      { tag: 'p', key: 'k', className: null, attributes: {}, children },
      {
        component: 'A',
        source: '../..',
        assetImport: () => ({ name: 'x', path: 'y' }),
      },
    ).text;
  const element = (
    tag: string,
    attributes: MarkupElement['attributes'] = {},
    ...children: MarkupNode[]
  ): MarkupElement => ({ tag, key: null, className: null, attributes, children });

  test.each([
    [[{ text: 'Hello' }], 'return <p>Hello</p>;'],
    [[{ text: 'a < b & {c}' }], 'return <p>a &lt; b &amp; &#123;c&#125;</p>;'],
    [[{ text: 'one\ntwo' }], "return <p>{'one\\ntwo'}</p>;"],
    [[element('br')], '<br />'],
    [
      [element('input', { type: 'text', readonly: true, maxlength: '5', value: 'x' })],
      '<input type="text" readOnly maxLength={5} defaultValue="x" />',
    ],
    [[element('label', { for: 'y' })], '<label htmlFor="y" />'],
    [
      [element('div', { role: 'meter', 'aria-valuenow': '50', tabindex: '-1' })],
      '<div role="meter" aria-valuenow={50} tabIndex={-1} />',
    ],
    [
      [element('use', { 'stroke-width': '2', href: '#a', 'aria-label': 'b' })],
      '<use strokeWidth="2" href="#a" aria-label="b" />',
    ],
    [[element('a', { title: 'say "hi"' })], `<a title='say "hi"' />`],
    [
      [{ ...element('b'), use: { component: 'Card', props: { isNew: true, hasBadge: false, name: 'Saw' } } }],
      '<Card isNew hasBadge={false} name="Saw" />',
    ],
  ])('%j', (children, expected) => expect(print(...children)).toContain(expected));

  test('a name that would be code is never written', () => {
    const hostile = element('div', { "{...(fetch('x'))}b": '' });
    expect(() => print(hostile)).toThrow(/is no name of an attribute/);
  });

  test('no line is longer than it may be, and no word is lost', () => {
    const word = fc.stringMatching(/^[a-z]{1,12}$/);
    fc.assert(
      fc.property(fc.array(word, { minLength: 1, maxLength: 80 }), (words) => {
        const text = print({ text: words.join(' ') });
        expect(Math.max(...text.split('\n').map((line) => line.length))).toBeLessThanOrEqual(PRINT_WIDTH);
        expect(/<p>([\s\S]*)<\/p>/.exec(text)![1].split(/\s+/).filter(Boolean)).toEqual(words);
      }),
    );
  });

  test('every space between texts and elements is there when the code runs', () => {
    const word = fc.stringMatching(/^[a-z]{1,9}$/);
    const words = fc
      .tuple(fc.boolean(), fc.array(word, { maxLength: 30 }), fc.boolean())
      .map(([before, list, after]) => (before ? ' ' : '') + list.join(' ') + (after ? ' ' : ''));
    const part: fc.Arbitrary<MarkupNode> = fc.oneof(
      words.map((text) => ({ text })),
      words.map((text) => element('b', {}, { text })),
      fc.constant(element('i')),
      fc.constant(element('i', {}, element('br'), element('br'))),
    );
    // Neighbouring texts are one, and what is only space at either end shows nothing.
    const shown = (text: string): string => text.replace(/\s+/g, ' ').trim();
    const textOf = (node: MarkupNode): string =>
      'tag' in node
        ? `<${node.tag}>${node.children.map(textOf).join('')}</${node.tag}>`
        : (node as { text: string }).text;
    fc.assert(
      fc.property(fc.array(part, { minLength: 1, maxLength: 6 }), (parts) => {
        const code = /return ([\s\S]*);\n}/.exec(print(...parts))![1];
        const { code: script } = transformSync(`return ${code}`, { loader: 'jsx', jsxFactory: 'made' });
        const made = (tag: string, _: unknown, ...children: string[]): string =>
          `<${tag}>${children.join('')}</${tag}>`;
        const run = new Function('made', script) as (build: typeof made) => string;
        const whole = (text: string): string => shown(text.replace(/^<p>|<\/p>$/g, ''));
        expect(whole(run(made))).toBe(shown(parts.map(textOf).join('')));
      }),
      { numRuns: 300 },
    );
  });

  test('string literals read back as they were', () => {
    fc.assert(fc.property(fc.string(), (text) => expect(new Function(`return ${quote(text)}`)()).toBe(text)));
  });
});

const press = (
  project: Project,
  screen: number,
  label: string,
  target: Target,
  arrival: Interaction['arrival'] = { kind: 'none' },
): Project => {
  const drawn = project.design.screens[screen];
  const element = [...Array(20).keys()]
    .map((i) => drawn.root.children[i])
    .find((child) => child && JSON.stringify(child).includes(`"text":"${label}"`))!;
  return {
    ...project,
    app: applyChange(project.app, putInteraction(element.key, { on: 'press', target, arrival })),
  };
};

describe('a screen', () => {
  const project = projectOf(screenWith('home', 'Go', 'Back', 'Out', 'Stay'), screenWith('list', 'Home'));
  const wired = [
    (p: Project) =>
      press(p, 0, 'Go', { kind: 'screen', screen: 'list' }, { kind: 'slide', from: 'right', ms: 240 }),
    (p: Project) => press(p, 0, 'Back', { kind: 'back' }),
    (p: Project) => press(p, 0, 'Out', { kind: 'external', href: 'https://example.org/?a=1&b=2' }),
  ].reduce((p, step) => step(p), project);
  const fileOf = (p: Project, path: string): string => {
    const file = emitReact(p, 'Test app').files.find((f) => f.path === path);
    return file && 'text' in file ? file.text : '';
  };

  test('links are links, going back is a button, and an open end is a button that does nothing', () => {
    const text = fileOf(wired, 'src/screens/Home/Home.tsx');
    expect(text).toMatch(/<Go\s+to="\/list"\s+arrival=\{\{ kind: 'slide', from: 'right', ms: 240 \}\}/);
    expect(text).toContain('<Back fallback="/home"');
    expect(text).toContain('href="https://example.org/?a=1&amp;b=2"');
    expect(text.match(/<button className=\{(styles|shared)\.\w+\} type="button">/g)).toHaveLength(1);
    expect(text.split('\n').slice(0, 2)).toEqual([
      "import { Back } from '../../navigation/Back';",
      "import { Go } from '../../navigation/Go';",
    ]);
  });

  test('a link that cannot be followed is not written', () => {
    const skipped = {
      ...wired,
      app: applyChange(wired.app, putScreen('list', { ...wired.app.screens.list, use: 'skip' })),
    };
    expect(fileOf(skipped, 'src/screens/Home/Home.tsx')).not.toContain('/list');
    expect(fileOf(skipped, 'src/routes.tsx')).not.toContain('List');
  });

  test('a place that is linked to gets an id of its own', () => {
    const goal = named(project.design.screens[1], 'Button');
    const anchored = press(project, 0, 'Go', { kind: 'anchor', screen: 'list', element: goal.key });
    const id = /to="\/list#(at-[\w-]+)"/.exec(fileOf(anchored, 'src/screens/Home/Home.tsx'))![1];
    expect(fileOf(anchored, 'src/screens/List/List.tsx')).toContain(`id="${id}"`);
  });

  test('a part that opens keeps its id where it is linked to', () => {
    const goal = named(project.design.screens[1], 'Button');
    const anchored = press(project, 0, 'Go', { kind: 'anchor', screen: 'list', element: goal.key });
    const parted = {
      ...anchored,
      app: { ...anchored.app, disclosures: { [goal.key]: { name: 'More', kind: 'section' as const } } },
    };
    expect(fileOf(parted, 'src/screens/Home/Home.tsx')).toContain('to="/list#more-section"');
    expect(fileOf(parted, 'src/screens/List/List.tsx')).toContain("section('more-section')");
  });

  test('the start opens at the root, whatever its own route', () => {
    expect(fileOf(wired, 'src/routes.tsx')).toContain(
      `{ path: '/', element: <Navigate to="/home" replace /> }`,
    );
    const list = { ...wired, app: applyChange(wired.app, setStart('list')) };
    expect(fileOf(list, 'src/routes.tsx')).toContain('<Navigate to="/list" replace />');
    const { home } = wired.app.screens;
    const root = { ...wired, app: applyChange(wired.app, putScreen('home', { ...home, route: '/' })) };
    expect(fileOf(root, 'src/routes.tsx')).not.toContain('Navigate');
  });

  test('every link is listed for the test that walks them, by role and name', () => {
    expect(JSON.parse(fileOf(wired, 'src/links.json'))).toEqual([
      { from: '/home', role: 'link', name: 'Go', kind: 'go', to: '/list' },
      { from: '/home', role: 'button', name: 'Back', kind: 'back', to: '/home' },
      { from: '/home', role: 'link', name: 'Out', kind: 'external', to: 'https://example.org/?a=1&b=2' },
    ]);
  });

  test('equal looks share a class; every class that is used is written', () => {
    const text = fileOf(wired, 'src/screens/Home/Home.tsx');
    const css = fileOf(wired, 'src/screens/Home/Home.module.css');
    const used = new Set([...text.matchAll(/styles\.(\w+)/g)].map(([, name]) => name));
    const written = [...asInCode(css).matchAll(/^\.(\w+) \{/gm)].map(([, name]) => name);
    expect([...used].sort()).toEqual([...new Set(written)].sort());
    expect(new Set(written).size).toBe(written.length);
  });

  test('the same project gives the same bytes, and an edit rewrites only the screens it touches', () => {
    const bytes = (p: Project): string => JSON.stringify(emitReact(p, 'Test app').files);
    const copy = JSON.parse(JSON.stringify(wired)) as Project;
    expect(bytes(copy)).toBe(bytes(wired));
    const [before, after] = [new EmissionPlan(project), new EmissionPlan(wired)];
    const list = emitScreenOf(before, 'list');
    expect(emitScreenOf(after, 'list')).toBe(list);
    expect(emitScreenOf(after, 'home')).not.toBe(emitScreenOf(before, 'home'));
  });

  test('each line knows its element', () => {
    const file = emitReact(wired, 'Test app').files.find((f) => f.path === 'src/screens/List/List.tsx')!;
    if (!('text' in file)) throw new Error('not text');
    const lines = file.text.split('\n');
    const at = lines.findIndex((line) => line.includes('>Home<'));
    expect(file.lines![at]).toMatch(/^list:/);
    expect(file.lines).toHaveLength(lines.length - 1);
  });
});

describe('a picture of a screen', () => {
  test('is a page without scripts whose elements carry their keys', () => {
    const screen = screenOf(
      svg(
        '<text id="T" x="9" y="40">&lt;script&gt;alert(1)&lt;/script&gt;</text><rect y="300" width="90" height="9"/>',
      ),
    );
    const html = printHtml(
      emitScreen(screen, { wiringOf: () => ({}), anchorOf: () => null }),
      (hash) => `/assets/${hash}`,
    );
    expect(html).not.toMatch(/<script/);
    expect(html).toContain('&lt;script&gt;alert(1)');
    expect(html).toContain('data-key="test:0"');
  });

  test('has nothing in what can hold nothing', () => {
    const screen = screenOf(svg('<text id="T" x="9" y="40">Within</text>'));
    const [text] = screen.root.children;
    const field = {
      ...text,
      key: `${text.key}/0`,
      kind: 'box' as const,
      tag: 'input',
      text: undefined,
      children: [text],
    };
    const html = printHtml(
      emitScreen(
        { ...screen, root: { ...screen.root, children: [field] } },
        { wiringOf: () => ({}), anchorOf: () => null },
      ),
      (hash) => `/assets/${hash}`,
    );
    expect(html).toContain('<input');
    expect(html).not.toContain('Within');
  });

  test.each([
    ['home.html', '400px', '800px'],
    ['home.svg', '50vh', '100vh'],
  ])('of %s, half as high as its window is %s', (file, half, whole) => {
    const drawn = screenOf(svg('<rect width="90" height="9"/>'));
    const height = windowHeightOf({ source: { file, path: '' } });
    const rule = { key: null, at: {}, from: {}, states: {} };
    const html = printHtml(
      {
        root: emitScreen(drawn, { wiringOf: () => ({}), anchorOf: () => null }).root,
        rules: [{ ...rule, className: 'h50vh', base: { height: '50vh', 'max-height': 'calc(100vh - 8px)' } }],
      },
      () => '',
      [],
      {},
      height,
    );
    expect(html).toContain(`.h50vh {\n  height: ${half};\n  max-height: calc(${whole} - 8px);`);
  });

  test('and the code have the same elements in the same order', () => {
    const project = projectOf(screenWith('home', 'Go', 'Back'));
    const { root } = emitScreenOf(new EmissionPlan(project), 'home');
    const tags: string[] = [];
    const visit = (node: MarkupNode): void => {
      if (!isElement(node)) return;
      tags.push(node.tag);
      node.children.forEach(visit);
    };
    visit(root);
    const html = printHtml({ root, rules: [] }, () => '');
    const tsx = printTsx(root, {
      component: 'A',
      source: '',
      assetImport: () => ({ name: '', path: '' }),
    }).text;
    const opened = (text: string): string[] =>
      [...text.replace(/^[\s\S]*<body>/, '').matchAll(/<([a-z]\w*)[\s>]/g)].map(([, tag]) => tag);
    expect(opened(html)).toEqual(tags);
    expect(opened(tsx)).toEqual(tags);
  });
});

test('the test of links is well typed in an app that has none', () => {
  const project = emitReact(projectOf(screenOf(svg('<text x="20" y="40">Alone</text>'))), 'App');
  expect(project.files.map(({ path }) => path)).toContain('src/links.test.tsx');
  expect(project.files.map(({ path }) => path)).not.toContain('src/behaviour.test.tsx');
  expect(typeErrors([project])).toEqual([]);
});

test.each([
  ['Back button', 'Back'],
  ['Search icon', 'Search'],
  ['Menu icon button', 'Menu'],
  ['Buttonhole', 'Buttonhole'],
  ['Button', 'Button'],
])('a drawn button without a text that is called %j is read as %j', (drawn, read) => {
  const arrow = '<path d="M10 20 L20 10 L20 30 Z" fill="#1f2a24"/>';
  const made = projectOf(screenOf(svg(`<g data-name="${drawn}">${arrow}</g>`)), screenWith('home', 'Go'));
  const pressed = putInteraction(named(made.design.screens[0], drawn).key, {
    on: 'press',
    target: { kind: 'screen', screen: 'home' },
    arrival: { kind: 'none' },
  });
  const project = { ...made, app: applyChange(made.app, pressed) };
  const html = printHtml(emitScreenOf(new EmissionPlan(project), 'test'), () => '');
  expect(html).toContain(`aria-label="${read}"`);
});
