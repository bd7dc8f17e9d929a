import { readdir, readFile, stat } from 'node:fs/promises';
import path from 'node:path';
import { createInterface } from 'node:readline/promises';
import {
  type CodeBase,
  deliveredCode,
  type DeliveryAsk,
  type DeliveryPlan,
  type EmittedFile,
  isInside,
  isTarget,
  type Manifest,
  MANIFEST_PATH,
  type MergeSide,
  parseManifest,
  placeInto,
  planDelivery,
  surveyCodeBase,
  targetOf,
  targets,
  withPackages,
} from '@tovel/core';
import { type Command, EXIT, Misuse, type Output, parseArguments } from './command.ts';
import { readProject } from './files.ts';
import { partOf } from './part_of.ts';
import { finishWriting, writeTogether } from './write_together.ts';

export const deliver: Command = {
  usage:
    'tovel deliver PROJECT --into DIR [--only PART] [--target NAME] [--yes] [--dry-run] [--take theirs|ours]',
  summary: 'writes the code into a folder that is there, and keeps what people wrote',
  help: `Writes the project's app into a folder: an empty one, one that it was written into before, or a
code base that people wrote. What somebody changed since it was written last is kept: it is
merged with what is written now, by the syntax of its language. Says first what it will do, and
asks before anything that is there changes. Where it fails, the folder is as it was.

  --into DIR     the folder
  --only PART    a screen or component by its name, or a file by its path, with what it needs
  --target NAME  ${Object.keys(targets).join(', ')}; what the folder or the project says, where it is not given
  --yes          writes without asking
  --dry-run      writes nothing
  --take SIDE    where both sides changed the same: theirs (what is in the folder) or ours (what is written now)

Prints {target, files: [{path, fate, movedFrom?, byLines?}], asks: [{id, path, line, why, base, theirs, ours, element?}],
notices, packages: {added}, written}. Ends with 1 when something is asked that nobody answered, or nothing was written.`,
  async run(args, output) {
    const { paths, options } = parseArguments(
      args.map((arg) => (arg === '--yes' || arg === '--dry-run' ? `${arg}=yes` : arg)),
      ['into', 'only', 'target', 'yes', 'dry-run', 'take'],
    );
    const folder = options.into;
    if (!folder) throw new Misuse('Into which folder? Name it with --into.');
    if (options.take !== undefined && options.take !== 'theirs' && options.take !== 'ours')
      throw new Misuse('--take takes theirs or ours.');
    const project = await readProject(paths[0]);
    const place = await placeOf(folder, output);
    const target =
      options.target ?? place.manifest?.target ?? place.codeBase?.target ?? targetOf(project.app);
    if (!isTarget(target)) throw new Misuse(`--target takes ${Object.keys(targets).join(' or ')}.`);
    if (place.codeBase?.target && place.codeBase.target !== target)
      throw new Misuse(
        `${folder} is written in ${targets[place.codeBase.target].name}. Say --target ${place.codeBase.target}, or name another folder.`,
      );

    const emitted = await deliveredCode(project, project.name, target);
    const chosen = options.only === undefined ? emitted.files : partOf(project, emitted, options.only);
    const files = place.codeBase ? placeInto(place.codeBase, project.name, chosen) : chosen;
    const added = place.codeBase ? packagesFor(place.codeBase, emitted.files) : null;
    const planWith = (answers: ReadonlyMap<string, MergeSide>): Promise<DeliveryPlan> =>
      planDelivery({
        project: project.name,
        target,
        files,
        pictureOf: (hash) => project.bytes.get(hash),
        manifest: place.manifest,
        read: (file) => readFile(path.join(folder, file)).catch(() => null),
        answers,
        isPart: options.only !== undefined,
      });

    let answers = new Map<string, MergeSide>();
    let plan = await planWith(answers);
    const isTalking = process.stdin.isTTY && options.yes === undefined && options['dry-run'] === undefined;
    if (plan.asks.length && options.take !== undefined) {
      answers = new Map(plan.asks.map(({ id }) => [id, options.take as MergeSide]));
      plan = await planWith(answers);
    } else if (plan.asks.length && isTalking) {
      answers = await answersTo(plan.asks, output);
      plan = await planWith(answers);
    }
    const open = plan.asks.filter(({ id }) => !answers.has(id));
    tell(plan, place, open, added, output);
    const writes = new Map(plan.writes);
    if (added) writes.set('package.json', new TextEncoder().encode(added.text));
    const changes = plan.files.filter(
      ({ fate }) => fate !== 'same' && fate !== 'kept' && fate !== 'left-out',
    );
    const touchesTheirs = changes.some(({ fate }) => fate !== 'new') || added !== null;

    let written = false;
    if (options['dry-run'] !== undefined) output.say('Nothing was written: this was a trial.');
    else if (open.length)
      output.say(
        'Nothing was written. Say which side counts with --take theirs or --take ours, or run this in a terminal to be asked.',
      );
    else if (touchesTheirs && options.yes === undefined && !(isTalking && (await agrees())))
      output.say('Nothing was written. Say --yes to change what is there.');
    else {
      await writeTogether(folder, writes);
      written = true;
      output.say(`Written into ${folder}.`);
    }
    output.out(`${JSON.stringify(reportOf(plan, target, added?.names ?? [], written), null, 1)}\n`);
    return written || (options['dry-run'] !== undefined && !open.length) ? EXIT.good : EXIT.findings;
  },
};

interface Place {
  readonly manifest: Manifest | null;
  /** Where people wrote the folder. */
  readonly codeBase: CodeBase | null;
}

/** What is in the folder. @throws Misuse where it cannot be written into. */
async function placeOf(folder: string, output: Output): Promise<Place> {
  const info = await stat(folder).catch(() => null);
  if (!info) return { manifest: null, codeBase: null };
  if (!info.isDirectory()) throw new Misuse(`${folder} is a file. Name a folder.`);
  if (await finishWriting(folder))
    output.say(`${folder}: an earlier delivery ended in the middle. What it had changed has been put back.`);
  const read = (file: string): Promise<string | null> =>
    readFile(path.join(folder, file), 'utf8').catch(() => null);
  try {
    const json = await read(MANIFEST_PATH);
    const manifest = json === null ? null : parseManifest(json);
    const packages = await read('package.json');
    const isOurs =
      manifest === null ||
      manifest.files.some((file) => file.path === 'package.json' || file.path === 'index.html');
    if (manifest && isOurs) return { manifest, codeBase: null };
    return { manifest, codeBase: surveyCodeBase(await pathsIn(folder), packages) };
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    throw new Misuse(`${folder}: ${error.message} Nothing was written.`);
  }
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

/** The package.json of a code base with what it lacks, and the names of that; null where it lacks nothing. */
function packagesFor(
  { packages }: CodeBase,
  files: readonly EmittedFile[],
): { readonly text: string; readonly names: readonly string[] } | null {
  const needed = files.find((file) => file.path === 'package.json');
  const text = needed && 'text' in needed ? withPackages(packages, needed.text) : null;
  if (text === null) return null;
  const names = (json: string): string[] => {
    const { dependencies, devDependencies } = JSON.parse(json) as Record<
      string,
      Record<string, string> | undefined
    >;
    return Object.keys({ ...dependencies, ...devDependencies });
  };
  const known = new Set(names(packages));
  return { text, names: names(text).filter((name) => !known.has(name)) };
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

function tell(
  plan: DeliveryPlan,
  { codeBase }: Place,
  open: readonly DeliveryAsk[],
  added: { readonly names: readonly string[] } | null,
  output: Output,
): void {
  if (codeBase) {
    const framework = codeBase.target === null ? 'no framework that is known' : targets[codeBase.target].name;
    output.say(
      `A code base in ${framework}; sources in ${codeBase.source || 'the folder itself'}; ${codeBase.router ? `routes by ${codeBase.router}` : 'no router'}.`,
    );
    if (codeBase.router)
      output.say('Its routes are yours: take those of routes.ts(x), in the new folder, in among them.');
  }
  if (added?.names.length) output.say(`Packages to be added: ${added.names.join(', ')}.`);
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

const reportOf = (
  { files, asks, notices }: DeliveryPlan,
  target: string,
  added: readonly string[],
  written: boolean,
): unknown => ({
  target,
  files: files.map(({ path: file, fate, movedFrom, byLines }) => ({ path: file, fate, movedFrom, byLines })),
  asks,
  notices,
  packages: { added },
  written,
});
