import { findComponents, findLists } from '@tovel/core';
import { type Command, EXIT, parseArguments } from './command.ts';
import { placeOf, readDesign } from './files.ts';

export const components: Command = {
  usage: 'tovel components design.json',
  summary: 'prints what repeats: components, and lists with their rows',
  help: `Prints a JSON list of groups, those that save most first: {kind, name, saves, confidence,
reason, places}. kind is component or list; places are {screen, path, id}, of a list its rows;
a list has within, the place that holds them. Takes a design document or a .tovel file.`,
  async run(args, output) {
    const { paths } = parseArguments(args, []);
    const design = await readDesign(paths[0]);
    const place = (key: string) => placeOf(design, key);
    // Lists are told apart by where they stand, also where their rows are of one kind.
    const found = [
      ...findComponents(design.screens).filter(({ kind }) => kind === 'component'),
      ...design.screens.flatMap((screen) => findLists(screen)),
    ].sort((a, b) => b.saves - a.saves);
    const groups = found.map(({ kind, name, saves, confidence, reason, places, within }) => ({
      kind,
      name,
      saves,
      confidence: Math.round(confidence * 100) / 100,
      reason,
      places: places.map(place),
      ...(within ? { within: place(within) } : {}),
    }));
    output.out(`${JSON.stringify(groups, null, 1)}\n`);
    return EXIT.good;
  },
};
