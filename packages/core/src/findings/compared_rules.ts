import { grouped } from '../json/grouped.ts';
import { hash } from '../json/hash.ts';
import { type FaultKind, SWEPT_WIDTHS, type SweptFault, widthsInWords } from '../compare/width_faults.ts';
import { isUsed, type Project, screenName } from '../model/project.ts';
import type { Finding, Rule } from './finding.ts';

/** What is told of what runs, once it was held against what was drawn, or looked at from narrow to wide. */
export const comparedRules: readonly Omit<Rule, 'find'>[] = [
  {
    code: 'looks-worse',
    level: 'warning',
    station: 'compare',
    title: 'Screens that look less like they were drawn than before',
  },
  { code: 'breaks-at-width', level: 'warning', station: 'compare', title: 'What does not hold at a width' },
  {
    code: 'hard-at-width',
    level: 'info',
    station: 'compare',
    title: 'What is hard to read or to press at a width',
  },
];

/** How near a screen was to its reference at one place of the history. */
export interface KeptScore {
  readonly screen: string;
  readonly drawing: string;
  readonly width: number;
  /** `source`, `picture`, `pages`, or a version, as `version-12`. */
  readonly reference: string;
  readonly seq: number;
  readonly iteration: number;
  /** Differing pixels, in percent. */
  readonly percent: number;
  /** How many causes were told that nobody decided. */
  readonly causes: number;
}

/** What was found of a screen the last time that it was looked at from narrow to wide. */
export interface KeptSweep {
  readonly screen: string;
  readonly faults: readonly SweptFault[];
}

/** Getting worse by less than this, in percent of the pixels, or by less than half, is not worth a word. */
const LEAST_WORSE = 0.1;
const LEAST_TIMES = 1.5;

const BREAKS: ReadonlySet<FaultKind> = new Set(['overflow', 'overlap', 'cut']);

/**
 * What follows from comparisons and sweeps that were made. Screens are held against how near they have been at best; where all
 * that differs was decided, nothing is said.
 */
export const comparedFindings = (
  project: Project,
  scores: readonly KeptScore[],
  sweeps: readonly KeptSweep[],
): Finding[] => [...worse(project, scores), ...broken(project, sweeps)];

function worse(project: Project, scores: readonly KeptScore[]): Finding[] {
  const isThere = ({ screen, reference }: KeptScore): boolean =>
    isUsed(project, screen) && !reference.startsWith('version-');
  const views = grouped(
    scores.filter(isThere),
    ({ drawing, width, reference }) => `${drawing} ${width} ${reference}`,
  );
  return [...views.values()].flatMap((all): Finding[] => {
    const inTime = all.toSorted((a, b) => a.seq - b.seq);
    const last = inTime.at(-1)!;
    const best = inTime.reduce((a, b) => (b.percent < a.percent ? b : a));
    const by = last.percent - best.percent;
    if (!last.causes || by < LEAST_WORSE || last.percent < best.percent * LEAST_TIMES) return [];
    const { screen, width, reference, percent } = last;
    return [
      {
        // What becomes worse still is told again.
        id: `looks-worse ${screen} ${width} ${reference} ${percent.toFixed(1)}`,
        code: 'looks-worse',
        level: 'warning',
        screen,
        element: null,
        width,
        message: `${screenName(project, screen)} at ${width} px differs by ${percent.toFixed(2)} %, and by ${best.percent.toFixed(2)} % in iteration ${best.iteration}, step ${best.seq}.`,
      },
    ];
  });
}

/** What is wrong in one way at the same widths mostly has one cause, and is told once. */
const broken = (project: Project, sweeps: readonly KeptSweep[]): Finding[] =>
  sweeps
    .filter(({ screen }) => isUsed(project, screen))
    .flatMap(({ screen, faults }) =>
      [...grouped(faults, ({ kind, widths }) => `${kind} ${widths.join()}`).values()].map(
        (alike): Finding => {
          const [{ kind, name, says, widths }] = alike;
          const [code, level] = BREAKS.has(kind)
            ? (['breaks-at-width', 'warning'] as const)
            : (['hard-at-width', 'info'] as const);
          const more = alike.length > 1 ? `, and ${alike.length - 1} more like it` : '';
          return {
            // What is let stand is what there is now: something more is told again.
            id: `${code} ${screen} ${hash(alike.map(({ id }) => id).join())}`,
            code,
            level,
            screen,
            element: null,
            message: `“${name}” on ${screenName(project, screen)}: ${says} at ${widthsInWords(widths, SWEPT_WIDTHS)} px${more}.`,
          };
        },
      ),
    );
