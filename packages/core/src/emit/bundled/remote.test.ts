import { readFileSync } from 'node:fs';
import path from 'node:path';
import {
  all,
  applyChange,
  type Change,
  putApi,
  putBinding,
  putCollection,
  putForm,
  putInteraction,
  putVariable,
} from '../../change/change.ts';
import { behindBy } from '../../described/behind.ts';
import { apiOf } from '../../described/keep.ts';
import { keptApi } from '../../described/read_document.ts';
import { makeWork, sortingHeads } from '../../data/make_work.ts';
import { makeCalls, proposeCalls } from '../../data/make_calls.ts';
import { makeForms } from '../../data/make_forms.ts';
import { proposeData } from '../../data/propose.ts';
import { labelOf } from '../../links/pressable.ts';
import { pressTo } from '../../model/interaction.ts';
import { findElement } from '../../model/places.ts';
import type { Project } from '../../model/project.ts';
import { projectOf } from '../../testing/build.ts';
import { desk, pageOf } from '../../testing/desk.ts';
import { typeErrors } from '../../testing/typecheck.ts';
import { vueProblems } from '../../testing/vue_problems.ts';
import type { EmittedProject } from '../emitted.ts';
import { emitHtml } from '../html/emit_html.ts';
import { emitReact } from '../react/emit_react.ts';
import { emitVue } from '../vue/emit_vue.ts';

const text = readFileSync(path.resolve(__dirname, '../../../../../demo/openapi.yaml'), 'utf8');

/** The desk with all its controls working, and its members from the API. */
function remote(document = text): Project {
  const project = desk();
  const found = proposeData(project.design);
  const take = (made: Project, actions: Parameters<typeof makeWork>[2]): Project => ({
    ...made,
    app: applyChange(made.app, makeWork(made, found, actions).change ?? all([])),
  });
  let made = take(project, found.actions);
  made = take(
    made,
    Object.values(made.app.collections).flatMap((collection) => sortingHeads(made, collection)),
  );
  const [id] = Object.keys(made.app.collections);
  const app = applyChange(made.app, putApi('library', keptApi(document).api));
  const behind = behindBy('library', apiOf(app, 'library')!, 'listMembers', app.collections[id])!;
  return { ...made, app: applyChange(app, putCollection(id, { ...app.collections[id], behind })) };
}

const project = remote();
const react = emitReact(project, 'Desk');
const vue = emitVue(project, 'Desk');
const textOf = ({ files }: EmittedProject, file: string): string => {
  const found = files.find((one) => one.path === file);
  return found && 'text' in found ? found.text : '';
};
const api = textOf(react, 'src/api/mossgateToolLibrary.ts');
const data = textOf(react, 'src/data/members.ts');
const members = react.files
  .flatMap((file) =>
    'text' in file && /^src\/screens\/Members\/.*\.tsx$/.test(file.path) ? [file.text] : [],
  )
  .join('\n');

test('what is written for React and for Vue passes their compilers', () => {
  expect(typeErrors([react])).toEqual([]);
  expect(vueProblems([vue])).toEqual([]);
}, 60_000);

test.each([
  ['where it is says the environment', api, 'import.meta.env.VITE_MOSSGATE_TOOL_LIBRARY_URL ||'],
  ['records have the types of the document', api, 'loanCount?: number;'],
  ['requests can be ended', api, 'signal?: AbortSignal'],
  ['only what is asked is written', api, /^(?!.*listTools)/s],
  ['fields are read from what the API calls them', data, 'street: said(member.address)'],
  ['the API sorts', data, "sort: ['name', 'street', 'loans'"],
  ['by what it calls the field', data, "street: 'address'"],
  ['and in its own way', data, "asked.sort.startsWith('-') ? 'desc' : 'asc'"],
  ['the key is asked for', data, 'id: said(member.id)'],
  ['lists are looked at as before', data, 'export const useMembers'],
  ['a list says that it waits', members, 'members.isWaiting && ('],
  ['and what went wrong', members, '{members.problem}'],
  ['and is asked again', members, 'members.retry()'],
  ['and that none fits', members, 'members.found === 0 && !members.isWaiting && !members.problem'],
])('%s', (_, code, expected) => {
  if (typeof expected === 'string') expect(code).toContain(expected);
  else expect(code).toMatch(expected);
});

test.each([
  ['React', react, '@tanstack/react-query', 'src/main.tsx', 'QueryClientProvider'],
  ['Vue', vue, '@tanstack/vue-query', 'src/main.ts', 'VueQueryPlugin'],
])('an app of %s has what comes over the network', (_, { files }, dependency, main, provider) => {
  const packages = JSON.parse(textOf({ files } as EmittedProject, 'package.json')) as {
    dependencies: object;
    scripts: Record<string, string>;
  };
  expect(packages.dependencies).toHaveProperty([dependency]);
  expect(packages.scripts.api).toBe('vite --config api/vite.config.ts');
  expect(textOf({ files } as EmittedProject, main)).toContain(provider);
  const paths = files.map((file) => file.path);
  expect(paths).toEqual(
    expect.arrayContaining([
      '.env.example',
      'api/answer.ts',
      'api/mossgate-tool-library.json',
      'api/plugin.ts',
      'src/records/asked.ts',
      'src/testing/apis.ts',
    ]),
  );
  // What only records in the app need is not there.
  expect(paths).not.toContain('src/records/useListing.ts');
});

test('an app without an API has nothing of one', () => {
  const { files } = emitReact(desk(), 'Desk');
  expect(files.filter(({ path: file }) => /(^|\/)api\/|env|remote/.test(file))).toEqual([]);
  expect(textOf({ files } as EmittedProject, 'package.json')).not.toContain('query');
});

test('the environment is named and never said', () => {
  expect(textOf(react, '.env.example')).toMatch(/^VITE_MOSSGATE_TOOL_LIBRARY_URL=$/m);
  expect(textOf(react, '.gitignore')).toContain('.env\n');
});

const SCHEMES = `components:
  securitySchemes:
    app: { type: apiKey, in: header, name: X-Api-Key }
    place: { type: apiKey, in: query, name: branch }
    where: { type: apiKey, in: query, name: url }
    visit: { type: apiKey, in: cookie, name: session }
    door: { type: http, scheme: basic }
    unused: { type: apiKey, in: header, name: X-Other }
`;

test('what an API has to be sent along is said by the environment', () => {
  const document = text
    .replace(/^components:\n/m, SCHEMES)
    .replace(
      /^paths:/m,
      'security: [{ app: [], place: [], where: [] }, { visit: [] }, { door: [] }]\npaths:',
    );
  const written = emitReact(remote(document), 'Desk');
  const requests = textOf(written, 'src/api/mossgateToolLibrary.ts');
  expect(requests).toContain("'X-Api-Key': import.meta.env.VITE_MOSSGATE_TOOL_LIBRARY_API_KEY");
  expect(requests).toContain(
    'query: { branch: import.meta.env.VITE_MOSSGATE_TOOL_LIBRARY_BRANCH, url: import.meta.env.VITE_MOSSGATE_TOOL_LIBRARY_URL_KEY }',
  );
  expect(requests).toContain("credentials: 'include'");
  expect(requests).toContain('`Basic ${btoa(import.meta.env.VITE_MOSSGATE_TOOL_LIBRARY_LOGIN)}`');
  expect(requests).not.toContain('OTHER');
  const environment = textOf(written, '.env.example');
  expect(environment).toMatch(/^VITE_MOSSGATE_TOOL_LIBRARY_API_KEY=$/m);
  expect(environment).toMatch(/^VITE_MOSSGATE_TOOL_LIBRARY_BRANCH=$/m);
  expect(environment).toContain('Whoever opens the app can read it.');
  expect(typeErrors([written])).toEqual([]);
}, 60_000);

test('what loads a screen anew whose records come from an API asks that once more', () => {
  const key = Object.keys(project.app.interactions).find((one) => {
    const drawn = findElement(project.design, one);
    return drawn !== null && labelOf(drawn) === 'Next';
  })!;
  const anew = putInteraction(key, pressTo({ kind: 'browser', does: 'reload' }));
  const made = { ...project, app: applyChange(project.app, anew) };
  const [inReact, inVue] = [emitReact(made, 'Desk'), emitVue(made, 'Desk')];
  for (const { files } of [inReact, inVue]) {
    const texts = files.flatMap((file) => ('text' in file ? [file.text] : [])).join('\n');
    expect(texts).toContain('askAnew();');
    expect(texts).not.toContain('location.reload');
    expect(texts).toMatch(/"answered":\s*true/);
  }
  expect(typeErrors([inReact])).toEqual([]);
  expect(vueProblems([inVue])).toEqual([]);
}, 60_000);

test('plain pages show what was drawn', () => {
  const { files } = emitHtml(project, 'Desk');
  expect(files.some(({ path: file }) => file.startsWith('api/'))).toBe(false);
});

test('a form waits for the API, and goes on when that has taken what it says', () => {
  const { app } = project;
  const [id] = Object.keys(app.collections);
  const [field, submit] = ['input', 'button'].map(
    (tag) => JSON.stringify(project.design).match(new RegExp(`"key":"([^"]+)"[^{}]*"tag":"${tag}"`))?.[1],
  );
  if (!field || !submit) throw new Error('the desk has no field or no button');
  const behind = { ...app.collections[id].behind!, list: 'listTools', add: 'addTool', key: 'id' };
  const made = [
    putCollection(id, { ...app.collections[id], behind: { ...behind, fields: { name: 'name' } } }),
    putForm(field, { fields: [{ element: field, field: 'name', required: true }], submit }),
    putInteraction(submit, {
      on: 'press',
      before: [{ kind: 'record', collection: id, deed: { kind: 'add', form: field } }],
      target: { kind: 'screen', screen: project.design.screens[0].key },
      arrival: { kind: 'none' },
    } as never),
  ].reduce(applyChange, app);
  const { files } = emitReact({ ...project, app: made }, 'Desk');
  const code = files
    .flatMap((file) => ('text' in file && file.path.endsWith('.tsx') ? [file.text] : []))
    .join('');
  expect(code).toMatch(
    /async \(values: Values\) => \{\s+await members\.add\(\{ name: values\.name \}\);\s+go\(/,
  );
});

test('what an API keeps is counted by variables and steps, and its lists show what is said', () => {
  const { app } = project;
  const [[id, members]] = Object.entries(app.collections);
  const button = JSON.stringify(project.design).match(/"key":"([^"]+)"[^{}]*"tag":"button"/)?.[1];
  if (!button) throw new Error('the desk has no button');
  const { name } = members;
  const field = members.fields.find(({ type }) => type === 'text')!.name;
  const step = { kind: 'set', condition: 'n', value: `count(${name}) + 1` } as const;
  const add = { kind: 'record', collection: id, deed: { kind: 'add', says: { [field]: "'New'" } } } as const;
  const made = [
    putVariable('n', { name: 'N', type: 'number', initial: 0 }),
    putVariable('all', { name: 'All', type: 'number', initial: 0, says: `count(${name}) * 2` }),
    putBinding(members.rows[0].within, { rows: `filter(${name}, (one) => one.${field} !== 'Nobody')` }),
    putInteraction(button, {
      on: 'press',
      before: [step, add, step],
      target: { kind: 'say', text: `count(${name})` },
      arrival: { kind: 'none' },
    }),
  ].reduce(applyChange, app);
  const [inReact, inVue] = [
    emitReact({ ...project, app: made }, 'Desk'),
    emitVue({ ...project, app: made }, 'Desk'),
  ];
  expect(typeErrors([inReact])).toEqual([]);
  expect(vueProblems([inVue])).toEqual([]);
  const state = textOf(inReact, 'src/state/variables.ts');
  expect(state).toContain('all: () => calc.count(members.known()) * 2');
  expect(state).toContain('follows: [members]');
  expect(textOf(inReact, 'src/data/members.ts')).toMatch(/of: \(all\) => .*filter\(/);
  const code = inReact.files
    .flatMap((file) => ('text' in file && /^src\/screens\/.*\.tsx$/.test(file.path) ? [file.text] : []))
    .join('');
  // What was added meanwhile is asked for again.
  expect(code).toMatch(
    /const allMembers = await allOf\(members\);\s+if \(!allMembers\) return;\s+setVariable\('n', calc\.count\(allMembers\) \+ 1\);\s+await members\.add\(.*\);\s+const allMembers2 = await allOf\(members\);/s,
  );
}, 60_000);

test('signing in is asked of the API, and what follows is done when that has worked', () => {
  const page = pageOf('welcome', 'Sign in', (read) => [
    read('h1', { y: '150' }, 'Sign in'),
    read(
      'form',
      {},
      read('label', { for: 'mail' }, 'E-mail'),
      read('input', { type: 'email', id: 'mail', name: 'email' }),
      read('label', { for: 'word' }, 'Password'),
      read('input', { type: 'password', id: 'word', name: 'password' }),
      read('button', { type: 'submit' }, 'Sign in'),
    ),
    read('button', { type: 'button' }, 'Sign out'),
  ]);
  let signing = projectOf(page);
  const found = proposeData(signing.design);
  const put = (change: Change): void => {
    signing = { ...signing, app: applyChange(signing.app, change) };
  };
  put(makeForms(signing, found, found.forms).change!);
  put(putApi('library', keptApi(text).api));
  const calls = proposeCalls(signing, found);
  expect(calls.map(({ operation }) => operation)).toEqual(['signIn', 'signOut']);
  put(makeCalls(calls));
  expect(proposeCalls(signing, found)).toEqual([]);
  const [inReact, inVue] = [emitReact(signing, 'Signing'), emitVue(signing, 'Signing')];
  expect(typeErrors([inReact])).toEqual([]);
  expect(vueProblems([inVue])).toEqual([]);
  const code = inReact.files
    .flatMap((file) => ('text' in file && file.path.startsWith('src/screens/') ? [file.text] : []))
    .join('');
  expect(code).toMatch(/await signIn\(\{ email: values\.email, password: values\.password \}\);/);
  expect(code).toMatch(/await signOut\(\)\.catch\(notices\.tell\);/);
  expect(textOf(inReact, 'src/api/mossgateToolLibrary.ts')).toMatch(/signedIn\(answer\.token\);/);
}, 60_000);

test.each([
  ['what names a property', { 'a"b\'); alert(1); (': { type: 'string' } }],
  ['what would be a name of the language', { class: { type: 'string' }, __proto__x: { type: 'integer' } }],
  [
    'records and flags that are sent',
    { address: { properties: { town: { type: 'string' } } }, loans: { type: 'boolean' } },
  ],
  [
    'names within names',
    { 'full.name': { type: 'string' }, owner: { type: 'object', properties: { 'the-name': {}, name: {} } } },
  ],
  ['choices with quotes', { state: { type: 'string', enum: ["it's", '`${1}`', '*/'] } }],
])(
  'a hostile document says what it says, and no more: %s',
  (_, properties) => {
    const record = { type: 'object', properties: { ...properties, name: { type: 'string' } } };
    const document = JSON.stringify({
      openapi: '3.1.0',
      info: { title: '*/ alert(1) /*' },
      paths: {
        '/`$members`/\'"': {
          get: {
            operationId: 'listMembers',
            parameters: [{ name: "q'", in: 'query' }],
            responses: {
              200: { content: { 'application/json': { schema: { type: 'array', items: record } } } },
            },
          },
          post: {
            operationId: 'add */ member',
            requestBody: { content: { 'application/json': { schema: record } } },
            responses: { 201: {} },
          },
        },
      },
    });
    const emitted = emitReact(remote(document), 'Desk');
    expect(textOf(emitted, 'src/data/members.ts')).toContain('listMembers');
    expect(typeErrors([emitted])).toEqual([]);
  },
  60_000,
);

test('what paths are asked under is said by the environment', () => {
  const within = text.replace(/^ {2}\/(members|tools|loans)/gm, '  /branches/{branchId}/$1');
  expect(within).not.toBe(text);
  const emitted = emitReact(remote(within), 'Desk');
  expect(typeErrors([emitted])).toEqual([]);
  const code = textOf(emitted, 'src/api/mossgateToolLibrary.ts');
  expect(code).toContain("const branchId = import.meta.env.VITE_MOSSGATE_TOOL_LIBRARY_BRANCH_ID || '1';");
  expect(code).toContain("request<Member[]>('GET', `/branches/${encodeURIComponent(branchId)}/members`, {");
  expect(textOf(emitted, '.env.example')).toContain(
    '# What stands for “branchId” in its paths.\nVITE_MOSSGATE_TOOL_LIBRARY_BRANCH_ID=\n',
  );
}, 60_000);
