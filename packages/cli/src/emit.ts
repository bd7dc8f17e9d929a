import { readdir } from 'node:fs/promises';
import { deliveredCode, isTarget, targetOf, targets, recordOf } from '@tovel/core';
import { type Command, EXIT, Misuse, parseArguments } from './command.ts';
import { readProject } from './files.ts';
import { partOf } from './part_of.ts';
import { writeTogether } from './write_together.ts';

export const emit: Command = {
  usage: 'tovel emit PROJECT [--target NAME] [--only PART] --out DIR',
  summary: 'writes the code base',
  help: `Writes the project's app as a code base that installs, builds and tests by itself.

  --target NAME  ${Object.entries(targets)
    .map(([name, { name: called, title }]) => `${name}: ${called}: ${title}`)
    .join('\n                 ')}
                 what the project says, where it is not given
  --only PART    a screen or component by its name, or a file by its path:
                 it alone, with what it takes from others
  --out DIR      an empty or new folder

Prints a JSON list of the files written.`,
  async run(args, output) {
    const { paths, options } = parseArguments(args, ['target', 'only', 'out']);
    const project = await readProject(paths[0]);
    const target = options.target ?? targetOf(project.app);
    if (!isTarget(target)) throw new Misuse(`--target takes ${Object.keys(targets).join(' or ')}.`);
    if (!options.out) throw new Misuse('Where to? Name a folder with --out.');
    const present = await readdir(options.out).catch(() => []);
    if (present.length)
      throw new Misuse(
        `The folder ${options.out} is not empty. Name a new one, so that nothing of yours is overwritten.`,
      );
    const emitted = await deliveredCode(project, project.name, target);
    for (const unread of emitted.unread ?? [])
      output.say(`${unread}: written as it is, and will not build; please tell us what it was made of`);
    const files = options.only === undefined ? emitted.files : partOf(project, emitted, options.only);
    const encoder = new TextEncoder();
    const writes = new Map<string, Uint8Array>();
    for (const file of files) {
      const bytes = 'asset' in file ? project.bytes.get(file.asset) : encoder.encode(file.text);
      if (bytes === undefined)
        output.say(`${file.path}: the picture is not in the project file and was left out`);
      else writes.set(file.path, bytes);
    }
    // A part goes elsewhere, where nothing is known of it.
    if (options.only === undefined)
      for (const [file, bytes] of recordOf(project.name, target, files)) writes.set(file, bytes);
    await writeTogether(options.out, writes);
    output.out(
      `${JSON.stringify(
        files.map((file) => file.path),
        null,
        1,
      )}\n`,
    );
    return emitted.unread ? EXIT.findings : EXIT.good;
  },
};
