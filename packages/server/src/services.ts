import type { FastifyBaseLogger } from 'fastify';
import { AssetStore } from './assets/store.ts';
import type { Database } from './database/pool.ts';
import { EventHub } from './events/hub.ts';
import { HistoryStore } from './history/store.ts';
import { ProjectStore } from './projects/store.ts';
import { Workshop } from './run/workshop.ts';
import { SourceStore } from './sources/store.ts';

/** Everything that routes need; made once for a server. */
export interface Services {
  readonly db: Database;
  readonly projects: ProjectStore;
  readonly history: HistoryStore;
  readonly assets: AssetStore;
  readonly hub: EventHub;
  readonly workshop: Workshop;
  readonly sources: SourceStore;
}

export function createServices(db: Database, log: Pick<FastifyBaseLogger, 'error'>): Services {
  const projects = new ProjectStore(db);
  const hub = new EventHub();
  return {
    db,
    projects,
    history: new HistoryStore(db, projects),
    assets: new AssetStore(db),
    hub,
    workshop: new Workshop(projects, hub, log),
    sources: new SourceStore(db),
  };
}
