import { type ChildProcess, execFile, spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
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
  /** Process id of the database server. */
  readonly pid: number;
  /** Stops the server, unless it belongs to another Tovel that is still running. */
  stop(): Promise<void>;
}

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
  const running = runningServer(folder);
  const child = running ? null : await launch(folder, socket);
  const pid = running?.pid ?? child!.pid!;
  const port = Number(readFileSync(at('port'), 'utf8'));
  const password = await createAccount(folder, socket, child);
  const isMine = !running || !isAlive(ownerOf(folder));
  if (isMine) writeFileSync(at('owner'), String(process.pid));
  return {
    address: { host: '127.0.0.1', port, user: 'tovel', password, database: 'tovel' },
    pid,
    async stop() {
      if (ownerOf(folder) !== process.pid) return;
      rmSync(at('owner'), { force: true });
      if (!isAlive(pid)) return;
      process.kill(pid, 'SIGTERM');
      for (let i = 0; i < 300 && isAlive(pid) && child?.exitCode == null; i++) await pause(50);
    },
  };
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

const ownerOf = (folder: string): number => numberIn(path.join(folder, 'owner'));

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

async function launch(folder: string, socket: string): Promise<ChildProcess> {
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
  const port = await freePort(numberIn(at('port')));
  writeFileSync(at('port'), String(port));
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
async function createAccount(folder: string, socket: string, child: ChildProcess | null): Promise<string> {
  const root = await connectAsRoot(folder, socket, child);
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
): Promise<mysql.Connection> {
  const deadline = Date.now() + START_SECONDS * 1000;
  for (;;) {
    try {
      return await mysql.createConnection({ socketPath: socket, user: 'root' });
    } catch (error) {
      const log = path.join(folder, 'error.log');
      const tail = existsSync(log) ? readFileSync(log, 'utf8').trim().split('\n').slice(-5).join('\n') : '';
      if (child && child.exitCode !== null)
        throw new Error(`MariaDB ended while starting. Its log says:\n${tail}`);
      if (Date.now() > deadline)
        throw new Error(
          `MariaDB did not answer within ${START_SECONDS} seconds (${(error as Error).message}). Its log says:\n${tail}`,
        );
      await pause(50);
    }
  }
}
