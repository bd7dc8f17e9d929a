import { strToU8 } from 'fflate';
import { BatchFiles } from '../batch_files.ts';
import type { IntakeHost } from '../host.ts';
import { bodyReading } from '../../testing/body_reading.ts';
import { PageIntake } from './page_intake.ts';
import type { PageReading } from './reading.ts';
import type { UtilityPlan } from './utilities.ts';

const seen: string[] = [];
const reading: PageReading = bodyReading({ children: ['Hi'] });
const host = (more: Partial<IntakeHost> = {}): IntakeHost => ({
  readPage: async ({ html }) => {
    seen.push(html);
    return reading;
  },
  addressOf: (asset) => `blob:${asset.hash.slice(0, 8)}`,
  ...more,
});
async function read(html: string, more: Partial<IntakeHost> = {}, others: Record<string, string> = {}) {
  const page = { path: 'a.html', bytes: strToU8(html) };
  const around = host(more);
  const files = new BatchFiles(
    [page, ...Object.entries(others).map(([path, text]) => ({ path, bytes: strToU8(text) }))],
    around.addressOf,
  );
  const intake = new PageIntake(files, around);
  const { notices } = await intake.finish(await intake.begin(page), 'a');
  return { html: seen.at(-1)!, codes: notices.map((notice) => notice.code), notices, fonts: intake.fonts };
}

const service = '<link rel="stylesheet" href="https://fonts.example/css2?family=Inter:wght@400">';
const face = {
  weight: '100 900',
  style: 'normal',
  type: 'font/woff2',
  file: 'fonts/inter.woff2',
  bytes: strToU8('wOF2'),
};

test('a font of a font service comes from what is shipped, and is part of the design', async () => {
  const { html, codes, fonts } = await read(`<head>${service}</head><p>Hi`, {
    shippedFont: async () => [face],
  });
  expect(html).toMatch(
    /@font-face{font-family:"Inter";font-weight:100 900;font-style:normal;src:url\("blob:/,
  );
  expect(html).not.toContain('fonts.example');
  expect(codes).toEqual([]);
  expect(fonts).toEqual([
    { family: 'Inter', weight: '100 900', style: 'normal', asset: expect.stringMatching(/^[0-9a-f]{64}$/) },
  ]);
});

test.each([
  ['<style>p{font-family:Inter,Georgia,serif}</style>', '“Georgia”, the next in the list,'],
  ['', 'the browser’s own font'],
])('a font that is not shipped is said with what shows instead: %s', async (style, instead) => {
  const { notices, fonts } = await read(`<head>${service}${style}</head><p>Hi`, {
    shippedFont: async () => [],
  });
  expect(notices).toEqual([
    expect.objectContaining({
      level: 'warning',
      code: 'missing-font',
      message: expect.stringContaining(instead),
    }),
  ]);
  expect(fonts).toEqual([]);
});

test('the class of an icon font is there even where the service is not', async () => {
  const { html } = await read(
    '<head><link rel="stylesheet" href="https://fonts.example/icon?family=Material+Icons"></head><i class="material-icons">home</i>',
  );
  expect(html.indexOf('.material-icons{')).toBeLessThan(html.indexOf('<i class'));
});

test('fonts of the page’s own style sheets come along', async () => {
  const { html, fonts } = await read(
    '<head><link rel="stylesheet" href="s.css"></head><p>Hi',
    {},
    { 's.css': '@font-face{font-family:Own;src:url(own.woff2)}', 'own.woff2': 'wOF2' },
  );
  expect(html).toContain('@font-face{font-family:"Own"');
  expect(fonts.map(({ family }) => family)).toEqual(['Own']);
});

describe('what a page asks other hosts for and comes with Tovel', () => {
  const address = 'https://host.example/ajax/libs/signs/6.4.0/css/all.min.css';
  const page = `<head><link rel="stylesheet" href="${address}"></head><i class="sign-paw"></i><i data-lucide="house"></i>`;
  const shippedSheet: IntakeHost['shippedSheet'] = async ({ name, version, file }) =>
    name === 'signs' && version === '6.4.0' && file === 'css/all.min.css'
      ? {
          version: '6.7.2',
          sheet: 'css/all.min.css',
          text: '@font-face{font-family:Signs;src:url(../fonts/signs.woff2)}.sign-paw{font-family:Signs}',
          files: [{ path: 'fonts/signs.woff2', bytes: new TextEncoder().encode('wOF2') }],
        }
      : null;

  test('stands for it, and Intake says so', async () => {
    const { html, fonts, notices } = await read(page, {
      shippedSheet,
      shippedIcons: async (library, names) => ({
        [names[0]]: `<svg><title>${library}</title><path d="M0 0h9"/></svg>`,
      }),
    });
    expect(html).toContain('.sign-paw{font-family:Signs}');
    expect(html).toContain('d="M0 0h9"');
    expect(fonts.map(({ family }) => family)).toEqual(['Signs']);
    expect(notices).toEqual([
      expect.objectContaining({
        level: 'info',
        code: 'sheet-stood-in',
        message: expect.stringMatching(/signs 6\.7\.2, which comes with Tovel, stands for it/),
      }),
    ]);
  });

  test.each<[string, Partial<IntakeHost>]>([
    ['nothing stands for it', { shippedSheet: async () => null }],
    [
      'what would is out of reach',
      {
        shippedSheet: () => Promise.reject(new Error('offline')),
        shippedIcons: () => Promise.reject(new Error('offline')),
      },
    ],
  ])('is missed where %s', async (_, more) => {
    const { notices } = await read(page, more);
    expect(notices).toEqual([
      expect.objectContaining({
        level: 'warning',
        message: expect.stringMatching(/is somewhere else and is not fetched/),
      }),
    ]);
  });
});

describe('a page of utility classes', () => {
  const page =
    '<head><script src="https://cdn.tailwindcss.com"></script><script>tailwind.config={theme:{a:1}}</script></head><p class="p-4 m-2">Hi';

  test('is compiled from its classes and its configuration, and looks so', async () => {
    let asked: unknown;
    const { html, codes } = await read(page, {
      compileUtilities: async (plan) => {
        asked = plan;
        return '.p-4{padding:1rem}';
      },
    });
    expect(asked).toEqual({
      config: { theme: { a: 1 } },
      css: '',
      isLegacy: true,
      plugins: [],
      classes: ['p-4', 'm-2'],
    });
    expect(html).toContain('<style>.p-4{padding:1rem}</style></head>');
    expect(html).not.toContain('script');
    expect(codes).toEqual([]);
  });

  test('is compiled where it asks another host for a sheet of all of them, too', async () => {
    const link = (href: string): string =>
      `<head><link rel="stylesheet" href="${href}"></head><p class="p-4">Hi`;
    const compileUtilities = async ({ isLegacy, classes }: UtilityPlan): Promise<string> =>
      `/* ${String(isLegacy)} ${classes.join()} */`;
    const served = await read(link('https://host.example/npm/tailwindcss@2.2.19/dist/tailwind.min.css'), {
      compileUtilities,
    });
    expect(served.html).toContain('/* true p-4 */');
    expect(served.codes).toEqual([]);
    // What came along says itself what its classes look like.
    const own = await read(
      link('css/tailwind.css'),
      { compileUtilities },
      { 'css/tailwind.css': '.p-4{padding:1px}' },
    );
    expect(own.html).toContain('.p-4{padding:1px}');
    expect(own.html).not.toContain('true p-4');
  });

  test.each([
    ['nothing compiles here', {}, /cannot be compiled here/],
    [
      'the compiler complains',
      { compileUtilities: () => Promise.reject(new Error('no such theme')) },
      /could not be compiled: no such theme/,
    ],
  ])('that cannot be compiled still comes in: %s', async (_, more, message) => {
    const { notices } = await read(page, more);
    expect(notices).toEqual([
      expect.objectContaining({ level: 'warning', message: expect.stringMatching(message) }),
    ]);
  });
});
