import { existsSync } from 'node:fs';
import net from 'node:net';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

export interface Config {
  readonly host: '127.0.0.1';
  readonly port: number;
  /** Where generated apps are served: another port, and so another origin. */
  readonly runPort: number;
  /** Where the stand-in for a service of shared designs listens; null for none. */
  readonly designPort: number | null;
  /** Where the stand-in for a host of repositories listens; null for none. */
  readonly repositoryPort: number | null;
  /** The first of the ports that published apps are served at, an app a port. */
  readonly publishPort: number;
  /** Hosts with their port that screens may be fetched from although they are on a private network. */
  readonly allowedHosts: readonly string[];
  /** Folder of the private database and its files. */
  readonly data: string;
  /** Connection string of a database that somebody else runs; without it a private one is started. */
  readonly database: string | null;
  /** Folder with the screens of the demo project; null to load none. */
  readonly demo: string | null;
  /** Folder of the built interface. */
  readonly web: string;
}

/** The nearest folder above this file that has a package.json: the same from source and from the bundle. */
export function packageFolder(): string {
  let folder = path.dirname(fileURLToPath(import.meta.url));
  while (!existsSync(path.join(folder, 'package.json'))) folder = path.dirname(folder);
  return folder;
}

/** @throws Error that names the variable that is wrong. */
export function readConfig(env: NodeJS.ProcessEnv): Config {
  const root = path.resolve(packageFolder(), '../..');
  const port = portOf(env, 'TOVEL_PORT', 4310);
  const designPort = env.TOVEL_DESIGN_PORT === 'none' ? null : portOf(env, 'TOVEL_DESIGN_PORT', port + 2);
  const repositoryPort =
    env.TOVEL_REPOSITORY_PORT === 'none' ? null : portOf(env, 'TOVEL_REPOSITORY_PORT', port + 3);
  const named = (env.TOVEL_ALLOW_HOSTS ?? '').split(/[\s,]+/).filter(Boolean);
  return {
    host: '127.0.0.1',
    port,
    runPort: portOf(env, 'TOVEL_RUN_PORT', port + 1),
    designPort,
    repositoryPort,
    publishPort: portOf(env, 'TOVEL_PUBLISH_PORT', port + 20),
    allowedHosts: designPort === null ? named : [...named, `127.0.0.1:${designPort}`],
    data: path.resolve(env.TOVEL_DATA ?? path.join(root, '.data')),
    database: env.TOVEL_DATABASE ?? null,
    demo: env.TOVEL_DEMO === 'none' ? null : path.resolve(env.TOVEL_DEMO || path.join(root, 'demo')),
    web: path.join(root, 'packages/web/dist'),
  };
}

/** The ports beside the first, with the variable that names each. */
const BESIDE = [
  { field: 'runPort', variable: 'TOVEL_RUN_PORT' },
  { field: 'designPort', variable: 'TOVEL_DESIGN_PORT' },
  { field: 'repositoryPort', variable: 'TOVEL_REPOSITORY_PORT' },
] as const;

/** Why nothing can listen at a port of this machine: the code of the error; null where something can. */
const obstacle = (port: number): Promise<NodeJS.ErrnoException | null> =>
  new Promise((resolve) => {
    const probe = net.createServer();
    probe.once('error', resolve);
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(null)));
  });

/**
 * The same configuration with ports that are free. One that a person named stays what it is; one that follows
 * from the first gives way to the next that is free, since nobody counts on it.
 * @throws Error where the first, or one that was named, cannot be used; says which and what to do.
 */
export async function withFreePorts(config: Config, env: NodeJS.ProcessEnv): Promise<Config> {
  await checkPort(config.port, 'TOVEL_PORT');
  const ports: Partial<Record<(typeof BESIDE)[number]['field'], number>> = {};
  const isGiven = (port: number): boolean => port === config.port || Object.values(ports).includes(port);
  for (const { field, variable } of BESIDE) {
    let port = config[field];
    if (port === null) continue;
    if (env[variable]) await checkPort(port, variable);
    else while (isGiven(port) || (await obstacle(port))) port = port < 65535 ? port + 1 : 1024;
    ports[field] = port;
  }
  const { designPort } = ports;
  const before = `127.0.0.1:${config.designPort}`;
  return {
    ...config,
    ...ports,
    allowedHosts: config.allowedHosts.map((host) => (host === before ? `127.0.0.1:${designPort}` : host)),
  };
}

async function checkPort(port: number, variable: string): Promise<void> {
  const error = await obstacle(port);
  if (!error) return;
  throw new Error(
    error.code === 'EADDRINUSE'
      ? `Port ${port} is taken; perhaps Tovel is running already, at http://127.0.0.1:${port}. To use another: ${variable}=${port + 10} npm start`
      : `Port ${port} cannot be used: ${error.message}`,
  );
}

function portOf(env: NodeJS.ProcessEnv, name: string, fallback: number): number {
  const value = Number(env[name] || fallback);
  if (!Number.isInteger(value) || value < 1 || value > 65535)
    throw new Error(`${name} must be a port number from 1 to 65535, not "${env[name]}".`);
  return value;
}
