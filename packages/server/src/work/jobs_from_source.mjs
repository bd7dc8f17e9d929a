// The jobs as they are, for a server that runs from its source; the bundle has them compiled beside it.
import { register } from 'tsx/esm/api';

register();
const jobs = await import('./jobs.ts');
export const {
  compareViews,
  emitCode,
  freezeApp,
  iterate,
  packFiles,
  packArchive,
  unpackArchive,
  compileClasses,
  planIntoFolder,
} = jobs;
