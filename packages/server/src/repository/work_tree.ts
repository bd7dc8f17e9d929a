import { chmod, mkdir, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { isInside } from '@tovel/core';
import { type SimpleGit, simpleGit } from 'simple-git';

/** A branch of a repository, and what opens it. */
export interface Remote {
  /** An https or file address, or http on this machine. */
  readonly address: string;
  readonly branch: string;
  /** Goes to git by the environment of its process alone; without one, the system's credential helper is asked. */
  readonly token: string | null;
}

export interface Commit {
  readonly hash: string;
  readonly author: string;
  readonly message: string;
  readonly at: string;
}

/** What git could not do, in words. */
export class GitError extends Error {
  /** Whether it is that somebody else pushed meanwhile. */
  readonly isBehind: boolean;

  constructor(message: string, isBehind = false) {
    super(message);
    this.isBehind = isBehind;
  }
}

/** How long git may say nothing, in milliseconds. */
const SILENCE = 30_000;

/** Commits that are told. */
const MOST_COMMITS = 50;

/** A copy of a branch in a folder of the server's own; what is in it is always what the remote has. */
export class WorkTree {
  readonly #folder: string;
  readonly #remote: Remote;
  #git: SimpleGit | null = null;

  constructor(folder: string, remote: Remote) {
    this.#folder = folder;
    this.#remote = remote;
  }

  /** The folder of its files. */
  get tree(): string {
    return path.join(this.#folder, 'tree');
  }

  /**
   * Makes the folder what the branch is now.
   * @returns the commit that it is at; null where the branch is not there yet
   * @throws GitError
   */
  async refresh(): Promise<string | null> {
    const { address, branch } = this.#remote;
    const git = await this.#open();
    const listed = await this.#ask(git, ['ls-remote', '--', address, `refs/heads/${branch}`]);
    const head = /^[0-9a-f]{40,64}/.exec(listed)?.[0] ?? null;
    if (head === null) {
      // A branch that is new begins with nothing.
      await rm(this.tree, { recursive: true, force: true });
      this.#git = null;
      await this.#open();
      return null;
    }
    await this.#ask(git, [
      'fetch',
      '--quiet',
      '--no-tags',
      '--',
      address,
      `+refs/heads/${branch}:refs/remotes/origin/${branch}`,
    ]);
    await this.#ask(git, ['checkout', '--quiet', '--force', '-B', branch, `refs/remotes/origin/${branch}`]);
    await this.#ask(git, ['clean', '--quiet', '-d', '-f', '-x']);
    return (await this.#ask(git, ['rev-parse', 'HEAD'])).trim();
  }

  /** A file of the branch, or null. */
  async read(file: string): Promise<Uint8Array | null> {
    const bytes = await readFile(path.join(this.tree, file)).catch(() => null);
    return bytes && new Uint8Array(bytes);
  }

  /** Paths of its files. */
  async list(): Promise<string[]> {
    const entries = await readdir(this.tree, { recursive: true, withFileTypes: true }).catch(() => []);
    return entries
      .filter((entry) => entry.isFile())
      .map((entry) =>
        path.relative(this.tree, path.join(entry.parentPath, entry.name)).split(path.sep).join('/'),
      )
      .filter((file) => isInside(file) && !/(^|\/)(node_modules|dist)\//.test(file));
  }

  /** What others committed since a commit, newest first; of all where that is null or not there any more. */
  async commitsSince(hash: string | null): Promise<Commit[]> {
    const git = await this.#open();
    const isKnown =
      hash !== null && (await git.raw(['cat-file', '-t', hash]).catch(() => '')).trim() === 'commit';
    const range = isKnown ? `${hash}..HEAD` : 'HEAD';
    const said = await this.#ask(git, [
      'log',
      `--max-count=${String(MOST_COMMITS)}`,
      '--format=%H%x00%an%x00%s%x00%aI%x01',
      range,
    ]);
    return said
      .split('\x01')
      .map((line) => line.trim().split('\0'))
      .filter((fields) => fields.length === 4)
      .map(([found, author, message, at]) => ({ hash: found, author, message, at }));
  }

  /**
   * Writes files, commits and pushes them. Nothing is forced; where that fails the remote is as it was.
   * @returns the commit
   * @throws GitError
   */
  async push(writes: ReadonlyMap<string, Uint8Array | null>, message: string): Promise<string> {
    const { address, branch } = this.#remote;
    const git = await this.#open();
    for (const [file, bytes] of writes) {
      const at = path.join(this.tree, file);
      if (!bytes) await rm(at, { force: true });
      else {
        await mkdir(path.dirname(at), { recursive: true });
        await writeFile(at, bytes);
      }
    }
    const [kept, gone] = [true, false].map((isKept) =>
      [...writes].flatMap(([file, bytes]) => (!!bytes === isKept ? [file] : [])),
    );
    // Also what the team's own rules would leave out.
    for (const some of inParts(kept)) await this.#ask(git, ['add', '--force', '--', ...some]);
    for (const some of inParts(gone))
      await this.#ask(git, ['rm', '--cached', '--quiet', '--ignore-unmatch', '--', ...some]);
    await this.#ask(git, ['commit', '--quiet', '--no-verify', '--message', message]);
    await this.#ask(git, ['push', '--quiet', '--', address, `HEAD:refs/heads/${branch}`]);
    return (await this.#ask(git, ['rev-parse', 'HEAD'])).trim();
  }

  /** The branches that the remote has. @throws GitError */
  async branches(): Promise<string[]> {
    const listed = await this.#ask(await this.#open(), ['ls-remote', '--heads', '--', this.#remote.address]);
    return [...listed.matchAll(/^\S+\s+refs\/heads\/(.+)$/gm)].map(([, name]) => name);
  }

  /** Git in the folder, which is made a repository of its own. */
  async #open(): Promise<SimpleGit> {
    if (this.#git) return this.#git;
    await mkdir(this.tree, { recursive: true });
    const ask = path.join(this.#folder, 'ask.sh');
    // What asks for a name gets one, what asks for a password gets the token: both without a file that holds it.
    await writeFile(
      ask,
      '#!/bin/sh\ncase "$1" in\n  Username*) printf %s tovel ;;\n  *) printf %s "$TOVEL_TOKEN" ;;\nesac\n',
    );
    await chmod(ask, 0o700);
    const { token } = this.#remote;
    const git = simpleGit({
      baseDir: this.tree,
      timeout: { block: SILENCE },
      maxConcurrentProcesses: 1,
      unsafe: { allowUnsafeAskPass: true },
      allowEnvironment: ['GIT_TERMINAL_PROMPT', 'GIT_ALLOW_PROTOCOL', 'GIT_ASKPASS', 'TOVEL_TOKEN'],
    }).env({
      PATH: process.env.PATH ?? '',
      HOME: process.env.HOME ?? '',
      LC_ALL: 'C',
      GIT_TERMINAL_PROMPT: '0',
      GIT_ALLOW_PROTOCOL: 'http:https:file',
      ...(token === null ? {} : { GIT_ASKPASS: ask, TOVEL_TOKEN: token }),
    });
    const inside = await readdir(path.join(this.tree, '.git')).catch(() => null);
    if (!inside) {
      await this.#ask(git, ['init', '--quiet', '--initial-branch', this.#remote.branch]);
      // What is a link elsewhere is a small file here, so that nothing is written through it.
      await this.#ask(git, ['config', 'core.symlinks', 'false']);
      // Whoever has told git their name commits under it.
      const name = await git.raw(['config', '--get', 'user.name']).catch(() => '');
      if (!name.trim()) {
        await this.#ask(git, ['config', 'user.name', 'Tovel']);
        await this.#ask(git, ['config', 'user.email', 'tovel@localhost']);
      }
    }
    this.#git = git;
    return git;
  }

  async #ask(git: SimpleGit, words: string[]): Promise<string> {
    try {
      return await git.raw(words);
    } catch (error) {
      throw inWords(error as Error, this.#remote);
    }
  }
}

/** Paths in lists that are not too long for one command. */
const inParts = (paths: readonly string[]): string[][] =>
  Array.from({ length: Math.ceil(paths.length / 200) }, (_, i) => paths.slice(i * 200, (i + 1) * 200));

const REASONS: readonly (readonly [RegExp, string])[] = [
  [
    /Authentication failed|could not read (Username|Password)|terminal prompts disabled|HTTP Basic: Access denied|error: 40[13]/i,
    'The repository does not let Tovel in. Give it a token that may write there.',
  ],
  [
    /protected branch|pre-receive hook declined|GH006|not allowed to push/i,
    'The branch is protected: nobody may push to it. Choose another branch.',
  ],
  [/Could not resolve host/i, 'There is no such host. Is the address right?'],
  [/Connection refused|Failed to connect|Connection timed out/i, 'Nothing answers at that address.'],
  [
    /not found|does not exist|does not appear to be a git repository|not a git repository/i,
    'There is no repository at that address.',
  ],
  [
    /early EOF|RPC failed|hung up|Connection reset|block timeout/i,
    'The connection ended in the middle. Nothing was changed; try again.',
  ],
  [/No space left/i, 'The disk is full. Nothing was changed.'],
];

/** What git said, in words, without the token. */
function inWords(error: Error, { token }: Remote): GitError {
  const said = token ? error.message.replaceAll(token, '…') : error.message;
  if (/non-fast-forward|fetch first|\[rejected\]|cannot lock ref|failed to update ref/i.test(said))
    return new GitError(
      'Somebody else pushed to the branch meanwhile. Nothing was pushed; look at what is there now.',
      true,
    );
  const known = REASONS.find(([pattern]) => pattern.test(said));
  if (known) return new GitError(known[1]);
  const line = said.split('\n').find((one) => /^(fatal|error|remote):/.test(one)) ?? said.split('\n')[0];
  return new GitError(`Git says: ${line.slice(0, 300)}`);
}
