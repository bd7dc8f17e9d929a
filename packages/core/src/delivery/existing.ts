import type { EmittedFile } from '../emit/emitted.ts';
import type { TargetName } from '../emit/targets.ts';
import { FLOW_SHEET } from '../flow/print_flow.ts';
import { isRecord } from '../json/json.ts';

/** A code base that people wrote, as far as it matters for what is put into it. */
export interface CodeBase {
  /** What it is written in; null where that cannot be told. */
  readonly target: TargetName | null;
  /** The folder of its sources, without `/` at its end; empty for the folder itself. */
  readonly source: string;
  /** The package that routes its pages, or null. */
  readonly router: string | null;
  /** Its package.json. */
  readonly packages: string;
}

const ROUTERS = ['react-router', 'react-router-dom', 'vue-router', '@tanstack/react-router'];

/**
 * What a folder holds that was not written by Tovel: framework, sources and router, by its package.json and where files lie.
 * Null where it is no code base.
 * @param paths of its files, without those of packages
 * @throws RangeError where package.json cannot be read
 */
export function surveyCodeBase(paths: readonly string[], packages: string | null): CodeBase | null {
  if (packages === null) return null;
  const names = Object.keys({
    ...dependenciesIn(packages, 'devDependencies'),
    ...dependenciesIn(packages, 'dependencies'),
  });
  const has = (name: string): boolean => names.includes(name);
  const folders = ['src', 'app', 'source', 'client/src', 'frontend/src'];
  return {
    target: has('react') ? 'react' : has('vue') ? 'vue' : null,
    source: folders.find((folder) => paths.some((path) => path.startsWith(`${folder}/`))) ?? 'src',
    router: ROUTERS.find(has) ?? null,
    packages,
  };
}

/** A package.json's dependencies. @throws RangeError where it is none. */
function dependenciesIn(packages: string, field: string): Record<string, string> {
  let value: unknown;
  try {
    value = JSON.parse(packages);
  } catch (error) {
    throw new RangeError(`package.json cannot be read: ${(error as Error).message}`);
  }
  if (!isRecord(value)) throw new RangeError('package.json cannot be read: it holds no object');
  const found = value[field];
  return isRecord(found) ? (found as Record<string, string>) : {};
}

/** Files of an app as they go into a code base that is there: sources in a folder of their own, nothing around them. */
export function placeInto({ source }: CodeBase, name: string, files: readonly EmittedFile[]): EmittedFile[] {
  const folder = `${source ? `${source}/` : ''}${folderName(name)}`;
  return files.flatMap((file) => {
    if (file.path === FLOW_SHEET) return [{ ...file, path: `${folder}/${FLOW_SHEET}` }];
    return file.path.startsWith('src/') ? [{ ...file, path: file.path.replace(/^src/, folder) }] : [];
  });
}

/** A package.json with the packages that an app needs and that it has not, in the order of their names; null where it has all. */
export function withPackages(packages: string, needed: string): string | null {
  const value = JSON.parse(packages) as Record<string, unknown>;
  const known = {
    ...dependenciesIn(packages, 'devDependencies'),
    ...dependenciesIn(packages, 'dependencies'),
  };
  let changed = false;
  for (const field of ['dependencies', 'devDependencies']) {
    const missing = Object.entries(dependenciesIn(needed, field)).filter(
      ([name]) => !Object.hasOwn(known, name),
    );
    if (!missing.length) continue;
    changed = true;
    const all = { ...dependenciesIn(packages, field), ...Object.fromEntries(missing) };
    value[field] = Object.fromEntries(Object.entries(all).sort(([a], [b]) => (a < b ? -1 : 1)));
  }
  if (!changed) return null;
  const indent = /\n([\t ]+)"/.exec(packages)?.[1] ?? '  ';
  return `${JSON.stringify(value, null, indent)}\n`;
}

/** A project's name as a folder's. */
const folderName = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-|-$/g, '') || 'app';
