import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { main } from './main.ts';
import { finishWriting, writeTogether } from './write_together.ts';

const demo = path.resolve(__dirname, '../../../demo/iteration-1');
const folder = mkdtempSync(path.join(os.tmpdir(), 'tovel-deliver-'));
const at = (...names: string[]): string => path.join(folder, ...names);
afterAll(() => rmSync(folder, { recursive: true, force: true }));

interface Report {
  readonly files: readonly { readonly path: string; readonly fate: string }[];
  readonly asks: readonly { readonly path: string; readonly why: string }[];
  readonly offers: readonly object[];
  readonly packages: { readonly added: readonly string[] };
  readonly written: boolean;
}

/** Delivers a project into a folder. */
async function deliver(
  project: string,
  into: string,
  ...options: string[]
): Promise<{ code: number; report: Report; said: string }> {
  let [out, said] = ['', ''];
  const code = await main(['deliver', at(project), '--into', at(into), ...options], {
    out: (text) => void (out += text),
    say: (text) => void (said += `${text}\n`),
  });
  return { code, report: out ? (JSON.parse(out) as Report) : (null as never), said };
}

const silent = { out: () => undefined, say: () => undefined };
const WELCOME = 'src/screens/Welcome/Welcome.tsx';

/** All files of a folder with what they say. */
const contentOf = (name: string): Record<string, string> =>
  Object.fromEntries(
    readdirSync(at(name), { recursive: true, withFileTypes: true })
      .filter((entry) => entry.isFile())
      .map((entry) => {
        const file = path.join(entry.parentPath, entry.name);
        return [path.relative(at(name), file), readFileSync(file, 'latin1')];
      }),
  );

const change = (file: string, from: string, to: string): void => {
  const text = readFileSync(file, 'utf8');
  expect(text).toContain(from);
  writeFileSync(file, text.replace(from, to));
};

beforeAll(async () => {
  await main(
    ['intake', path.join(demo, 'welcome.svg'), path.join(demo, 'sign-in.svg'), '--out', at('one.tovel')],
    silent,
  );
  // The same screens, of which one says something else.
  mkdirSync(at('next'));
  for (const name of ['welcome.svg', 'sign-in.svg']) cpSync(path.join(demo, name), at('next', name));
  change(at('next', 'welcome.svg'), 'How does it work?', 'How do we work?');
  await main(['iterate', at('one.tovel'), at('next'), '--out', at('two.tovel')], silent);
  await deliver('one.tovel', 'made');
});

test('what was changed in the code and means something in the design is told, and read back into the project', async () => {
  cpSync(at('made'), at('spoken'), { recursive: true });
  change(at('spoken', WELCOME), 'Browse the tools', 'See the tools');
  const { said, report } = await deliver('one.tovel', 'spoken', '--dry-run');
  expect(said).toContain(`“See the tools”, was “Browse the tools”`);
  expect(report.offers).toEqual([
    { path: WELCOME, line: expect.any(Number), says: '“See the tools”, was “Browse the tools”' },
  ]);
  await deliver('one.tovel', 'spoken', '--yes', '--read-back', at('spoken.tovel'));
  const again = await deliver('spoken.tovel', 'spoken', '--dry-run');
  expect(again.report.offers).toEqual([]);
  expect(again.report.files.filter(({ fate }) => fate !== 'same')).toEqual([]);
  await expect(deliver('one.tovel', 'spoken', '--read-back', 'x')).resolves.toMatchObject({ code: 2 });
});

test('lines that somebody wrote are there after the design changed', async () => {
  cpSync(at('made'), at('app'), { recursive: true });
  change(at('app', WELCOME), '<main className', '<main onClick={greet} className');
  change(at('app', 'package.json'), '"react":', '"clsx": "^2.1.0",\n    "react":');

  const before = contentOf('app');
  const unsaid = await deliver('two.tovel', 'app');
  expect(unsaid.code).toBe(1);
  expect(unsaid.said).toContain('Say --yes to change what is there.');
  const trial = await deliver('two.tovel', 'app', '--dry-run');
  expect(trial.code).toBe(0);
  expect(contentOf('app')).toEqual(before);

  const { code, report } = await deliver('two.tovel', 'app', '--yes');
  expect({ code, asks: report.asks, written: report.written }).toEqual({ code: 0, asks: [], written: true });
  expect(report.files).toContainEqual({ path: 'package.json', fate: 'kept' });
  expect(report.files).toContainEqual({ path: WELCOME, fate: 'merged' });
  const text = readFileSync(at('app', WELCOME), 'utf8');
  expect(text).toContain('<main onClick={greet} className');
  expect(text).toContain('How do we work?');
  expect(readFileSync(at('app', 'package.json'), 'utf8')).toContain('clsx');
});

test('what both changed is asked, and nothing is written until it is answered', async () => {
  cpSync(at('made'), at('both'), { recursive: true });
  change(at('both', WELCOME), 'How does it work?', 'How is it done?');
  const before = contentOf('both');
  const { code, report, said } = await deliver('two.tovel', 'both', '--yes');
  expect(code).toBe(1);
  expect(report.asks).toMatchObject([{ path: WELCOME, why: 'both-changed' }]);
  expect(said).toContain('theirs: How is it done?');
  expect(said).toContain('ours: How do we work?');
  expect(contentOf('both')).toEqual(before);
  await deliver('two.tovel', 'both', '--yes', '--take', 'theirs');
  expect(readFileSync(at('both', WELCOME), 'utf8')).toContain('How is it done?');
});

test('a code base of people gets a folder of its own, and the packages that it lacks', async () => {
  mkdirSync(at('shop', 'src'), { recursive: true });
  writeFileSync(
    at('shop', 'package.json'),
    '{\n  "name": "shop",\n  "dependencies": { "react": "^19.0.0" }\n}\n',
  );
  writeFileSync(at('shop', 'src', 'main.tsx'), 'mine');
  const { code, report, said } = await deliver('one.tovel', 'shop', '--yes', '--only', 'Welcome');
  expect(code).toBe(0);
  expect(said).toContain('A code base in React; sources in src; no router.');
  expect(report.packages.added).toContain('react-router');
  expect(report.files.map(({ path: file }) => file)).toContain(`src/one/${WELCOME.replace('src/', '')}`);
  expect(readFileSync(at('shop', 'src', 'main.tsx'), 'utf8')).toBe('mine');
  expect(JSON.parse(readFileSync(at('shop', 'package.json'), 'utf8'))).toMatchObject({
    name: 'shop',
    dependencies: { react: '^19.0.0' },
  });
  const other = await deliver('one.tovel', 'shop', '--target', 'vue');
  expect(other.code).toBe(2);
  expect(other.said).toContain(
    'It is written in React. Deliver React, or into another folder. Nothing was written.',
  );
  // The second time, all is there.
  const again = await deliver('one.tovel', 'shop', '--only', 'Welcome');
  expect(again.report.files.filter(({ fate }) => fate !== 'same')).toEqual([]);
});

test.each([
  ['a broken manifest', '{', /\.tovel\/manifest\.json is no JSON: .* Nothing was written\./],
  ['one of another version', '{"format":"tovel-delivery/7"}', /is of another version/],
])('%s is said', async (_, manifest, says) => {
  const name = `broken${String(manifest.length)}`;
  mkdirSync(at(name, '.tovel'), { recursive: true });
  writeFileSync(at(name, '.tovel', 'manifest.json'), manifest);
  const { code, said } = await deliver('one.tovel', name);
  expect(code).toBe(2);
  expect(said).toMatch(says);
});

test('a file in the way of the folder is said', async () => {
  writeFileSync(at('file'), 'mine');
  const { code, said } = await deliver('one.tovel', 'file');
  expect([code, said]).toEqual([2, `tovel deliver: ${at('file')} is a file. Name a folder.\n`]);
});

test('where one file cannot be written, all is as it was', async () => {
  mkdirSync(at('half', 'src'), { recursive: true });
  writeFileSync(at('half', 'src', 'a.ts'), 'first');
  // A folder lies where a file should go, with something in it.
  mkdirSync(at('half', 'b', 'c'), { recursive: true });
  const bytes = new TextEncoder().encode('second');
  const before = contentOf('half');
  await expect(
    writeTogether(
      at('half'),
      new Map([
        ['src/a.ts', bytes],
        ['src/new/d.ts', bytes],
        ['src/a.ts/e.ts', bytes],
      ]),
    ),
  ).rejects.toThrow(/Nothing was written: .*half is as it was/);
  expect(contentOf('half')).toEqual(before);
  expect(existsSync(at('half', 'src', 'new'))).toBe(false);
});

test('what a delivery that ended in the middle had changed is put back by the next one', async () => {
  const work = at('ended', '.tovel', 'writing');
  mkdirSync(path.join(work, 'old'), { recursive: true });
  mkdirSync(path.join(work, 'new'));
  writeFileSync(at('ended', 'a.ts'), 'second');
  writeFileSync(at('ended', 'b.ts'), 'new');
  writeFileSync(path.join(work, 'old', 'a.ts'), 'first');
  writeFileSync(path.join(work, 'new', 'c.ts'), 'waiting');
  const files = [
    { path: 'a.ts', was: true },
    { path: 'b.ts', was: false },
    { path: 'c.ts', was: false },
  ];
  writeFileSync(path.join(work, 'journal.json'), JSON.stringify({ files }));
  expect(await finishWriting(at('ended'))).toBe(true);
  expect(contentOf('ended')).toEqual({ 'a.ts': 'first' });
  expect(await finishWriting(at('ended'))).toBe(false);
});
