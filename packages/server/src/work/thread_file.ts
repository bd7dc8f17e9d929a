import { existsSync } from 'node:fs';
import path from 'node:path';
import { packageFolder } from '../config.ts';

/** The file that a thread runs: beside the bundle, or the source, which says itself how it is read. */
export function threadFile(name: 'jobs' | 'build_thread'): string {
  const bundled = path.join(packageFolder(), 'dist', `${name}.mjs`);
  const isBundle = import.meta.url.endsWith('.mjs') && existsSync(bundled);
  return isBundle ? bundled : path.join(packageFolder(), 'src/work', `${name}_from_source.mjs`);
}
