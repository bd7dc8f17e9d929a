// What start and test need before any package is there: uses only what Node ships.
import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../..');

const say = (text) => process.stdout.write(`${text}\n`);
const fail = (text) => {
  process.stderr.write(`${text}\n`);
  process.exit(1);
};
const modified = (file) => (existsSync(file) ? statSync(file).mtimeMs : 0);

export function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19))
    fail(`Tovel needs Node 20.19 or later; this is ${process.versions.node}.`);
}

/** Installs the packages when they are missing or older than the list of them. */
export function ensurePackages() {
  const stamp = path.join(root, 'node_modules/.tovel-installed');
  const lists = [
    path.join(root, 'package-lock.json'),
    path.join(root, 'package.json'),
    ...workspaces().map((name) => path.join(root, 'packages', name, 'package.json')),
  ];
  if (existsSync(stamp) && lists.every((file) => modified(file) <= modified(stamp))) return;
  say('Installing packages …');
  const result = spawnSync('npm', ['install', '--no-audit', '--no-fund', '--loglevel', 'error'], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD: '1', ADBLOCK: '1' },
  });
  if (result.status !== 0) fail('The packages could not be installed; npm says why above.');
  writeFileSync(stamp, '');
}

const workspaces = () => readdirSync(path.join(root, 'packages'));

/** The programs that come from Debian, and where they are looked for. */
const PROGRAMS = [
  {
    name: 'mariadb-server',
    isThere: () => ['/usr/sbin/mariadbd', '/usr/local/sbin/mariadbd'].some(existsSync),
    why: 'the database',
  },
  {
    name: 'chromium',
    // Drawings that ask for the usual sans-serif are measured and shown with a font of its widths.
    along: ['fonts-liberation'],
    isThere: () =>
      [
        process.env.TOVEL_CHROMIUM,
        '/usr/bin/chromium',
        '/usr/bin/chromium-browser',
        '/usr/bin/google-chrome',
      ].some((file) => file && existsSync(file)),
    why: 'reading HTML pages',
  },
];

/** Installs what is missing where that is allowed, else says what to install. */
export function ensurePrograms() {
  const missing = PROGRAMS.filter((program) => !program.isThere());
  if (!missing.length) return;
  const names = missing.flatMap((program) => [program.name, ...(program.along ?? [])]);
  const command = ['apt-get', 'install', '--yes', '--no-install-recommends', ...names];
  const list = missing.map((program) => `${program.name} (${program.why})`).join(' and ');
  const prefix = installer();
  if (!prefix) fail(`Tovel needs ${list}. Install with:  sudo apt-get install ${names.join(' ')}`);
  say(`Installing ${list} …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const apt = (args) =>
    spawnSync([...prefix, ...args][0], [...prefix, ...args].slice(1), {
      stdio: ['ignore', 'ignore', 'inherit'],
      env,
    });
  apt(['apt-get', 'update', '--quiet']);
  keepServiceOff(prefix);
  if (apt(command).status !== 0)
    fail(
      `${names.join(' and ')} could not be installed. Install by hand:  sudo apt-get install ${names.join(' ')}`,
    );
}

/** How to run the package manager as root; null where the user may not. */
function installer() {
  if (process.platform !== 'linux' || !existsSync('/usr/bin/apt-get')) return null;
  if (process.getuid() === 0) return [];
  return spawnSync('sudo', ['-n', 'true'], { stdio: 'ignore' }).status === 0 ? ['sudo', '-n'] : null;
}

/** Debian would start the database as a system service; Tovel starts its own. */
function keepServiceOff(prefix) {
  if (existsSync('/usr/sbin/policy-rc.d') || prefix.length) return;
  const policy = '/usr/sbin/policy-rc.d';
  writeFileSync(policy, '#!/bin/sh\nexit 101\n', { mode: 0o755 });
  process.on('exit', () => {
    try {
      execFileSync('rm', ['-f', policy]);
    } catch {
      // Left behind only where it can do no harm: on a machine without services.
    }
  });
}

/** The newest change below a folder, in milliseconds. */
function newestIn(folder) {
  let newest = 0;
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    if (['node_modules', 'dist'].includes(entry.name)) continue;
    const full = path.join(entry.parentPath ?? folder, entry.name);
    newest = Math.max(newest, entry.isDirectory() ? newestIn(full) : modified(full));
  }
  return newest;
}

/** Builds the server and the interface when their sources are newer than what was built. */
export function ensureBuilt() {
  const built = Math.min(
    modified(path.join(root, 'packages/server/dist/main.mjs')),
    modified(path.join(root, 'packages/web/dist/index.html')),
  );
  if (built > newestIn(path.join(root, 'packages'))) return;
  say('Building …');
  mkdirSync(path.join(root, 'packages/server/dist'), { recursive: true });
  const result = spawnSync(process.execPath, [path.join(root, 'scripts/build.mjs')], {
    cwd: root,
    stdio: 'inherit',
  });
  if (result.status !== 0) fail('The build failed; it says why above.');
}
