import type { Frame } from './frame.ts';

/** How described APIs are tried, by a word for it. */
export const TRIED = 'tovel-tried';

type Says = Record<string, unknown>;

/** What is done to the records of a collection, as the app keeps it. */
interface Done {
  readonly added?: readonly (Says & { readonly id: string })[];
  readonly changed?: Readonly<Record<string, Says>>;
  readonly removed?: readonly string[];
}

/** All that an app remembers at a moment. */
interface Kept {
  readonly variables: string | null;
  /** Those that are kept on the device. */
  readonly onDevice?: string | null;
  readonly records: Readonly<Record<string, string>>;
}

/**
 * Tells what the app remembers as it changes, with what was pressed last; sets it, and sets it back.
 * @param ask asks the server that the app is served by
 * @returns all that is remembered now
 */
export function tellRemembered(frame: Frame, ask: typeof fetch): () => Kept {
  const variablesKey = `${frame.base}/variables`;
  const recordsKey = `${frame.base}/records/`;
  const recordKeys = (): string[] => Object.keys(localStorage).filter((key) => key.startsWith(recordsKey));
  const variables = (): Says => ({
    ...read<Says>(sessionStorage.getItem(variablesKey)),
    ...read<Says>(localStorage.getItem(variablesKey)),
  });
  const tell = (changes: readonly object[]): void =>
    frame.tell('state', {
      variables: variables(),
      query: location.search,
      tried: sessionStorage.getItem(TRIED) ?? 'usual',
      changes,
      by: frame.pressed,
    });
  const { setItem } = Storage.prototype;
  Storage.prototype.setItem = function set(key: string, value: string): void {
    const before = this.getItem(key);
    setItem.call(this, key, value);
    if (key === variablesKey) {
      const was = read<Says>(before);
      tell(
        Object.entries(read<Says>(value))
          .filter(([name, is]) => JSON.stringify(was[name]) !== JSON.stringify(is))
          .map(([name, is]) => ({ variable: name, is })),
      );
    } else if (key.startsWith(recordsKey))
      tell(changesOf(key.slice(recordsKey.length), read<Done>(before), read<Done>(value)));
  };

  frame.on('set', ({ name = '', value, kept }) => {
    frame.forgetPressed();
    if (kept === 'address') {
      const address = new URL(location.href);
      address.searchParams.set(name, String(value));
      location.replace(address);
      return;
    }
    const storage = kept === 'device' ? localStorage : sessionStorage;
    storage.setItem(variablesKey, JSON.stringify({ ...read(storage.getItem(variablesKey)), [name]: value }));
    location.reload();
  });
  frame.on('try', ({ name = 'usual' }) => {
    sessionStorage.setItem(TRIED, name);
    location.reload();
  });
  frame.on('set-back', () => {
    sessionStorage.removeItem(TRIED);
    sessionStorage.removeItem(variablesKey);
    localStorage.removeItem(variablesKey);
    for (const key of recordKeys()) localStorage.removeItem(key);
    void ask(`${frame.base}/api`, { method: 'DELETE' }).then(() => location.reload());
  });
  frame.on('restore', ({ kept, to = '/' }) => {
    const { variables: inTab, onDevice = null, records } = kept as Kept;
    for (const [storage, said] of [
      [sessionStorage, inTab],
      [localStorage, onDevice],
    ] as const)
      if (said === null) storage.removeItem(variablesKey);
      else setItem.call(storage, variablesKey, said);
    for (const key of recordKeys()) if (!(key in records)) localStorage.removeItem(key);
    for (const [key, value] of Object.entries(records))
      if (key.startsWith(recordsKey)) setItem.call(localStorage, key, value);
    frame.goTo(to);
  });
  tell([]);
  return () => ({
    variables: sessionStorage.getItem(variablesKey),
    onDevice: localStorage.getItem(variablesKey),
    records: Object.fromEntries(recordKeys().map((key) => [key, localStorage.getItem(key) ?? ''])),
  });
}

function read<T extends object>(text: string | null): T {
  try {
    return JSON.parse(text ?? '{}') as T;
  } catch {
    return {} as T;
  }
}

const saidOf = (says: Says): string => Object.values(says).filter(Boolean).join(' · ');

/** What became of the records of a collection. */
const changesOf = (collection: string, before: Done, now: Done): object[] => [
  ...(now.added ?? [])
    .filter((one) => !(before.added ?? []).some(({ id }) => id === one.id))
    .map(({ id: _id, ...says }) => ({ collection, did: 'added', says: saidOf(says) })),
  ...(now.removed ?? [])
    .filter((id) => !(before.removed ?? []).includes(id))
    .map((id) => ({ collection, did: 'removed', says: id })),
  ...Object.entries(now.changed ?? {})
    .filter(([id, says]) => JSON.stringify(says) !== JSON.stringify(before.changed?.[id]))
    .map(([id, says]) => ({ collection, did: 'changed', says: `${id}: ${saidOf(says)}` })),
];
