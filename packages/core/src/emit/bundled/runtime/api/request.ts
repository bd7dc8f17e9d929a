/** What a request is asked by in its address; what is not there is not asked. */
export type Query = Readonly<Record<string, string | number | boolean | undefined>>;

export interface Options {
  query?: Query;
  /** What is sent, as JSON. */
  body?: unknown;
  /** Ends the request when its answer is no longer wanted. */
  signal?: AbortSignal;
}

/** A request that was refused, or that could not be made. */
export class RequestError extends Error {
  /** 0 where there was no answer at all. */
  readonly status: number;
  /** What is wrong with each field that was sent. */
  readonly fields: Readonly<Record<string, string>>;

  constructor(status: number, message: string, fields: Readonly<Record<string, string>> = {}) {
    super(message);
    this.name = 'RequestError';
    this.status = status;
    this.fields = fields;
  }
}

const TOKEN = 'token';

/** Keeps what says who has signed in, until the window is closed; nothing signs out. */
export function signedIn(token: string | null): void {
  if (token === null) sessionStorage.removeItem(TOKEN);
  else sessionStorage.setItem(TOKEN, token);
}

/** What is sent along with each request; what is empty is not sent. */
export interface Along {
  headers?: Readonly<Record<string, string | undefined>>;
  query?: Query;
  /** Whether cookies go along to an address elsewhere. */
  credentials?: RequestCredentials;
}

/** Requests to one API. @param base its address, without a slash at the end */
export function requestsTo(base: string, along: Along = {}) {
  return async function request<T>(
    method: string,
    path: string,
    { query = {}, body, signal }: Options = {},
  ): Promise<T> {
    const asked = new URLSearchParams();
    for (const [name, value] of Object.entries({ ...along.query, ...query }))
      if (value !== undefined && value !== '') asked.set(name, String(value));
    const token = sessionStorage.getItem(TOKEN);
    const headers = Object.entries(along.headers ?? {}).flatMap(([name, value]) =>
      value ? [[name, value] as const] : [],
    );
    const response = await fetch(`${base}${path}${asked.size ? `?${asked}` : ''}`, {
      method,
      signal,
      credentials: along.credentials,
      headers: {
        ...Object.fromEntries(headers),
        accept: 'application/json',
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        ...(token === null ? {} : { authorization: `Bearer ${token}` }),
      },
      body: body === undefined ? undefined : JSON.stringify(body),
    }).catch((error: unknown) => {
      if (signal?.aborted) throw error;
      throw new RequestError(0, 'There was no answer.');
    });
    const answer = read(await response.text());
    if (response.ok && answer !== undefined) return answer as T;
    if (response.ok) throw new RequestError(response.status, 'The answer could not be read.');
    throw new RequestError(response.status, messageIn(answer, response.status), fieldsIn(answer));
  };
}

/** What an answer says; nothing where it is no JSON. */
function read(text: string): unknown {
  try {
    return text ? JSON.parse(text) : null;
  } catch {
    return undefined;
  }
}

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null;

function messageIn(answer: unknown, status: number): string {
  const said = isObject(answer) ? (answer.detail ?? answer.message ?? answer.title) : undefined;
  if (typeof said === 'string' && said) return said;
  return status === 401 || status === 403 ? 'Sign in first.' : `It did not work (${status}).`;
}

/** What is wrong with fields: a list of them with messages, or messages by their names. */
function fieldsIn(answer: unknown): Record<string, string> {
  const errors = isObject(answer) ? answer.errors : undefined;
  if (!isObject(errors)) return {};
  const said = Array.isArray(errors)
    ? errors.flatMap((one: unknown): [string, unknown][] =>
        isObject(one) ? [[String(one.field ?? one.name ?? one.path ?? ''), one.message]] : [],
      )
    : Object.entries(errors);
  return Object.fromEntries(
    said.flatMap(([name, message]): [string, string][] => {
      const text: unknown = Array.isArray(message) ? message[0] : message;
      return name && typeof text === 'string' ? [[name, text]] : [];
    }),
  );
}
