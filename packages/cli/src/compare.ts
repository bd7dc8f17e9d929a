import {
  causeOptions,
  compareDrawn,
  COMPARED_WIDTHS,
  screenName,
  screensByKey,
  viewsOf,
} from '@tovel/core';
import { appOf, decoded, drawReference, drawRunning, type FileStore, Renderer } from '@tovel/renderer';
import { type Command, EXIT, parseArguments } from './command.ts';
import { readProject } from './files.ts';

export const compare: Command = {
  usage: 'tovel compare PROJECT [--widths W,W] [--max PERCENT]',
  summary: 'tells whether what runs is what was drawn',
  help: '',
  async run(args, output) {
    const { paths, options } = parseArguments(args, ['widths', 'max']);
    const project = await readProject(paths[0]);
    const widths = options.widths?.split(',').map(Number) ?? COMPARED_WIDTHS;
    const files: FileStore = async (hash) => {
      const bytes = project.bytes.get(hash);
      const asset = project.design.assets.find((one) => one.hash === hash);
      return bytes && asset ? { type: asset.type, bytes } : null;
    };
    const renderer = new Renderer();
    try {
      const app = await appOf(project, project.name, files);
      for (const view of viewsOf(project, widths)) {
        const began = Date.now();
        const drawing = screensByKey(project.design).get(view.drawing)!;
        const [was, is] = await Promise.all([
          drawReference(renderer, project, view, files),
          drawRunning(renderer, app, project, view),
        ]);
        const drawn = Date.now();
        const result = compareDrawn(decoded(was), decoded(is), causeOptions(project, drawing));
        output.say(
          `${screenName(project, view.screen)} ${view.width}: ${(result.share * 100).toFixed(2)} %, unexplained ${(result.unexplained * 100).toFixed(0)} %; ${drawn - began} + ${Date.now() - drawn} ms ${[...was.rendering.problems, ...is.rendering.problems].join('; ')}`,
        );
        for (const cause of result.causes.slice(0, 6))
          output.say(
            `    ${cause.name}: ${cause.says}${cause.alsoAt ? ` (+${cause.alsoAt})` : ''}${cause.isDecided ? ' decided' : ''} [${cause.pixels} px, ${cause.weight.toFixed(0)}] ${cause.element ?? '-'}`,
          );
      }
    } finally {
      await renderer.close();
    }
    return EXIT.good;
  },
};
