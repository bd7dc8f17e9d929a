import {
  elementOfInteraction,
  findElement,
  type Project,
  screensByKey,
  screenWith,
  type Target,
} from '@tovel/core';
import { type Command, EXIT, parseArguments } from './command.ts';
import { readProject } from './files.ts';

export const wiring: Command = {
  usage: 'tovel wiring PROJECT',
  summary: 'prints what is wired: which element does what',
  help: `Prints a JSON list of {screen, element: {path, id}, on, to}. screen and, where it is one, to are
the files that the screens came from; else to says what happens. path is that of source.path in
the newest file. PROJECT is a .tovel file.`,
  async run(args, output) {
    const { paths } = parseArguments(args, []);
    const project = await readProject(paths[0]);
    const rows = Object.entries(project.app.interactions).flatMap(([key, { on, target }]) => {
      const element = findElement(project.design, elementOfInteraction(key));
      const screen = screenWith(project.design, elementOfInteraction(key));
      if (!element || !screen) return [];
      return [
        {
          screen: screen.source.file,
          element: { path: element.source.path, id: element.source.id ?? null },
          on,
          to: whereTo(project, target),
        },
      ];
    });
    output.out(`${JSON.stringify(rows, null, 1)}\n`);
    return EXIT.good;
  },
};

function whereTo({ design, app }: Project, target: Target): string {
  const key = 'screen' in target ? target.screen : target.kind === 'open' ? target.overlay : null;
  if (key !== null) return screensByKey(design).get(key)?.source.file ?? app.screens[key]?.name ?? key;
  return target.kind === 'external' ? target.href : target.kind;
}
