import { shippedSheet } from './sheets.ts';

test.each([
  ['font-awesome', '6.4.0', 'css/all.min.css', 'css/all.min.css', /\.fa-paw\b/, true],
  ['@fortawesome/fontawesome-free', '5.15', 'css/all.css', 'css/all.min.css', /\.fa-paw\b/, true],
  ['font-awesome', 'latest', 'css/all.min.css', 'css/all.min.css', /\.fa-paw\b/, true],
  ['font-awesome', 'latest', 'css/font-awesome.min.css', 'css/all.min.css', /\.fa-bar-chart\b/, true],
  ['font-awesome', '4.7.0', 'css/font-awesome.min.css', 'css/all.min.css', /\.fa-bar-chart\b/, true],
  [
    'bootstrap',
    '5.3.0',
    'dist/css/bootstrap.min.css',
    'dist/css/bootstrap.min.css',
    /\.btn-primary\b/,
    false,
  ],
  ['twitter-bootstrap', '4.6', 'css/bootstrap.css', 'dist/css/bootstrap.min.css', /\.form-row\b/, false],
  [
    'bootstrap-icons',
    '1.11.0',
    'font/bootstrap-icons.css',
    'font/bootstrap-icons.min.css',
    /\.bi-house\b/,
    true,
  ],
  ['bulma', '0.6.0', 'css/bulma.min.css', 'css/bulma.min.css', /\.is-ancestor\b/, false],
  ['bulma', '1', 'css/bulma.css', 'css/bulma.min.css', /--bulma-/, false],
  ['daisyui', '4.12.10', 'dist/full.min.css', 'dist/full.css', /\.btn-primary\b/, false],
  ['daisyui', '5', '', 'daisyui.css', /\.btn-primary\b/, false],
  ['@picocss/pico', '2', 'css/pico.classless.min.css', 'css/pico.classless.min.css', /--pico-/, false],
  ['@picocss/pico', '1.5', 'css/pico.min.css', 'css/pico.min.css', /--form-element/, false],
  [
    'materialize',
    '1.0.0',
    'css/materialize.min.css',
    'dist/css/materialize.min.css',
    /\.card-panel\b/,
    false,
  ],
  ['normalize', '8.0.1', 'normalize.min.css', 'normalize.css', /fieldset/, false],
  ['remixicon', '2.5.0', 'fonts/remixicon.css', 'fonts/remixicon.css', /\.ri-home-line\b/, true],
  ['boxicons', '2.1.4', 'css/boxicons.min.css', 'css/boxicons.min.css', /\.bx-home\b/, true],
  [
    '@mdi/font',
    '7.4.47',
    'css/materialdesignicons.min.css',
    'css/materialdesignicons.min.css',
    /\.mdi-home\b/,
    true,
  ],
  [
    'line-awesome',
    '1.3.0',
    'css/line-awesome.min.css',
    'dist/line-awesome/css/line-awesome.min.css',
    /\.la-home\b/,
    true,
  ],
])('%s %s: %s is stood for by %s', async (name, version, file, sheet, holds, hasFonts) => {
  const shipped = (await shippedSheet({ name, version, file }))!;
  expect(shipped.sheet).toBe(sheet);
  expect(shipped.text).toMatch(holds);
  expect(shipped.files.some((one) => /fonts?\/.*\.woff2$/.test(one.path) && one.bytes.length > 1000)).toBe(
    hasFonts,
  );
});

test.each([
  ['another generation', 'bootstrap', '3.4.1', 'css/bootstrap.min.css'],
  ['another library', 'nobody', '1.0.0', 'all.css'],
  ['another sheet', 'bootstrap', '5.3.0', 'dist/css/constructor.css'],
  ['a path elsewhere', 'bootstrap', '5.3.0', '../../../../etc/passwd'],
])('%s is not', async (_, name, version, file) =>
  expect(await shippedSheet({ name, version, file })).toBeNull(),
);
