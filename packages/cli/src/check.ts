import { findingsOf, isAtLeast, type FindingLevel } from '@tovel/core';
import { type Command, EXIT, Misuse, parseArguments } from './command.ts';
import { readProject } from './files.ts';

export const check: Command = {
  usage: 'tovel check PROJECT [--fail-on error|warning]',
  summary: 'finds broken links, unreachable screens and more',
  help: `Prints a JSON list of {code, level, screen, element, message, fix?}. PROJECT is a .tovel file.

  --fail-on LEVEL  ends with 1 when a finding is at this level or above: error (the
                   default) or warning`,
  async run(args, output) {
    const { paths, options } = parseArguments(args, ['fail-on']);
    const level = options['fail-on'] ?? 'error';
    if (level !== 'error' && level !== 'warning') throw new Misuse('--fail-on takes error or warning.');
    const findings = findingsOf(await readProject(paths[0]));
    output.out(`${JSON.stringify(findings, null, 1)}\n`);
    return findings.some((finding) => isAtLeast(finding, level as FindingLevel)) ? EXIT.findings : EXIT.good;
  },
};
