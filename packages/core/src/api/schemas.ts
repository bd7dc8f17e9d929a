import { array, mixed, number, object, string, type InferType } from 'yup';
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
}

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
