import { createServer } from 'node:net';
import { networkInterfaces } from 'node:os';
import type { FastifyInstance } from 'fastify';
import { ASSET_TYPES, type ProjectEvent } from '@tovel/core';
import { buildVendor, notesScript } from '@tovel/renderer';
import QRCode from 'qrcode';
import type { AssetStore } from '../assets/store.ts';
import { HttpError } from '../http/errors.ts';
import type { ProjectStore } from '../projects/store.ts';
import type { Threads } from '../work/threads.ts';
import { keptPass } from './pass.ts';
import { createPublishedApp } from './published_app.ts';
import type { PublicationStore, PublishedFile, StoredPublication } from './store.ts';

interface Parts {
  readonly projects: ProjectStore;
  readonly assets: AssetStore;
  readonly threads: Threads;
  readonly publications: PublicationStore;
  readonly tell: (project: string, event: ProjectEvent) => void;
}

export interface WantedPublication {
  readonly title: string;
  readonly version: string;
  readonly host: string;
  /** Null for none; the one of before where it is not said. */
  readonly pass?: string | null | undefined;
}

export interface Publication {
  readonly stored: StoredPublication;
  readonly address: string;
  /** A QR code of the address: an SVG. */
  readonly code: string;
  /** Why it is not served although it should be. */
  readonly problem: string | null;
}

/** Addresses are looked for among so many ports. */
const PORTS = 200;
const LOOPBACK = '127.0.0.1';
const TYPES: Readonly<Record<string, string>> = {
  js: 'text/javascript; charset=utf-8',
  css: 'text/css; charset=utf-8',
  json: 'application/json; charset=utf-8',
  html: 'text/html; charset=utf-8',
};

/**
 * Published apps: each is frozen when it is published and served under an address, and so an origin, of its own, for as long as
 * nobody takes it back.
 */
export class Publisher {
  readonly #parts: Parts;
  readonly #servers = new Map<string, FastifyInstance>();
  readonly #problems = new Map<string, string>();
  #firstPort = 0;

  constructor(parts: Parts) {
    this.#parts = parts;
  }

  /** Serves what was published before. @param firstPort from which on addresses are given */
  async open(firstPort: number): Promise<void> {
    this.#firstPort = firstPort;
    for (const stored of await this.#parts.publications.all()) if (stored.isOpen) await this.#serve(stored);
  }

  async close(): Promise<void> {
    await Promise.all([...this.#servers.values()].map((server) => server.close()));
    this.#servers.clear();
  }

  async get(project: string): Promise<Publication | null> {
    const stored = await this.#parts.publications.get(project);
    if (!stored) return null;
    const address = addressOf(stored);
    return {
      stored,
      address,
      code: await QRCode.toString(address, { type: 'svg', margin: 2 }),
      problem: stored.isOpen ? (this.#problems.get(project) ?? null) : null,
    };
  }

  /** @throws HttpError where the app does not build, or cannot be served there */
  async publish(project: string, wanted: WantedPublication): Promise<void> {
    const { projects, assets, threads, publications } = this.#parts;
    if (!hosts().some(({ host }) => host === wanted.host))
      throw new HttpError(
        'publish-failed',
        `This machine has no address ${wanted.host}. Choose one of those that are offered.`,
      );
    const { name, design, app, seq } = await projects.read(project);
    const frozen = await threads.run('freezeApp', { title: wanted.title, name, design, app });
    if (frozen.error)
      throw new HttpError(
        'publish-failed',
        `The app does not build, so nothing was published: ${frozen.error}`,
      );
    const files = new Map<string, PublishedFile>();
    for (const [path, bytes] of frozen.files)
      files.set(path, { type: typeOf(path), bytes: Buffer.from(bytes) });
    for (const [name, bytes] of await buildVendor())
      files.set(`_vendor/${name}`, { type: TYPES.js, bytes: Buffer.from(bytes) });
    for (const [path, hash] of frozen.assets) files.set(path, await assets.get(hash));
    const before = await publications.get(project);
    const pass =
      wanted.pass === undefined
        ? (before?.pass ?? null)
        : wanted.pass === null
          ? null
          : await keptPass(wanted.pass);
    const stored: StoredPublication = {
      project,
      host: wanted.host,
      port: before?.port ?? (await this.#freePort()),
      pass,
      isOpen: true,
      number: (before?.number ?? 0) + 1,
      title: wanted.title,
      version: wanted.version,
      seq,
      publishedAt: new Date(),
    };
    await publications.put(stored, files, frozen.shown);
    await this.#serve(stored);
    const problem = this.#problems.get(project);
    if (problem) throw new HttpError('publish-failed', problem);
  }

  async takeBack(project: string): Promise<void> {
    await this.#parts.publications.setOpen(project, false);
    await this.#stop(project);
  }

  /** A port that no published app has and nothing else listens on. */
  async #freePort(): Promise<number> {
    const taken = new Set((await this.#parts.publications.all()).map(({ port }) => port));
    for (let port = this.#firstPort; port < this.#firstPort + PORTS; port++)
      if (!taken.has(port) && (await isFree(port))) return port;
    throw new HttpError(
      'publish-failed',
      `None of the ports from ${this.#firstPort} on is free. Take back what is published, or end what listens there.`,
    );
  }

  async #stop(project: string): Promise<void> {
    this.#problems.delete(project);
    await this.#servers.get(project)?.close();
    this.#servers.delete(project);
  }

  async #serve(stored: StoredPublication): Promise<void> {
    const { publications, tell } = this.#parts;
    const { project, host, port } = stored;
    await this.#stop(project);
    const [files, shown] = [await publications.files(project), await publications.shown(project)];
    const server = await createPublishedApp(
      { publication: stored, files, shown },
      publications,
      notesScript,
      () => tell(project, { kind: 'noted', project }),
    );
    try {
      await server.listen({ host, port });
      this.#servers.set(project, server);
    } catch (error) {
      const { code } = error as NodeJS.ErrnoException;
      this.#problems.set(
        project,
        code === 'EADDRINUSE'
          ? `Something else listens at ${host}:${port} now. End it and publish again; the address is kept.`
          : `It cannot be served at ${host}:${port}: ${(error as Error).message}`,
      );
      await server.close();
    }
  }
}

/** Addresses of this machine, and who reaches what is served there, in words. */
export function hosts(): { readonly host: string; readonly says: string }[] {
  const others = Object.values(networkInterfaces())
    .flatMap((list) => list ?? [])
    .filter(({ family, internal }) => family === 'IPv4' && !internal)
    .map(({ address }) => ({
      host: address,
      says: `Everybody who reaches ${address} in your network, such as a phone in it`,
    }));
  return [{ host: LOOPBACK, says: 'Only this machine' }, ...others];
}

const addressOf = ({ host, port }: StoredPublication): string => `http://${host}:${port}/`;

function typeOf(path: string): string {
  const extension = path.replace(/^.*\./, '');
  return (
    TYPES[extension] ?? ASSET_TYPES.find((type) => type.endsWith(extension)) ?? 'application/octet-stream'
  );
}

function isFree(port: number): Promise<boolean> {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', () => resolve(false));
    probe.listen(port, '0.0.0.0', () => probe.close(() => resolve(true)));
  });
}
