/** What a property of something that is sent has to be. */
export interface Rule {
  readonly name: string;
  /** As JSON Schema names types; none where anything is. */
  readonly type?: string;
  readonly required?: boolean;
  readonly choices?: readonly string[];
  readonly format?: string;
  /** Fewest and most letters, smallest and largest number. */
  readonly least?: number;
  readonly most?: number;
  readonly pattern?: string;
}

/** What a parameter of a query is for. */
export interface AskedBy {
  readonly name: string;
  readonly for: 'page' | 'page-size' | 'offset' | 'sort' | 'order' | 'search' | 'filter';
  /** Of a filter: the property that it looks at. */
  readonly property?: string;
}

/** An operation and how it is answered. */
export interface StandInOperation {
  readonly id: string;
  readonly method: string;
  /** With parameters in braces. */
  readonly path: string;
  readonly does: 'list' | 'read' | 'add' | 'change' | 'remove' | 'sign-in' | 'sign-out' | 'other';
  /** Name of the records that it is about. */
  readonly records: string;
  /** Status of an answer when all is well. */
  readonly status: number;
  /** Names of the fields that lead to the records within an answer, and to how many there are in all. */
  readonly within: readonly string[];
  readonly total?: readonly string[];
  /** Of signing in: names of the fields that lead to what says who has signed in. */
  readonly token?: readonly string[];
  readonly query: readonly AskedBy[];
  readonly sends: readonly Rule[];
  /** Only who has signed in gets an answer. */
  readonly isGuarded?: boolean;
}

type Json = Readonly<Record<string, unknown>>;

/** All that a stand-in knows of an API. */
export interface StandInPlan {
  readonly title: string;
  /** The property by which each kind of records is known. */
  readonly keys: Readonly<Record<string, string>>;
  readonly operations: readonly StandInOperation[];
  /** The records that it begins with. What begins with /pictures/ is given the address of the stand-in. */
  readonly records: Readonly<Record<string, readonly Json[]>>;
}

export interface Request {
  readonly method: string;
  /** From the base address on. */
  readonly path: string;
  readonly query: Readonly<Record<string, string>>;
  readonly body?: unknown;
}

export interface Answer {
  readonly status: number;
  readonly body?: unknown;
  readonly operation?: string;
}

/** How a stand-in behaves while somebody tries what the app makes of that. */
export interface Mood {
  readonly isFailing?: boolean;
  readonly isEmpty?: boolean;
  readonly isSignedOut?: boolean;
}

export interface StandIn {
  answer(request: Request, mood?: Mood): Answer;
  records(): Readonly<Record<string, readonly Json[]>>;
  /** Makes the records what they were at first. */
  reset(): void;
}

/** A part of a path that has more parameters than that is none that anybody asks. */
const MOST_IN_PART = 3;
/** A page has so many records where nobody says. */
const USUAL_PAGE = 20;
/** More records of one kind are not kept. */
const MOST_RECORDS = 10_000;

const plain = (value: unknown): string =>
  typeof value === 'object' && value !== null
    ? Object.values(value).map(plain).join(' ')
    : String(value ?? '')
        .trim()
        .toLowerCase();

/**
 * Answers the operations of an API from records that it keeps while it runs.
 * @param at the address that pictures have before them
 */
export function createStandIn(plan: StandInPlan, at = ''): StandIn {
  const first = (): Map<string, Json[]> =>
    new Map(
      Object.entries(plan.records).map(([name, all]) => [
        name,
        all.map((one) => withPictures(one, at)),
      ]),
    );
  let kept = first();
  let added = 0;
  const all = (name: string): Json[] => kept.get(name) ?? [];
  const guards = plan.operations.some((one) => one.isGuarded);
  const keyOf = (name: string): string => plan.keys[name] ?? 'id';

  const answer = (request: Request, mood: Mood = {}): Answer => {
    const found = operationFor(plan.operations, request);
    if (typeof found === 'number')
      return problem(found, found === 404 ? 'There is nothing here.' : 'Not so.');
    const { operation, given } = found;
    const { id, status, within } = operation;
    const told = (result: Answer): Answer => ({ ...result, operation: id });
    if (mood.isFailing) return told(problem(503, 'The service does not work at the moment.'));
    // Where nothing says who may ask, all but signing in is for those who have signed in.
    const isGuarded = guards ? operation.isGuarded === true : operation.does !== 'sign-in';
    if (mood.isSignedOut && isGuarded) return told(problem(401, 'Sign in first.'));
    const name = operation.records;
    const key = keyOf(name);
    const last = Object.values(given).at(-1);
    const here = all(name).findIndex((one) => String(one[key]) === last);
    const missing = (): Answer => told(problem(404, `There is no ${last ?? 'such record'}.`));
    switch (operation.does) {
      case 'list':
        return told({
          status,
          body: listed(operation, mood.isEmpty ? [] : all(name), request.query, given),
        });
      case 'read': {
        const one = last === undefined ? all(name)[0] : all(name)[here];
        return one && !mood.isEmpty ? told({ status, body: put(within, one) }) : missing();
      }
      case 'add': {
        const problems = wrongIn(request.body, operation.sends, false);
        if (problems.length) return told(invalid(problems));
        if (all(name).length >= MOST_RECORDS)
          return told(problem(507, 'There is no room for more.'));
        const one: Json = {
          ...defaults(all(name)[0]),
          ...(request.body as Json),
          [key]: `new-${++added}`,
        };
        kept.set(name, [one, ...all(name)]);
        return told(status === 204 ? { status } : { status, body: put(within, one) });
      }
      case 'change': {
        if (here < 0) return missing();
        const problems = wrongIn(request.body, operation.sends, operation.method === 'PATCH');
        if (problems.length) return told(invalid(problems));
        const one = { ...all(name)[here], ...(request.body as Json), [key]: all(name)[here][key] };
        kept.set(name, all(name).with(here, one));
        return told(status === 204 ? { status } : { status, body: put(within, one) });
      }
      case 'remove':
        if (here < 0) return missing();
        kept.set(name, all(name).toSpliced(here, 1));
        return told({ status });
      case 'sign-in': {
        const problems = wrongIn(request.body ?? {}, operation.sends, false);
        return told(
          problems.length
            ? invalid(problems)
            : { status, body: put(operation.token ?? [], 'stand-in') },
        );
      }
      default:
        return told(status === 204 ? { status } : { status, body: {} });
    }
  };
  return {
    answer,
    records: () => Object.fromEntries(kept),
    reset: () => {
      kept = first();
      added = 0;
    },
  };
}

function withPictures(record: Json, at: string): Json {
  return Object.fromEntries(
    Object.entries(record).map(([name, value]) => [
      name,
      typeof value === 'string' && value.startsWith('/pictures/') ? at + value : value,
    ]),
  );
}

/** The operation that a request asks for with what its path gives; a status where there is none. */
function operationFor(
  operations: readonly StandInOperation[],
  { method, path }: Request,
): { operation: StandInOperation; given: Record<string, string> } | 404 | 405 {
  const parts = path.replace(/^\/+|\/+$/g, '').split('/');
  let isThere = false;
  // What is written out goes before what a parameter takes.
  const byWords = [...operations].sort(
    (a, b) => a.path.split('{').length - b.path.split('{').length,
  );
  for (const operation of byWords) {
    const wanted = operation.path.replace(/^\/+|\/+$/g, '').split('/');
    const given: Record<string, string> = {};
    const fits =
      wanted.length === parts.length &&
      wanted.every((part, i) => {
        const names = [...part.matchAll(/\{([^}]+)\}/g)].map(([, name]) => name);
        if (!names.length) return part === parts[i];
        if (names.length > MOST_IN_PART) return false;
        const found = shapeOf(part).exec(parts[i]);
        found?.slice(1).forEach((value, at) => (given[names[at]] = decoded(value)));
        return found !== null;
      });
    if (!fits) continue;
    if (operation.method === method) return { operation, given };
    isThere = true;
  }
  return isThere ? 405 : 404;
}

/** What a part of a path looks like, of which parameters are some: `{list}.json`. */
const shapeOf = (part: string): RegExp =>
  new RegExp(
    `^${part
      .split(/\{[^}]+\}/)
      .map((text) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'))
      .join('(.+)')}$`,
  );

function decoded(part: string): string {
  try {
    return decodeURIComponent(part);
  } catch {
    return part;
  }
}

/** The records that a list is asked for, as its answer holds them. */
function listed(
  { query: asked, within, total }: StandInOperation,
  records: readonly Json[],
  query: Readonly<Record<string, string>>,
  given: Readonly<Record<string, string>>,
): unknown {
  const said = (purpose: AskedBy['for']): string | undefined => {
    const by = asked.find((one) => one.for === purpose && query[one.name]);
    return by && query[by.name];
  };
  const words = plain(said('search')).split(/\s+/).filter(Boolean);
  const filters = asked.flatMap(({ for: purpose, name, property = name }) =>
    purpose === 'filter' && query[name] ? [[property, query[name]] as const] : [],
  );
  const isUnder = (record: Json): boolean =>
    Object.entries(given).every(
      ([name, value]) => !(name in record) || plain(record[name]) === plain(value),
    );
  const fitting = records.filter(
    (record) =>
      isUnder(record) &&
      words.every((word) => plain(record).includes(word)) &&
      filters.every(([name, value]) => plain(record[name]) === plain(value)),
  );
  const sorted = sortedBy(fitting, said('sort'), said('order'));
  const size = Math.max(1, Number(said('page-size')) || USUAL_PAGE);
  const isPaged = asked.some(({ for: purpose }) => purpose === 'page' || purpose === 'offset');
  const start = Number(said('offset')) || (Math.max(1, Number(said('page')) || 1) - 1) * size;
  const rows = isPaged ? sorted.slice(start, start + size) : sorted;
  if (!within.length) return rows;
  const body = put(within, rows) as Record<string, unknown>;
  return total ? merged(body, put(total, sorted.length) as Record<string, unknown>) : body;
}

function sortedBy(records: readonly Json[], sort = '', order = ''): readonly Json[] {
  const field = sort.replace(/^[-+]/, '').replace(/[:, ](asc|desc)$/i, '');
  if (!field) return records;
  const isDown = sort.startsWith('-') || /desc$/i.test(sort) || /^desc|^-/i.test(order);
  const sorted = [...records].sort((a, b) => {
    const [left, right] = [a[field], b[field]];
    if (typeof left === 'number' && typeof right === 'number') return left - right;
    return plain(left).localeCompare(plain(right), undefined, { numeric: true });
  });
  return isDown ? sorted.reverse() : sorted;
}

/** A value where names lead to it: `['data', 'items']` → `{ data: { items: … } }`. */
const put = (within: readonly string[], value: unknown): unknown =>
  within.reduceRight<unknown>((inner, name) => ({ [name]: inner }), value);

function merged(
  one: Record<string, unknown>,
  other: Record<string, unknown>,
): Record<string, unknown> {
  const made = { ...one };
  for (const [name, value] of Object.entries(other)) {
    const there = made[name];
    made[name] = isObject(there) && isObject(value) ? merged(there, value) : value;
  }
  return made;
}

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** What a new record says where nobody says: nothing, in the type of what the others say. */
const defaults = (like: Json = {}): Json =>
  Object.fromEntries(
    Object.entries(like).map(([name, value]) => [
      name,
      typeof value === 'string'
        ? ''
        : typeof value === 'number'
          ? 0
          : typeof value === 'boolean'
            ? false
            : null,
    ]),
  );

interface Wrong {
  readonly field: string;
  readonly message: string;
}

/** What is wrong with something that was sent. @param isPart only some of it has to be there */
function wrongIn(body: unknown, rules: readonly Rule[], isPart: boolean): Wrong[] {
  if (!isObject(body)) return [{ field: '', message: 'Expected an object.' }];
  return rules.flatMap((rule): Wrong[] => {
    const value = body[rule.name];
    const message =
      value === undefined || value === null || value === ''
        ? rule.required && !(isPart && value === undefined)
          ? 'Has to be there.'
          : null
        : wrongWith(value, rule);
    return message === null ? [] : [{ field: rule.name, message }];
  });
}

function wrongWith(
  value: unknown,
  { type, choices, format, least, most, pattern }: Rule,
): string | null {
  const kind = Array.isArray(value) ? 'array' : Number.isInteger(value) ? 'integer' : typeof value;
  if (type !== undefined && kind !== type && !(type === 'number' && kind === 'integer'))
    return `Expected ${type}.`;
  if (choices && !choices.includes(String(value))) return `Expected one of ${choices.join(', ')}.`;
  const size = typeof value === 'number' ? value : typeof value === 'string' ? value.length : 0;
  const what = typeof value === 'number' ? '' : ' letters';
  if (least !== undefined && size < least) return `Expected ${least}${what} or more.`;
  if (most !== undefined && size > most) return `Expected ${most}${what} or less.`;
  if (typeof value !== 'string') return null;
  if (format === 'email' && !/^[^\s@]+@[^\s@]+$/.test(value)) return 'Expected an e-mail address.';
  if (format?.startsWith('date') && Number.isNaN(Date.parse(value))) return 'Expected a date.';
  if (pattern !== undefined && !new RegExp(pattern, 'u').test(value)) return `Expected ${pattern}.`;
  return null;
}

/** What is wrong, as RFC 9457 has it. */
const problem = (status: number, title: string): Answer => ({ status, body: { status, title } });

const invalid = (errors: readonly Wrong[]): Answer => ({
  status: 422,
  body: { status: 422, title: 'Not all of it is right.', errors },
});
