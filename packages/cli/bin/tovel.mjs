#!/usr/bin/env node
import { pathToFileURL } from 'node:url';
import { cliBundle } from '../../../scripts/lib/cli_bundle.mjs';

const { main } = await import(pathToFileURL(await cliBundle()).href);
process.exitCode = await main(process.argv.slice(2));
