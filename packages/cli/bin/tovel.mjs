#!/usr/bin/env node
import { pathToFileURL } from 'node:url';
import { cliBundle } from '../../../scripts/lib/cli_bundle.mjs';

const bundle = await cliBundle().catch((/** @type {Error} */ { message }) => {
  process.stderr.write(`${message}\n`);
  process.exit(2);
});
const { main } = await import(pathToFileURL(bundle).href);
process.exitCode = await main(process.argv.slice(2));
