import { routeTable } from '@tovel/core';
import { type Command, EXIT, parseArguments } from './command.ts';
import { readProject } from './files.ts';

export const routes: Command = {
  usage: 'tovel routes PROJECT',
  summary: 'prints which screen lives at which path',
  help: 'Prints a JSON list of {screen, name, source, path}, by path. PROJECT is a .tovel file.',
  async run(args, output) {
    const { paths } = parseArguments(args, []);
    output.out(`${JSON.stringify(routeTable(await readProject(paths[0])), null, 1)}\n`);
    return EXIT.good;
  },
};
