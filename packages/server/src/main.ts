import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import type { FastifyInstance } from 'fastify';
import { type Logger, pino } from 'pino';
import { type Config, readConfig, withFreePorts } from './config.ts';
import { migrate } from './database/migrate.ts';
import { openPool } from './database/pool.ts';
import { startPrivateDatabase } from './database/private_server.ts';
import { loadDemo } from './demo/load_demo.ts';
import { createApp } from './http/app.ts';
import { createRepositoryHost } from './repository/host.ts';
import { createRunServer } from './run/run_server.ts';
import { createDesignHost } from './sources/design_host.ts';
import { createServices } from './services.ts';

const say = (text: string): void => void process.stdout.write(`${text}\n`);

/** Fails early, and in words, where the data cannot be written. */
function checkFolder(folder: string): void {
  const probe = path.join(folder, `.write-${process.pid}`);
  try {
    mkdirSync(folder, { recursive: true });
    writeFileSync(probe, 'x'.repeat(4096));
    rmSync(probe);
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    const why =
      code === 'ENOSPC'
        ? 'the disk is full'
        : code === 'EROFS'
          ? 'it is read-only'
          : `${code ?? (error as Error).message}`;
    throw new Error(
      `The data folder ${folder} cannot be written: ${why}. Make room or give yourself the right to write there, or name another folder with TOVEL_DATA.`,
    );
  }
}

/** The log, which is never a reason to end: a full disk loses lines of it, and nothing else. */
function openLog(folder: string): Logger {
  const file = pino.destination({ dest: path.join(folder, 'server.log'), mkdir: true, sync: false });
  file.on('error', () => {});
  return pino({ level: process.env.TOVEL_LOG ?? 'info' }, file);
}

/** Waits for something to end, but no longer than it may take. */
const within = (ms: number, work: Promise<unknown> | undefined): Promise<unknown> =>
  Promise.race([Promise.resolve(work).catch(() => {}), new Promise((resolve) => setTimeout(resolve, ms))]);

/** What is under way is answered; whoever is still there after that is let go. */
async function drain(servers: readonly (FastifyInstance | null)[]): Promise<void> {
  await within(1500, Promise.all(servers.map((server) => server?.close())));
  for (const server of servers) server?.server.closeAllConnections();
}

async function start(config: Config): Promise<() => Promise<void>> {
  checkFolder(config.data);
  const log = openLog(config.data);
  const database = config.database ? null : await startPrivateDatabase(path.join(config.data, 'db'));
  database?.watch((text) => {
    say(text);
    log.warn(text);
  });
  const db = openPool(config.database ?? database!.address);
  await migrate(db);
  const services = createServices(db, log, config.data);
  if (config.demo && !(await services.projects.list()).length) {
    say('Taking in the demo project …');
    // Its second round can be had from where its team shares it.
    const shared = config.designPort
      ? `http://127.0.0.1:${config.designPort}/mossgate/latest.zip`
      : undefined;
    await loadDemo(services, config.demo, say, shared).catch((error: Error) =>
      say(`The demo project could not be taken in: ${error.message}`),
    );
  }
  const app = await createApp(services, config, {
    level: 'warn',
    stream: { write: (line: string) => log.warn(line.trim()) },
  });
  const run = await createRunServer(services, config.port, config.runPort);
  await app.listen({ host: config.host, port: config.port });
  await run.listen({ host: config.host, port: config.runPort });
  await services.publisher.open(config.publishPort);
  const designs = config.designPort && config.demo ? createDesignHost(config.demo) : null;
  await designs?.listen({ host: config.host, port: config.designPort! });
  const repositories = config.repositoryPort
    ? createRepositoryHost(path.join(config.data, 'shared-repositories'))
    : null;
  repositories?.listen(config.repositoryPort!, config.host);
  return async () => {
    await within(500, services.publisher.close());
    repositories?.closeAllConnections();
    repositories?.close();
    await within(200, services.feed.close());
    await drain([app, run, designs]);
    await within(
      500,
      Promise.all([services.workshop.close(), services.threads.close(), services.comparing.close()]),
    );
    await within(500, db.end());
    await database?.stop();
  };
}

/** Errors of connections and disks that are no fault of the program; whatever was asked fails, and says so. */
const PASSING = new Set(['ENOSPC', 'EPIPE', 'ECONNRESET', 'EIO', 'PROTOCOL_CONNECTION_LOST', 'ECONNREFUSED']);
const onStray = (error: unknown): void => {
  const { code = '', message } = error as NodeJS.ErrnoException;
  process.stderr.write(`${message}\n`);
  if (!PASSING.has(code)) process.exit(1);
};
process.on('uncaughtException', onStray);
process.on('unhandledRejection', onStray);

try {
  const config = await withFreePorts(readConfig(process.env), process.env);
  const stop = await start(config);
  say(`Tovel is ready at http://${config.host}:${config.port}`);
  let isStopping = false;
  for (const signal of ['SIGINT', 'SIGTERM'] as const) {
    process.on(signal, () => {
      // Who asks again does not want to wait. The database ends by itself, or is taken over at the next start.
      if (isStopping) process.exit(1);
      isStopping = true;
      void stop().then(
        () => process.exit(0),
        (error: Error) => {
          process.stderr.write(`${error.message}\n`);
          process.exit(1);
        },
      );
    });
  }
} catch (error) {
  process.stderr.write(`Tovel could not start. ${(error as Error).message}\n`);
  process.exit(1);
}
