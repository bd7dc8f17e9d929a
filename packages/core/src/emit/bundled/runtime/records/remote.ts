import { notices } from '../shell/notices';
import { type QueryClient, queryClient, QueryObserver } from '../api/queryClient';
import { RequestError } from '../api/request';
import type { Kept, Which } from './records';

/** What a list is asked for. */
export interface Asked {
  search?: string;
  /** A field; with a minus before it from the last to the first. */
  sort?: string;
  filters: Readonly<Record<string, string>>;
  /** From 1 on. */
  page?: number;
  perPage?: number;
}

/** Records that were given, and how many there are in all, where that is said. */
export interface Given<T> {
  rows: readonly T[];
  total?: number;
}

/** How records of one kind come from an API. */
export interface Source<T extends Kept> {
  name: string;
  list: (asked: Asked, signal?: AbortSignal) => Promise<Given<T>>;
  /** What the API does by itself; the rest is done here, with all records. */
  does: {
    search?: boolean;
    pages?: boolean;
    sort?: readonly (keyof T & string)[];
    filter?: readonly (keyof T & string)[];
  };
  read?: (id: string, signal?: AbortSignal) => Promise<T>;
  add?: (values: Partial<T>) => Promise<unknown>;
  change?: (id: string, values: Partial<T>) => Promise<unknown>;
  remove?: (id: string) => Promise<unknown>;
  /** What fields are called here that the API calls otherwise, by what it calls them. */
  called?: Readonly<Record<string, string>>;
}

/** Records of one kind that an API keeps. */
export interface Remote<T extends Kept> {
  source: Source<T>;
  /** All of them, page after page. */
  all: (signal?: AbortSignal) => Promise<readonly T[]>;
  /** All of them, as far as they have come to those who listen. */
  known: () => readonly T[];
  /** Asks for all of them, and tells whenever they are others. @returns ends it */
  subscribe: (tell: () => void) => () => void;
  /** The one of this id, where it has been given before. */
  find: (id: string) => T | undefined;
  /** Adds a record, and gives what was said of it. @throws RequestError where that is refused */
  add: (values: Partial<T>) => Promise<Partial<T>>;
  /** What is seen changes at once; where the API refuses it, that is told, and it is as it was. */
  change: (which: Which<T>, values: Partial<T>) => Promise<void>;
  remove: (which: Which<T>) => Promise<void>;
}

/** Pages that are asked for when all records are wanted, and how many records each has. */
const MOST_PAGES = 50;
const PAGE = 100;

export function createRemote<T extends Kept>(
  source: Source<T>,
  client: QueryClient = queryClient,
): Remote<T> {
  const key = [source.name];
  /** Changes what is seen; returns how to take that back. */
  const seenAs = (change: (rows: readonly T[]) => readonly T[]): (() => void) => {
    const before = client.getQueriesData<Given<T>>({ queryKey: key });
    for (const [one, value] of before)
      if (value) client.setQueryData(one, { ...value, rows: change(value.rows) });
    return () => before.forEach(([one, value]) => client.setQueryData(one, value));
  };
  const settled = (): Promise<void> => client.invalidateQueries({ queryKey: key });
  /** Does something that is seen before the API has answered. */
  const atOnce = async (
    seen: (rows: readonly T[]) => readonly T[],
    call: (() => Promise<unknown>) | undefined,
  ): Promise<void> => {
    if (!call) return notices.tell(`This cannot be done to ${source.name}.`);
    await client.cancelQueries({ queryKey: key });
    const takeBack = seenAs(seen);
    await call().catch((error: unknown) => {
      takeBack();
      notices.tell(error);
    });
    await settled();
  };
  const all = async (signal?: AbortSignal): Promise<readonly T[]> => {
    const found: T[] = [];
    for (let page = 1; page <= MOST_PAGES; page++) {
      const { rows, total } = await source.list({ filters: {}, page, perPage: PAGE }, signal);
      found.push(...rows);
      if (!source.does.pages || !rows.length || found.length >= (total ?? Infinity)) break;
      if (total === undefined && rows.length < PAGE) break;
    }
    return found;
  };
  let observer: QueryObserver<Given<T>> | null = null;
  const observed = (): QueryObserver<Given<T>> =>
    (observer ??= new QueryObserver<Given<T>>(client, {
      queryKey: [...key, 'list', null],
      queryFn: async ({ signal }) => ({ rows: await all(signal) }),
    }));
  /** Does something to each that is meant; what cannot be known because nothing comes is told. */
  const each = async (which: Which<T>, act: (id: string) => Promise<void>): Promise<void> => {
    if (typeof which === 'string') return act(which);
    try {
      await Promise.all((await all()).filter(which).map(({ id }) => act(id)));
    } catch (error) {
      notices.tell(error);
    }
  };
  return {
    source,
    all,
    known: () => observed().getCurrentResult().data?.rows ?? [],
    subscribe: (tell) => observed().subscribe(tell),
    find: (id) =>
      client
        .getQueriesData<Given<T>>({ queryKey: key })
        .flatMap(([, given]) => given?.rows ?? [])
        .find((record) => record.id === id),
    async add(values) {
      if (!source.add) throw new Error(`Nothing can be added to ${source.name}.`);
      try {
        await source.add(values);
      } catch (error) {
        throw inOwnWords(error, source.called);
      }
      await settled();
      return values;
    },
    change: (which, values) =>
      each(which, (id) =>
        atOnce(
          (rows) => rows.map((row) => (row.id === id ? { ...row, ...values } : row)),
          source.change && (() => source.change!(id, values)),
        ),
      ),
    remove: (which) =>
      each(which, (id) =>
        atOnce(
          (rows) => rows.filter((row) => row.id !== id),
          source.remove && (() => source.remove!(id)),
        ),
      ),
  };
}

/** All records that an API keeps; nothing where they do not come, which is told. */
export async function allOf<T>({
  all,
}: {
  all: () => Promise<readonly T[]>;
}): Promise<readonly T[] | null> {
  try {
    return await all();
  } catch (error) {
    notices.tell(error);
    return null;
  }
}

/** An error that speaks of fields as they are called here. */
function inOwnWords(error: unknown, called: Readonly<Record<string, string>> = {}): unknown {
  if (!(error instanceof RequestError)) return error;
  const fields = Object.entries(error.fields).map(([name, message]) => [
    called[name] ?? name,
    message,
  ]);
  return new RequestError(error.status, error.message, Object.fromEntries(fields));
}

/** One record as the API gives it; none where there is no such. */
export async function oneOf<T extends Kept>(
  { source, all }: Remote<T>,
  id: string,
  signal: AbortSignal,
): Promise<Given<T>> {
  if (source.read) return { rows: [await source.read(id, signal)] };
  return { rows: (await all(signal)).filter((record) => record.id === id) };
}

/** A text for what an API says of one field. */
export function said(value: unknown): string {
  if (value === null || value === undefined) return '';
  if (typeof value === 'object') return Object.values(value).map(said).filter(Boolean).join(', ');
  return typeof value === 'boolean' ? (value ? 'yes' : 'no') : String(value);
}

/** What the API calls the field that is sorted by, with its minus. @param names where it calls fields otherwise */
export function sortName(
  sort: string | undefined,
  names: Readonly<Record<string, string>>,
): string | undefined {
  if (!sort) return undefined;
  const field = sort.replace(/^-/, '');
  return (sort.startsWith('-') ? '-' : '') + (names[field] ?? field);
}

/** A number for what is written in a field; nothing where it is none. */
export function numberIn(text: string | undefined): number | undefined {
  const number = Number((text ?? '').replace(/[^\d.-]/g, '') || 'none');
  return Number.isNaN(number) ? undefined : number;
}
