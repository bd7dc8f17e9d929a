import { elementsByKey, proposeLinks, screenOf, screensByKey } from '@tovel/core';
import { type Command, EXIT, parseArguments } from './command.ts';
import { readDesign } from './files.ts';

export const links: Command = {
  usage: 'tovel links design.json',
  summary: 'prints where each element that can be pressed may lead',
  help: `Prints a JSON list of {from, element: {path, id}, to, confidence, reason}, for each element the
best target first. from and to are the files that the screens came from. Takes a design
document or a .tovel file.`,
  async run(args, output) {
    const { paths } = parseArguments(args, []);
    const design = await readDesign(paths[0]);
    const screens = screensByKey(design);
    const rows = proposeLinks(design).map(({ element: key, to, confidence, reason }) => {
      const from = screens.get(screenOf(design, key))!;
      const { source } = elementsByKey(from).get(key)!;
      return {
        from: from.source.file,
        element: { path: source.path, id: source.id ?? null },
        to: screens.get(to)!.source.file,
        confidence: Math.round(confidence * 100) / 100,
        reason,
      };
    });
    output.out(`${JSON.stringify(rows, null, 1)}\n`);
    return EXIT.good;
  },
};
