import { existsSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { main } from './main.ts';

const folder = mkdtempSync(path.join(os.tmpdir(), 'tovel-compare-'));
const at = (...names: string[]): string => path.join(folder, ...names);
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const page = (size: number): string =>
  `<!doctype html><title>Shed</title><style>body{margin:0}h1{font:700 ${size}px sans-serif}</style><h1>The shed</h1><p>Two saws and a drill.</p>`;

async function tovel(...args: string[]): Promise<{ code: number; out: string; said: string }> {
  let [out, said] = ['', ''];
  const code = await main(args, {
    out: (text) => void (out += text),
    say: (text) => void (said += `${text}\n`),
  });
  return { code, out, said };
}

interface Printed {
  readonly views: readonly {
    readonly screen: string;
    readonly width: number;
    readonly percent: number;
    readonly causes: readonly { readonly name: string; readonly says: string }[];
  }[];
  readonly sweep: readonly object[];
  readonly heard: readonly object[];
}

beforeAll(async () => {
  for (const [name, size] of [
    ['one', 30],
    ['two', 60],
  ] as const) {
    mkdirSync(at(name));
    writeFileSync(at(name, 'shed.html'), page(size));
  }
  const { code } = await tovel('intake', at('one'), '--out', at('one.tovel'));
  expect(code).toBe(0);
}, 60_000);

test('an app that runs as it was drawn is good', async () => {
  const { code, out, said } = await tovel(
    'compare',
    at('one.tovel'),
    '--widths',
    '640',
    '--sweep',
    '--listen',
  );
  const { views, sweep, heard } = JSON.parse(out) as Printed;
  expect(views).toMatchObject([{ screen: 'shed', width: 640, percent: 0, causes: [] }]);
  expect(sweep).toMatchObject([{ screen: 'shed', problems: [] }]);
  expect(heard).toMatchObject([{ screen: 'shed', width: 640 }]);
  expect(said).toContain('Shed at 640 px');
  expect(code).toBe(0);
}, 60_000);

test('held against other sources it says what differs, with pictures and as SARIF', async () => {
  const { code, out } = await tovel(
    'compare',
    at('one.tovel'),
    '--against',
    at('two'),
    '--widths',
    '640',
    '--max',
    '0.1',
    '--pictures',
    at('pictures'),
  );
  const { views } = JSON.parse(out) as Printed;
  expect(views[0].causes[0]).toMatchObject({ name: 'The shed', says: 'font-size 30 px, was 60 px' });
  expect(code).toBe(1);
  for (const which of ['reference', 'running', 'difference'])
    expect(existsSync(at('pictures', `shed-640-${which}.png`))).toBe(true);
  const sarif = await tovel(
    'compare',
    at('one.tovel'),
    '--against',
    at('two'),
    '--widths',
    '640',
    '--format',
    'sarif',
  );
  const { runs } = JSON.parse(sarif.out) as {
    runs: { results: { ruleId: string; message: { text: string } }[] }[];
  };
  expect(runs[0].results[0]).toMatchObject({
    ruleId: 'looks-otherwise',
    message: { text: 'At 640 px: The shed: font-size 30 px, was 60 px' },
  });
}, 60_000);

test.each([
  [['--widths', 'wide'], /--widths takes/],
  [['--max', '300'], /--max takes/],
  [['--against', '/no/such'], /There is no file or folder/],
  [['--format', 'xml'], /--format takes/],
  [['--reference', 'memory'], /--reference takes/],
])('%j is refused in words', async (options, says) => {
  const { code, said } = await tovel('compare', at('one.tovel'), ...options);
  expect([code, said]).toEqual([2, expect.stringMatching(says)]);
});
