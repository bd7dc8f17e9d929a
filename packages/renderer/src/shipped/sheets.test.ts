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
