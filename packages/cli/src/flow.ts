import { readFile } from 'node:fs/promises';
import { applyChange, packProject, printFlow, readFlow } from '@tovel/core';
import { type Command, EXIT, Misuse, parseArguments } from './command.ts';
import { readProject, writeOut } from './files.ts';

/** More problems than this say no more than that it is no such text. */
const MOST_TOLD = 20;

export const flow: Command = {
  usage: 'tovel flow PROJECT [--take SHEET --out FILE.tovel]',
  summary: 'prints all that the app does as one plain text, or takes such a text over',
  help: `Prints the flow sheet of a project: screens, routes, what each element does, overlays, guards, variables and
journeys, a line a link. PROJECT is a .tovel file. The language is explained in docs/FLOW_SHEET.md.

  --take SHEET       reads a flow sheet, of a delivered project for instance, and makes the project do what it says
  --out FILE.tovel   where the project goes then`,
  async run(args, output) {
    const { paths, options } = parseArguments(args, ['take', 'out']);
    const [file] = paths;
    const { take, out } = options;
    if ((take === undefined) !== (out === undefined)) throw new Misuse('--take and --out go together.');
    if (out !== undefined && !out.endsWith('.tovel'))
      throw new Misuse('--out takes a name that ends in .tovel.');
    const project = await readProject(file);
    if (take === undefined || out === undefined) {
      output.out(printFlow(project, project.name));
      return EXIT.good;
    }
    const text = await readFile(take, 'utf8').catch(() => {
      throw new Misuse(`There is no file ${take}.`);
    });
    const { change, problems, untold } = readFlow(project, text);
    for (const { line, column, message } of problems.slice(0, MOST_TOLD))
      output.say(`${take}:${line}:${column}: ${message}`);
    if (problems.length > MOST_TOLD) output.say(`… and ${problems.length - MOST_TOLD} more.`);
    if (problems.length) {
      output.say('Nothing was taken over.');
      return EXIT.findings;
    }
    for (const name of untold) output.say(`“${name}” is not in the sheet and stays as it is.`);
    await writeOut(
      out,
      packProject({ ...project, app: change ? applyChange(project.app, change) : project.app }),
    );
    output.say(change ? `Taken over into ${out}.` : 'The project says the same already.');
    return EXIT.good;
  },
};
