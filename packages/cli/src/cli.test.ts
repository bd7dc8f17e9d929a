import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { main } from './main.ts';

const demo = path.resolve(__dirname, '../../../demo/iteration-1');
const folder = mkdtempSync(path.join(os.tmpdir(), 'tovel-cli-'));
const at = (name: string): string => path.join(folder, name);
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** Runs a command line; paths of the demo can be written as `@name`. */
async function tovel(line: string): Promise<{ code: number; out: string; said: string }> {
  let [out, said] = ['', ''];
  const args = line.split(' ').map((word) => word.replace(/^@/, `${demo}/`).replace(/^~/, `${folder}/`));
  const code = await main(args, {
    out: (text) => void (out += text),
    say: (text) => void (said += `${text}\n`),
  });
  return { code, out, said };
}

test('drawings become a project with routes from their names', async () => {
  const { code, out, said } = await tovel('intake @welcome.svg @tool-detail.svg @images --out ~two.tovel');
  expect(code).toBe(0);
  expect(out).toBe('');
  expect(said).toContain('1/2 tool-detail.svg');
  const { out: routes } = await tovel('routes ~two.tovel');
  expect(JSON.parse(routes)).toEqual([
    { screen: 'tool-detail', name: 'Tool detail', source: 'tool-detail.svg', path: '/tool-detail' },
    { screen: 'welcome', name: 'Welcome', source: 'welcome.svg', path: '/welcome' },
  ]);
});

test('without a file to write to, the design document is what is printed', async () => {
  const { code, out } = await tovel('intake @cover.svg');
  expect(code).toBe(0);
  expect(JSON.parse(out)).toMatchObject({
    format: 'tovel-design/1',
    screens: [{ key: 'cover', width: 390 }],
  });
});

test('pages are read in a browser, with the links that they have', async () => {
  const { code } = await tovel(`intake ${demo} --out ~all.tovel --widths 390,1280`);
  expect(code).toBe(0);
  const { out } = await tovel('check ~all.tovel');
  const findings = JSON.parse(out) as { code: string }[];
  expect(findings.filter((finding) => finding.code === 'broken-link')).toEqual([]);
  expect(findings.filter((finding) => finding.code === 'open-end').length).toBeGreaterThan(50);
});

test('what stands behind the screens is printed with the places where it stands', async () => {
  const { out } = await tovel('data ~all.tovel');
  const { collections, forms, actions, bindings } = JSON.parse(out) as Record<string, { screen: string }[]>;
  expect(collections).toContainEqual(
    expect.objectContaining({
      name: 'members',
      places: [{ screen: 'desk-members.html', path: expect.any(String), id: null }],
      fields: expect.arrayContaining([
        { name: 'name', label: 'Name', type: 'text' },
        { name: 'loans', label: 'Loans', type: 'number' },
      ]),
      records: 5,
    }),
  );
  expect(forms).toContainEqual(expect.objectContaining({ screen: 'sign-in.svg', purpose: 'sign-in' }));
  expect(actions).toContainEqual(expect.objectContaining({ screen: 'desk-members.html', does: 'next' }));
  expect(bindings.every(({ screen }) => screen.includes('.'))).toBe(true);
});

test('a described API is read beside the screens, and says which lists are whose', async () => {
  const api = path.resolve(demo, '../openapi.yaml');
  const { code, out } = await tovel(`data ~all.tovel --api ${api}`);
  expect(code).toBe(0);
  const { matches, problems } = (JSON.parse(out) as { api: { matches: object[]; problems: object[] } }).api;
  expect(problems).toEqual([]);
  expect(matches).toContainEqual(expect.objectContaining({ collection: 'tools', operation: 'listTools' }));
  expect(matches).toContainEqual(
    expect.objectContaining({ collection: 'members', operation: 'listMembers' }),
  );

  writeFileSync(at('broken.json'), '{"openapi": "3.1.0", "paths": {"/a": 1}}');
  const broken = await tovel('data ~all.tovel --api ~broken.json');
  expect(broken.code).toBe(1);
  expect(broken.said).toContain('/paths/~1a: expected the operations of a path');
  expect((await tovel('data ~all.tovel --api ~none.yaml')).code).toBe(2);
});

test('check ends with 1 when a finding is at the level that is asked about', async () => {
  expect((await tovel('check ~two.tovel')).code).toBe(0);
  expect((await tovel('check ~two.tovel --fail-on warning')).code).toBe(1);
  expect((await tovel('check ~two.tovel --fail-on=error')).code).toBe(0);
});

test('check prints for people and for continuous integration too', async () => {
  const text = await tovel('check ~two.tovel --format text');
  expect(text.out).toMatch(/^warning {2}.* \[dead-end\]$/m);
  const { out, code } = await tovel('check ~two.tovel --format sarif --fail-on warning');
  expect(code).toBe(1);
  expect(JSON.parse(out)).toMatchObject({
    version: '2.1.0',
    runs: [{ tool: { driver: { name: 'Tovel' } } }],
  });
});

test('a next iteration keeps what was wired, says what it did, and asks where it is not sure', async () => {
  const page = (links: string): string => `<title>Desk</title><body><h1>Desk</h1><nav>${links}</nav></body>`;
  const other = '<title>Tools</title><body><h1>Tools</h1><a href="desk.html">Back to the desk</a></body>';
  for (const round of ['one', 'two']) mkdirSync(at(round));
  writeFileSync(at('one/desk.html'), page('<a href="tools.html">All tools</a><a href="desk.html">Today</a>'));
  writeFileSync(at('two/desk.html'), page('<a>Help</a><div><a>All tools</a></div><a>Today</a>'));
  for (const round of ['one', 'two']) writeFileSync(at(`${round}/tools.html`), other);
  await tovel('intake ~one --out ~rounds.tovel');
  const { code, out, said } = await tovel('iterate ~rounds.tovel ~two --out ~second.tovel');
  const { screens, decisions, asks } = JSON.parse(out) as {
    screens: object[];
    decisions: Record<'kept' | 'asked' | 'letGo', number>;
    asks: unknown[];
  };
  expect(screens).toEqual([
    { old: 'desk.html', new: 'desk.html', standing: 'changed' },
    { old: 'tools.html', new: 'tools.html', standing: 'same' },
  ]);
  expect(decisions.kept + decisions.asked + decisions.letGo).toBe(3);
  expect([asks.length, code]).toEqual([decisions.asked, decisions.asked ? 1 : 0]);
  expect(said).toContain('second.tovel:');
  const wired = JSON.parse((await tovel('wiring ~second.tovel')).out) as {
    element: { path: string };
    to: string;
  }[];
  expect(wired).toHaveLength(decisions.kept);
  for (const { element, to } of wired)
    expect(['1/1/1/0 tools.html', '1/1/2 desk.html', '1/1 desk.html']).toContain(`${element.path} ${to}`);
  const none = await tovel('iterate ~rounds.tovel ~two --take none --out ~asked.tovel');
  expect(none.code).toBe(1);
});

test('two versions of a design are matched, by the places in their files', async () => {
  await tovel('intake ~one --out ~one.json');
  await tovel('intake ~two --out ~two.json');
  const found = JSON.parse((await tovel('match ~one.json ~two.json')).out) as {
    screens: { old: string; new: string; score: number }[];
    pairs: { screen: string; oldPath: string; newPath: string; score: number }[];
    added: { path: string }[];
  };
  expect(found.screens.map((screen) => [screen.old, screen.new])).toEqual([
    ['desk.html', 'desk.html'],
    ['tools.html', 'tools.html'],
  ]);
  expect(found.pairs).toContainEqual(
    expect.objectContaining({ screen: 'desk.html', oldPath: '1/1/0', newPath: '1/1/1/0' }),
  );
  expect(found.added.map(({ path: place }) => place)).toContain('1/1/0');
});

test('a flow sheet is printed, and what it says otherwise is taken over; what cannot be read is told with its place', async () => {
  const { out: sheet } = await tovel('flow ~two.tovel');
  expect(sheet).toMatch(/^screen "Welcome" at \/welcome$/m);
  const wired = sheet.replace('at /welcome', 'at /hello\n  press "Sign in" -> back');
  writeFileSync(at('sheet.txt'), wired);
  expect((await tovel('flow ~two.tovel --take ~sheet.txt --out ~moved.tovel')).code).toBe(0);
  expect((await tovel('flow ~moved.tovel')).out).toBe(wired);
  writeFileSync(at('sheet.txt'), wired.replace('press', 'pres'));
  const { code, said } = await tovel('flow ~two.tovel --take ~sheet.txt --out ~wrong.tovel');
  expect(code).toBe(1);
  expect(said).toMatch(/sheet\.txt:\d+:3: “pres” is not what can stand here; expected .*press/);
  expect(said).toContain('Nothing was taken over.');
});

test('journeys are printed as tests; a project without any gives none', async () => {
  const { code, out } = await tovel('journeys ~two.tovel');
  expect(code).toBe(0);
  expect(out).toBe("import { expect, test } from '@playwright/test';\n");
});

test('the screen graph is printed as GraphML, DOT or SCXML', async () => {
  expect((await tovel('graph ~two.tovel --format scxml')).out).toContain('<state id="welcome">');
  expect((await tovel('graph ~two.tovel')).out).toContain('<node id="welcome">');
  expect((await tovel('graph ~two.tovel --format dot')).out).toMatch(/^digraph "two" \{$/m);
});

test('a file that cannot be read is a finding, and the others come in', async () => {
  writeFileSync(at('cut.svg'), readFileSync(path.join(demo, 'welcome.svg')).subarray(0, 700));
  const { code, said, out } = await tovel('intake ~cut.svg @cover.svg');
  expect(code).toBe(1);
  expect(said).toMatch(/error: cut.svg: .*not complete or not well formed/);
  expect(JSON.parse(out).screens).toHaveLength(1);
});

test('emit writes a code base into a new folder, and never over anything', async () => {
  const { code, out } = await tovel('emit ~two.tovel --target react --out ~code');
  expect(code).toBe(0);
  for (const file of JSON.parse(out) as string[])
    expect(existsSync(path.join(folder, 'code', file))).toBe(true);
  const plain = JSON.parse((await tovel('emit ~two.tovel --target html --out ~plain')).out) as string[];
  expect(plain.filter((file) => file.endsWith('.html')).length).toBeGreaterThan(1);
  const [screen] = (JSON.parse(out) as string[]).filter((file) => /screens\/.*\.tsx$/.test(file));
  const name = path.basename(screen, '.tsx');
  const alone = await tovel(`emit ~two.tovel --only ${name} --out ~alone`);
  expect(alone.said).toBe('');
  const one = JSON.parse(alone.out) as string[];
  expect(one[0]).toBe(screen);
  expect(one).not.toContain('package.json');
  const again = await tovel('emit ~two.tovel --target react --out ~code');
  expect(again).toMatchObject({ code: 2, said: expect.stringContaining('is not empty') });
});

test.each([
  ['', 2, /tovel intake PATH/],
  ['fly', 2, /no command fly/],
  ['intake', 2, /Which files/],
  ['intake ~nowhere', 2, /There is no file or folder/],
  ['intake @cover.svg --widths wide', 2, /whole numbers/],
  ['intake @cover.svg --out x.pdf', 2, /\.json or \.tovel/],
  ['intake @cover.svg --colour red', 2, /no option --colour/],
  ['routes', 2, /Which project/],
  ['routes ~nowhere.tovel', 2, /There is no file/],
  ['routes @cover.svg', 2, /not a .tovel file/],
  ['check ~two.tovel --fail-on all', 2, /error or warning/],
  ['check ~two.tovel --format xml', 2, /json, text or sarif/],
  ['graph ~two.tovel --format svg', 2, /graphml, dot,? or scxml/],
  ['emit ~two.tovel --target paper --out ~x', 2, /--target takes .*react.*vue.*html/],
  ['emit ~two.tovel --only Nowhere --out ~x', 2, /no screen, component or file “Nowhere”/],
  ['emit ~two.tovel --target react', 2, /Where to/],
  ['iterate ~two.tovel', 2, /Where to/],
  ['iterate ~two.tovel --out ~x.tovel', 2, /Which files are the new iteration/],
  ['iterate ~two.tovel @cover.svg --take all --out ~x.tovel', 2, /sure or none/],
  ['match ~two.tovel', 2, /Which design/],
  ['wiring', 2, /Which project/],
])('tovel %s ends with %i and says why', async (line, code, message) => {
  const ended = await tovel(line);
  expect(ended.code).toBe(code);
  expect(ended.said).toMatch(message);
  expect(ended.out).toBe('');
});

test.each(['--help', 'intake --help', 'routes --help', 'check --help', 'emit --help'])(
  '%s explains',
  async (line) => {
    const { code, out } = await tovel(line);
    expect(code).toBe(0);
    expect(out).toContain('tovel');
    expect(out.split('\n').every((row) => row.length <= 100)).toBe(true);
  },
);

const fixtures = path.resolve(__dirname, '../../../e2e/fixtures');
const screensIn = (
  name: string,
): { key: string; name: string; regions?: { kind: string; text?: string }[] }[] =>
  (JSON.parse(readFileSync(at(name), 'utf8')) as { screens: [] }).screens;

test('pictures come in as screens, with the text that was read in them', async () => {
  const { code } = await tovel(`intake ${fixtures}/pictures --out ~pictures.json`);
  expect(code).toBe(0);
  const [first] = screensIn('pictures.json');
  expect(first.regions!.map((region) => region.text)).toEqual(
    expect.arrayContaining(['Hedge trimmer', 'Reserve all three']),
  );
  expect(screensIn('pictures.json')[1].regions!.filter((region) => region.kind === 'row')).toHaveLength(3);
});

test('layered pictures and PDF files come in, a page a screen', () => {
  // The PDF library is a module that only a process of its own can load here.
  const out = at('papers.json');
  const run = spawnSync(
    process.execPath,
    [path.resolve(__dirname, '../bin/tovel.mjs'), 'intake', path.join(fixtures, 'papers'), '--out', out],
    { encoding: 'utf8' },
  );
  expect([run.status, run.stderr.match(/hidden layer “Guides”/)?.length]).toEqual([0, 1]);
  expect(screensIn('papers.json').map((screen) => [screen.key, screen.name])).toEqual([
    ['kiosk', 'Kiosk'],
    ['leaflet-1', 'Leaflet'],
    ['leaflet-2', 'Opening times'],
  ]);
});

test('a page of utility classes is compiled, its icons are drawn and its fonts come along', async () => {
  const { said } = await tovel(`intake ${fixtures}/pages --out ~pages.json`);
  expect(said).toContain('“plugins[0]” is not plain data');
  expect(said).toContain(
    'The font “Grenze Gotisch” comes from a font service and is not among those that Tovel ships; “Georgia”',
  );
  const design = readFileSync(at('pages.json'), 'utf8');
  expect(design).toContain('"background-color": "rgb(47, 74, 58)"');
  expect((JSON.parse(design) as { fonts: { family: string }[] }).fonts.map(({ family }) => family)).toEqual([
    'Inter',
    'Material Icons',
  ]);
});

describe('inferences of a design', () => {
  beforeAll(async () => {
    await tovel('intake @sign-in.svg @my-loans.svg @images --out ~design.json');
  });

  test('roles are printed with path, confidence and reason', async () => {
    const { code, out } = await tovel('roles ~design.json');
    expect(code).toBe(0);
    const rows = JSON.parse(out) as {
      screen: string;
      path: string;
      role: string;
      confidence: number;
      type?: string;
    }[];
    expect(rows).toContainEqual(
      expect.objectContaining({ screen: 'sign-in.svg', path: '5/1', role: 'textbox', type: 'email' }),
    );
    expect(rows.every((row) => row.confidence > 0 && row.confidence <= 1)).toBe(true);
  });

  test('a team’s own components are proposed for drawn ones, and taken over', async () => {
    await tovel(`intake ${demo} --out ~own.tovel`);
    const parts = path.resolve(demo, '../../e2e/fixtures/team-parts');
    const { code, out, said } = await tovel(
      `library ~own.tovel --from ${parts} --take sure --out ~taken.tovel`,
    );
    expect(code).toBe(0);
    const read = JSON.parse(out) as {
      library: string;
      components: { name: string; looks?: { given: object; tag: string }[] }[];
      proposals: { component: string; may_be: { component: string; props: object; confidence: number }[] }[];
      unmatched: string[];
    };
    expect(read.library).toBe('@mossgate/parts');
    const button = read.components.find(({ name }) => name === 'Button');
    expect(button?.looks).toContainEqual(
      expect.objectContaining({ given: { look: 'quiet' }, tag: 'button' }),
    );
    expect(read.proposals.find(({ component }) => component === 'Field')?.may_be[0]).toMatchObject({
      component: 'Field',
      props: { label: { prop: 'name' }, value: { prop: 'text' } },
    });
    expect(read.unmatched).toContain('RuleItem');
    expect(said).toContain('Field is Field');
    await tovel('emit ~taken.tovel --out ~taken');
    expect(readFileSync(at('taken/src/components/Field/Field.tsx'), 'utf8')).toContain(
      "from '@mossgate/parts'",
    );
  });

  test('a folder that is no library is refused in words', async () => {
    expect(await tovel(`library ~design.tovel --from ${folder}/none`)).toMatchObject({ code: 2 });
    mkdirSync(at('empty'), { recursive: true });
    const { code, said } = await tovel(`library ~two.tovel --from ${at('empty')}`);
    expect(code).toBe(2);
    expect(said).toContain('There is no TypeScript source');
  });

  test('components and lists are printed as groups of paths', async () => {
    const { code, out } = await tovel('components ~design.json');
    expect(code).toBe(0);
    const groups = JSON.parse(out) as {
      kind: string;
      name: string;
      places: { screen: string; path: string }[];
      within?: { path: string };
    }[];
    const loans = groups.find((group) => group.name === 'LoanCard')!;
    expect(loans.kind).toBe('list');
    expect(loans.within?.path).toBe('4');
    expect(loans.places.map((place) => place.path)).toEqual(['4/0', '4/1', '4/2']);
  });

  test('targets are printed with the files that they lead from and to', async () => {
    const { code, out } = await tovel('links ~design.json');
    expect(code).toBe(0);
    const rows = JSON.parse(out) as {
      from: string;
      element: { path: string };
      to: string;
      confidence: number;
    }[];
    expect(rows).toContainEqual(
      expect.objectContaining({
        from: 'my-loans.svg',
        element: { path: '6/3', id: 'Tab_My_loans' },
        to: 'my-loans.svg',
      }),
    );
  });

  test('both read projects, too, and say what they cannot read', async () => {
    await tovel('intake @sign-in.svg --out ~one.tovel');
    expect((await tovel('roles ~one.tovel')).code).toBe(0);
    expect(await tovel('roles ~nowhere.json')).toMatchObject({
      code: 2,
      said: expect.stringContaining('There is no file') as string,
    });
    writeFileSync(at('no.json'), '{"format":"other"}');
    expect(await tovel('components ~no.json')).toMatchObject({
      code: 2,
      said: expect.stringContaining('no design document') as string,
    });
    expect((await tovel('components')).code).toBe(2);
  });
});
