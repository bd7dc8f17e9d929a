import { createStandIn, type Mood, type StandIn, type StandInPlan } from '@tovel/core';
import type { BuiltApp } from './build_thread.ts';

/** How an API is tried: what its answers take, and what it does instead of answering. */
export interface Tried extends Mood {
  /** Milliseconds that an answer takes. */
  readonly delay: number;
}

/** Stand-ins of at most this many apps remember what was done. */
const APPS = 20;
/** Milliseconds that an answer takes, as over a network; and where it is tried slow. */
const USUAL = 80;
const SLOW = 3000;

/** What answers for the described APIs of running apps. What is changed is remembered while the server runs. */
export class StandIns {
  readonly #byApp = new Map<string, Map<string, { readonly plan: string; readonly standIn: StandIn }>>();

  /**
   * What answers for one API of an app; made anew when that has other records or operations than before.
   * @param address where it is asked
   * @returns null where the app has no such API
   */
  of(
    app: string,
    { standIns }: Pick<BuiltApp, 'standIns'>,
    name: string,
    address = `/${app}/api/${name}`,
  ): StandIn | null {
    const plan = standIns.get(name);
    if (plan === undefined) return null;
    const known = this.#byApp.get(app) ?? new Map();
    // The last used is the last to go.
    this.#byApp.delete(app);
    this.#byApp.set(app, known);
    const [oldest] = this.#byApp.keys();
    if (this.#byApp.size > APPS) this.#byApp.delete(oldest);
    const there = known.get(name);
    if (there?.plan === plan) return there.standIn;
    const standIn = createStandIn(JSON.parse(plan) as StandInPlan, address);
    known.set(name, { plan, standIn });
    return standIn;
  }

  /** Makes the records of all APIs of an app what they were at first. */
  reset(app: string): void {
    this.#byApp.delete(app);
  }
}

/** How an API is tried, by the word for it that a request brings. */
export function triedAs(word: unknown): Tried {
  switch (word) {
    case 'slow':
      return { delay: SLOW };
    case 'failing':
      return { delay: USUAL, isFailing: true };
    case 'empty':
      return { delay: USUAL, isEmpty: true };
    case 'signed-out':
      return { delay: USUAL, isSignedOut: true };
    default:
      return { delay: USUAL };
  }
}
