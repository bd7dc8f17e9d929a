import { type Counts, type Finding, stationOf } from '@tovel/core';

/** What stations count. */
export interface Waiting {
  readonly counts: Counts;
  readonly findings: readonly Finding[];
  /** Roles that nobody has decided about. */
  readonly undecided: number;
  /** What an iteration set aside for somebody to decide. */
  readonly asked: number;
}

export interface Station {
  readonly path: string;
  readonly title: string;
  /** Whether what was can be looked at there. */
  readonly isOfPast?: true;
  /** How much still waits there. */
  readonly waiting: (project: Waiting) => number;
}

const none = (): number => 0;

/** The work line: the views in the order of work. */
export const stations: readonly Station[] = [
  {
    path: 'intake',
    title: 'Intake',
    waiting: ({ findings }) =>
      findings.filter((finding) => finding.level !== 'info' && stationOf(finding.code) === 'intake').length,
  },
  { path: 'screens', title: 'Screens', isOfPast: true, waiting: ({ undecided }) => undecided },
  {
    path: 'junction',
    title: 'Junction',
    isOfPast: true,
    waiting: ({ counts }) => counts.open + counts.broken,
  },
  {
    path: 'map',
    title: 'Map',
    isOfPast: true,
    waiting: ({ counts }) => counts.broken + counts.unreachable + counts.deadEnds + counts.planned,
  },
  { path: 'data', title: 'Data', isOfPast: true, waiting: none },
  { path: 'run', title: 'Run', isOfPast: true, waiting: none },
  { path: 'compare', title: 'Compare', waiting: none },
  { path: 'deliver', title: 'Deliver', waiting: none },
  { path: 'iterate', title: 'Iterate', waiting: ({ asked }) => asked },
];
