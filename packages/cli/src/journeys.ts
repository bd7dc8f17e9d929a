import { printJourneyTests } from '@tovel/core';
import { type Command, EXIT, parseArguments } from './command.ts';
import { readProject } from './files.ts';

export const journeys: Command = {
  usage: 'tovel journeys PROJECT',
  summary: 'prints the journeys as Playwright tests of the delivered app',
  help: `Prints the journeys of a project as Playwright tests of the delivered app. PROJECT is a .tovel file.
A journey that can no longer be made is left out; tovel check says why.`,
  async run(args, output) {
    const { paths } = parseArguments(args, []);
    output.out(printJourneyTests(await readProject(paths[0])));
    return EXIT.good;
  },
};
