/** What every record has. */
export interface Kept {
  id: string;
}

/** What was done to the records that the app begins with. */
interface Done<T> {
  /** Of each added record what was said of it. */
  added: (Partial<T> & Kept)[];
  changed: Record<string, Partial<T>>;
  removed: string[];
}

/** The record of this id, or all for which this holds. */
export type Which<T> = string | ((record: T) => boolean);

/** What follows from what a field says, such as a look: by which field each goes, and what it is for which text. */
export type Follows<T> = {
  readonly [P in keyof T]?: { by: keyof T; is: Readonly<Record<string, T[P]>> };
};

/** Records of one kind. What is done to them is kept on this device. */
export interface Records<T extends Kept> {
  all(): readonly T[];
  /** The one of this id. */
  find(id: string): T | undefined;
  /** Adds a record, first of all, and returns it; what is not said is as in the one that it is like. */
  add(values: Partial<T>): T;
  change(which: Which<T>, values: Partial<T>): void;
  remove(which: Which<T>): void;
  /** Takes back all that was done. */
  reset(): void;
  /** Is told of each change; returns how to no longer be. */
  subscribe(tell: () => void): () => void;
}

/**
 * @param name under which what is done is kept
 * @param first the records that the app begins with
 * @param like what a new record is where nobody says
 * @param follows what nobody says, since it follows from what is said
 */
export function createRecords<T extends Kept>(
  name: string,
  first: readonly T[],
  like: Omit<T, 'id'>,
  follows: Follows<T> = {},
): Records<T> {
  // Several apps can stand under one address.
  const key = `${import.meta.env.BASE_URL}records/${name}`;
  const listeners = new Set<() => void>();
  const none = (): Done<T> => ({ added: [], changed: {}, removed: [] });
  let done: Done<T> = { ...none(), ...read(key) };
  let now = applied();

  /** A record that says these things besides, with what follows from them. */
  function saying(record: T, said: Partial<T>): T {
    const made: T = { ...record, ...said };
    for (const [name, { by, is }] of Object.entries(follows) as [keyof T, Follow<T>][])
      if (by in said)
        made[name] = is[String(said[by])] ?? (like as Partial<T>)[name] ?? (undefined as never);
    return made;
  }
  function applied(): readonly T[] {
    const gone = new Set(done.removed);
    return [...done.added.map((said) => saying(like as T, said)), ...first]
      .filter((record) => !gone.has(record.id))
      .map((record) =>
        done.changed[record.id] ? saying(record, done.changed[record.id]) : record,
      );
  }
  function become(next: Done<T>): void {
    done = next;
    now = applied();
    localStorage.setItem(key, JSON.stringify(done));
    listeners.forEach((tell) => tell());
  }

  const idsOf = (which: Which<T>): string[] =>
    typeof which === 'string' ? [which] : now.filter(which).map(({ id }) => id);

  return {
    all: () => now,
    find: (id) => now.find((record) => record.id === id),
    add(values) {
      const id = `${Date.now().toString(36)}-${done.added.length + 1}`;
      become({ ...done, added: [{ ...values, id }, ...done.added] });
      return now[0];
    },
    change(which, values) {
      const changed = { ...done.changed };
      for (const id of idsOf(which)) changed[id] = { ...changed[id], ...values };
      become({ ...done, changed });
    },
    remove(which) {
      become({ ...done, removed: [...done.removed, ...idsOf(which)] });
    },
    reset() {
      become(none());
    },
    subscribe(tell) {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },
  };
}

interface Follow<T> {
  by: keyof T;
  is: Readonly<Record<string, T[keyof T]>>;
}

/** What was kept; nothing where that cannot be read. */
function read(key: string): object {
  try {
    return JSON.parse(localStorage.getItem(key) ?? '{}') as object;
  } catch {
    return {};
  }
}
