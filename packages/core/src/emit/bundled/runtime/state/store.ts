/** For how long a variable is remembered; while the tab is open where nothing is said. */
export type Keeping = 'screen' | 'address' | 'device';

interface Rules<T> {
  readonly kept?: { readonly [K in keyof T]?: Keeping };
  /** What is worked out from the others, each after those that it looks at. */
  readonly derived?: { readonly [K in keyof T]?: (now: T) => T[K] };
  /** Records that something is worked out from: it is whenever they change. */
  readonly follows?: readonly { subscribe(tell: () => void): unknown }[];
}

/** What an app remembers. */
export interface Store<T> {
  readonly now: () => T;
  readonly set: <K extends keyof T>(name: K, value: T[K] | ((now: T) => T[K])) => void;
  /** @returns what ends the listening */
  readonly listen: (tell: () => void) => () => void;
}

const KEY = `${import.meta.env.BASE_URL}variables`;

/** @param initial what there is when the app opens */
export function createStore<T extends object>(
  initial: T,
  { kept = {}, derived = {}, follows = [] }: Rules<T> = {},
): Store<T> {
  const names = Object.keys(initial) as (keyof T & string)[];
  const keptIn = (where: Keeping | undefined) => names.filter((name) => kept[name] === where);
  const listeners = new Set<() => void>();
  let path = location.pathname;
  let query = location.search;
  let now = worked({
    ...initial,
    ...read(sessionStorage),
    ...read(localStorage),
    ...forgotten(),
    ...addressed(),
  });

  function worked(values: T): T {
    for (const name of names) {
      const work = derived[name];
      if (work) values[name] = work(values);
    }
    return values;
  }

  /** What belongs to a screen, as it is when one comes there. */
  function forgotten(): Partial<T> {
    return Object.fromEntries(keptIn('screen').map((name) => [name, initial[name]])) as Partial<T>;
  }

  function addressed(): Partial<T> {
    const said = new URLSearchParams(query);
    return Object.fromEntries(
      keptIn('address').map((name) => [name, parsed(said.get(name), initial[name])]),
    ) as Partial<T>;
  }

  /** What the address says and what belongs to a screen follow where one is. */
  function look(): T {
    if (path === location.pathname && query === location.search) return now;
    const isElsewhere = path !== location.pathname;
    path = location.pathname;
    query = location.search;
    now = worked({ ...now, ...addressed(), ...(isElsewhere ? forgotten() : {}) });
    return now;
  }

  function write(): void {
    const said = (names: readonly (keyof T)[]) =>
      JSON.stringify(
        Object.fromEntries(names.flatMap((name) => (derived[name] ? [] : [[name, now[name]]]))),
      );
    const onDevice = keptIn('device');
    sessionStorage.setItem(KEY, said([...keptIn(undefined), ...keptIn('screen')]));
    if (onDevice.length) localStorage.setItem(KEY, said(onDevice));
  }

  /** Writes a value into the address, in a way that routers hear of. */
  function say(name: string, value: unknown, isFirst: boolean): void {
    const address = new URL(location.href);
    if (isFirst) address.searchParams.delete(name);
    else address.searchParams.set(name, String(value));
    history.replaceState(history.state, '', address);
    query = location.search;
    window.dispatchEvent(new PopStateEvent('popstate', { state: history.state }));
  }

  const told = (): void => listeners.forEach((tell) => tell());
  for (const records of follows)
    records.subscribe(() => {
      now = worked({ ...look() });
      told();
    });

  return {
    now: look,
    set: (name, value) => {
      const before = look();
      const is =
        typeof value === 'function' ? (value as (now: T) => T[typeof name])(before) : value;
      now = worked({ ...before, [name]: is });
      if (kept[name] === 'address') say(String(name), is, String(is) === String(initial[name]));
      write();
      told();
    },
    listen: (tell) => {
      listeners.add(tell);
      window.addEventListener('popstate', tell);
      return () => {
        listeners.delete(tell);
        window.removeEventListener('popstate', tell);
      };
    },
  };
}

/** What was kept; nothing where it cannot be read. */
function read(storage: Storage): object {
  try {
    return JSON.parse(storage.getItem(KEY) ?? '{}') as object;
  } catch {
    return {};
  }
}

/** A value of the kind of another, as an address says it. */
function parsed(text: string | null, like: unknown): unknown {
  if (text === null) return like;
  if (Array.isArray(like)) return text ? text.split(',') : [];
  if (typeof like === 'boolean') return text === 'true';
  if (typeof like === 'number') return Number.isFinite(Number(text)) ? Number(text) : like;
  return text;
}
