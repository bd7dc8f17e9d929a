#!/usr/bin/env node
import { pathToFileURL } from 'node:url';
import { setFlagsFromString } from 'node:v8';
import { cliBundle } from '../../../scripts/lib/cli_bundle.mjs';

// What was read of one page is gone before much of the next is there: a pile takes as much room as it needs, and not twice that.
setFlagsFromString('--heap-growing-percent=25');

const bundle = await cliBundle().catch((/** @type {Error} */ { message }) => {
  process.stderr.write(`${message}\n`);
  process.exit(2);
});
const { main } = await import(pathToFileURL(bundle).href);
process.exitCode = await main(process.argv.slice(2));
