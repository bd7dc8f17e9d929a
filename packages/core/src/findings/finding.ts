import type { Change } from '../change/change.ts';
import { graphOf, type ScreenGraph } from '../graph/graph.ts';
import type { Project } from '../model/project.ts';

export type FindingLevel = 'error' | 'warning' | 'info';

/** The station at which a finding is dealt with. */
export type FindingStation = 'intake' | 'map' | 'compare';

/** Something about the project that somebody should look at: what, where, why, and where possible what mends it. */
export interface Finding {
  /** The same as long as it is about the same thing, so that it can be let stand. */
  readonly id: string;
  readonly code: string;
  readonly level: FindingLevel;
  /** Key of the screen it is on, if on one. */
  readonly screen: string | null;
  /** Key of the element it is on, if on one. */
  readonly element: string | null;
  readonly message: string;
  /** Width of the window at which it is so, in px, if at one. */
  readonly width?: number;
  readonly fix?: { readonly label: string; readonly change: Change };
}

/** What rules look at. */
export interface Examined {
  /** As it was drawn, with what is hidden or left out. */
  readonly drawn: Project;
  /** As it is in the app. */
  readonly project: Project;
  readonly graph: ScreenGraph;
}

export type Found = Omit<Finding, 'id' | 'code' | 'level'> & {
  /** Tells findings of one rule on one screen apart. */
  readonly about?: string;
};

export interface Rule {
  readonly code: string;
  readonly level: FindingLevel;
  readonly station: FindingStation;
  readonly title: string;
  readonly find: (examined: Examined) => readonly Found[];
}

export const examine = (drawn: Project, project: Project): Examined => ({
  drawn,
  project,
  graph: graphOf(project),
});
