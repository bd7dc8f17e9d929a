import { screensByKey, screenName, type Project } from '../model/project.ts';
import type { Finding, FindingLevel } from './finding.ts';
import { ruleKinds } from './rules.ts';

/** Findings as lines for people: level, code, what is wrong, and the file and element it is about. */
export function findingsAsText(project: Project, findings: readonly Finding[]): string {
  const lines = findings.map((finding) => {
    const place = [fileOf(project, finding), finding.element].filter(Boolean).join(', ');
    return `${finding.level.padEnd(7)}  ${finding.message}${place ? ` (${place})` : ''} [${finding.code}]\n`;
  });
  const counts = (['error', 'warning', 'info'] as const)
    .map((level) => [findings.filter((finding) => finding.level === level).length, level] as const)
    .filter(([count]) => count)
    .map(([count, level]) => `${count} ${level}${count === 1 || level === 'info' ? '' : 's'}`);
  return `${lines.join('')}${counts.join(', ') || 'No findings'}\n`;
}

const SARIF_LEVELS: Readonly<Record<FindingLevel, string>> = {
  error: 'error',
  warning: 'warning',
  info: 'note',
};

/**
 * Findings as a log of the Static Analysis Results Interchange Format 2.1.0. A finding is placed in the
 * file that its screen came from, and there on the element; its id is the fingerprint, so that a
 * finding is known again in the next run.
 */
export function findingsAsSarif(project: Project, findings: readonly Finding[]): object {
  return {
    version: '2.1.0',
    runs: [
      {
        tool: {
          driver: {
            name: 'Tovel',
            rules: ruleKinds.map(({ code, title, level }) => ({
              id: code,
              shortDescription: { text: title },
              defaultConfiguration: { level: SARIF_LEVELS[level] },
            })),
          },
        },
        results: findings.map((finding) => ({
          ruleId: finding.code,
          ruleIndex: ruleKinds.findIndex((rule) => rule.code === finding.code),
          level: SARIF_LEVELS[finding.level],
          message: { text: finding.message },
          locations: locationsOf(project, finding),
          partialFingerprints: { 'tovelFinding/v1': finding.id },
        })),
      },
    ],
  };
}

function locationsOf(project: Project, finding: Finding): object[] {
  const { screen, element } = finding;
  if (!screen) return [];
  const file = fileOf(project, finding);
  return [
    {
      ...(file ? { physicalLocation: { artifactLocation: { uri: encodeURI(file) } } } : {}),
      logicalLocations: [
        {
          name: screenName(project, screen),
          fullyQualifiedName: element ?? screen,
          kind: element ? 'element' : 'module',
        },
      ],
    },
  ];
}

const fileOf = (project: Project, { screen }: Finding): string | null =>
  (screen && screensByKey(project.design).get(screen)?.source.file) || null;
