import { type Project, screenName, screensByKey } from '../model/project.ts';
import type { DifferenceCause } from './causes.ts';
import { type HeardFinding, isGrave } from './heard.ts';
import type { View } from './views.ts';
import { type SweptFault, SWEPT_WIDTHS, widthsInWords } from './width_faults.ts';

/** What was found of a screen at a width. */
export interface ComparedView extends View {
  /** Differing pixels over all, in percent; null where it could not be compared. */
  readonly percent: number | null;
  readonly causes: readonly DifferenceCause[];
  /** Share of the differing pixels that no cause accounts for, 0 to 1. */
  readonly unexplained: number;
  /** What went wrong while it was drawn, in words. */
  readonly problems: readonly string[];
}

/** What is wrong with a screen at some of the widths of a sweep. */
export interface SweptScreen {
  readonly screen: string;
  readonly faults: readonly SweptFault[];
  /** Widths at which it could not be drawn, and why. */
  readonly problems: readonly string[];
}

/** What keeps people from using a screen at a width who hear it, or go through it by keys. */
export interface HeardView extends View {
  readonly findings: readonly HeardFinding[];
}

const CAUSES_SHOWN = 5;

/** Lines for people: each view with its difference and what causes it; then what a sweep found, and what was heard. */
export function comparisonAsText(
  project: Project,
  views: readonly ComparedView[],
  swept: readonly SweptScreen[] = [],
  heard: readonly HeardView[] = [],
): string {
  const indent = ' '.repeat(10);
  const lines = [
    ...views.flatMap(({ screen, width, percent, causes, problems }) => [
      `${percent === null ? '      –' : `${percent.toFixed(2).padStart(6)} %`}  ${screenName(project, screen)} at ${width}`,
      ...problems.map((problem) => indent + problem),
      ...causes.slice(0, CAUSES_SHOWN).map((cause) => indent + causeInWords(cause)),
    ]),
    ...swept.flatMap(({ screen, faults, problems }) => [
      `${screenName(project, screen)}: ${faults.length || 'nothing'} found from ${SWEPT_WIDTHS[0]} to ${SWEPT_WIDTHS.at(-1)}`,
      ...problems.map((problem) => indent + problem),
      ...faults.map((fault) => indent + faultInWords(fault)),
    ]),
    ...heard.flatMap(({ screen, width, findings }) => [
      `${screenName(project, screen)} at ${width}, listened to: ${findings.length || 'nothing'} found`,
      ...findings.map((finding) => indent + heardInWords(finding)),
    ]),
  ];
  return `${lines.join('\n')}\n`;
}

const faultInWords = ({ name, says, widths }: SweptFault): string =>
  `${name}: ${says} at ${widthsInWords(widths, SWEPT_WIDTHS)}`;

const heardInWords = ({ weight, says, places }: HeardFinding): string =>
  `${weight}: ${says}${
    places.length
      ? ` (${places
          .slice(0, 3)
          .map((place) => `“${place.says}”`)
          .join(', ')}${places.length > 3 ? ` and ${places.length - 3} more` : ''})`
      : ''
  }`;

/** A cause in a line: what it is about, what differs, and at how many more places. */
export const causeInWords = ({ name, says, alsoAt, isDecided }: DifferenceCause): string =>
  `${name}: ${says}${alsoAt ? `, and ${alsoAt} more` : ''}${isDecided ? ' (decided)' : ''}`;

const RULES = [
  { id: 'looks-otherwise', text: 'What runs looks otherwise than what was drawn' },
  { id: 'breaks-at-width', text: 'A screen does not hold at a width' },
  { id: 'hard-to-use', text: 'A screen is hard to use by ear or by keys' },
  { id: 'not-compared', text: 'A screen could not be compared' },
] as const;

/** The same as a log of the Static Analysis Results Interchange Format 2.1.0. */
export function comparisonAsSarif(
  project: Project,
  views: readonly ComparedView[],
  max: number,
  swept: readonly SweptScreen[] = [],
  heard: readonly HeardView[] = [],
): object {
  const result = (
    rule: (typeof RULES)[number]['id'],
    view: Pick<View, 'screen' | 'drawing'> & { readonly width?: number },
    level: 'error' | 'warning' | 'note',
    text: string,
    id: string,
    element: string | null = null,
  ): object => {
    const file = screensByKey(project.design).get(view.drawing)?.source.file;
    return {
      ruleId: rule,
      ruleIndex: RULES.findIndex(({ id: known }) => known === rule),
      level,
      message: { text },
      locations: [
        {
          ...(file ? { physicalLocation: { artifactLocation: { uri: encodeURI(file) } } } : {}),
          logicalLocations: [
            {
              name: screenName(project, view.screen),
              fullyQualifiedName: element ?? view.screen,
              kind: element ? 'element' : 'module',
            },
          ],
        },
      ],
      partialFingerprints: { 'tovelComparison/v1': `${view.screen} ${view.width ?? ''} ${id}` },
    };
  };
  return {
    version: '2.1.0',
    runs: [
      {
        tool: {
          driver: {
            name: 'Tovel',
            rules: RULES.map(({ id, text }) => ({ id, shortDescription: { text } })),
          },
        },
        results: [
          ...views.flatMap((view) =>
            view.percent === null
              ? [
                  result(
                    'not-compared',
                    view,
                    'error',
                    `At ${view.width} px: ${view.problems.join(' ')}`,
                    'not-compared',
                  ),
                ]
              : view.causes.map((cause) =>
                  result(
                    'looks-otherwise',
                    view,
                    cause.isDecided || view.percent! <= max ? 'note' : 'error',
                    `At ${view.width} px: ${causeInWords(cause)}`,
                    cause.id,
                    cause.element,
                  ),
                ),
          ),
          ...swept.flatMap(({ screen, faults }) =>
            faults.map((fault) =>
              result(
                'breaks-at-width',
                { screen, drawing: screen },
                'warning',
                faultInWords(fault),
                fault.id,
              ),
            ),
          ),
          ...heard.flatMap((view) =>
            view.findings.map((finding) =>
              result(
                'hard-to-use',
                view,
                isGrave(finding) ? 'error' : 'warning',
                `At ${view.width} px: ${heardInWords(finding)}`,
                finding.id,
              ),
            ),
          ),
        ],
      },
    ],
  };
}
