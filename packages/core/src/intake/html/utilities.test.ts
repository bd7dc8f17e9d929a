import { readUtilityConfig } from './utilities.ts';
import { iconClassCss, isIconFamily, webFontsIn } from './web_fonts.ts';

describe('a configuration is read as data', () => {
  test.each([
    [
      "tailwind.config = { theme: { extend: { colors: { brand: '#123456' } } } }",
      { theme: { extend: { colors: { brand: '#123456' } } } },
    ],
    [
      'window.tailwind.config = {darkMode: `class`, a: [1, -2, true, null]};',
      { darkMode: 'class', a: [1, -2, true, null] },
    ],
    ['tailwind.config = { "md-2": { 500: "x" } }', { 'md-2': { '500': 'x' } }],
  ])('%s', (script, config) => expect(readUtilityConfig(script)).toEqual({ config, leftOut: [] }));

  test.each([
    ['tailwind.config = { plugins: [require("x")] }', 'plugins[0]'],
    ['tailwind.config = { a: fetch("/x") }', 'a'],
    ['tailwind.config = { a: `${document.cookie}` }', 'a'],
    ['tailwind.config = { ...evil }', '…'],
    ['tailwind.config = { ["a" + 1]: 1 }', '…'],
    ['tailwind.config = { "__proto__": { polluted: 1 } }', '…'],
    ['tailwind.config = (() => 1)()', 'the whole of it'],
  ])('%s leaves out %s', (script, leftOut) => {
    expect(readUtilityConfig(script)!.leftOut).toEqual([leftOut]);
    expect(({} as Record<string, unknown>).polluted).toBeUndefined();
  });

  test.each(['', 'alert(1)', 'const tailwind = 1', 'tailwind.config = {', 'other.config = {}'])(
    '%s is no configuration',
    (script) => expect(readUtilityConfig(script)).toBeNull(),
  );
});

describe('addresses of font services', () => {
  test.each([
    ['https://fonts.example/css2?family=Some+Sans:wght@400;700&display=swap', ['Some Sans 400,700']],
    ['//fonts.example/css?family=One:400,700i|Two', ['One 400,700 italic', 'Two 400']],
    ['https://fonts.example/css2?family=A:ital,wght@0,300;1,300&family=B', ['A 300 italic', 'B 400']],
    ['https://fonts.example/icon?family=Material+Icons', ['Material Icons 400 icons']],
    ['style.css', []],
    ['https://cdn.example/main.css', []],
    ['https://cdn.example/page?family=A', []],
    ['https://fonts.example/css?family=a"}<', []],
  ])('%s', (href, expected) =>
    expect(
      webFontsIn(href).map(
        (font) =>
          `${font.family} ${font.weights.join()}${font.hasItalic ? ' italic' : ''}${font.isIcons ? ' icons' : ''}`,
      ),
    ).toEqual(expected),
  );

  test('icons are told from letters by the name of their family', () => {
    expect(
      ['Material Symbols Outlined', 'Font Awesome 5 Free', 'bootstrap-icons', 'Inter', 'Lexicon'].map(
        isIconFamily,
      ),
    ).toEqual([true, true, true, false, false]);
    expect(iconClassCss(webFontsIn('//f.example/icon?family=Material+Icons')[0])).toContain(
      '.material-icons{font-family:"Material Icons"',
    );
  });
});
