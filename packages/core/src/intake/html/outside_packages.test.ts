import { packageAddress, packageSheetsIn, scriptedIconsIn } from './outside_packages.ts';

test.each([
  [
    'https://host.example/npm/bootstrap@5.3.0/dist/css/bootstrap.min.css',
    'bootstrap',
    '5.3.0',
    'dist/css/bootstrap.min.css',
  ],
  ['https://host.example/npm/some-library@5', 'some-library', '5', ''],
  ['https://host.example/@scope/some-library@latest/?x', '@scope/some-library', 'latest', ''],
  ['https://host.example/npm/@scope/some-icons@6/css/all.css?x#y', '@scope/some-icons', '6', 'css/all.css'],
  ['//host.example/ajax/libs/font-awesome/6.4.0/css/all.min.css', 'font-awesome', '6.4.0', 'css/all.min.css'],
  [
    'https://host.example/Bootstrap/4.5.2/css/bootstrap.min.css',
    'bootstrap',
    '4.5.2',
    'css/bootstrap.min.css',
  ],
  ['https://use.fontlibrary.example/releases/v5.15.4/css/all.css', 'fontlibrary', '5.15.4', 'css/all.css'],
  ['https://host.example/font-awesome/latest/css/all.min.css', 'font-awesome', 'latest', 'css/all.min.css'],
  ['https://host.example/npm/icons@1.2.3-beta.4/all.css', 'icons', '1.2.3', 'all.css'],
])('%s is a file of %s %s', (address, name, version, file) =>
  expect(packageAddress(address)).toEqual({ name, version, file }),
);

test.each([
  'css/bootstrap@5.3.0/all.css',
  'https://host.example/css/all.css',
  'https://host.example/',
  '',
  '//',
])('“%s” names no package', (address) => expect(packageAddress(address)).toBeNull());

test('sheets of packages that a page asks for, linked or imported, each once', () => {
  const one = 'https://host.example/npm/a@1/a.css';
  const two = '//host.example/ajax/libs/b/2.0/b.min.css';
  const three = 'https://host.example/npm/d@5';
  const html = `<link rel="stylesheet" href="${one}"><link href='${one}' rel=stylesheet><style>@import url(${two});</style><!-- <link href="//host.example/npm/c@1/c.css"> --><a href="https://host.example/own.css"><link href="${three}" rel="stylesheet">`;
  expect(packageSheetsIn(html)).toEqual([one, two, three]);
});

test('icons that a page names for scripts to draw', () => {
  const html =
    '<i data-lucide="House"></i><i data-lucide=\'bell-ring\' class="a"></i><i data-lucide=house></i><svg data-feather="x"></svg><i data-lucide="{{ icon }}">';
  expect([...scriptedIconsIn(html)]).toEqual([
    ['lucide', ['bell-ring', 'house']],
    ['feather', ['x']],
  ]);
});
