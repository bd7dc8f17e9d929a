import { readdir, readFile, stat } from 'node:fs/promises';
import path from 'node:path';
import {
  all,
  applyChange,
  EmissionPlan,
  extractionOf,
  isLibraryFile,
  libraryKey,
  packProject,
  proposeTheirs,
  putComponent,
  putLibrary,
  readLibrary,
  type ReadLibrary,
  type SourceFile,
  SURE_THEIRS,
  type TheirProposal,
} from '@tovel/core';
import { drawLibrary, type DrawnLibrary, Renderer } from '@tovel/renderer';
import { type Command, EXIT, Misuse, type Output, parseArguments } from './command.ts';
import { readProject, writeOut } from './files.ts';

/** What is at least so sure is taken by `--take all`. */
const LIKELY = 0.5;
/** A larger file of a library is none that declares components. */
const LARGEST = 2_000_000;

export const library: Command = {
  usage: 'tovel library PROJECT --from DIR [--take sure|all] [--out FILE.tovel]',
  summary: 'proposes which of the team’s own components the drawn ones are',
  help: `Reads a folder or package of components (TypeScript, React): their names, their props with types and
defaults, and how they look where they can be built. Prints {library, version, components, proposals,
unmatched, problems}: for each drawn component of PROJECT, a .tovel file, which of them it may be, what each
of their props is given, and what would be lost.

  --from DIR         the folder of the library, with its package.json
  --take sure        takes what is at least ${SURE_THEIRS * 100} % sure over into the project; all: what is
                     rather so than not.
                     Delivered code then imports those components in the place of drawn ones
  --out FILE.tovel   where the project goes then`,
  async run(args, output) {
    const { paths, options } = parseArguments(args, ['from', 'take', 'out']);
    const { from, take, out } = options;
    if (from === undefined) throw new Misuse('Which library? --from names its folder.');
    if (take !== undefined && take !== 'sure' && take !== 'all')
      throw new Misuse('--take takes sure or all.');
    if ((take === undefined) !== (out === undefined)) throw new Misuse('--take and --out go together.');
    if (out !== undefined && !out.endsWith('.tovel'))
      throw new Misuse('--out takes a name that ends in .tovel.');
    const project = await readProject(paths[0]);
    const read = readLibrary(await sourcesIn(from, output), path.basename(path.resolve(from)));
    if (!read.library.components.length) throw new Misuse(`${from}: ${read.problems.join(' ')}`);
    const drawn = await looked(from, read);
    const app = applyChange(project.app, putLibrary(libraryKey(drawn.library), drawn.library));
    const extraction = extractionOf(new EmissionPlan({ ...project, app }));
    const proposals = proposeTheirs(extraction, app);
    const problems = [...read.problems, ...drawn.problems];
    output.out(
      `${JSON.stringify(
        {
          library: drawn.library.name,
          version: drawn.library.version ?? null,
          components: drawn.library.components,
          proposals: [...proposals].map(([id, list]) => ({
            component: app.components[id].name,
            may_be: list.map(printed),
          })),
          unmatched: extraction.components
            .filter(({ id }) => Object.hasOwn(app.components, id) && !proposals.has(id))
            .map(({ name }) => name),
          problems,
        },
        null,
        1,
      )}\n`,
    );
    if (take === undefined || out === undefined) return EXIT.good;
    const least = take === 'sure' ? SURE_THEIRS : LIKELY;
    const taken = [...proposals].flatMap(([id, [first]]) =>
      first.confidence >= least && !first.missing.length ? [[id, first] as const] : [],
    );
    const after = applyChange(
      app,
      all(taken.map(([id, { theirs }]) => putComponent(id, { ...app.components[id], theirs }))),
    );
    await writeOut(out, packProject({ ...project, app: after }));
    output.say(
      `${taken.length} of ${extraction.components.length} drawn components are the team’s own now: ${taken
        .map(([id, { theirs }]) => `${app.components[id].name} is ${theirs.component}`)
        .join(', ')}. Written to ${out}.`,
    );
    return EXIT.good;
  },
};

const printed = ({ theirs, lost, missing, confidence, reason }: TheirProposal) => ({
  component: theirs.component,
  props: Object.fromEntries(
    Object.entries(theirs.props).map(([name, value]) => [
      name,
      value.kind === 'prop'
        ? { prop: value.name }
        : value.kind === 'fixed'
          ? value.value
          : { [value.kind]: true },
    ]),
  ),
  lost,
  missing,
  confidence,
  reason,
});

/** The library with how its components look, where a browser is there to tell. */
async function looked(from: string, { library: read, sources }: ReadLibrary): Promise<DrawnLibrary> {
  const renderer = new Renderer();
  try {
    return await drawLibrary(renderer, path.resolve(from), read, sources, true);
  } finally {
    await renderer.close();
  }
}

/** The files of a folder that say something of its components. */
async function sourcesIn(folder: string, output: Output): Promise<SourceFile[]> {
  const info = await stat(folder).catch(() => null);
  if (!info?.isDirectory()) throw new Misuse(`There is no folder ${folder}.`);
  const files: SourceFile[] = [];
  for (const entry of await readdir(folder, { recursive: true, withFileTypes: true })) {
    if (!entry.isFile()) continue;
    const full = path.join(entry.parentPath, entry.name);
    const name = path.relative(folder, full).split(path.sep).join('/');
    if (!isLibraryFile(name)) continue;
    const { size } = await stat(full);
    if (size > LARGEST) output.say(`${name} is too large to be a component, and was left out`);
    else files.push({ path: name, text: await readFile(full, 'utf8') });
  }
  return files.sort((a, b) => (a.path < b.path ? -1 : 1));
}
