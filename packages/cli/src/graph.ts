import { graphFiles } from '@tovel/core';
import { type Command, EXIT, Misuse, parseArguments } from './command.ts';
import { readProject } from './files.ts';

const names = new Intl.ListFormat('en', { type: 'disjunction' }).format(Object.keys(graphFiles));

export const graph: Command = {
  usage: 'tovel graph PROJECT [--format graphml|dot|scxml]',
  summary: 'prints the screens and the links between them',
  help: `Prints the screen graph. PROJECT is a .tovel file.

  --format FORMAT  graphml (the default), dot or scxml`,
  async run(args, output) {
    const { paths, options } = parseArguments(args, ['format']);
    const format = options.format ?? 'graphml';
    if (!isFormat(format)) throw new Misuse(`--format takes ${names}.`);
    const project = await readProject(paths[0]);
    output.out(graphFiles[format].print(project, project.name));
    return EXIT.good;
  },
};

const isFormat = (name: string): name is keyof typeof graphFiles => Object.hasOwn(graphFiles, name);
