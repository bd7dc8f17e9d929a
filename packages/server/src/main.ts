import { mkdirSync } from 'node:fs';
import net from 'node:net';
import path from 'node:path';
import { pino } from 'pino';
import { type Config, readConfig } from './config.ts';
import { migrate } from './database/migrate.ts';
import { openPool } from './database/pool.ts';
import { startPrivateDatabase } from './database/private_server.ts';
import { loadDemo } from './demo/load_demo.ts';
import { createApp } from './http/app.ts';
import { createRunServer } from './run/run_server.ts';
import { createDesignHost } from './sources/design_host.ts';
import { createServices } from './services.ts';

const say = (text: string): void => void process.stdout.write(`${text}\n`);

/** Fails early, and in words, where a port is taken. */
async function checkPort(port: number, variable: string): Promise<void> {
  await new Promise<void>((resolve, reject) => {
    const probe = net.createServer();
    probe.once('error', (error: NodeJS.ErrnoException) =>
      reject(
        new Error(
          error.code === 'EADDRINUSE'
            ? `Port ${port} is taken; perhaps Tovel is running already, at http://127.0.0.1:${port}. To use another: ${variable}=${port + 10} npm start`
            : `Port ${port} cannot be used: ${error.message}`,
        ),
      ),
    );
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve()));
  });
}

async function start(config: Config): Promise<() => Promise<void>> {
  await checkPort(config.port, 'TOVEL_PORT');
  await checkPort(config.runPort, 'TOVEL_RUN_PORT');
  if (config.designPort) await checkPort(config.designPort, 'TOVEL_DESIGN_PORT');
  mkdirSync(config.data, { recursive: true });
  const log = pino(
    { level: process.env.TOVEL_LOG ?? 'info' },
    pino.destination({ dest: path.join(config.data, 'server.log'), mkdir: true, sync: false }),
  );
  const database = config.database ? null : await startPrivateDatabase(path.join(config.data, 'db'));
  const db = openPool(config.database ?? database!.address);
  await migrate(db);
  const services = createServices(db, log);
  if (config.demo && !(await services.projects.list()).length) {
    say('Taking in the demo project …');
    await loadDemo(services, config.demo, say).catch((error: Error) =>
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
  const designs = config.designPort && config.demo ? createDesignHost(config.demo) : null;
  await designs?.listen({ host: config.host, port: config.designPort! });
  return async () => {
    await services.feed.close();
    await Promise.all([app.close(), run.close(), designs?.close()]);
    await services.workshop.close();
    await db.end();
    await database?.stop();
  };
}

try {
  const config = readConfig(process.env);
  const stop = await start(config);
  say(`Tovel is ready at http://${config.host}:${config.port}`);
  let isStopping = false;
  for (const signal of ['SIGINT', 'SIGTERM'] as const) {
    process.on(signal, () => {
      if (isStopping) return;
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
