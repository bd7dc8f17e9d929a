import { execFileSync } from 'node:child_process';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';

/** Where packages lie while they are measured. */
export interface Installed {
  readonly folder: string;
  /** The folder of a package, named with or without its version. */
  readonly rootOf: (name: string) => string;
  readonly remove: () => Promise<void>;
}

/** A package's name without its version. */
export const bareName = (name: string): string => name.replace(/(?<=.)@[^@]*$/, '');

/**
 * Installs packages from the registry into a temporary folder, without running anything of theirs. With
 * `TOVEL_BENCH_FOLDER` those that lie in that folder are taken, and stay.
 */
export async function installed(packages: readonly string[]): Promise<Installed> {
  const given = process.env.TOVEL_BENCH_FOLDER;
  const folder = given ?? (await mkdtemp(path.join(tmpdir(), 'tovel-bench-')));
  const remove = async (): Promise<void> => {
    if (!given) await rm(folder, { recursive: true, force: true });
  };
  if (!given)
    try {
      await writeFile(path.join(folder, 'package.json'), '{"private":true}');
      execFileSync(
        'npm',
        ['install', '--ignore-scripts', '--no-audit', '--no-fund', '--silent', ...packages],
        {
          cwd: folder,
          stdio: 'inherit',
        },
      );
    } catch (error) {
      await remove();
      throw error;
    }
  return { folder, rootOf: (name) => path.join(folder, 'node_modules', bareName(name)), remove };
}
