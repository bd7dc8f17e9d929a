import type { App } from '../model/app.ts';

/** One value of one table, before and after. */
export interface Written {
  readonly table: string;
  readonly key: string;
}

interface Origin {
  /** Weak, so that a document does not keep all that came before it. */
  readonly before: WeakRef<App>;
  readonly written: readonly Written[];
}

const origins = new WeakMap<App, Origin>();

/** More than this, and computing from nothing is as quick. */
const MOST = 200;

/** Notes what a document was made from, so that what follows from it can be computed from what followed before. */
export function noteOrigin(after: App, before: App, written: readonly Written[]): void {
  if (after !== before && written.length <= MOST)
    origins.set(after, { before: new WeakRef(before), written });
}

/** The document that this one was made from and what was written, if that is known. */
export function originOf(app: App): { readonly before: App; readonly written: readonly Written[] } | null {
  const origin = origins.get(app);
  const before = origin?.before.deref();
  return origin && before ? { before, written: origin.written } : null;
}
