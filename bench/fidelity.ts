/** How near the emitted screens of the demo, or of a folder that is named, come to their sources. */
import path from 'node:path';
import { measureFidelity, printFidelity } from '../packages/reader/src/testing/fidelity.ts';
import { folderFiles } from '../packages/reader/src/testing/folder_files.ts';

const folder = path.resolve(process.argv[2] ?? 'demo/iteration-1');
console.log(`\nDifference of emitted screens from their sources: ${path.basename(folder)}`);
printFidelity(await measureFidelity(await folderFiles(folder), folder, process.argv[3]));
