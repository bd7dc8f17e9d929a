import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';

const root = import.meta.dirname;

interface Arrow {
  readonly from: string;
  readonly to: string;
}

/** What each file takes from another one of the core, tests apart. */
const arrows: readonly Arrow[] = readdirSync(root, { recursive: true, withFileTypes: true })
  .filter((entry) => entry.isFile() && entry.name.endsWith('.ts') && !entry.name.endsWith('.test.ts'))
  .flatMap((entry) => {
    const file = path.join(entry.parentPath, entry.name);
    const from = path.relative(root, file);
    return [...readFileSync(file, 'utf8').matchAll(/(?:from |import\()'(\.[^']+)'/g)].map(
      ([, to]): Arrow => ({ from, to: path.relative(root, path.resolve(path.dirname(file), to)) }),
    );
  });

const folderOf = (file: string): string => (file.includes('/') ? file.split('/')[0] : '');

test('the folders of the core do not import each other in circles', () => {
  const next = new Map<string, Map<string, Arrow>>();
  for (const arrow of arrows) {
    const [from, to] = [folderOf(arrow.from), folderOf(arrow.to)];
    // What holds all together, and what only tests take, are on no way.
    if (!from || !to || from === to || from === 'testing') continue;
    next.set(from, (next.get(from) ?? new Map<string, Arrow>()).set(to, arrow));
  }
  const done = new Set<string>();
  const circles: string[] = [];
  const visit = (folder: string, way: readonly string[]): void => {
    const at = way.indexOf(folder);
    if (at >= 0) circles.push([...way.slice(at), folder].join(' → '));
    if (at >= 0 || done.has(folder)) return;
    for (const to of next.get(folder)?.keys() ?? []) visit(to, [...way, folder]);
    done.add(folder);
  };
  for (const folder of next.keys()) visit(folder, []);
  expect(circles).toEqual([]);
});

test.each([
  ['the form of what is emitted knows no target', 'emit/form/', /^emit\/(react|html|vue)\//],
  ['styles of all targets know none of them', 'emit/styles/', /^emit\/(react|html|vue)\//],
  ['React knows no other target', 'emit/react/', /^emit\/vue\//],
  ['what documents may say knows no document', 'vocabulary/', /^(?!vocabulary\/|json\/)/],
  ['the model knows no emission, intake or proposal', 'model/', /^(emit|intake|links|wire|layers|graph)\//],
])('%s', (_, from, never) => {
  expect(arrows.filter((arrow) => arrow.from.startsWith(from) && never.test(arrow.to))).toEqual([]);
});
