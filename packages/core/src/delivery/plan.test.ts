import type { EmittedFile } from '../emit/emitted.ts';
import type { MergeSide } from '../merge/conflict.ts';
import { MANIFEST_PATH, parseManifest } from './manifest.ts';
import { type DeliveryPlan, planDelivery } from './plan.ts';

type Folder = Map<string, Uint8Array>;

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
const textIn = (folder: Folder, path: string): string | undefined => {
  const found = folder.get(path);
  return found && new TextDecoder().decode(found);
};

const page = (title: string, text: string): string =>
  `import styles from './Desk.module.css';\n\nexport function Desk() {\n  return (\n    <main className={styles.desk}>\n      <h1>${title}</h1>\n      <p>${text}</p>\n    </main>\n  );\n}\n`;

/** A screen as it is written: title and text are elements. */
const screen = (path: string, title: string, text: string, key = 'desk'): EmittedFile => ({
  path,
  text: page(title, text),
  lines: [null, null, null, null, key, `${key}/0`, `${key}/1`, key, null, null],
});

const DESK = 'src/screens/Desk/Desk.tsx';
const SHEET = 'src/screens/Desk/Desk.module.css';
const sheet: EmittedFile = { path: SHEET, text: '.desk {\n  color: red;\n}\n' };

const plan = (
  folder: Folder,
  files: readonly EmittedFile[],
  more: { readonly answers?: ReadonlyMap<string, MergeSide>; readonly isPart?: boolean } = {},
): Promise<DeliveryPlan> => {
  const manifest = textIn(folder, MANIFEST_PATH);
  return planDelivery({
    project: 'Mossgate',
    target: 'react',
    files,
    pictureOf: (hash) => (hash === 'known' ? bytes('picture') : undefined),
    manifest: manifest === undefined ? null : parseManifest(manifest),
    read: (path) => Promise.resolve(folder.get(path) ?? null),
    ...more,
  });
};

/** The folder after a plan was carried out. */
function written(folder: Folder, { writes }: DeliveryPlan): Folder {
  const after = new Map(folder);
  for (const [path, content] of writes)
    if (content) after.set(path, content);
    else after.delete(path);
  return after;
}

const edit = (folder: Folder, path: string, from: string, to: string): Folder => {
  const text = textIn(folder, path)!;
  expect(text).toContain(from);
  return new Map(folder).set(path, bytes(text.replace(from, to)));
};

const fates = ({ files }: DeliveryPlan): Record<string, string> =>
  Object.fromEntries(files.map(({ path, fate }) => [path, fate]));

let first: Folder;
beforeAll(async () => {
  first = written(new Map(), await plan(new Map(), [screen(DESK, 'Desk', 'Open'), sheet]));
});

test('an empty folder gets all, and nothing more the second time', async () => {
  expect([...first.keys()].filter((path) => !path.startsWith('.tovel/'))).toEqual([DESK, SHEET]);
  const again = await plan(first, [screen(DESK, 'Desk', 'Open'), sheet]);
  expect(fates(again)).toEqual({ [DESK]: 'same', [SHEET]: 'same' });
  expect(written(first, again)).toEqual(first);
});

test('what nobody changed is written anew, and what the design has no more is taken away', async () => {
  const next = await plan(first, [screen(DESK, 'Desk', 'Closed')]);
  expect(fates(next)).toEqual({ [DESK]: 'updated', [SHEET]: 'removed' });
  const after = written(first, next);
  expect(textIn(after, DESK)).toContain('Closed');
  expect(after.has(SHEET)).toBe(false);
  // What was kept of what is written no more is not kept any longer.
  expect([...after.keys()].filter((path) => path.startsWith('.tovel/base/'))).toHaveLength(1);
});

test('what somebody changed is merged each time anew', async () => {
  let folder = edit(first, DESK, '<h1>', '<h1 onClick={greet}>');
  for (const text of ['Closed', 'Open again']) {
    const next = await plan(folder, [screen(DESK, 'Desk', text), sheet]);
    expect(fates(next)).toEqual({ [DESK]: 'merged', [SHEET]: 'same' });
    expect(next.asks).toEqual([]);
    folder = written(folder, next);
    expect(textIn(folder, DESK)).toContain('<h1 onClick={greet}>Desk</h1>');
    expect(textIn(folder, DESK)).toContain(`<p>${text}</p>`);
  }
  const last = await plan(folder, [screen(DESK, 'Desk', 'Open again'), sheet]);
  expect(fates(last)).toEqual({ [DESK]: 'kept', [SHEET]: 'same' });
});

test('what both changed is asked, with the element, and is theirs until it is decided', async () => {
  const folder = edit(first, DESK, 'Open', 'Open from nine');
  const files = [screen(DESK, 'Desk', 'Closed'), sheet];
  const asked = await plan(folder, files);
  expect(asked.asks).toMatchObject([
    {
      path: DESK,
      line: 7,
      why: 'both-changed',
      base: 'Open',
      theirs: 'Open from nine',
      ours: 'Closed',
      element: 'desk/1',
    },
  ]);
  const answers = new Map(asked.asks.map(({ id }) => [id, 'ours'] as const));
  expect(textIn(written(folder, await plan(folder, files, { answers })), DESK)).toContain('<p>Closed</p>');
});

test('a screen that is called otherwise takes along what somebody wrote', async () => {
  const folder = edit(first, DESK, '<h1>', '<h1 onClick={greet}>');
  const counter = 'src/screens/Counter/Counter.tsx';
  const next = await plan(folder, [screen(counter, 'Counter', 'Open'), sheet]);
  expect(next.files.find(({ path }) => path === counter)).toMatchObject({ fate: 'merged', movedFrom: DESK });
  const after = written(folder, next);
  expect(after.has(DESK)).toBe(false);
  expect(textIn(after, counter)).toContain('<h1 onClick={greet}>Counter</h1>');
});

test('a file that somebody changed and that the design has no more is asked about', async () => {
  const folder = edit(first, SHEET, 'red', 'blue');
  const next = await plan(folder, [screen(DESK, 'Desk', 'Open')]);
  expect(next.asks).toMatchObject([{ path: SHEET, why: 'ours-removed', ours: null }]);
  expect(written(folder, next).has(SHEET)).toBe(true);
  const answers = new Map(next.asks.map(({ id }) => [id, 'ours'] as const));
  expect(written(folder, await plan(folder, [screen(DESK, 'Desk', 'Open')], { answers })).has(SHEET)).toBe(
    false,
  );
});

test('a file that somebody took away stays away while nothing new is to be said', async () => {
  const folder = new Map(first);
  folder.delete(SHEET);
  const next = await plan(folder, [screen(DESK, 'Desk', 'Open'), sheet]);
  expect(fates(next)).toEqual({ [DESK]: 'same', [SHEET]: 'left-out' });
  expect(next.asks).toEqual([]);
  const again = await plan(written(folder, next), [
    screen(DESK, 'Desk', 'Open'),
    { ...sheet, text: '.desk {}\n' },
  ]);
  expect(again.asks).toMatchObject([{ path: SHEET, why: 'theirs-removed', theirs: null }]);
});

test('a file of that name that Tovel did not write is never written over unasked', async () => {
  const folder: Folder = new Map([[DESK, bytes('mine')]]);
  const next = await plan(folder, [screen(DESK, 'Desk', 'Open')]);
  expect(next.asks).toMatchObject([{ path: DESK, why: 'in-the-way', theirs: 'mine' }]);
  expect(textIn(written(folder, next), DESK)).toBe('mine');
});

test('a part alone takes nothing away', async () => {
  const next = await plan(first, [screen(DESK, 'Desk', 'Closed')], { isPart: true });
  expect(fates(next)).toEqual({ [DESK]: 'updated' });
  const after = written(first, next);
  expect(after.has(SHEET)).toBe(true);
  expect(fates(await plan(after, [screen(DESK, 'Desk', 'Closed'), sheet]))).toEqual({
    [DESK]: 'same',
    [SHEET]: 'same',
  });
});

test('a class that lines of somebody take and that is written no more is told', async () => {
  const folder = edit(first, DESK, '<h1>', '<h1 className={styles.title}>');
  const next = await plan(folder, [screen(DESK, 'Desk', 'Closed'), sheet]);
  expect(next.notices).toEqual([`${DESK}:6 takes “title” from ${SHEET}, which has no such class (any more)`]);
});

test('pictures are written, and one that is not in the project is told', async () => {
  const next = await plan(new Map(), [
    { path: 'src/assets/a.png', asset: 'known' },
    { path: 'src/assets/b.png', asset: 'other' },
  ]);
  expect(textIn(written(new Map(), next), 'src/assets/a.png')).toBe('picture');
  expect(next.notices).toEqual(['src/assets/b.png: the picture is not in the project and was left out']);
});

const LOGIC = 'src/screens/Desk/Desk.logic.ts';
const logic = (name: string, path = LOGIC): EmittedFile => {
  const text = `import type { ${name}Acts } from './${name}.acts';\n\nexport function use${name}Logic(): Logic<${name}Acts> {\n  return {};\n}\n`;
  return {
    path,
    text,
    lines: text
      .trimEnd()
      .split('\n')
      .map(() => 'desk'),
    owner: 'yours',
  };
};

test('what is theirs is written once, and never again, whatever would be written now', async () => {
  const folder = written(first, await plan(first, [screen(DESK, 'Desk', 'Open'), sheet, logic('Desk')]));
  expect(parseManifest(textIn(folder, MANIFEST_PATH)!).files.find(({ path }) => path === LOGIC)?.owner).toBe(
    'yours',
  );
  const later: EmittedFile = { ...logic('Desk'), text: '// written otherwise by now\n', lines: ['desk'] };
  for (const there of [folder, edit(folder, LOGIC, 'return {}', 'return { root: { hidden: true } }')]) {
    const next = await plan(there, [screen(DESK, 'Desk', 'Open'), sheet, later]);
    expect(fates(next)[LOGIC]).toBe('kept');
    expect(next.asks).toEqual([]);
    expect(textIn(written(there, next), LOGIC)).toBe(textIn(there, LOGIC));
  }
  // Where they took it away, what takes it would not build.
  const without = new Map(folder);
  without.delete(LOGIC);
  expect(fates(await plan(without, [screen(DESK, 'Desk', 'Open'), sheet, logic('Desk')]))[LOGIC]).toBe('new');
});

test('what is theirs goes with its screen when that is called otherwise, and stays when the screen is gone', async () => {
  const folder = written(first, await plan(first, [screen(DESK, 'Desk', 'Open'), sheet, logic('Desk')]));
  const theirs = edit(folder, LOGIC, 'return {}', 'return { handleOpen: { after: ring } }');
  const [to, at] = ['src/screens/Counter/Counter.tsx', 'src/screens/Counter/Counter.logic.ts'];
  const renamed = await plan(theirs, [screen(to, 'Desk', 'Open'), logic('Counter', at)]);
  expect(renamed.asks).toEqual([]);
  const after = written(theirs, renamed);
  expect(after.has(LOGIC)).toBe(false);
  expect(textIn(after, at)).toContain('useCounterLogic(): Logic<CounterActs>');
  expect(textIn(after, at)).toContain('handleOpen: { after: ring }');
  const gone = await plan(theirs, [sheet]);
  expect(gone.asks).toMatchObject([{ path: LOGIC, why: 'ours-removed', side: 'theirs' }]);
  expect(textIn(written(theirs, gone), LOGIC)).toContain('handleOpen');
});
