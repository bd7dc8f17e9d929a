import { compileUtilities } from './utilities.ts';

const plan = {
  config: null,
  css: '',
  isLegacy: false,
  classes: ['bg-blue-500', 'shadow-sm', 'form-input', 'no-class'],
};

test('each generation has its own colours and steps', async () => {
  const [older, current] = await Promise.all([
    compileUtilities({ ...plan, isLegacy: true }),
    compileUtilities(plan),
  ]);
  expect(older).toMatch(/\.bg-blue-500\s*{[^}]*rgb\(59 130 246/);
  expect(current).toMatch(/\.bg-blue-500\s*{[^}]*var\(--color-blue-500\)/);
  for (const css of [older, current]) {
    expect(css).not.toContain('no-class');
    expect(css).not.toContain('.form-input');
  }
});

test.each([true, false])(
  'programs that come with Tovel are loaded by their names (older: %s)',
  async (isLegacy) => {
    const css = await compileUtilities({ ...plan, isLegacy, plugins: ['forms', 'constructor', 'of-nobody'] });
    expect(css).toMatch(/\.form-input[^{]*{[^}]*appearance: none/);
  },
);

test.each([
  ['@config "./evil.js";', /program “\.\/evil\.js”, which is not run/],
  ['@plugin "node:fs";', /program “node:fs”, which is not run/],
  ['@import url(/etc/passwd);', /imports “\/etc\/passwd”, which did not come along/],
])('of the older generation %s is not loaded', async (css, message) =>
  expect(compileUtilities({ ...plan, isLegacy: true, css })).rejects.toThrow(message),
);

test('what a page says of its own classes is compiled with those', async () => {
  const css = '.own { @apply px-4; }';
  for (const isLegacy of [true, false])
    expect(await compileUtilities({ ...plan, isLegacy, css })).toMatch(/\.own\s*{[^}]*padding-/);
});
