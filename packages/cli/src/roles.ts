import { ariaName, inferRoles, sightOf } from '@tovel/core';
import { type Command, EXIT, parseArguments } from './command.ts';
import { readDesign } from './files.ts';

export const roles: Command = {
  usage: 'tovel roles design.json',
  summary: 'prints what each element is, with how sure that is',
  help: `Prints a JSON list of {screen, path, id, role, confidence, reason} with type (of a field),
level (of a heading) and label where there is more to say. Roles are named as ARIA names them.
screen is the file that the screen came from; path the element's place in it. Takes a design
document or a .tovel file.`,
  async run(args, output) {
    const { paths } = parseArguments(args, []);
    const design = await readDesign(paths[0]);
    const rows = design.screens.flatMap((screen) => {
      const guesses = inferRoles(screen);
      return sightOf(screen).all.flatMap(({ element }) => {
        const guess = guesses.get(element.key);
        if (!guess || guess.role === 'none') return [];
        return [
          {
            screen: screen.source.file,
            path: element.source.path,
            id: element.source.id ?? null,
            role: ariaName(guess),
            confidence: Math.round(guess.confidence * 100) / 100,
            reason: guess.reason,
            ...(guess.input ? { type: guess.input } : {}),
            ...(guess.level ? { level: guess.level } : {}),
            ...(guess.label ? { label: guess.label } : {}),
            ...(guess.chart ? { chart: guess.chart } : {}),
          },
        ];
      });
    });
    output.out(`${JSON.stringify(rows, null, 1)}\n`);
    return EXIT.good;
  },
};
