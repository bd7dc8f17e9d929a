import type {
  Answers,
  ApiError,
  ChangeResult,
  CodeDelivery,
  ComparisonAnswer,
  ComparisonScore,
  SweepKept,
  Conflict,
  ConnectedRepository,
  DesignSource,
  FetchedText,
  NewChange,
  MergeSide,
  Note,
  PlaceInCode,
  ProjectState,
  ProjectSummary,
  PublicationAnswer,
  PushPlan,
  ShippedFace,
  ShippedSheet,
  IconLibrary,
  PackageAddress,
  HeardAnswer,
  LibraryRead,
  SourceFile,
  SweptAnswer,
  Timeline,
  UtilityPlan,
  Version,
  WaitingRound,
  WebFont,
} from '@tovel/core';

const bytesOf = (base64: string): Uint8Array => Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));

/** Which side of a conflict counts. */
export interface MergeAnswer {
  readonly id: string;
  readonly side: MergeSide;
}

/** An answer of the server that is not the wanted one; `message` can be shown. */
export class RequestError extends Error {
  readonly status: number;
  readonly code: string;
  /** Milliseconds after which the server wants to be asked again. */
  readonly retryAfter?: number;

  constructor(status: number, { code, message }: ApiError, retryAfter?: number) {
    super(message);
    this.status = status;
    this.code = code;
    if (retryAfter !== undefined) this.retryAfter = retryAfter;
  }
}

/** Others came first; carries what was missed. */
export class BehindError extends Error {
  readonly conflict: Conflict;

  constructor(conflict: Conflict) {
    super(conflict.message);
    this.conflict = conflict;
  }
}

/** Who makes a step, and on which place of the history. */
export interface StepInput {
  readonly base: number;
  readonly id?: string;
  readonly author?: string;
  readonly since?: number;
}

const retryAfterOf = (response: Response): number | undefined => {
  const seconds = Number(response.headers.get('retry-after'));
  return seconds > 0 ? Math.min(seconds, 60) * 1000 : undefined;
};

/** Attempts at work that is rationed, before that is said. */
const MOST_ATTEMPTS = 4;

/** Asks again, when the server says so, for what can be asked twice. */
async function patiently<T>(ask: () => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await ask();
    } catch (error) {
      const isBusy = error instanceof RequestError && error.status === 429;
      if (!isBusy || attempt >= MOST_ATTEMPTS) throw error;
      await new Promise((resolve) => setTimeout(resolve, error.retryAfter ?? 1000));
    }
  }
}

async function request<T>(
  method: string,
  path: string,
  body?: unknown,
  headers: Record<string, string> = {},
  signal?: AbortSignal,
): Promise<T> {
  const isBytes = body instanceof Uint8Array;
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      ...(signal ? { signal } : {}),
      headers: {
        ...(body === undefined
          ? {}
          : { 'content-type': isBytes ? 'application/octet-stream' : 'application/json' }),
        ...headers,
      },
      ...(body === undefined ? {} : { body: isBytes ? (body as BodyInit) : JSON.stringify(body) }),
    });
  } catch {
    signal?.throwIfAborted();
    throw new RequestError(0, UNREACHABLE);
  }
  if (response.status === 204) return undefined as T;
  if (response.ok) return (await response.json().catch(() => null)) as T;
  throw await refusalOf(response);
}

const UNREACHABLE: ApiError = {
  code: 'unreachable',
  message: 'The server does not answer. Is Tovel still running in its terminal?',
};

/** What an answer that is not the wanted one says. */
async function refusalOf(response: Response): Promise<Error> {
  const answer: unknown = await response.json().catch(() => null);
  if (response.status === 409 && (answer as Conflict | null)?.code === 'behind')
    return new BehindError(answer as Conflict);
  return new RequestError(
    response.status,
    (answer as ApiError | null) ?? { code: 'failed', message: `The server answered ${response.status}.` },
    retryAfterOf(response),
  );
}

/**
 * A file that the server makes, with the name that it gives it.
 * @throws RequestError where it cannot be made
 */
async function fetchFile(path: string): Promise<{ readonly name: string; readonly bytes: Blob }> {
  const response = await fetch(path).catch(() => null);
  if (response?.ok) {
    const name = /filename="([^"]+)"/.exec(response.headers.get('content-disposition') ?? '')?.[1];
    return { name: name ?? 'download', bytes: await response.blob() };
  }
  throw response ? await refusalOf(response) : new RequestError(0, UNREACHABLE);
}

/** What a source sent, as a zip, with the ticket under which it is kept once it has been taken in. */
export interface FetchedFiles {
  readonly ticket: string;
  /** Files to be taken in, as a zip, or a whole project. */
  readonly kind: 'files' | 'project';
  readonly bytes: Blob;
}

async function fetchFiles(path: string, body?: object): Promise<FetchedFiles | null> {
  const response = await fetch(path, {
    method: 'POST',
    ...(body ? { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) } : {}),
  }).catch(() => null);
  if (response?.status === 204) return null;
  if (response?.ok)
    return {
      ticket: response.headers.get('x-ticket') ?? '',
      kind: response.headers.get('x-kind') === 'project' ? 'project' : 'files',
      bytes: await response.blob(),
    };
  const answer = (await response?.json().catch(() => null)) as ApiError | null;
  throw new RequestError(
    response?.status ?? 0,
    answer ?? {
      code: 'unreachable',
      message: 'The server does not answer. Is Tovel still running in its terminal?',
    },
  );
}

const project = (id: string): string => `/api/projects/${encodeURIComponent(id)}`;

const searchOf = (query: Readonly<Record<string, string | number | undefined>>): URLSearchParams =>
  new URLSearchParams(
    Object.entries(query).flatMap(([key, value]) =>
      value === undefined || value === '' ? [] : [[key, String(value)]],
    ),
  );

export const api = {
  settings: () =>
    request<{
      runPort: number;
      designPort: number | null;
      repositories: { address: string; token: string } | null;
    }>('GET', '/api/settings'),
  publication: (id: string) => request<PublicationAnswer>('GET', `${project(id)}/publication`),
  publish: (
    id: string,
    what: { title: string; version: string; host: string; pass?: string | null },
  ): Promise<PublicationAnswer> => request<PublicationAnswer>('POST', `${project(id)}/publication`, what),
  takeBack: (id: string) => request<void>('DELETE', `${project(id)}/publication`),
  notes: (id: string) => request<Note[]>('GET', `${project(id)}/notes`),
  answerNote: (id: string, note: number, answer: string | null, isSettled: boolean) =>
    request<void>('PUT', `${project(id)}/notes/${note}`, { answer, isSettled }),
  repository: async (id: string): Promise<ConnectedRepository> =>
    (await request<{ repository: ConnectedRepository }>('GET', `${project(id)}/repository`)).repository,
  branches: async (id: string, of: { address: string; token?: string }) =>
    (await request<{ branches: string[] }>('POST', `${project(id)}/repository/branches`, of)).branches,
  disconnectRepository: (id: string) => request<void>('DELETE', `${project(id)}/repository`),
  connectRepository: async (
    id: string,
    to: { address: string; branch: string; token?: string },
  ): Promise<ConnectedRepository> =>
    (await request<{ repository: ConnectedRepository }>('PUT', `${project(id)}/repository`, to)).repository,
  lookIntoRepository: (id: string, answers: readonly MergeAnswer[]) =>
    request<PushPlan>('POST', `${project(id)}/repository/look`, { answers }),
  push: (id: string, body: { head: string | null; message: string; answers: readonly MergeAnswer[] }) =>
    request<{ commit: string; address: string; branch: string }>(
      'POST',
      `${project(id)}/repository/push`,
      body,
    ),
  projects: () => request<ProjectSummary[]>('GET', '/api/projects'),
  createProject: (name: string) => request<{ id: string }>('POST', '/api/projects', { name }),
  renameProject: (id: string, name: string) => request<void>('PATCH', project(id), { name }),
  copyProject: (id: string) => request<{ id: string }>('POST', `${project(id)}/copy`),
  deleteProject: (id: string) => request<void>('DELETE', project(id)),
  restoreProject: (id: string) => request<void>('POST', `${project(id)}/restore`),
  openArchive: (bytes: Uint8Array, name: string) =>
    request<{ id: string }>('POST', `/api/projects/open?name=${encodeURIComponent(name)}`, bytes),
  project: (id: string, author?: string) =>
    request<ProjectState>('GET', `${project(id)}${author ? `?author=${encodeURIComponent(author)}` : ''}`),
  change: (id: string, change: NewChange) => request<ChangeResult>('POST', `${project(id)}/changes`, change),
  undo: (id: string, step: StepInput & { readonly of: number }) =>
    request<ChangeResult>('POST', `${project(id)}/undo`, step),
  redo: (id: string, step: StepInput & { readonly of: number }) =>
    request<ChangeResult>('POST', `${project(id)}/redo`, step),
  keepRound: (id: string, body: object) => request<void>('PUT', `${project(id)}/round`, body),
  round: async (id: string): Promise<WaitingRound> =>
    (await request<{ round: WaitingRound }>('GET', `${project(id)}/round`)).round,
  takeRound: (id: string, body: StepInput & { whole: boolean; answers: Answers }) =>
    request<ChangeResult>('POST', `${project(id)}/round/take`, body),
  dropRound: (id: string) => request<void>('DELETE', `${project(id)}/round`),
  placeInCode: async (id: string, at: { script: string; line: number; column: number }) =>
    (await request<{ readonly place: PlaceInCode }>('GET', `${project(id)}/place-in-code?${searchOf(at)}`))
      .place,
  timeline: (id: string, query: { before?: number; words?: string; screen?: string; only?: 'iterations' }) =>
    request<Timeline>('GET', `${project(id)}/timeline?${searchOf(query)}`),
  past: (id: string, seq: number) => request<ProjectState>('GET', `${project(id)}/at/${seq}`),
  goBack: (id: string, body: StepInput & { to: number; label: string }) =>
    request<ChangeResult>('POST', `${project(id)}/return`, body),
  file: (address: string) => patiently(() => fetchFile(address)),
  deliveries: (id: string) => request<CodeDelivery[]>('GET', `${project(id)}/deliveries`),
  versions: (id: string) => request<Version[]>('GET', `${project(id)}/versions`),
  nameVersion: (id: string, name: string, seq: number) =>
    request<Version>('POST', `${project(id)}/versions`, { name, seq }),
  forgetVersion: (id: string, version: number) =>
    request<void>('DELETE', `${project(id)}/versions/${version}`),
  intake: (id: string, body: object) => request<ChangeResult>('POST', `${project(id)}/intake`, body),
  asset: async (hash: string): Promise<Blob> => {
    const answer = await fetch(assetUrl(hash));
    if (!answer.ok) throw new Error('The server does not have this file. Bring it in again.');
    return answer.blob();
  },
  missingAssets: (hashes: readonly string[]) => request<string[]>('POST', '/api/assets/missing', { hashes }),
  putAsset: (hash: string, type: string, bytes: Uint8Array) =>
    request<void>('PUT', `/api/assets/${hash}`, bytes, { 'x-file-type': type }),
  compileUtilities: async (plan: UtilityPlan): Promise<string> =>
    (await patiently(() => request<{ css: string }>('POST', '/api/utilities', plan))).css,
  shippedFont: async (font: WebFont): Promise<readonly ShippedFace[]> => {
    const faces = await request<(Omit<ShippedFace, 'bytes'> & { data: string })[]>(
      'POST',
      '/api/fonts',
      font,
    );
    return faces.map(({ data, ...face }) => ({ ...face, bytes: bytesOf(data) }));
  },
  shippedSheet: async (address: PackageAddress): Promise<ShippedSheet | null> => {
    const { shipped } = await request<{
      shipped: (Omit<ShippedSheet, 'files'> & { files: { path: string; data: string }[] }) | null;
    }>('POST', '/api/sheets', address);
    const files = shipped?.files.map(({ path, data }) => ({ path, bytes: bytesOf(data) })) ?? [];
    return shipped && { ...shipped, files };
  },
  shippedIcons: async (
    library: IconLibrary,
    names: readonly string[],
  ): Promise<Readonly<Record<string, string>>> =>
    (await request<{ drawings: Record<string, string> }>('POST', '/api/icons', { library, names })).drawings,
  sources: (id: string) => request<DesignSource[]>('GET', `${project(id)}/sources`),
  addSource: (id: string, address: string) => fetchFiles(`${project(id)}/sources`, { address }),
  readAddress: (id: string, address: string) =>
    patiently(() => request<FetchedText>('POST', `${project(id)}/documents`, { address })),
  /** Null when nothing has changed there. */
  refreshSource: (id: string, source: number) => fetchFiles(`${project(id)}/sources/${source}/refresh`),
  confirmSource: (id: string, ticket: string) =>
    request<void>('POST', `${project(id)}/sources/${ticket}/confirm`),
  forgetSource: (id: string, source: number) => request<void>('DELETE', `${project(id)}/sources/${source}`),
  compare: (
    id: string,
    body: {
      drawing: string;
      width: number;
      reference: 'source' | 'picture' | 'pages' | 'vue';
      version?: number;
    },
    signal?: AbortSignal,
  ) => patiently(() => request<ComparisonAnswer>('POST', `${project(id)}/comparisons`, body, {}, signal)),
  sweeps: (id: string) => request<SweepKept[]>('GET', `${project(id)}/sweeps`),
  comparisons: (id: string) => request<ComparisonScore[]>('GET', `${project(id)}/comparisons`),
  listen: (id: string, screen: string, width: number, signal?: AbortSignal) =>
    patiently(() => request<HeardAnswer>('POST', `${project(id)}/listenings`, { screen, width }, {}, signal)),
  sweep: (id: string, screen: string, signal?: AbortSignal) =>
    patiently(() => request<SweptAnswer>('POST', `${project(id)}/sweeps`, { screen }, {}, signal)),
  readLibrary: (name: string, files: readonly SourceFile[]) =>
    patiently(() => request<LibraryRead>('POST', '/api/libraries', { name, files })),
  archiveUrl: (id: string) => `${project(id)}/archive`,
  /** @param only a file of the code, which then comes with what it takes from others alone */
  codeUrl: (id: string, only?: string) =>
    `${project(id)}/code.zip${only === undefined ? '' : `?only=${encodeURIComponent(only)}`}`,
};

export type Api = typeof api;

export const comparedUrl = (name: string): string => `/api/compared/${name}`;
export const assetUrl = (hash: string): string => `/api/assets/${hash}`;
