import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { findLists } from '../components/find.ts';
import { readSvg } from '../intake/svg/read_svg.ts';
import type { Screen } from '../model/design.ts';
import { inferRoles } from './infer.ts';
import { scoreRoles } from './score.ts';
import { sightOf } from './sight.ts';

/** What people say of the demo's drawings, by file and path. */
interface Truth {
  readonly roles: Readonly<Record<string, Readonly<Record<string, string>>>>;
  /** The rows of each list. */
  readonly lists: Readonly<Record<string, readonly (readonly string[])[]>>;
}

const root = path.resolve(__dirname, '../../../..');
const folder = path.join(root, 'demo/iteration-1');
const truth = JSON.parse(readFileSync(path.join(root, 'bench/truth/demo.json'), 'utf8')) as Truth;
const screens = readdirSync(folder)
  .filter((file) => file.endsWith('.svg'))
  .map((file): Screen => {
    const text = readFileSync(path.join(folder, file), 'utf8');
    return readSvg({ file, text, screenKey: file.replace('.svg', ''), asset: () => 'a'.repeat(64) }).screen!;
  });

test('roles of the demo’s drawings agree with what people say: macro F1 of at least 0.85', () => {
  const [right, found] = [new Map<string, string>(), new Map<string, string>()];
  for (const screen of screens) {
    const { file } = screen.source;
    const guesses = inferRoles(screen);
    for (const [place, role] of Object.entries(truth.roles[file])) right.set(`${file} ${place}`, role);
    for (const { element } of sightOf(screen).all) {
      const guess = guesses.get(element.key);
      if (guess) found.set(`${file} ${element.source.path}`, guess.role);
    }
  }
  const score = scoreRoles(right, found);
  expect(right.size).toBeGreaterThan(150);
  expect(score.macroF1).toBeGreaterThanOrEqual(0.85);
});

test('lists of the demo’s drawings are found: F1 of at least 0.9', () => {
  const name = (file: string, rows: readonly string[]): string => `${file} ${rows.join()}`;
  const right = new Set(
    Object.entries(truth.lists).flatMap(([file, lists]) => lists.map((rows) => name(file, rows))),
  );
  const found = new Set(
    screens.flatMap((screen) =>
      findLists(screen).map((list) =>
        name(
          screen.source.file,
          list.places.map((key) => key.slice(key.indexOf(':') + 1)),
        ),
      ),
    ),
  );
  const hits = [...found].filter((list) => right.has(list)).length;
  const [precision, recall] = [hits / found.size, hits / right.size];
  expect((2 * precision * recall) / (precision + recall)).toBeGreaterThanOrEqual(0.9);
});
