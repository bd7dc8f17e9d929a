import { createHash } from 'node:crypto';
import {
  addressOfScreen,
  type DifferenceCause,
  type HeardPage,
  type Project,
  screenName,
  screensByKey,
  SWEPT_WIDTHS,
  type SweptScreen,
  type View,
  viewsOf,
} from '@tovel/core';
import {
  type DrawnPage,
  type DrawOrder,
  drawReference,
  type FileStore,
  listenTo,
  type ReferenceKind,
  Renderer,
  type Site,
  sweepView,
} from '@tovel/renderer';
import type { AssetStore } from '../assets/store.ts';
import type { HistoryStore } from '../history/store.ts';
import { HttpError } from '../http/errors.ts';
import type { ProjectStore, StoredProject } from '../projects/store.ts';
import { IN_VUE, type Workshop } from '../run/workshop.ts';
import type { Threads } from '../work/threads.ts';
import type { ComparisonStore } from './store.ts';

export interface Compared {
  readonly view: View;
  readonly percent: number;
  readonly causes: readonly DifferenceCause[];
  readonly unexplained: number;
  readonly problems: readonly string[];
  /** Names of the pictures, which are kept for a while. */
  readonly pictures: { readonly reference: string; readonly running: string; readonly difference: string };
  /** Of the whole page, in px: the reference, and what runs. */
  readonly heights: { readonly reference: number; readonly running: number };
}

/** A screen as it is heard, with its picture. */
export interface HeardScreen {
  readonly heard: HeardPage;
  /** Name of the picture, which is kept for a while. */
  readonly picture: string;
  /** Of the page, in px. */
  readonly width: number;
  readonly height: number;
}

interface Parts {
  readonly projects: ProjectStore;
  readonly history: HistoryStore;
  readonly assets: AssetStore;
  readonly workshop: Workshop;
  readonly threads: Threads;
  readonly comparisons: ComparisonStore;
}

/** Drawn pages and pictures that are kept, the last used ones. */
const PAGES = 60;
const PICTURES = 240;
/** Orders that may wait for the browser; more are asked to come again. */
const MOST_WAITING = 64;

/**
 * Compares running apps with what they were drawn as. Pages are drawn by one browser and kept by what they depend on; pixels and
 * causes are worked out in threads.
 */
export class Comparing {
  readonly #parts: Parts;
  /** The one browser that draws pages. */
  readonly renderer = new Renderer();
  readonly #pages = new Kept<Promise<DrawnPage>>(PAGES);
  readonly #pictures = new Kept<Uint8Array>(PICTURES);
  /** What pages were heard to say, by what they depend on. */
  readonly #heard = new Kept<Promise<DrawnPage & { readonly heard: HeardPage }>>(PAGES);
  /** Where running apps are served; told once the server listens. */
  #runOrigin = '';

  constructor(parts: Parts) {
    this.#parts = parts;
  }

  servedAt(origin: string): void {
    this.#runOrigin = origin;
  }

  picture(name: string): Uint8Array {
    const found = this.#pictures.get(name);
    if (!found) throw new HttpError('not-found', 'This picture is not kept any more. Compare again.');
    return found;
  }

  /**
   * @param reference a kind of reference, or the place of an earlier version in the history
   * @throws HttpError where there is no such screen, or one of the two cannot be drawn
   */
  async compare(
    id: string,
    drawing: string,
    width: number,
    reference: ReferenceKind | number,
    signal: AbortSignal,
  ): Promise<Compared> {
    const project = await this.#parts.projects.read(id);
    const view = viewsOf(project, [width]).find((one) => one.drawing === drawing && one.width === width);
    if (!view)
      throw new HttpError(
        'not-found',
        `There is nothing to compare with at ${width} px: drawings are compared at their own width.`,
      );
    const [was, is] = await Promise.all([
      this.#reference(id, project, view, reference, signal),
      this.#running(id, project, view, { signal }),
    ]);
    const { design, app } = project;
    const screen = screensByKey(design).get(drawing)!;
    const found = await this.#parts.threads.run(
      'compareViews',
      { was, is, screen, app: { edits: app.edits, layers: app.layers } },
      signal,
    );
    const percent = Math.round(found.share * 10_000) / 100;
    const causes = found.causes.filter(({ isDecided }) => !isDecided).length;
    const about = typeof reference === 'number' ? `version-${reference}` : reference;
    await this.#parts.comparisons.put(id, {
      screen: view.screen,
      drawing,
      width,
      reference: about,
      seq: project.seq,
      iteration: design.iteration,
      percent,
      causes,
    });
    return {
      view,
      percent,
      causes: found.causes,
      unexplained: found.unexplained,
      problems: [...new Set([...was.rendering.problems, ...is.rendering.problems])],
      pictures: {
        reference: this.#keep(was.png),
        running: this.#keep(is.png),
        difference: this.#keep(found.difference),
      },
      heights: { reference: was.rendering.height, running: is.rendering.height },
    };
  }

  /** What is wrong with a screen of the running app at the widths of a sweep. */
  async sweep(id: string, screen: string, signal: AbortSignal): Promise<SweptScreen> {
    const project = await this.#parts.projects.read(id);
    const view = viewsOf(project, [SWEPT_WIDTHS[0]]).find((one) => one.screen === screen);
    if (!view) throw new HttpError('not-found', 'There is no such screen in what runs.');
    const swept = await sweepView(
      view,
      (at) => this.#running(id, project, at, { signal, isMeasured: true }),
      (error) => signal.aborted || error instanceof HttpError,
    );
    await this.#parts.comparisons.putSweep(id, { screen, seq: project.seq, faults: swept.faults });
    return swept;
  }

  /** What a screen of the running app is to those who hear it, or go through it by keys. */
  async listen(id: string, screen: string, width: number, signal: AbortSignal): Promise<HeardScreen> {
    const project = await this.#parts.projects.read(id);
    const view = viewsOf(project, [width]).find((one) => one.screen === screen && one.width === width);
    if (!view) throw new HttpError('not-found', `There is no such screen at ${width} px in what runs.`);
    const { key, order } = await this.#order(id, project, view, { signal });
    const { heard, png, rendering } = await this.#once(this.#heard, key, async () => {
      let heard: HeardPage | undefined;
      const drawn = await this.renderer.draw({
        ...order,
        before: async (page) => {
          heard = await listenTo(page);
        },
      });
      return { ...drawn, heard: heard! };
    });
    return { heard, picture: this.#keep(png), width, height: rendering.height };
  }

  async close(): Promise<void> {
    await this.renderer.close();
  }

  async #reference(
    id: string,
    project: StoredProject,
    view: View,
    reference: ReferenceKind | number,
    signal: AbortSignal,
  ): Promise<DrawnPage> {
    if (typeof reference === 'number') {
      const then = await this.#parts.history.at(id, reference);
      if (!viewsOf(then, [view.width]).some(({ screen }) => screen === view.screen))
        throw new HttpError(
          'not-found',
          `“${screenName(project, view.screen)}” was not in the app at that time.`,
        );
      return this.#running(`${id}~${reference}`, then, view, { signal });
    }
    if (reference === 'vue') return this.#running(`${id}~${IN_VUE}`, project, view, { signal });
    const { assets } = this.#parts;
    const files: FileStore = (hash) => assets.get(hash).catch(() => null);
    // Plain pages show what was decided, too.
    const state = reference === 'pages' ? `${project.seq} ${project.revision}` : project.revision;
    const key = `${reference} ${id} ${state} ${view.drawing} ${view.width}`;
    return this.#drawn(key, () => drawReference(this.renderer, project, view, files, reference, signal));
  }

  async #running(
    address: string,
    project: Project,
    view: View,
    how: Pick<DrawOrder, 'signal' | 'isMeasured'>,
  ): Promise<DrawnPage> {
    const { key, order } = await this.#order(address, project, view, how);
    return this.#drawn(key, () => this.renderer.draw(order));
  }

  /** How a view of the running app is drawn, with what that depends on. */
  async #order(
    address: string,
    project: Project,
    view: View,
    how: Pick<DrawOrder, 'signal' | 'isMeasured'>,
  ): Promise<{ readonly key: string; readonly order: DrawOrder }> {
    const built = await this.#parts.workshop.current(address, how.signal);
    if (built.error !== null) throw new HttpError('compare-failed', `The app does not build: ${built.error}`);
    const path = addressOfScreen(project, view.screen);
    const bytes = createHash('sha256');
    for (const name of ['app.js', 'app.css']) bytes.update(built.files.get(name) ?? '');
    return {
      key: `${bytes.digest('hex')} ${path} ${view.width} ${view.height} ${how.isMeasured === true}`,
      order: {
        address: `${this.#runOrigin}/${address}${path}`,
        site: this.#site,
        width: view.width,
        height: view.height,
        withScripts: true,
        ...how,
      },
    };
  }

  /** Running apps are asked of the server that serves them, and nothing else is. */
  readonly #site: Site = async (address, { method, body }) => {
    if (address.origin !== this.#runOrigin) return null;
    const answer = await fetch(address, {
      method,
      ...(body === null ? {} : { body, headers: { 'content-type': 'application/json' } }),
    });
    return {
      status: answer.status,
      type: answer.headers.get('content-type') ?? 'application/octet-stream',
      body: new Uint8Array(await answer.arrayBuffer()),
    };
  };

  #drawn(key: string, draw: () => Promise<DrawnPage>): Promise<DrawnPage> {
    return this.#once(this.#pages, key, draw);
  }

  /** What is kept, or is drawn now and kept. */
  async #once<T>(kept: Kept<Promise<T>>, key: string, draw: () => Promise<T>): Promise<T> {
    const known = kept.get(key);
    if (known) return known;
    if (this.renderer.waiting >= MOST_WAITING)
      throw new HttpError('busy', 'There is a lot to draw at the moment. Ask again soon.', 2);
    const drawing = draw();
    kept.put(key, drawing);
    try {
      return await drawing;
    } catch (error) {
      kept.drop(key);
      if (error instanceof HttpError) throw error;
      throw new HttpError('compare-failed', (error as Error).message);
    }
  }

  #keep(png: Uint8Array): string {
    const name = createHash('sha256').update(png).digest('hex');
    this.#pictures.put(name, png);
    return name;
  }
}

/** The last used of something, by key. */
class Kept<T> {
  readonly #most: number;
  readonly #all = new Map<string, T>();

  constructor(most: number) {
    this.#most = most;
  }

  get(key: string): T | undefined {
    const found = this.#all.get(key);
    if (found !== undefined) this.put(key, found);
    return found;
  }

  put(key: string, value: T): void {
    this.#all.delete(key);
    this.#all.set(key, value);
    const [oldest] = this.#all.keys();
    if (this.#all.size > this.#most) this.#all.delete(oldest);
  }

  drop(key: string): void {
    this.#all.delete(key);
  }
}
