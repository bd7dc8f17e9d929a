/**
 * How near Tovel comes to pages that it was not made with: multi-page templates from the registry, installed into a
 * temporary folder and not kept. `npm run bench -- templates [PACKAGE...]` measures others.
 */
import { measureFidelity, printFidelity } from '../packages/reader/src/testing/fidelity.ts';
import { folderFiles } from '../packages/reader/src/testing/folder_files.ts';
import { installed } from './installed.ts';

const wanted = process.argv.slice(2);
const packages = wanted.length
  ? wanted
  : ['startbootstrap-sb-admin-2@4.1.4', 'startbootstrap-clean-blog@6.0.9'];
const packaged = await installed(packages);
try {
  for (const name of packages) {
    const root = packaged.rootOf(name);
    const files = (await folderFiles(root)).filter(
      (file) => !/(^|\/)(node_modules|src|scss|less|\.[^/]*)\//.test(file.path),
    );
    console.log(`\nDifference of emitted screens from their sources: ${name}`);
    printFidelity(await measureFidelity(files, root, process.env.TOVEL_BENCH_PICTURES));
  }
} finally {
  await packaged.remove();
}
