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

/** Records of one kind. What is done to them is kept on this device. */
export interface Records<T extends Kept> {
  all(): readonly T[];
  /** Adds a record, first of all; what is not said is as in the one that it is like. Returns its id. */
  add(values: Partial<T>): string;
  change(id: string, values: Partial<T>): void;
  remove(id: string): void;
  /** Takes back all that was done. */
  reset(): void;
  /** Is told of each change; returns how to no longer be. */
  subscribe(tell: () => void): () => void;
}

/**
 * @param name under which what is done is kept
 * @param first the records that the app begins with
 * @param like what a new record is where nobody says
 */
export function createRecords<T extends Kept>(
  name: string,
  first: readonly T[],
  like: Omit<T, 'id'>,
): Records<T> {
  // Several apps can stand under one address.
  const key = `${import.meta.env.BASE_URL}records/${name}`;
  const listeners = new Set<() => void>();
  const none = (): Done<T> => ({ added: [], changed: {}, removed: [] });
  let done: Done<T> = { ...none(), ...read(key) };
  let now = applied();

  function applied(): readonly T[] {
    const gone = new Set(done.removed);
    return [...done.added.map((said) => ({ ...like, ...said }) as T), ...first]
      .filter((record) => !gone.has(record.id))
      .map((record) =>
        done.changed[record.id] ? { ...record, ...done.changed[record.id] } : record,
      );
  }
  function become(next: Done<T>): void {
    done = next;
    now = applied();
    localStorage.setItem(key, JSON.stringify(done));
    listeners.forEach((tell) => tell());
  }

  return {
    all: () => now,
    add(values) {
      const id = `${Date.now().toString(36)}-${done.added.length + 1}`;
      const record = { ...values, id };
      become({ ...done, added: [record, ...done.added] });
      return record.id;
    },
    change(id, values) {
      become({ ...done, changed: { ...done.changed, [id]: { ...done.changed[id], ...values } } });
    },
    remove(id) {
      become({ ...done, removed: [...done.removed, id] });
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

/** What was kept; nothing where that cannot be read. */
function read(key: string): object {
  try {
    return JSON.parse(localStorage.getItem(key) ?? '{}') as object;
  } catch {
    return {};
  }
}
