import { all, applyChange, putInteraction, putToken } from '../change/change.ts';
import { FLOW_SHEET } from '../flow/print_flow.ts';
import { pressTo } from '../model/interaction.ts';
import type { Project } from '../model/project.ts';
import { projectOf, screenOf, screenWith, svg } from '../testing/build.ts';
import { plannerInto } from './into.ts';
import { takeOffers } from './read_back.ts';

type Folder = Map<string, Uint8Array>;
const decoder = new TextDecoder();

const LONG =
  'Mossgate neighbours share two hundred and fourteen tools from three sheds, and membership is free for all.';
const home = screenOf(
  svg(
    `<text x="24" y="60" font-size="26">Tools & sheds</text><text x="24" y="120" font-size="15" id="Words">${LONG}</text><g id="b0" data-name="Button"><rect x="24" y="200" width="342" height="48" fill="#224433"/><text x="195" y="229" text-anchor="middle" fill="#fff">Browse</text></g>`.replace(
      '& sheds',
      '&amp; sheds',
    ),
  ),
  'home',
);

const desk = (): Project => {
  const project = projectOf(home, screenWith('tools', 'Saw'), screenWith('loans', 'Return'));
  const button = project.design.screens[0].root.children.find(({ name }) => name === 'Button')!.key;
  return {
    ...project,
    app: applyChange(
      project.app,
      all([
        putInteraction(button, pressTo({ kind: 'screen', screen: 'tools' })),
        putToken('moss', { kind: 'color', value: '#224433', from: ['#224433'] }),
      ]),
    ),
  };
};

const plan = async (project: Project, folder: Folder) =>
  (
    await plannerInto({
      project,
      name: 'Desk',
      target: 'react',
      pictureOf: () => undefined,
      folder: {
        read: (path) => Promise.resolve(folder.get(path) ?? null),
        list: () => Promise.resolve([...folder.keys()]),
      },
    })
  )(new Map());

async function delivered(project: Project): Promise<Folder> {
  const { writes } = await plan(project, new Map());
  return new Map([...writes].flatMap(([path, bytes]) => (bytes ? [[path, bytes] as const] : [])));
}

let project: Project;
let folder: Folder;
beforeAll(async () => {
  project = desk();
  folder = await delivered(project);
});

/** The folder with some of its texts written otherwise. */
const edited = (
  ...edits: readonly (readonly [path: string, from: string | RegExp, to: string])[]
): Folder => {
  const next = new Map(folder);
  for (const [path, from, to] of edits) {
    const text = decoder.decode(next.get(path)!);
    expect(text).toMatch(from);
    next.set(path, new TextEncoder().encode(text.replace(from, to)));
  }
  return next;
};
const HOME = 'src/screens/Home/Home.tsx';
const says = async (there: Folder) => (await plan(project, there)).offers.map((offer) => offer.says);

test('nothing is offered where nobody changed anything', async () => {
  expect((await plan(project, folder)).offers).toEqual([]);
});

test.each<[string, readonly [string, string | RegExp, string], string]>([
  ['a text', [HOME, /\bBrowse\b/, 'Look around'], '“Look around”, was “Browse”'],
  [
    'a text with signs',
    [HOME, 'Tools &amp; sheds', 'Sheds &amp; tools'],
    '“Sheds & tools”, was “Tools & sheds”',
  ],
  [
    'a text over several lines',
    [HOME, 'and membership is', 'and joining is'],
    `“${LONG.replace('membership', 'joining')}”, was “${LONG}”`,
  ],
  ['where a link leads', [HOME, 'to="/tools"', 'to="/loans"'], 'The link leads to Loans, was Tools'],
  [
    'a value of a class',
    ['src/screens/Home/Home.module.css', 'font-size: 26px;', 'font-size: 31px;'],
    'font-size: 31px, was 26px',
  ],
  ['the value of a token', ['src/styles/tokens.css', '#243', '#132'], 'Token moss: #132, was #243'],
  [
    'a colour that nobody named',
    ['src/styles/tokens.css', '--color-white: #fff', '--color-white: #fea'],
    'Token color-white: #fea, was #fff',
  ],
  [
    'the address of a screen',
    ['src/routes.tsx', "path: '/loans'", "path: '/my-loans'"],
    'Loans is at /my-loans, was at /loans',
  ],
  [
    'an address that leads to a screen',
    [
      'src/routes.tsx',
      /(import \{ Shell \}[^]*)( {6}\{ path: '\*')/,
      "import { Redirect } from './navigation/Redirect';\n$1      { path: '/borrowed', element: <Redirect to=\"/loans\" /> },\n$2",
    ],
    '/borrowed leads to Loans',
  ],
  ['the flow sheet', [FLOW_SHEET, 'at /loans', 'at /my/loans'], 'The flow sheet says one thing otherwise'],
])('%s is offered, and taken over it makes the code say the same', async (_, edit, expected) => {
  const there = edited(edit);
  const { offers } = await plan(project, there);
  expect(offers.map((offer) => offer.says)).toEqual([expected]);
  const taken = { ...project, app: applyChange(project.app, takeOffers(offers)) };
  const after = await plan(taken, there);
  expect(after.asks).toEqual([]);
  expect(after.offers).toEqual([]);
  const fate = after.files.find(({ path }) => path === edit[0])!.fate;
  expect(fate).toBe('same');
});

test('several are offered apart, and what only code can say is not', async () => {
  const there = edited(
    [HOME, /\bBrowse\b/, 'Look around'],
    [HOME, 'to="/tools"', 'to="/loans"'],
    [HOME, 'export function', "console.log('here');\nexport function"],
  );
  expect(await says(there)).toEqual(['The link leads to Loans, was Tools', '“Look around”, was “Browse”']);
  expect(await says(edited([HOME, 'to="/tools"', 'to="/nowhere"']))).toEqual([]);
  expect(await says(edited([HOME, /\bBrowse\b/, '{count} tools']))).toEqual([]);
});
