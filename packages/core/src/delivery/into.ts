import { deliveredCode } from './delivered_code.ts';
import type { EmittedFile, EmittedProject } from '../emit/emitted.ts';
import { type TargetName, isTarget, targetOf, targets } from '../emit/targets.ts';
import type { MergeSide } from '../merge/conflict.ts';
import type { Project } from '../model/project.ts';
import { type CodeBase, placeInto, surveyCodeBase, withPackages } from './existing.ts';
import { type Manifest, MANIFEST_PATH, parseManifest } from './manifest.ts';
import { type DeliveryPlan, planDelivery } from './plan.ts';
import { type CodeOffer, readBack } from './read_back.ts';

/** A folder that is written into. */
export interface DeliveryFolder {
  /** A file of it, or null. */
  readonly read: (path: string) => Promise<Uint8Array | null>;
  /** Paths of its files, without those of packages and of what was built. */
  readonly list: () => Promise<readonly string[]>;
}

export interface IntoInput {
  readonly project: Project;
  readonly name: string;
  /** What is written; what the folder or the project says, where it is not given. */
  readonly target?: TargetName;
  readonly folder: DeliveryFolder;
  readonly pictureOf: (hash: string) => Uint8Array | undefined;
  /** What of the code is written; all of it, where it is not given. */
  readonly only?: (emitted: EmittedProject) => readonly EmittedFile[];
}

export interface IntoPlan extends DeliveryPlan {
  readonly target: TargetName;
  /** Where people wrote the folder. */
  readonly codeBase: CodeBase | null;
  /** Packages that are added to theirs. */
  readonly added: readonly string[];
  /** What people changed there and what means something in the project. */
  readonly offers: readonly CodeOffer[];
}

/**
 * What delivering a project into a folder would do, whatever that is: an empty one, one that it was delivered into before, or a
 * code base that people wrote. The code is written once, and planned with for any answers (sides, by the ids of what is asked).
 * @throws RangeError, in words, where the folder's manifest or package.json cannot be read, or where it is written in another
 * framework
 */
export async function plannerInto(
  input: IntoInput,
): Promise<(answers: ReadonlyMap<string, MergeSide>) => Promise<IntoPlan>> {
  const { project, name, folder } = input;
  const { manifest, codeBase } = await placeOf(folder);
  const known = manifest?.target ?? codeBase?.target ?? targetOf(project.app);
  const target = input.target ?? (isTarget(known) ? known : targetOf(project.app));
  if (codeBase?.target && codeBase.target !== target)
    throw new RangeError(
      `It is written in ${targets[codeBase.target].name}. Deliver ${targets[codeBase.target].name}, or into another folder.`,
    );
  const emitted = await deliveredCode(project, name, target);
  const chosen = input.only ? input.only(emitted) : emitted.files;
  const files = codeBase ? placeInto(codeBase, name, chosen) : chosen;
  const packages = codeBase ? packagesFor(codeBase, emitted.files) : null;
  const offers = manifest
    ? await readBack({
        project,
        name,
        manifest,
        read: folder.read,
        write: async (changed) => {
          const { files: made } = await deliveredCode(changed, name, target);
          return codeBase ? placeInto(codeBase, name, made) : made;
        },
      })
    : [];
  return async (answers) => {
    const plan = await planDelivery({
      project: name,
      target,
      files,
      pictureOf: input.pictureOf,
      manifest,
      read: folder.read,
      answers,
      isPart: input.only !== undefined,
    });
    if (!packages) return { ...plan, target, codeBase, added: [], offers };
    const writes = new Map(plan.writes).set('package.json', new TextEncoder().encode(packages.text));
    return { ...plan, writes, target, codeBase, added: packages.names, offers };
  };
}

async function placeOf(
  folder: DeliveryFolder,
): Promise<{ manifest: Manifest | null; codeBase: CodeBase | null }> {
  const read = async (path: string): Promise<string | null> => {
    const bytes = await folder.read(path);
    return bytes && new TextDecoder().decode(bytes);
  };
  const json = await read(MANIFEST_PATH);
  const manifest = json === null ? null : parseManifest(json);
  // What is around the sources is Tovel's where it wrote it.
  if (manifest?.files.some(({ path }) => path === 'package.json' || path === 'index.html'))
    return { manifest, codeBase: null };
  const packages = await read('package.json');
  return { manifest, codeBase: packages === null ? null : surveyCodeBase(await folder.list(), packages) };
}

/** The package.json of a code base with what it lacks, and the names of that; null where it lacks nothing. */
function packagesFor(
  { packages }: CodeBase,
  files: readonly EmittedFile[],
): { readonly text: string; readonly names: readonly string[] } | null {
  const needed = files.find(({ path }) => path === 'package.json');
  const text = needed && 'text' in needed ? withPackages(packages, needed.text) : null;
  if (text === null) return null;
  const known = new Set(packageNames(packages));
  return { text, names: packageNames(text).filter((name) => !known.has(name)) };
}

function packageNames(json: string): string[] {
  const { dependencies, devDependencies } = JSON.parse(json) as Record<
    string,
    Record<string, string> | undefined
  >;
  return Object.keys({ ...dependencies, ...devDependencies });
}
