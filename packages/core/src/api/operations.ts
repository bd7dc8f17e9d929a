import { array, number, object, type Schema, string } from 'yup';
import { type DocumentName, documentSchemas } from './document_schema.ts';
import type { ErrorCode } from './errors.ts';
import * as s from './schemas.ts';

/** How much of the server an operation takes: a look, a step, or work that is rationed. */
export type Cost = 'light' | 'step' | 'heavy';

export interface Operation {
  readonly method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  /** With parameters in braces, as OpenAPI writes them. */
  readonly path: string;
  readonly summary: string;
  readonly params?: Readonly<Record<string, Schema>>;
  readonly query?: Readonly<Record<string, Schema>>;
  /** What is sent: a described body, or bytes. */
  readonly body?: Schema | 'bytes';
  readonly bodyLimit?: number;
  /** What comes back: a described body, bytes of a type, or nothing. */
  readonly answer: Schema | { readonly type: string } | null;
  readonly status: 200 | 201 | 204;
  readonly cost: Cost;
  readonly errors: readonly ErrorCode[];
}

const project = { id: s.projectId };
const author = string().matches(/^[\w-]{1,40}\.[\w-]{1,40}$/);
const inPast = number().integer().min(0).max(4_000_000_000);
const megabyte = 2 ** 20;
const STEP_ERRORS: readonly ErrorCode[] = ['invalid', 'project-missing', 'behind'];
const define = <const T extends Record<string, Operation>>(table: T): T => table;

/** All that can be asked of the server. What is not here is not answered. */
export const operations = define({
  settings: {
    method: 'GET',
    path: '/api/settings',
    summary: 'Where running apps and shared designs are served',
    answer: s.settings,
    status: 200,
    cost: 'light',
    errors: [],
  },
  openApi: {
    method: 'GET',
    path: '/api/openapi.json',
    summary: 'This description',
    answer: { type: 'application/json' },
    status: 200,
    cost: 'light',
    errors: [],
  },
  schema: {
    method: 'GET',
    path: '/api/schemas/{name}',
    summary: 'JSON Schema (2020-12) of the design or the app document',
    params: { name: string<DocumentName>().oneOf(documentSchemas).required() },
    answer: { type: 'application/schema+json' },
    status: 200,
    cost: 'light',
    errors: ['invalid'],
  },
  projects: {
    method: 'GET',
    path: '/api/projects',
    summary: 'All projects, the last changed first',
    answer: array(s.projectSummary.required()).required(),
    status: 200,
    cost: 'light',
    errors: [],
  },
  createProject: {
    method: 'POST',
    path: '/api/projects',
    summary: 'Makes an empty project',
    body: s.newProject,
    answer: s.made,
    status: 201,
    cost: 'step',
    errors: ['invalid'],
  },
  openArchive: {
    method: 'POST',
    path: '/api/projects/open',
    summary: 'Makes a project of a .tovel file',
    query: { name: string().max(300) },
    body: 'bytes',
    bodyLimit: 400 * megabyte,
    answer: s.made,
    status: 201,
    cost: 'heavy',
    errors: ['archive-invalid', 'too-large', 'asset-type'],
  },
  project: {
    method: 'GET',
    path: '/api/projects/{id}',
    summary: 'A project at one moment',
    params: project,
    query: { author },
    answer: s.projectState,
    status: 200,
    cost: 'light',
    errors: ['project-missing'],
  },
  renameProject: {
    method: 'PATCH',
    path: '/api/projects/{id}',
    summary: 'Gives a project another name',
    params: project,
    body: s.newProject,
    answer: null,
    status: 204,
    cost: 'step',
    errors: ['invalid', 'project-missing'],
  },
  deleteProject: {
    method: 'DELETE',
    path: '/api/projects/{id}',
    summary: 'Deletes a project; it can be restored',
    params: project,
    answer: null,
    status: 204,
    cost: 'step',
    errors: ['project-missing'],
  },
  restoreProject: {
    method: 'POST',
    path: '/api/projects/{id}/restore',
    summary: 'Restores a deleted project',
    params: project,
    answer: null,
    status: 204,
    cost: 'step',
    errors: ['project-missing'],
  },
  copyProject: {
    method: 'POST',
    path: '/api/projects/{id}/copy',
    summary: 'Makes a copy, with a history of its own',
    params: project,
    answer: s.made,
    status: 201,
    cost: 'step',
    errors: ['project-missing'],
  },
  archive: {
    method: 'GET',
    path: '/api/projects/{id}/archive',
    summary: 'The project as a .tovel file',
    params: project,
    answer: { type: 'application/zip' },
    status: 200,
    cost: 'heavy',
    errors: ['project-missing'],
  },
  change: {
    method: 'POST',
    path: '/api/projects/{id}/changes',
    summary: 'Makes a step',
    params: project,
    body: s.newChange,
    bodyLimit: 20 * megabyte,
    answer: s.changeResult,
    status: 200,
    cost: 'step',
    errors: STEP_ERRORS,
  },
  undo: {
    method: 'POST',
    path: '/api/projects/{id}/undo',
    summary: 'Takes a step back',
    params: project,
    body: s.historyStep,
    answer: s.changeResult,
    status: 200,
    cost: 'step',
    errors: ['invalid', 'project-missing', 'nothing-to-undo', 'step-in-the-way'],
  },
  redo: {
    method: 'POST',
    path: '/api/projects/{id}/redo',
    summary: 'Makes a step again that was taken back',
    params: project,
    body: s.historyStep,
    answer: s.changeResult,
    status: 200,
    cost: 'step',
    errors: ['invalid', 'project-missing', 'nothing-to-redo', 'step-in-the-way'],
  },
  history: {
    method: 'GET',
    path: '/api/projects/{id}/history',
    summary: 'The steps after a place in the history, oldest first',
    params: project,
    query: { after: inPast },
    answer: array(s.historyEntry).required(),
    status: 200,
    cost: 'light',
    errors: ['project-missing'],
  },
  intake: {
    method: 'POST',
    path: '/api/projects/{id}/intake',
    summary: 'Takes in screens that were read',
    params: project,
    body: s.newIntake,
    bodyLimit: 200 * megabyte,
    answer: s.changeResult,
    status: 200,
    cost: 'step',
    errors: ['invalid', 'project-missing', 'asset-missing', 'too-large'],
  },
  code: {
    method: 'GET',
    path: '/api/projects/{id}/code.zip',
    summary: 'The code base, packed',
    params: project,
    query: { target: string().max(40) },
    answer: { type: 'application/zip' },
    status: 200,
    cost: 'heavy',
    errors: ['project-missing', 'target-unknown'],
  },
  events: {
    method: 'GET',
    path: '/api/events',
    summary: 'What happens to projects while they are open, as server-sent events',
    query: {
      projects: string()
        .matches(/^[a-z0-9]{1,40}(,[a-z0-9]{1,40}){0,49}$/, 'Up to 50 projects, with commas between.')
        .required(),
    },
    answer: { type: 'text/event-stream' },
    status: 200,
    cost: 'light',
    errors: ['invalid', 'project-missing'],
  },
  putAsset: {
    method: 'PUT',
    path: '/api/assets/{hash}',
    summary: 'Keeps a file under the SHA-256 of its bytes',
    params: { hash: s.assetHash },
    body: 'bytes',
    bodyLimit: 25 * megabyte,
    answer: null,
    status: 204,
    cost: 'light',
    errors: ['invalid', 'asset-mismatch', 'asset-type', 'too-large'],
  },
  asset: {
    method: 'GET',
    path: '/api/assets/{hash}',
    summary: 'A file by the SHA-256 of its bytes',
    params: { hash: s.assetHash },
    answer: { type: 'application/octet-stream' },
    status: 200,
    cost: 'light',
    errors: ['invalid', 'asset-missing'],
  },
  missingAssets: {
    method: 'POST',
    path: '/api/assets/missing',
    summary: 'Which of these files are not kept yet',
    body: s.hashList,
    answer: array(string().defined()).required(),
    status: 200,
    cost: 'light',
    errors: ['invalid'],
  },
  fonts: {
    method: 'POST',
    path: '/api/fonts',
    summary: 'The faces of a font that Tovel ships',
    body: s.fontRequest,
    answer: array(s.fontFace.required()).required(),
    status: 200,
    cost: 'light',
    errors: ['invalid'],
  },
  utilities: {
    method: 'POST',
    path: '/api/utilities',
    summary: 'The style sheet of utility classes',
    body: s.utilityRequest,
    bodyLimit: 4 * megabyte,
    answer: object({ css: string().defined() }).noUnknown(),
    status: 200,
    cost: 'heavy',
    errors: ['invalid'],
  },
  sources: {
    method: 'GET',
    path: '/api/projects/{id}/sources',
    summary: 'Places that screens come from',
    params: project,
    answer: array(s.designSource.required()).required(),
    status: 200,
    cost: 'light',
    errors: ['project-missing'],
  },
  addSource: {
    method: 'POST',
    path: '/api/projects/{id}/sources',
    summary: 'Fetches screens by their address',
    params: project,
    body: s.newSource,
    answer: { type: 'application/octet-stream' },
    status: 200,
    cost: 'heavy',
    errors: ['invalid', 'project-missing', 'fetch-failed'],
  },
  refreshSource: {
    method: 'POST',
    path: '/api/projects/{id}/sources/{source}/refresh',
    summary: 'Fetches again what came by an address; 204 when nothing has changed',
    params: { ...project, source: inPast.required() },
    answer: { type: 'application/octet-stream' },
    status: 200,
    cost: 'heavy',
    errors: ['not-found', 'project-missing', 'fetch-failed'],
  },
  confirmSource: {
    method: 'POST',
    path: '/api/projects/{id}/sources/{ticket}/confirm',
    summary: 'Keeps an address whose screens were taken in',
    params: { ...project, ticket: string().uuid().required() },
    answer: null,
    status: 204,
    cost: 'step',
    errors: ['not-found', 'project-missing'],
  },
  forgetSource: {
    method: 'DELETE',
    path: '/api/projects/{id}/sources/{source}',
    summary: 'Forgets an address',
    params: { ...project, source: inPast.required() },
    answer: null,
    status: 204,
    cost: 'step',
    errors: ['not-found', 'project-missing'],
  },
});

export type OperationName = keyof typeof operations;
