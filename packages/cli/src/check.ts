import {
  type Finding,
  findingsAsSarif,
  findingsAsText,
  findingsOf,
  graphOf,
  inOrder,
  letStand,
  settle,
  stateFindingsOf,
  isAtLeast,
  type FindingLevel,
  type Project,
} from '@tovel/core';
import { type Command, EXIT, Misuse, parseArguments } from './command.ts';
import { readProject } from './files.ts';

const formats: Readonly<Record<string, (project: Project, findings: readonly Finding[]) => string>> = {
  json: (_, findings) => asJson(findings),
  text: findingsAsText,
  sarif: (project, findings) => asJson(findingsAsSarif(project, findings)),
};

export const check: Command = {
  usage: 'tovel check PROJECT [--fail-on error|warning] [--format json|text|sarif]',
  summary: 'finds broken links, unreachable screens and more',
  help: `Prints a list of {code, level, screen, element, message, fix?}. PROJECT is a .tovel file.

  --fail-on LEVEL  ends with 1 when a finding is at this level or above: error (the
                   default) or warning
  --format FORMAT  json (the default), text (lines for people) or sarif (SARIF 2.1.0)`,
  async run(args, output) {
    const { paths, options } = parseArguments(args, ['fail-on', 'format']);
    const level = options['fail-on'] ?? 'error';
    if (level !== 'error' && level !== 'warning') throw new Misuse('--fail-on takes error or warning.');
    const format = options.format ?? 'json';
    if (!Object.hasOwn(formats, format)) throw new Misuse('--format takes json, text or sarif.');
    const project = await readProject(paths[0]);
    const settled = settle(project);
    const states = letStand(project.app, stateFindingsOf(settled, graphOf(settled)));
    const findings = inOrder(findingsOf(project), states);
    output.out(formats[format](project, findings));
    return findings.some((finding) => isAtLeast(finding, level as FindingLevel)) ? EXIT.findings : EXIT.good;
  },
};

const asJson = (value: unknown): string => `${JSON.stringify(value, null, 1)}\n`;
