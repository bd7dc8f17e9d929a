import fc from 'fast-check';
import type { StyleRule } from '../markup.ts';
import { classNameOf, qualified } from './class_naming.ts';
import { paletteOf, withNames } from './palette.ts';
import { printRules } from '../../styles/print_css.ts';
import { type FileRules, shareStyles, type SharedStyles } from './share.ts';
import { keptFile, styleOf } from './as_before.ts';
import { type CodeBefore, NOTHING_BEFORE } from '../before.ts';
import { screenOf, named, svg } from '../../../testing/build.ts';

const rule = (className: string, base: Record<string, string>, more: Partial<StyleRule> = {}): StyleRule => ({
  className,
  key: null,
  base,
  at: {},
  from: {},
  states: {},
  ...more,
});
const card = {
  'background-color': '#fff',
  'padding-top': '8px',
  color: '#111',
  position: 'relative',
  'z-index': '1',
  width: '100px',
};

test('what rules of one name have in common is written once, and each keeps its own', () => {
  const { rules, files } = shareStyles([
    { id: 'a', rules: [rule('card', card)] },
    { id: 'b', rules: [rule('card', { ...card, width: '50%' }), rule('note', { color: '#222' })] },
  ]);
  expect(rules.map(({ className, base }) => [className, Object.keys(base)])).toEqual([
    ['card', ['background-color', 'padding-top', 'color', 'position', 'z-index']],
  ]);
  expect(files.get('b')!.classes.get('card')).toEqual([
    { from: 'shared', name: 'card' },
    { from: 'own', name: 'card' },
  ]);
  expect(files.get('b')!.classes.get('note')).toEqual([{ from: 'own', name: 'note' }]);
});

test('what only one file says several times stays in its sheet', () => {
  const { rules, files } = shareStyles([
    { id: 'a', rules: [rule('chip', card), rule('chip2', { ...card, width: '60px' })] },
  ]);
  expect(rules).toEqual([]);
  expect(files.get('a')!.rules.map(({ className }) => className)).toEqual(['chip', 'chip2', 'chip3']);
});

test('rules that are the same under different names are one', () => {
  const { rules } = shareStyles([
    { id: 'a', rules: [rule('card', card)] },
    { id: 'b', rules: [rule('panel', card)] },
  ]);
  expect(rules.map(({ className }) => className)).toEqual(['card']);
});

const property = fc.constantFrom('color', 'width', 'margin-top', 'margin-left', 'display');
const block = fc.dictionary(property, fc.constantFrom('1px', '2px', '3px'), { maxKeys: 4 });
const anyRule = fc.record({
  className: fc.constantFrom('card', 'row', 'title'),
  base: block,
  at: fc.dictionary(fc.constantFrom('600', '900'), block, { maxKeys: 1 }),
  states: fc.dictionary(fc.constantFrom(':hover', '::before', '::before@600'), block, { maxKeys: 2 }),
});

/** What an element of these classes gets in a window, by where it is said. */
function computed(rules: readonly StyleRule[], width: number): string {
  const said = new Map<string, string>();
  for (const one of rules) for (const [name, value] of Object.entries(one.base)) said.set(name, value);
  for (const at of ['900', '600'])
    if (width <= Number(at))
      for (const one of rules)
        for (const [name, value] of Object.entries(one.at[at] ?? {})) said.set(name, value);
  for (const one of rules)
    for (const [state, css] of Object.entries(one.states))
      if (!state.includes('@'))
        for (const [name, value] of Object.entries(css)) said.set(state + name, value);
  for (const one of rules)
    for (const [name, value] of Object.entries(one.states['::before@600'] ?? {}))
      if (width <= 600) said.set(`::before${name}`, value);
  return JSON.stringify([...said].sort());
}

test('an element looks the same with its rule in parts, whatever the order of the sheets', () => {
  fc.assert(
    fc.property(fc.array(fc.array(anyRule, { maxLength: 6 }), { maxLength: 4 }), (sheets) => {
      const files = sheets.map((rules, i) => ({
        id: String(i),
        rules: rules
          .map((one, j): StyleRule => rule(`${one.className}${j}`, one.base, one))
          .map((one, j) => ({
            ...one,
            className: `${rules[j].className}${j + 1}`,
          })),
      }));
      const made = shareStyles(files);
      for (const { id, rules } of files)
        for (const one of rules) {
          const parts = made.files.get(id)!.classes.get(one.className)!;
          const own = parts.map((part) =>
            (part.from === 'own' ? made.files.get(id)!.rules : made.rules).find(
              ({ className }) => className === part.name,
            )!,
          );
          for (const width of [500, 800, 1200]) {
            expect(computed(own, width)).toBe(computed([one], width));
            expect(computed(own.toReversed(), width)).toBe(computed([one], width));
          }
        }
    }),
    { numRuns: 200 },
  );
});

/** What an element with these classes gets in a window, by sheets as they are written. */
function cascaded(sheets: readonly string[], classes: readonly string[], width: number): string {
  const said = new Map<string, string>();
  for (const sheet of sheets)
    for (const [, media, inMedia, selectors, body] of sheet.matchAll(
      /@media \(width <= (\d+)px\) \{\n([^]*?)\n\}|([^{}@]+)\{([^{}]*)\}/g,
    )) {
      if (media && width > Number(media)) continue;
      const blocks = media ? [...inMedia.matchAll(/([^{}]+)\{([^{}]*)\}/g)] : [['', selectors, body]];
      for (const [, list, declarations] of blocks)
        for (const selector of list.split(',')) {
          const [, name, state] = /^\.(\w+)(.*)$/.exec(selector.trim()) ?? [];
          if (!classes.includes(name)) continue;
          for (const declaration of declarations.split(';')) {
            const [property, value] = declaration.split(':').map((part) => part.trim());
            if (value) said.set(state + property, value);
          }
        }
    }
  return JSON.stringify([...said].sort());
}

type Drawn = Pick<StyleRule, 'className' | 'base' | 'at' | 'states'>;

/** Files whose looks after the first of each lie over that. */
const filesOf = (sheets: readonly (readonly Drawn[])[]): FileRules[] =>
  sheets.map((rules, i) => ({
    id: String(i),
    rules: rules.map((one, j): StyleRule => ({
      ...rule('', one.base, one),
      className: `${one.className}${j + 1}`,
      key: `element${j}`,
      ...(j ? { over: `${rules[0].className}1`, ownName: `${rules[0].className}Active` } : {}),
    })),
  }));

/** Holds each look with its classes to what it is by itself, in windows of all widths and whichever sheet comes first. */
function expectAsAlone(files: readonly FileRules[], made: SharedStyles): void {
  const print = (rules: readonly StyleRule[]): string => printRules(rules, (name) => `.${name}`).text;
  // Names of the two sheets are apart, as modules keep them.
  const shared = print(made.rules.map((one) => ({ ...one, className: `${one.className}Shared` })));
  for (const { id, rules } of files) {
    const own = print(made.files.get(id)!.rules);
    for (const one of rules) {
      const classes = made.files
        .get(id)!
        .classes.get(one.className)!
        .map(({ from, name }) => (from === 'own' ? name : `${name}Shared`));
      for (const width of [500, 800, 1200])
        for (const order of [
          [shared, own],
          [own, shared],
        ])
          expect(cascaded(order, classes, width)).toBe(
            cascaded([print([{ ...one, className: 'alone' }])], ['alone'], width),
          );
    }
  }
}

const sheets = fc.array(fc.array(anyRule, { minLength: 2, maxLength: 5 }), { maxLength: 3 });

test('a look that is laid over another is what it is by itself, wherever the sheet that all share stands', () => {
  fc.assert(
    fc.property(sheets, (some) => {
      const files = filesOf(some);
      expectAsAlone(files, shareStyles(files));
    }),
    { numRuns: 300 },
  );
});

test('so it is where it was written otherwise before', () => {
  fc.assert(
    fc.property(sheets, fc.array(fc.array(fc.boolean())), sheets, (some, changed, others) => {
      const before = filesOf(some);
      const made = shareStyles(before);
      const written: CodeBefore = {
        ...NOTHING_BEFORE,
        shared: new Map(made.rules.map((one) => [one.className, styleOf(one)])),
        files: new Map(before.map(({ id, rules }) => [id, keptFile(rules, made.files.get(id)!, [])])),
      };
      const files = filesOf(
        some.map((rules, i) => rules.map((one, j) => (changed[i]?.[j] && others[i]?.[j]) || one)),
      );
      expectAsAlone(files, shareStyles(files, written));
    }),
    { numRuns: 300 },
  );
});

test('a look that is laid over the usual one says only what differs; where that takes something away, each says its own', () => {
  const usual = { color: '#111', 'font-weight': '400', 'padding-top': '8px' };
  const inFile = (other: Record<string, string>): (readonly string[])[] => {
    const { files } = shareStyles([
      {
        id: 'chip',
        rules: [rule('chip', usual), rule('chip2', other, { over: 'chip', ownName: 'chipActive' })],
      },
    ]);
    return files.get('chip')!.rules.map(({ className, base }) => [className, ...Object.keys(base)]);
  };
  expect(inFile({ ...usual, color: '#fff' })).toEqual([
    ['chip', 'color', 'font-weight', 'padding-top'],
    ['chipActive', 'color'],
  ]);
  expect(inFile({ 'font-weight': '400', 'padding-top': '8px' })).toEqual([
    ['chip', 'color', 'font-weight', 'padding-top'],
    ['chipActive', 'font-weight', 'padding-top'],
  ]);
});

test('rules that say the same stand together, states after what they are states of', () => {
  const { text } = printRules(
    [
      rule('a', { color: '#111' }, { states: { ':hover': { color: '#222' } } }),
      rule('b', { color: '#333' }, { states: { ':hover': { color: '#222' } } }),
      rule('c', { color: '#111' }),
    ],
    (name) => `.${name}`,
  );
  expect(text.match(/^[^ }\n].*$/gm)).toEqual(['.a,', '.c {', '.b {', '.a:hover,', '.b:hover {']);
});

test('colours that recur are written by names that follow from them alone', () => {
  const palette = paletteOf(
    [
      rule('a', { color: 'rgb(255, 255, 255)', 'box-shadow': 'rgba(0, 0, 0, 0.5) 0px 1px' }),
      rule('b', { 'background-color': '#fff', 'border-top-color': '#123456', content: '"#123456"' }),
      rule('c', { 'box-shadow': 'rgba(0, 0, 0, 0.5) 0px 2px' }),
    ],
    () => false,
  );
  expect(palette.values).toEqual([
    ['color-black-a50', 'rgb(0 0 0 / 50%)'],
    ['color-white', '#fff'],
  ]);
  expect(withNames('#fff 0 1px #123456', palette)).toBe('var(--color-white) 0 1px #123456');
  expect(withNames("'#fff'", palette)).toBe("'#fff'");
  const fonts = "-apple-system, 'Segoe UI', Roboto, 'Helvetica Neue', sans-serif";
  const named = paletteOf(
    [rule('a', { 'font-family': fonts }), rule('b', { 'font-family': fonts })],
    () => false,
  );
  expect(named.values).toEqual([['font-system', fonts.replace('Roboto', "'Roboto'")]]);
  expect(withNames(fonts, named)).toBe('var(--font-system)');
});

test.each([
  ['card-header d-flex', 'div', 'cardHeader'],
  ['col-lg-4 d-flex', 'div', 'group'],
  ['css-1x2y3z', 'p', 'text'],
  ['fw-bolder mb-4', 'h2', 'title'],
  ['btn btn-primary', 'button', 'button'],
  ['userAvatar', 'img', 'userAvatar'],
])('a page’s element with the classes “%s” as %s is called %s', (classes, tag, name) => {
  const text = named(screenOf(svg('<text x="9" y="20">Saw</text>')), 'Saw');
  const element =
    tag === 'div' ? { ...text, classes, kind: 'box' as const, children: [text, text] } : { ...text, classes };
  expect(classNameOf(element, tag, true, false).name).toBe(name);
});

test('a layer is called by its own word, and never by the text in it', () => {
  const screen = screenOf(
    svg(
      '<g id="Chip_Garden" data-name="Chip Garden"><rect width="80" height="30" fill="#eee"/><text x="9" y="20">Garden</text></g>',
    ),
  );
  const chip = named(screen, 'Chip Garden');
  expect(classNameOf(chip, 'div', false, false)).toEqual({ name: 'chip', isOwn: true });
  const text = named(screen, 'Garden');
  expect(classNameOf(text, 'p', false, false).name).toBe('text');
  expect(qualified('chip', 'text')).toBe('chipText');
  expect(qualified('toolRow', 'row')).toBe('toolRowContent');
});

describe('what is said of states alone', () => {
  const states = { ':hover': { color: '#00c', 'background-color': '#eef' } };
  const look = (name: string, base: Record<string, string>, more: Partial<StyleRule> = {}): StyleRule =>
    rule(name, base, { states, ...more });
  const panel = { ...card, color: '#333', 'z-index': '2', width: '80px' };

  test('is said of classes that never stand without it, and elements are written as those', () => {
    const file = (id: string): FileRules => ({ id, rules: [look('card', card), look('panel', panel)] });
    const { rules, files } = shareStyles([file('a'), file('b')]);
    expect(rules.map(({ className, states: own }) => [className, Object.keys(own)])).toEqual([
      ['card', [':hover']],
      ['panel', [':hover']],
    ]);
    expect(files.get('a')!.classes.get('panel')).toEqual([{ from: 'shared', name: 'panel' }]);
    // The sheet says it once, of both.
    expect(printRules(rules, (name) => `.${name}`).text).toContain('.card:hover,\n.panel:hover {');
  });

  test('is a class of its own where the other stands without it', () => {
    const { rules, files } = shareStyles([
      { id: 'a', rules: [look('card', card), look('panel', panel)] },
      { id: 'b', rules: [rule('card', card), look('panel', panel)] },
    ]);
    expect(rules.find(({ className }) => className === 'card')!.states).toEqual({});
    const classes = files.get('a')!.classes.get('card')!;
    expect(classes.length).toBe(2);
  });
});
