import { array, boolean, mixed, number, object, string, type InferType } from 'yup';
import type { Change } from '../change/change.ts';
import type { HistoryEntry, HistoryState } from '../change/history.ts';
import type { App } from '../model/app.ts';
import type { Design } from '../model/design.ts';

/** What crosses HTTP, described once and used on both sides. */

export const projectName = string()
  .matches(/\S/, 'A project needs a name.')
  .max(120, 'A name has at most 120 characters.')
  .required('A project needs a name.');

export const newProject = object({ name: projectName }).noUnknown();
export type NewProject = InferType<typeof newProject>;

export const newChange = object({
  /** The place in the history that the change was made on. */
  base: number().integer().min(0).required(),
  label: string().min(1).max(300).required(),
  change: mixed().required(),
}).noUnknown();
export interface NewChange {
  readonly base: number;
  readonly label: string;
  readonly change: Change;
}

export const historyStep = object({ base: number().integer().min(0).required() }).noUnknown();
export type HistoryStep = InferType<typeof historyStep>;

export const newIntake = object({
  base: number().integer().min(0).required(),
  screens: array(mixed().required()).required(),
  assets: array(mixed().required()).required(),
  notices: array(mixed().required()).required(),
  fonts: array(mixed().required()),
  brief: string().max(200_000),
}).noUnknown();

export interface ProjectSummary {
  readonly id: string;
  readonly name: string;
  readonly screens: number;
  readonly live: number;
  readonly elements: number;
  /** ISO 8601, UTC. */
  readonly changedAt: string;
  readonly deletedAt: string | null;
}

/** A project as the interface works on it. */
export interface ProjectState {
  readonly id: string;
  readonly name: string;
  readonly design: Design;
  readonly app: App;
  readonly history: HistoryState;
  readonly changedAt: string;
  /** Rises with every intake; the design is the same while it is. */
  readonly revision: number;
}

/** What a change led to. */
export interface ChangeResult {
  readonly entry: HistoryEntry;
  readonly history: HistoryState;
  readonly changedAt: string;
  /** The revision of the design that the step left. */
  readonly revision: number;
}

/** A place on the web that screens come from, and that can be asked for them again. */
export interface DesignSource {
  readonly id: number;
  readonly address: string;
  /** ISO 8601, UTC. */
  readonly fetchedAt: string;
}

export const newSource = object({
  address: string()
    .trim()
    .max(2000, 'An address has at most 2000 characters.')
    .matches(/^https?:\/\/[^\s/]/i, 'An address starts with http:// or https://.')
    .required('Which address? It starts with http:// or https://.'),
}).noUnknown();

const text = string().max(2000);
export const fontRequest = object({
  family: string().max(80).required(),
  weights: array(number().integer().min(1).max(1000).required()).max(20).required(),
  hasItalic: boolean().required(),
  isIcons: boolean().required(),
}).noUnknown();
export const utilityRequest = object({
  config: mixed().nullable(),
  css: string().max(500_000).defined(),
  isLegacy: boolean().required(),
  classes: array(text.defined()).max(20_000).required(),
}).noUnknown();

/** Why a change was not taken: others came first. Carries what was missed, oldest first. */
export interface Conflict {
  readonly code: 'behind';
  readonly message: string;
  readonly missed: readonly HistoryEntry[];
  readonly history: HistoryState;
}

/** An error as the server says it. */
export interface ApiError {
  readonly code: string;
  readonly message: string;
}

/** What the server tells of a project while it is open. */
export type ProjectEvent =
  | { readonly kind: 'changed'; readonly seq: number }
  | { readonly kind: 'design'; readonly revision: number }
  | { readonly kind: 'built'; readonly seq: number; readonly error: string | null };
