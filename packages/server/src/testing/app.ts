import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { FastifyInstance } from 'fastify';
import { createApp } from '../http/app.ts';
import { createServices, type Services } from '../services.ts';
import { startTestDatabase, type TestDatabase } from './database.ts';

export interface TestApp {
  readonly database: TestDatabase;
  readonly services: Services;
  readonly app: FastifyInstance;
  /** Where its files lie; of this test alone. */
  readonly folder: string;
  stop(): Promise<void>;
}

/** The server on a database of the test's own, asked without a network. */
export async function startTestApp(port: number): Promise<TestApp> {
  const database = await startTestDatabase();
  const folder = await mkdtemp(path.join(tmpdir(), 'tovel-work-'));
  const services = createServices(database.db, { error: () => {} }, folder);
  const app = await createApp(services, { port, runPort: port + 1, web: '/nowhere' });
  return {
    database,
    services,
    app,
    folder,
    async stop() {
      await app.close();
      await services.publisher.close();
      await services.workshop.close();
      await services.threads.close();
      await services.comparing.close();
      await database.stop();
      await rm(folder, { recursive: true, force: true });
    },
  };
}
