import { type ChildProcess, execFile, spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import mysql from 'mysql2/promise';

const run = promisify(execFile);

export interface DatabaseAddress {
  readonly host: string;
  readonly port: number;
  readonly user: string;
  readonly password: string;
  readonly database: string;
}

export interface PrivateDatabase {
  readonly address: DatabaseAddress;
  /** Process id of the database server, as it is now. */
  readonly pid: number;
  /** Starts it again when it is gone, at the same address, until it is stopped; `say` hears what happens. */
  watch(say: (text: string) => void): void;
  /** Stops the server, unless another Tovel that is still running uses it: that one has it from then on. */
  stop(): Promise<void>;
}

/** How often it is looked at whether the database is there, in ms. */
const WATCH_MS = 500;
/** Waits between attempts to start it again: longer each time, since a full disk takes a while to be emptied. */
const AGAIN_MS = [0, 500, 1000, 2000];

/** A Unix socket path has at most 107 bytes. */
const MAX_SOCKET_PATH = 107;
const START_SECONDS = 60;

/**
 * Starts MariaDB for this project alone, on loopback, with its data in `folder`; never a system service. A server
 * that is still running there, left by a crash, is taken over.
 * @throws Error that says what is missing or what the server's log says.
 */
export async function startPrivateDatabase(folder: string): Promise<PrivateDatabase> {
  const at = (name: string): string => path.join(folder, name);
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  chmodSync(folder, 0o700);
  mkdirSync(at('tmp'), { recursive: true, mode: 0o700 });
  // A long project path would not fit into a socket address.
  const socket =
    Buffer.byteLength(at('socket')) <= MAX_SOCKET_PATH
      ? at('socket')
      : path.join(os.tmpdir(), `tovel-${process.getuid?.() ?? 0}-${hashName(folder)}.sock`);
  let running = runningServer(folder);
  if (!running) await isWhollyGone(numberIn(at('pid')));
  let child = running ? null : await launch(folder, socket);
  const portFile = at('port');
  const password = await createAccount(folder, socket, child);
  enlist(folder);
  let timer: NodeJS.Timeout | null = null;
  let isStopped = false;
  const pidNow = (): number => running?.pid ?? child?.pid ?? 0;

  /** Starts it again, unless another Tovel on this folder is quicker. */
  const restart = async (say: (text: string) => void): Promise<void> => {
    say('The database has ended; it is being started again.');
    await isWhollyGone(pidNow());
    for (let attempt = 0; !isStopped; attempt++) {
      await pause(AGAIN_MS[Math.min(attempt, AGAIN_MS.length - 1)]);
      const isFirst = claim(folder);
      try {
        running = runningServer(folder);
        if (!running && !isFirst) continue;
        child = running ? null : await launch(folder, socket, true);
        // One that found the files still held would wait half a minute for them; a new one need not.
        await createAccount(folder, socket, child, attempt ? AGAIN_SECONDS : FIRST_SECONDS);
        say('The database is back.');
        return;
      } catch (error) {
        if (isFirst && child && !hasEnded(child)) child.kill('SIGKILL');
        const reason = (error as Error).message.replace(/\s*\n[^]*$/, '');
        if (attempt < 3 || attempt % 20 === 0) say(`The database cannot be started yet: ${reason}`);
      } finally {
        if (isFirst) rmSync(at('starting'), { force: true });
      }
    }
  };
  return {
    address: {
      host: '127.0.0.1',
      port: Number(readFileSync(portFile, 'utf8')),
      user: 'tovel',
      password,
      database: 'tovel',
    },
    get pid() {
      return pidNow();
    },
    watch(say) {
      const look = async (): Promise<void> => {
        if (!isStopped && !isAlive(pidNow())) await restart(say);
        if (!isStopped) timer = setTimeout(() => void look().catch(report), WATCH_MS).unref();
      };
      const report = (error: Error): void => say(`The database cannot be watched: ${error.message}`);
      timer = setTimeout(() => void look().catch(report), WATCH_MS).unref();
    },
    async stop() {
      isStopped = true;
      if (timer) clearTimeout(timer);
      if (!resign(folder)) return;
      const pid = pidNow();
      if (!isAlive(pid)) return;
      process.kill(pid, 'SIGTERM');
      for (let i = 0; i < STOP_MS / 50 && isAlive(pid); i++) await pause(50);
      // What was acknowledged is in its log, so that it may end at once where the disk is full or slow.
      if (isAlive(pid)) process.kill(pid, 'SIGKILL');
    },
  };
}

const hasEnded = ({ exitCode, signalCode }: ChildProcess): boolean =>
  exitCode !== null || signalCode !== null;

/** How long the database may take to end, in ms. */
const STOP_MS = 2000;
/** How long it may take to come back; a large log takes a few seconds to be gone through. */
const AGAIN_SECONDS = 30;
const FIRST_SECONDS = 4;

/** Resolves when all threads of a process have ended: until then they hold its files. */
async function isWhollyGone(pid: number): Promise<void> {
  const tasks = `/proc/${pid}/task`;
  for (let i = 0; i < 100; i++) {
    try {
      if (readdirSync(tasks).length < 2) return;
    } catch {
      return;
    }
    await pause(20);
  }
}

/** Whether this process is the one that starts the database; another one that lives may be at it. */
function claim(folder: string): boolean {
  const file = path.join(folder, 'starting');
  try {
    writeFileSync(file, String(process.pid), { flag: 'wx' });
    return true;
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'EEXIST') return true;
    const other = numberIn(file);
    if (other && other !== process.pid && isAlive(other)) return false;
    rmSync(file, { force: true });
    return true;
  }
}

const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));
const hashName = (text: string): string =>
  [...text].reduce((h, c) => (h * 31 + c.charCodeAt(0)) >>> 0, 7).toString(36);

function isAlive(pid: number): boolean {
  if (!pid) return false;
  try {
    process.kill(pid, 0);
  } catch {
    return false;
  }
  try {
    // One that has ended but whose parent has not noticed still has its number.
    return !/\) Z /.test(readFileSync(`/proc/${pid}/stat`, 'utf8'));
  } catch {
    return true;
  }
}

function numberIn(file: string): number {
  return existsSync(file) ? Number(readFileSync(file, 'utf8')) || 0 : 0;
}

/** Each Tovel that uses the database has a file of its process id here. */
const usersIn = (folder: string): number[] => {
  const users = path.join(folder, 'users');
  if (!existsSync(users)) return [];
  return readdirSync(users)
    .map(Number)
    .filter((pid) => {
      const isThere = pid > 0 && isAlive(pid);
      if (!isThere) rmSync(path.join(users, String(pid)), { force: true });
      return isThere;
    });
};

function enlist(folder: string): void {
  mkdirSync(path.join(folder, 'users'), { recursive: true, mode: 0o700 });
  writeFileSync(path.join(folder, 'users', String(process.pid)), '');
}

/** Takes this process off the list; says whether nobody is left. */
function resign(folder: string): boolean {
  rmSync(path.join(folder, 'users', String(process.pid)), { force: true });
  return usersIn(folder).length === 0;
}

/** A server that runs on this very folder: a process id alone may by now belong to something else. */
function runningServer(folder: string): { pid: number } | null {
  const pid = numberIn(path.join(folder, 'pid'));
  if (!isAlive(pid)) return null;
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(`--datadir=${path.join(folder, 'data')}`)
      ? { pid }
      : null;
  } catch {
    return null;
  }
}

async function launch(folder: string, socket: string, isAgain = false): Promise<ChildProcess> {
  const at = (name: string): string => path.join(folder, name);
  const isRoot = process.getuid?.() === 0;
  const asUser = isRoot ? ['--user=root'] : [];
  if (!existsSync(at('ready'))) {
    rmSync(at('data'), { recursive: true, force: true });
    mkdirSync(at('data'), { mode: 0o700 });
    const user = isRoot ? 'root' : os.userInfo().username;
    await run('mariadb-install-db', [
      '--no-defaults',
      ...asUser,
      `--datadir=${at('data')}`,
      '--auth-root-authentication-method=socket',
      `--auth-root-socket-user=${user}`,
      '--skip-test-db',
    ]).catch((error: NodeJS.ErrnoException) => {
      throw new Error(
        error.code === 'ENOENT'
          ? 'MariaDB is not installed: install the package "mariadb-server".'
          : `MariaDB could not be set up in ${folder}: ${error.message}`,
      );
    });
    writeFileSync(at('ready'), '');
  }
  const known = numberIn(at('port'));
  // A pool that is open knows the port: the database comes back there, once what held it has let go.
  const port = isAgain && known ? known : await freePort(known);
  if (port !== known) writeFileSync(at('port'), String(port));
  const executable = ['/usr/sbin/mariadbd', '/usr/local/sbin/mariadbd'].find(existsSync) ?? 'mariadbd';
  const child = spawn(
    executable,
    [
      '--no-defaults',
      ...asUser,
      `--datadir=${at('data')}`,
      `--tmpdir=${at('tmp')}`,
      `--socket=${socket}`,
      `--pid-file=${at('pid')}`,
      '--bind-address=127.0.0.1',
      `--port=${port}`,
      '--skip-name-resolve',
      '--innodb-flush-log-at-trx-commit=1',
      '--max-allowed-packet=160M',
      '--innodb-log-file-size=256M',
      '--innodb-buffer-pool-size=256M',
      '--character-set-server=utf8mb4',
      '--collation-server=utf8mb4_unicode_ci',
      '--skip-log-bin',
      '--local-infile=0',
      `--log-error=${at('error.log')}`,
    ],
    // Its own process group: Ctrl-C is for Tovel, which stops the database when it is done with it.
    { stdio: 'ignore', detached: true },
  );
  child.unref();
  await new Promise<void>((resolve, reject) => {
    child.once('spawn', resolve);
    child.once('error', () =>
      reject(new Error('MariaDB is not installed: install the package "mariadb-server".')),
    );
  });
  return child;
}

/** The port that was used before, if it is free, else any. */
async function freePort(wanted: number): Promise<number> {
  const attempt = (port: number): Promise<number | null> =>
    new Promise((resolve) => {
      const probe = net.createServer();
      probe.once('error', () => resolve(null));
      probe.listen(port, '127.0.0.1', () => {
        const { port: got } = probe.address() as net.AddressInfo;
        probe.close(() => resolve(got));
      });
    });
  return (wanted && (await attempt(wanted))) || (await attempt(0))!;
}

/** Waits until the server answers, and makes sure of Tovel's own database and account. */
async function createAccount(
  folder: string,
  socket: string,
  child: ChildProcess | null,
  seconds = START_SECONDS,
): Promise<string> {
  const root = await connectAsRoot(folder, socket, child, seconds);
  try {
    const file = path.join(folder, 'password');
    if (!existsSync(file)) writeFileSync(file, randomBytes(24).toString('base64url'), { mode: 0o600 });
    const password = readFileSync(file, 'utf8');
    await root.query('CREATE DATABASE IF NOT EXISTS tovel CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci');
    await root.query("CREATE USER IF NOT EXISTS 'tovel'@'127.0.0.1' IDENTIFIED BY ?", [password]);
    await root.query("ALTER USER 'tovel'@'127.0.0.1' IDENTIFIED BY ?", [password]);
    await root.query("GRANT ALL ON tovel.* TO 'tovel'@'127.0.0.1'");
    return password;
  } finally {
    await root.end();
  }
}

async function connectAsRoot(
  folder: string,
  socket: string,
  child: ChildProcess | null,
  seconds: number,
): Promise<mysql.Connection> {
  const deadline = Date.now() + seconds * 1000;
  for (;;) {
    try {
      return await mysql.createConnection({ socketPath: socket, user: 'root' });
    } catch (error) {
      const log = path.join(folder, 'error.log');
      const tail = existsSync(log) ? readFileSync(log, 'utf8').trim().split('\n').slice(-5).join('\n') : '';
      if (child && hasEnded(child)) throw new Error(`MariaDB ended while starting. Its log says:\n${tail}`);
      if (Date.now() > deadline)
        throw new Error(
          `MariaDB did not answer within ${seconds} seconds (${(error as Error).message}). Its log says:\n${tail}`,
        );
      await pause(50);
    }
  }
}
