import { all, applyChange, type Change, putEdit, putInteraction, putScreen } from '../change/change.ts';
import { editKey } from '../model/edit_key.ts';
import { pressTo } from '../model/interaction.ts';
import type { Project } from '../model/project.ts';
import { projectOf, screenOf, screenWith, svg } from '../testing/build.ts';
import type { EmittedProject } from '../emit/emitted.ts';
import { deliveredCode } from './delivered_code.ts';
import { decideHandWritten, readCode } from './hand_written.ts';
import { conditionAt, longhandsOf } from './style_offers.ts';

const home = screenOf(
  svg(
    '<text x="24" y="60" font-size="26" fill="#224433">Tools</text><text x="24" y="120" font-size="15">Three sheds</text><g data-name="Button"><rect x="24" y="200" width="342" height="48" fill="#224433"/><text x="195" y="229" text-anchor="middle" fill="#fff">Browse</text></g>',
  ),
  'home',
);

function desk(): Project {
  const project = projectOf(home, screenWith('tools', 'Saw'));
  const button = home.root.children.find(({ name }) => name === 'Button')!.key;
  const app = applyChange(project.app, putInteraction(button, pressTo({ kind: 'screen', screen: 'tools' })));
  return { ...project, app };
}

const HOME = 'src/screens/Home/Home.tsx';
const SHEET = 'src/screens/Home/Home.module.css';
const write = (project: Project): Promise<EmittedProject> => deliveredCode(project, 'Desk', 'react');
const textAt = ({ files }: EmittedProject, path: string): string => {
  const file = files.find((one) => one.path === path);
  return file && 'text' in file ? file.text : '';
};
const changed = (project: Project, ...changes: readonly Change[]): Project => ({
  ...project,
  app: applyChange(project.app, all(changes)),
});

/** The project after a file was written otherwise, with what that meant. */
async function after(project: Project, path: string, from: string, to: string) {
  const text = textAt(await write(project), path);
  expect(text).toContain(from);
  const read = await readCode(project, 'Desk', 'react', path, text.replace(from, to));
  return {
    says: read.offers.map(({ says }) => says),
    isKept: read.isKept,
    project: read.change ? changed(project, read.change) : project,
  };
}

test.each([
  [HOME, 'Three sheds', 'Four sheds', '“Four sheds”, was “Three sheds”'],
  [SHEET, 'font-size: 26px;', 'font-size: 30px;', 'font-size: 30px, was 26px'],
])('what means something in the project becomes a change of it: %s, %s', async (path, from, to, says) => {
  const read = await after(desk(), path, from, to);
  expect(read.says).toEqual([says]);
  expect(read.isKept).toBe(false);
  expect(read.project.app.handWritten).toEqual({});
  expect(textAt(await write(read.project), path)).toContain(to);
});

test('what means nothing there is kept as it is written, and lives through changes of the design', async () => {
  const read = await after(desk(), HOME, 'return (', "console.info('seen');\n\n  return (");
  expect(read.says).toEqual([]);
  expect(read.isKept).toBe(true);
  const text = home.root.children[1].key;
  const next = changed(read.project, putEdit(editKey(text, 'text'), 'Five sheds'));
  const code = textAt(await write(next), HOME);
  expect(code).toContain("console.info('seen');");
  expect(code).toContain('Five sheds');
  // A screen that is called otherwise takes it along.
  const renamed = changed(next, putScreen('home', { ...next.app.screens.home, name: 'Begin' }));
  expect(textAt(await write(renamed), 'src/screens/Begin/Begin.tsx')).toContain("console.info('seen');");
  // Of both kinds in one file, each becomes what it is.
  const both = await after(next, HOME, "console.info('seen');", "console.info('seen twice');");
  expect(Object.keys(both.project.app.handWritten)).toEqual([HOME]);
  // What is taken back by hand is gone.
  const back = await after(read.project, HOME, "console.info('seen');\n\n  ", '');
  expect(back.project.app.handWritten).toEqual({});
});

test('where both say something else what people wrote stands until it is decided', async () => {
  const read = await after(desk(), HOME, '>Three sheds<', ' data-sheds={3}>{sheds}<');
  expect(read.isKept).toBe(true);
  const text = home.root.children[1].key;
  const next = changed(read.project, putEdit(editKey(text, 'text'), 'Five sheds'));
  const emitted = await write(next);
  const [part] = emitted.handWritten!;
  expect(part.conflicts).toHaveLength(1);
  expect(textAt(emitted, HOME)).toContain('{sheds}');
  const ours = await write(changed(next, decideHandWritten(next.app, part, 'ours')));
  expect(textAt(ours, HOME)).toContain('Five sheds');
  expect(textAt(ours, HOME)).toContain('data-sheds={3}');
  expect(ours.handWritten![0].conflicts).toEqual([]);
  const theirs = await write(changed(next, decideHandWritten(next.app, part, 'theirs')));
  expect(textAt(theirs, HOME)).toContain('{sheds}');
  expect(theirs.handWritten![0].conflicts).toEqual([]);
});

test('a file that is gone, and one that is too long, are told', async () => {
  const project = desk();
  await expect(readCode(project, 'Desk', 'react', 'src/Nobody.tsx', '')).rejects.toThrow(
    'no file src/Nobody.tsx',
  );
  await expect(readCode(project, 'Desk', 'react', HOME, 'x'.repeat(200_001))).rejects.toThrow('200001');
  const { project: kept } = await after(project, HOME, 'return (', 'void 0;\n  return (');
  const gone = changed(kept, putScreen('home', { ...kept.app.screens.home, use: 'skip' }));
  const emitted = await write(gone);
  expect(emitted.handWritten).toEqual([{ path: HOME, file: null, generated: '', conflicts: [] }]);
});

test.each([
  [
    'margin',
    '0 auto',
    { 'margin-top': '0', 'margin-right': 'auto', 'margin-bottom': '0', 'margin-left': 'auto' },
  ],
  [
    'padding',
    '1px 2px 3px',
    { 'padding-top': '1px', 'padding-right': '2px', 'padding-bottom': '3px', 'padding-left': '2px' },
  ],
  ['gap', '4px', { 'row-gap': '4px', 'column-gap': '4px' }],
  ['color', 'rgb(1 2 3 / 40%)', { color: 'rgb(1 2 3 / 40%)' }],
  ['margin', '1px 2px 3px 4px 5px', {}],
])('%s: %s says %j', (property, value, longhands) => {
  expect(longhandsOf(property, value)).toEqual(longhands);
});

const sheet = [
  '.card {',
  '  color: red;',
  '}',
  '',
  '@media (width <= 600px) {',
  '  .card {',
  '    color: blue;',
  '  }',
  '}',
  '',
  '.card:hover {',
  '  color: green;',
  '}',
  '',
  '.card > p {',
  '  color: gray;',
  '}',
];
test.each([
  [1, { kind: 'always' }],
  [6, { kind: 'upTo', width: 600 }],
  [11, { kind: 'state', state: 'hover' }],
  [15, null],
])('line %i of a sheet holds %j', (line, condition) => {
  expect(conditionAt(sheet, line)).toEqual(condition);
});
