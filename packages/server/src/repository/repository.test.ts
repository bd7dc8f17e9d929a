import { execFile } from 'node:child_process';
import {
  chmodSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import type http from 'node:http';
import type { AddressInfo } from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import { type ApiError, type ProjectState, type PushPlan, readSvg } from '@tovel/core';
import { startTestApp, type TestApp } from '../testing/app.ts';
import { createRepositoryHost, HOST_TOKEN } from './host.ts';
import { commitMessage } from './message.ts';

const PORT = 4983;
const folder = mkdtempSync(path.join(os.tmpdir(), 'tovel-repository-'));
const at = (...names: string[]): string => path.join(folder, ...names);
let app: TestApp['app'];
let stop: TestApp['stop'];
/** Where the server's own files lie. */
let work: string;
let host: http.Server;
let remote: string;

beforeAll(async () => {
  ({ app, stop, folder: work } = await startTestApp(PORT));
  host = createRepositoryHost(at('host'));
  await new Promise<void>((resolve) => host.listen(0, '127.0.0.1', resolve));
  remote = `http://127.0.0.1:${(host.address() as AddressInfo).port}`;
});
afterAll(async () => {
  host.closeAllConnections();
  host.close();
  await stop();
  rmSync(folder, { recursive: true, force: true });
});

async function ask<T>(method: 'GET' | 'POST' | 'PUT' | 'DELETE', url: string, body?: object) {
  const response = await app.inject({
    method,
    url,
    headers: { host: `127.0.0.1:${PORT}` },
    ...(body ? { payload: body } : {}),
  });
  return { status: response.statusCode, body: (response.body ? response.json() : null) as T };
}

const drawn = (...labels: string[]) =>
  readSvg({
    file: 'home.svg',
    text: `<svg xmlns="http://www.w3.org/2000/svg" width="390" height="844">${labels
      .map(
        (label, i) =>
          `<g id="b${i}" data-name="Button"><rect x="20" y="${40 + 60 * i}" width="300" height="44" fill="#234"/><text x="40" y="${66 + 60 * i}">${label}</text></g>`,
      )
      .join('')}</svg>`,
    screenKey: 'home',
    asset: () => null,
  }).screen!;

/** A project of one screen with some buttons; its path. */
async function projectWith(...labels: string[]): Promise<string> {
  const { body: made } = await ask<{ id: string }>('POST', '/api/projects', { name: 'Desk' });
  const url = `/api/projects/${made.id}`;
  await ask('POST', `${url}/intake`, { base: 0, screens: [drawn(...labels)], assets: [], notices: [] });
  return url;
}

/** Brings the screen in again with other labels. */
async function redraw(url: string, ...labels: string[]): Promise<void> {
  const { body } = await ask<ProjectState>('GET', url);
  await ask('POST', `${url}/intake`, {
    base: body.history.seq,
    screens: [drawn(...labels)],
    assets: [],
    notices: [],
  });
}

const look = (url: string, answers: object[] = []) =>
  ask<PushPlan & ApiError>('POST', `${url}/repository/look`, { answers });
const push = (url: string, { head, message }: PushPlan, answers: object[] = []) =>
  ask<{ commit: string } & ApiError>('POST', `${url}/repository/push`, { head, message, answers });

/** Runs git as somebody else; not at once, since the host of repositories is in this very process. */
const git = async (cwd: string, ...args: string[]): Promise<string> => {
  const { stdout } = await promisify(execFile)(
    'git',
    ['-c', 'user.name=Ida', '-c', 'user.email=ida@example.org', ...args],
    { cwd, env: { ...process.env, GIT_TERMINAL_PROMPT: '0' } },
  );
  return stdout;
};

/** Somebody else's copy of a repository. */
const clone = async (address: string, name: string): Promise<string> => {
  await git(folder, 'clone', '--quiet', address.replace('http://', `http://ida:${HOST_TOKEN}@`), at(name));
  return at(name);
};
const change = (file: string, from: string, to: string): void => {
  const text = readFileSync(file, 'utf8');
  expect(text).toContain(from);
  writeFileSync(file, text.replace(from, to));
};
const SCREEN = 'src/screens/Home/Home.tsx';

test('code is pushed, changed by hand elsewhere, drawn anew and pushed again, with the lines of both', async () => {
  const url = await projectWith('Browse', 'Loans');
  const address = `${remote}/desk.git`;
  const connected = await ask('PUT', `${url}/repository`, { address, branch: 'main', token: HOST_TOKEN });
  expect(connected.body).toMatchObject({
    repository: { address, branch: 'main', hasToken: true, pushed: null },
  });
  const first = await look(url);
  expect(first.body).toMatchObject({
    head: null,
    commits: [],
    asks: [],
    message: 'Desk: the code as it is now',
  });
  expect(new Set(first.body.files.map(({ fate }) => fate))).toEqual(new Set(['new']));
  expect((await push(url, first.body)).status).toBe(200);
  expect((await ask('GET', `${url}/deliveries`)).body).toMatchObject([{ kind: 'push', name: 'Desk' }]);

  const theirs = await clone(address, 'theirs');
  change(path.join(theirs, SCREEN), '<main ', '<main onClick={greet} ');
  writeFileSync(path.join(theirs, 'src/greet.ts'), 'export const greet = () => 1;\n');
  await git(theirs, 'add', '-A');
  await git(theirs, 'commit', '--quiet', '-m', 'Greets');
  await git(theirs, 'push', '--quiet');

  await redraw(url, 'Browse', 'My loans', 'Help');
  const next = await look(url);
  expect(next.body).toMatchObject({ asks: [], commits: [{ author: 'Ida', message: 'Greets' }] });
  expect(next.body.files.find((file) => file.path === SCREEN)).toMatchObject({ fate: 'merged' });
  expect(next.body.message).not.toContain('as it is now');
  expect((await push(url, next.body)).status).toBe(200);
  await git(theirs, 'pull', '--quiet', '--ff-only');
  const text = readFileSync(path.join(theirs, SCREEN), 'utf8');
  for (const said of ['onClick={greet}', 'My loans', 'Help']) expect(text).toContain(said);
  expect(existsSync(path.join(theirs, 'src/greet.ts'))).toBe(true);
  const last = await look(url);
  expect(last.body.commits).toEqual([]);
  expect(last.body.files.filter(({ fate }) => fate !== 'same' && fate !== 'kept')).toEqual([]);
}, 60_000);

test('what both changed waits for an answer; what is pushed between is looked at again', async () => {
  const url = await projectWith('Browse');
  const address = `${remote}/both.git`;
  await ask('PUT', `${url}/repository`, { address, branch: 'main', token: HOST_TOKEN });
  await push(url, (await look(url)).body);
  const theirs = await clone(address, 'both');
  change(path.join(theirs, SCREEN), 'Browse', 'Look around');
  await git(theirs, 'commit', '--quiet', '-am', 'Says it otherwise');
  await git(theirs, 'push', '--quiet');
  await redraw(url, 'Browse all');

  const asked = await look(url);
  expect(asked.body.asks).toMatchObject([{ path: SCREEN, theirs: 'Look around', ours: 'Browse all' }]);
  const unanswered = await push(url, asked.body);
  expect([unanswered.status, unanswered.body.code]).toEqual([409, 'repository-asks']);
  const answers = [{ id: asked.body.asks[0].id, side: 'ours' }];

  writeFileSync(path.join(theirs, 'NOTES.md'), 'between\n');
  await git(theirs, 'add', '-A');
  await git(theirs, 'commit', '--quiet', '-m', 'Between');
  await git(theirs, 'push', '--quiet');
  const late = await push(url, asked.body, answers);
  expect([late.status, late.body.code]).toEqual([409, 'repository-moved']);
  const again = await look(url, answers);
  expect((await push(url, again.body, answers)).status).toBe(200);
  await git(theirs, 'pull', '--quiet', '--ff-only');
  expect(readFileSync(path.join(theirs, SCREEN), 'utf8')).toContain('Browse all');
  expect(existsSync(path.join(theirs, 'NOTES.md'))).toBe(true);
}, 60_000);

test('a repository in a folder is reached by its address; a branch that is protected is said, and nothing is forced', async () => {
  const url = await projectWith('Browse');
  await git(folder, 'init', '--quiet', '--bare', '--initial-branch', 'main', at('plain.git'));
  const hook = at('plain.git', 'hooks', 'pre-receive');
  writeFileSync(hook, '#!/bin/sh\necho "protected branch" >&2\nexit 1\n');
  chmodSync(hook, 0o755);
  await ask('PUT', `${url}/repository`, { address: `file://${at('plain.git')}`, branch: 'design/next' });
  const plan = (await look(url)).body;
  const refused = await push(url, plan);
  expect([refused.status, refused.body.message]).toEqual([
    422,
    'The branch is protected: nobody may push to it. Choose another branch.',
  ]);
  rmSync(hook);
  expect((await push(url, plan)).status).toBe(200);
  expect((await git(at('plain.git'), 'branch', '--list', '--format=%(refname:short)')).trim()).toBe(
    'design/next',
  );
}, 60_000);

test.each([
  ['no address', { address: 'nowhere', branch: 'main' }, 400, /is no address/],
  [
    'a password in it',
    { address: 'https://a:b@example.org/r.git', branch: 'main' },
    400,
    /token has a field of its own/,
  ],
  ['another protocol', { address: 'ext::sh -c id', branch: 'main' }, 400, /by https:\/\/ or file:\/\//],
  [
    'plain http elsewhere',
    { address: 'http://example.org/r.git', branch: 'main' },
    400,
    /only on this machine/,
  ],
  [
    'an option for a branch',
    { address: 'file:///tmp/r.git', branch: '--force' },
    400,
    /is no name of a branch/,
  ],
])('%s is refused in words', async (_, body, status, says) => {
  const url = await projectWith('Browse');
  const answer = await ask<ApiError>('PUT', `${url}/repository`, body);
  expect([answer.status, answer.body.message]).toEqual([status, expect.stringMatching(says)]);
});

test('a wrong token, no repository and nothing that answers are said', async () => {
  const url = await projectWith('Browse');
  for (const [address, token, says] of [
    [`${remote}/desk.git`, 'wrong', /does not let Tovel in/],
    [`file://${at('none')}`, undefined, /There is no repository at that address/],
    ['http://127.0.0.1:9/r.git', undefined, /Nothing answers at that address/],
  ] as const) {
    await ask('PUT', `${url}/repository`, { address, branch: 'main', ...(token ? { token } : {}) });
    const { status, body } = await look(url);
    expect([status, body.message]).toEqual([422, expect.stringMatching(says)]);
  }
}, 60_000);

test('the branches of a repository are asked for before anything is connected with it', async () => {
  const url = await projectWith('Browse');
  const branches = (address: string, token = HOST_TOKEN) =>
    ask<{ branches: string[] } & ApiError>('POST', `${url}/repository/branches`, { address, token });
  const address = `${remote}/branches.git`;
  expect((await branches(address)).body).toEqual({ branches: [] });
  expect((await ask('GET', `${url}/repository`)).body).toEqual({ repository: null });
  for (const branch of ['main', 'next/desk']) {
    await ask('PUT', `${url}/repository`, { address, branch, token: HOST_TOKEN });
    await push(url, (await look(url)).body);
  }
  expect((await branches(address)).body).toEqual({ branches: ['main', 'next/desk'] });
  const refused = await branches(address, 'wrong');
  expect([refused.status, refused.body.code]).toEqual([422, 'repository-failed']);
  expect((await branches('ftp://example.org/x')).status).toBe(400);
});

test('a token is in no answer, no table and no file', async () => {
  const url = await projectWith('Browse');
  const token = 'a-token-of-nobody';
  await ask('PUT', `${url}/repository`, { address: `${remote}/desk.git`, branch: 'main', token });
  const failed = await look(url);
  const known = await ask('GET', `${url}/repository`);
  expect(JSON.stringify([failed.body, known.body])).not.toContain(token);
  const trees = readdirSync(work, { recursive: true, withFileTypes: true })
    .filter((inner) => inner.isFile())
    .map((inner) => path.join(inner.parentPath, inner.name));
  expect(trees.some((file) => file.endsWith('ask.sh'))).toBe(true);
  for (const file of trees) expect(readFileSync(file, 'latin1')).not.toContain(token);
  await ask('DELETE', `${url}/repository`);
  expect((await ask('GET', `${url}/repository`)).body).toEqual({ repository: null });
});

test('the host of repositories wants its token, and no page can ask it', async () => {
  const at = `${remote}/desk.git/info/refs?service=git-upload-pack`;
  expect((await fetch(at)).status).toBe(401);
  const authorization = `Basic ${Buffer.from(`a:${HOST_TOKEN}`).toString('base64')}`;
  expect((await fetch(at, { headers: { authorization, origin: 'http://evil.example' } })).status).toBe(403);
  expect((await fetch(`${remote}/../etc/info/refs`, { headers: { authorization } })).status).toBe(404);
});

test.each([
  [[], 'Desk: the code as it is now'],
  [['Rows lead to Tool detail'], 'Rows lead to Tool detail'],
  [
    ['Rows lead to Tool detail', 'New screen Help'],
    'Rows lead to Tool detail; New screen Help\n\n- Rows lead to Tool detail\n- New screen Help',
  ],
])('the message of %j', (steps, message) => {
  expect(commitMessage('Desk', steps)).toBe(message);
});

test('a message with many steps says how many', () => {
  const steps = Array.from({ length: 99 }, (_, i) => `Step number ${String(i)}`);
  const lines = commitMessage('Desk', steps).split('\n');
  expect(lines[0].length).toBeLessThanOrEqual(72);
  expect(lines[0]).toMatch(/^Step number 0; .* more$/);
  expect(lines.at(-1)).toBe('- and 59 more steps');
});
