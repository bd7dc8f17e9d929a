import path from 'node:path';
import { stat } from 'node:fs/promises';
import {
  applyChange,
  applyIteration,
  type Ask,
  classesOf,
  describeDecided,
  type Element,
  packProject,
  planIteration,
  readBatch,
} from '@tovel/core';
import { HeadlessHost } from '@tovel/reader/headless';
import { type Command, EXIT, Misuse, parseArguments } from './command.ts';
import { readInputs, readProject, writeOut } from './files.ts';

/** Only what has not changed at all goes along unasked. */
const ONLY_THE_SAME = 1;

export const iterate: Command = {
  usage: 'tovel iterate PROJECT PATH... [--take sure|none] --out FILE.tovel',
  summary: 'brings a new iteration of the screens in, and keeps what was decided',
  help: `Reads the new screens, finds out which elements are which, and writes the project with them in
it. Prints {screens: [{old, new, standing}], decisions: {kept, asked, letGo},
asks: [{screen, element: {path, id}, about, candidates}]}. What is asked, and what was let go, is
set aside in the project, where it can be put in its new place.

  --take WHICH  sure (the default): what is surely what it was keeps all that was decided;
                none: everything that changed is asked
  --out FILE    FILE.tovel: the project with the iteration in it

A folder or a zip is a whole iteration: what is not in it is gone. Of single files, the other
screens stay as they are. Ends with 1 when something is asked.`,
  async run(args, output) {
    const { paths, options } = parseArguments(args, ['take', 'out']);
    const [file, ...inputs] = paths;
    const take = options.take ?? 'sure';
    if (take !== 'sure' && take !== 'none') throw new Misuse('--take takes sure or none.');
    const { out } = options;
    if (!out?.endsWith('.tovel')) throw new Misuse('Where to? Name a file that ends in .tovel with --out.');
    if (!inputs.length) throw new Misuse('Which files are the new iteration? Name files, folders or zips.');
    const project = await readProject(file);
    const files = await readInputs(inputs, output);
    const infos = await Promise.all(inputs.map((input) => stat(input)));
    const whole = inputs.some((input, i) => infos[i].isDirectory() || input.endsWith('.zip'));
    const host = new HeadlessHost();
    try {
      const read = await readBatch(files, host, {
        known: project.design.assets,
        classes: classesOf(project.design.screens),
        onProgress: ({ done, total, file: at }) => void (at && output.say(`${done + 1}/${total} ${at}`)),
      });
      for (const notice of read.notices) output.say(`${notice.level}: ${notice.file}: ${notice.message}`);
      const plan = planIteration(project, read.screens, {
        whole,
        ...(take === 'none' ? { sure: ONLY_THE_SAME } : {}),
      });
      const { design, change } = applyIteration(project, plan, read, project.design.iteration + 1);
      const app = applyChange(project.app, change);
      const bytes = new Map([...project.bytes, ...read.bytes]);
      await writeOut(out, packProject({ name: project.name, design, app, bytes }));
      const asks = plan.asks.map((ask) => rowOf(project, ask));
      output.out(
        `${JSON.stringify(
          {
            screens: plan.screens.map(({ old, now, standing }) => ({
              old: old?.source.file ?? null,
              new: now?.source.file ?? null,
              standing,
            })),
            decisions: { kept: plan.kept.length, asked: asks.length, letGo: plan.letGo.length },
            asks,
          },
          null,
          1,
        )}\n`,
      );
      output.say(
        `${path.basename(out)}: ${plan.kept.length} kept, ${asks.length} asked, ${plan.letGo.length} let go`,
      );
      return asks.length ? EXIT.findings : EXIT.good;
    } finally {
      await host.close();
    }
  },
};

const placeOf = ({ source }: Element): { path: string; id: string | null } => ({
  path: source.path,
  id: source.id ?? null,
});

const rowOf = (project: Parameters<typeof describeDecided>[0], ask: Ask): object => ({
  screen: ask.screen.source.file,
  element: placeOf(ask.element),
  about: describeDecided(project, ask.about),
  candidates: ask.candidates.map(({ element, screen, score }) => ({
    screen: screen.source.file,
    ...placeOf(element),
    score,
  })),
});
