import { readAs } from '../pointing.ts';

/** What a bridge is told by the window around it; which fields it has follows from its kind. */
export interface Told {
  readonly tovel?: string;
  readonly to?: string;
  readonly name?: string;
  readonly value?: boolean | number | string;
  readonly marks?: unknown;
  readonly mark?: unknown;
  readonly kept?: unknown;
  readonly values?: unknown;
}

/** The frame that an app runs in: where the app is in it, and the window around it, which is of another origin. */
export class Frame {
  /** The path that the app lives under. */
  readonly base = `/${location.pathname.split('/')[1]}`;
  readonly #origin: string;
  readonly #heard = new Map<string, (told: Told) => void>();
  #pressed = '';
  /** Something went wrong in the app since it was loaded. */
  isBroken = false;

  constructor(appOrigin: string) {
    this.#origin = appOrigin;
    addEventListener('message', ({ origin, data }: MessageEvent<Told | null>) => {
      if (origin === appOrigin && data?.tovel) this.#heard.get(data.tovel)?.(data);
    });
    document.addEventListener(
      'click',
      ({ target }) => {
        const node = target instanceof Element && target.closest('a, button, [role="link"], input');
        if (!node) return;
        const value = node instanceof HTMLInputElement ? node.value : '';
        this.#pressed = (readAs(node) || value).slice(0, 60);
      },
      true,
    );
  }

  /** What was pressed last, in its own words. */
  get pressed(): string {
    return this.#pressed;
  }

  forgetPressed(): void {
    this.#pressed = '';
  }

  /** The address within the app. */
  get path(): string {
    return (location.pathname.slice(this.base.length) || '/') + location.search + location.hash;
  }

  tell(kind: string, what: object): void {
    parent.postMessage({ tovel: kind, ...what }, this.#origin);
  }

  on(kind: string, hear: (told: Told) => void): void {
    this.#heard.set(kind, hear);
  }

  goTo(path: string): void {
    location.assign(this.base + path);
  }
}
