import { readdir, readFile, stat } from 'node:fs/promises';
import path from 'node:path';
import { createInterface } from 'node:readline/promises';
import {
  applyChange,
  type DeliveryAsk,
  type IntoPlan,
  isInside,
  isTarget,
  type MergeSide,
  packProject,
  plannerInto,
  type Project,
  takeOffers,
  targets,
} from '@tovel/core';
import { type Command, EXIT, Misuse, type Output, parseArguments } from './command.ts';
import { readProject, writeOut } from './files.ts';
import { partOf } from './part_of.ts';
import { finishWriting, writeTogether } from './write_together.ts';

export const deliver: Command = {
  usage: 'tovel deliver PROJECT --into DIR [--yes] [--dry-run] [--take theirs|ours] [--read-back FILE]',
  summary: 'writes the code into a folder that is there, and keeps what people wrote',
  help: `Writes the project's app into a folder: an empty one, one that it was written into before, or a
code base that people wrote. What somebody changed since it was written last is kept: it is
merged with what is written now, by the syntax of its language. Says first what it will do, and
asks before anything that is there changes. Where it fails, the folder is as it was.

  --into DIR     the folder
  --only PART    a screen or component by its name, or a file by its path,
                 with what it needs
  --target NAME  ${Object.keys(targets).join(', ')}; what the folder or the project says,
                 where it is not given
  --yes          writes without asking
  --dry-run      writes nothing
  --read-back FILE.tovel
                 what people changed in the code and what means something in the project
                 (a text, where a link leads, the value of a token, the flow sheet)
                 is taken over into the project first, which goes there
  --take SIDE    where both sides changed the same: theirs (what is in the folder)
                 or ours (what is written now)

Prints {target, files: [{path, fate, movedFrom?, byLines?}],
asks: [{id, path, line, why, base, theirs, ours, element?}], offers: [{path, line, says}],
notices, packages: {added}, written}.
Ends with 1 when something is asked that nobody answered, or nothing was written.`,
  async run(args, output) {
    const { paths, options } = parseArguments(
      args.map((arg) => (arg === '--yes' || arg === '--dry-run' ? `${arg}=yes` : arg)),
      ['into', 'only', 'target', 'yes', 'dry-run', 'read-back', 'take'],
    );
    const folder = options.into;
    if (!folder) throw new Misuse('Into which folder? Name it with --into.');
    if (options.take !== undefined && options.take !== 'theirs' && options.take !== 'ours')
      throw new Misuse('--take takes theirs or ours.');
    const readBack = options['read-back'];
    if (readBack !== undefined && !readBack.endsWith('.tovel'))
      throw new Misuse('--read-back takes a name that ends in .tovel.');
    const project = await readProject(paths[0]);
    const { target } = options;
    if (target !== undefined && !isTarget(target))
      throw new Misuse(`--target takes ${Object.keys(targets).join(' or ')}.`);
    await prepare(folder, output);
    const { only } = options;
    const plannerFor = (wanted: Project): ReturnType<typeof plannerInto> =>
      plannerInto({
        project: wanted,
        name: project.name,
        ...(target === undefined ? {} : { target }),
        folder: {
          read: (file) => readFile(path.join(folder, file)).catch(() => null),
          list: () => pathsIn(folder),
        },
        pictureOf: (hash) => project.bytes.get(hash),
        ...(only === undefined ? {} : { only: (emitted) => partOf(project, emitted, only) }),
      }).catch((error: unknown) => {
        if (!(error instanceof RangeError)) throw error;
        throw new Misuse(`${folder}: ${error.message} Nothing was written.`);
      });

    let answers = new Map<string, MergeSide>();
    let planWith = await plannerFor(project);
    let plan = await planWith(answers);
    for (const { path: file, line, says } of plan.offers) output.say(`= ${file}:${line}: ${says}`);
    const { offers } = plan;
    if (readBack !== undefined) {
      const app = applyChange(project.app, takeOffers(offers));
      await writeOut(readBack, packProject({ ...project, app }));
      output.say(`${offers.length} taken over into ${readBack}.`);
      planWith = await plannerFor({ ...project, app });
      plan = await planWith(answers);
    }
    const isTalking = process.stdin.isTTY && options.yes === undefined && options['dry-run'] === undefined;
    if (plan.asks.length && options.take !== undefined) {
      answers = new Map(plan.asks.map(({ id }) => [id, options.take as MergeSide]));
      plan = await planWith(answers);
    } else if (plan.asks.length && isTalking) {
      answers = await answersTo(plan.asks, output);
      plan = await planWith(answers);
    }
    const open = plan.asks.filter(({ id }) => !answers.has(id));
    tell(plan, open, output);
    const changes = plan.files.filter(
      ({ fate }) => fate !== 'same' && fate !== 'kept' && fate !== 'left-out',
    );
    const touchesTheirs = changes.some(({ fate }) => fate !== 'new') || plan.added.length > 0;

    let written = false;
    if (options['dry-run'] !== undefined) output.say('Nothing was written: this was a trial.');
    else if (open.length)
      output.say(
        'Nothing was written. Say which side counts with --take theirs or --take ours, or run this in a terminal to be asked.',
      );
    else if (touchesTheirs && options.yes === undefined && !(isTalking && (await agrees())))
      output.say('Nothing was written. Say --yes to change what is there.');
    else {
      await writeTogether(folder, plan.writes);
      written = true;
      output.say(`Written into ${folder}.`);
    }
    output.out(`${JSON.stringify(reportOf({ ...plan, offers }, written), null, 1)}\n`);
    return written || (options['dry-run'] !== undefined && !open.length) ? EXIT.good : EXIT.findings;
  },
};

/** Makes a folder ready to be written into. @throws Misuse where it is none. */
async function prepare(folder: string, output: Output): Promise<void> {
  const info = await stat(folder).catch(() => null);
  if (info && !info.isDirectory()) throw new Misuse(`${folder} is a file. Name a folder.`);
  if (info && (await finishWriting(folder)))
    output.say(`${folder}: an earlier delivery ended in the middle. What it had changed has been put back.`);
}

/** Paths of a folder's files, without those of packages and of what was built. */
async function pathsIn(folder: string): Promise<string[]> {
  const found: string[] = [];
  const visit = async (at: string): Promise<void> => {
    for (const entry of await readdir(path.join(folder, at), { withFileTypes: true })) {
      const inner = at ? `${at}/${entry.name}` : entry.name;
      if (/^(node_modules|dist|build|\..*)$/.test(entry.name)) continue;
      if (entry.isDirectory()) await visit(inner);
      else if (isInside(inner)) found.push(inner);
    }
  };
  await visit('');
  return found;
}

const WORDS: Readonly<Record<DeliveryAsk['why'], string>> = {
  'both-changed': 'both changed it',
  'both-moved': 'both moved it',
  'both-replaced': 'both put something else in its place',
  'ours-removed': 'the design has it no more, and it was changed here',
  'theirs-removed': 'it was taken out here, and the design changed it',
  'still-used': 'the design has it no more, and it is used here',
  'no-place': 'the two cannot be put together',
  'in-the-way': 'a file of that name is there already',
};

function tell(plan: IntoPlan, open: readonly DeliveryAsk[], output: Output): void {
  const { codeBase, added } = plan;
  if (codeBase) {
    const framework = codeBase.target === null ? 'no framework that is known' : targets[codeBase.target].name;
    output.say(
      `A code base in ${framework}; sources in ${codeBase.source || 'the folder itself'}; ${codeBase.router ? `routes by ${codeBase.router}` : 'no router'}.`,
    );
    if (codeBase.router)
      output.say('Its routes are yours: take those of routes.ts(x), in the new folder, in among them.');
  }
  if (added.length) output.say(`Packages to be added: ${added.join(', ')}.`);
  const counts = new Map<string, number>();
  for (const { fate } of plan.files) counts.set(fate, (counts.get(fate) ?? 0) + 1);
  output.say(
    [...counts].map(([fate, count]) => `${count} ${fate.replace('-', ' ')}`).join(', ') || 'No files.',
  );
  for (const { path: file, fate, movedFrom, byLines } of plan.files) {
    if (fate === 'same' || fate === 'new') continue;
    const more = `${movedFrom === undefined ? '' : `, from ${movedFrom}`}${byLines === undefined ? '' : `; line by line, since ${byLines}`}`;
    output.say(`  ${fate.padEnd(9)} ${file}${more}`);
  }
  for (const notice of plan.notices) output.say(`! ${notice}`);
  for (const ask of open) output.say(questionOf(ask));
}

const questionOf = ({ path: file, line, why, theirs, ours }: DeliveryAsk): string =>
  `? ${file}:${line}: ${WORDS[why]}\n${quoted('theirs', theirs)}\n${quoted('ours', ours)}`;

const quoted = (side: string, text: string | null): string =>
  text === null
    ? `    ${side}: nothing`
    : text
        .split('\n')
        .slice(0, 12)
        .map((line, i) => `    ${i === 0 ? `${side}: ` : '  '}${line}`)
        .join('\n');

async function answersTo(asks: readonly DeliveryAsk[], output: Output): Promise<Map<string, MergeSide>> {
  const answers = new Map<string, MergeSide>();
  const talk = createInterface({ input: process.stdin, output: process.stderr });
  for (const ask of asks) {
    output.say(questionOf(ask));
    const said = await talk.question('Keep what is there (t), or take what is written now (o)? ');
    if (/^[to]/i.test(said)) answers.set(ask.id, /^t/i.test(said) ? 'theirs' : 'ours');
  }
  talk.close();
  return answers;
}

async function agrees(): Promise<boolean> {
  const talk = createInterface({ input: process.stdin, output: process.stderr });
  const said = await talk.question('Write this? (y/n) ');
  talk.close();
  return /^y/i.test(said);
}

const reportOf = ({ target, files, asks, offers, notices, added }: IntoPlan, written: boolean): unknown => ({
  target,
  files: files.map(({ path: file, fate, movedFrom, byLines }) => ({ path: file, fate, movedFrom, byLines })),
  asks,
  offers: offers.map(({ path: file, line, says }) => ({ path: file, line, says })),
  notices,
  packages: { added },
  written,
});
