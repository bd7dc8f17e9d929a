import { tmpdir } from 'node:os';
import path from 'node:path';
import type { FastifyBaseLogger } from 'fastify';
import { AssetStore } from './assets/store.ts';
import { Comparing } from './compare/comparing.ts';
import { ComparisonStore } from './compare/store.ts';
import type { Database } from './database/pool.ts';
import { DeliveryStore } from './deliver/store.ts';
import { Feed } from './events/feed.ts';
import { HistoryStore } from './history/store.ts';
import { Repositories } from './repository/repositories.ts';
import { RoundStore } from './iterate/store.ts';
import { ProjectStore } from './projects/store.ts';
import { Publisher } from './publish/publisher.ts';
import { PublicationStore } from './publish/store.ts';
import { Workshop } from './run/workshop.ts';
import { SourceStore } from './sources/store.ts';
import { TicketStore } from './sources/tickets.ts';
import { VersionStore } from './versions/store.ts';
import { Threads } from './work/threads.ts';

/** Everything that routes need; made once for a server. */
export interface Services {
  readonly db: Database;
  readonly projects: ProjectStore;
  readonly history: HistoryStore;
  readonly assets: AssetStore;
  readonly feed: Feed;
  readonly workshop: Workshop;
  readonly sources: SourceStore;
  readonly tickets: TicketStore;
  readonly rounds: RoundStore;
  readonly deliveries: DeliveryStore;
  readonly repositories: Repositories;
  readonly versions: VersionStore;
  readonly comparisons: ComparisonStore;
  readonly comparing: Comparing;
  readonly publications: PublicationStore;
  readonly publisher: Publisher;
  readonly threads: Threads;
  /** A folder for files that are wanted for a moment only; it need not be there yet. */
  readonly scratch: string;
}

/** @param folder where working copies and files for a moment may lie */
export function createServices(
  db: Database,
  log: Pick<FastifyBaseLogger, 'error'>,
  folder = path.join(tmpdir(), 'tovel-data'),
): Services {
  const assets = new AssetStore(db);
  const threads = new Threads();
  const projects = new ProjectStore(db);
  const history = new HistoryStore(db, projects, (...step) => workshop.foresee(...step));
  const workshop: Workshop = new Workshop(
    projects,
    history,
    (project, event) => feed.tell(project, event),
    log,
  );
  const feed = new Feed(db, history, (project) => workshop.changed(project));
  const deliveries = new DeliveryStore(db);
  const comparisons = new ComparisonStore(db);
  const publications = new PublicationStore(db);
  return {
    db,
    projects,
    history,
    assets,
    feed,
    workshop,
    sources: new SourceStore(db),
    tickets: new TicketStore(db),
    rounds: new RoundStore(db),
    deliveries,
    repositories: new Repositories(
      { db, projects, history, assets, threads, deliveries },
      path.join(folder, 'repositories'),
    ),
    versions: new VersionStore(db),
    comparisons,
    comparing: new Comparing({ projects, history, assets, workshop, threads, comparisons }),
    publications,
    publisher: new Publisher({
      projects,
      assets,
      threads,
      publications,
      tell: (project, event) => feed.tell(project, event),
    }),
    threads,
    scratch: path.join(folder, 'scratch'),
  };
}
