/** Who makes steps: this device and this window of it, as histories name authors. */

const letters = 'abcdefghijkmnpqrstuvwxyz23456789';

/** A name that nothing else has. */
export const newName = (length = 12): string =>
  [...crypto.getRandomValues(new Uint8Array(length))].map((byte) => letters[byte % 31]).join('');

/** Storage may be forbidden; then a name lasts as long as the page. */
function remembered(storage: () => Storage, key: string): string {
  try {
    const known = storage().getItem(key);
    if (known) return known;
    const made = newName();
    storage().setItem(key, made);
    return made;
  } catch {
    return newName();
  }
}

const lockOf = (name: string): string => `tovel-window-${name}`;

/** Holds a lock for as long as the page lives; false where another page holds it. */
function holdLock(name: string): Promise<boolean> {
  return new Promise((resolve) => {
    void navigator.locks.request(lockOf(name), { ifAvailable: true }, (lock) => {
      resolve(lock !== null);
      return lock ? new Promise<void>(() => {}) : undefined;
    });
  });
}

let own: Promise<string> | null = null;

/**
 * The name of this window: the same after a reload, another in a window that was made as a copy of it. While the window
 * lives, a lock says so to others.
 */
export function ownWindow(): Promise<string> {
  own ??= (async () => {
    const name = remembered(() => sessionStorage, 'tovel-window');
    if (!('locks' in navigator) || (await holdLock(name))) return name;
    const other = newName();
    sessionStorage.setItem('tovel-window', other);
    await holdLock(other);
    return other;
  })();
  return own;
}

/** The windows of this device that live, by their names. */
export async function livingWindows(): Promise<ReadonlySet<string>> {
  if (!('locks' in navigator)) return new Set([await ownWindow()]);
  const { held = [] } = await navigator.locks.query();
  return new Set(held.map(({ name = '' }) => name.replace(/^tovel-window-/, '')));
}

export const ownDevice = (): string => remembered(() => localStorage, 'tovel-device');
