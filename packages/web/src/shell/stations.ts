import type { Counts } from '@tovel/core';

/** Decisions that nobody has made yet. */
export interface Decisions {
  /** Causes of findings about what came in. */
  readonly intake: number;
  readonly roles: number;
  readonly links: number;
  /** Collections that the screens show. */
  readonly collections: number;
  /** Causes of findings about what runs. */
  readonly compared: number;
}

/** What stations count. */
export interface Waiting {
  readonly counts: Counts;
  /** Decisions that wait; what is decided in one go is one. */
  readonly decisions: Decisions;
  /** What an iteration set aside for somebody to decide. */
  readonly asked: number;
}

export interface Station {
  readonly path: string;
  readonly title: string;
  /** Whether what was can be looked at there. */
  readonly isOfPast?: true;
  /** Whether it works with what the server has, and so waits until all screens are read. */
  readonly needsAll?: true;
  /** How much still waits there. */
  readonly waiting: (project: Waiting) => number;
}

const none = (): number => 0;

/** The work line: the views in the order of work. */
export const stations: readonly Station[] = [
  {
    path: 'intake',
    title: 'Intake',
    waiting: ({ decisions }) => decisions.intake,
  },
  { path: 'screens', title: 'Screens', isOfPast: true, waiting: ({ decisions }) => decisions.roles },
  {
    path: 'junction',
    title: 'Junction',
    isOfPast: true,
    waiting: ({ decisions }) => decisions.links,
  },
  {
    path: 'map',
    title: 'Map',
    isOfPast: true,
    waiting: ({ counts }) => counts.broken + counts.unreachable + counts.deadEnds + counts.planned,
  },
  { path: 'data', title: 'Data', isOfPast: true, waiting: ({ decisions }) => decisions.collections },
  { path: 'run', title: 'Run', isOfPast: true, needsAll: true, waiting: none },
  { path: 'compare', title: 'Compare', needsAll: true, waiting: ({ decisions }) => decisions.compared },
  { path: 'deliver', title: 'Deliver', needsAll: true, waiting: none },
  { path: 'iterate', title: 'Iterate', needsAll: true, waiting: ({ asked }) => asked },
];
