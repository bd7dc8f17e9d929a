import { existsSync } from 'node:fs';
import { type Browser, chromium } from 'playwright-core';

/** Where Chromium usually is; `TOVEL_CHROMIUM` names another place. */
const PLACES = [
  '/usr/bin/chromium',
  '/usr/bin/chromium-browser',
  '/usr/bin/google-chrome',
  '/snap/bin/chromium',
];
const ARGUMENTS = [
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--hide-scrollbars',
];

export const findChromium = (): string | null =>
  [process.env.TOVEL_CHROMIUM, ...PLACES].find((place): place is string => !!place && existsSync(place)) ??
  null;

/**
 * Starts a headless Chromium that asks nothing of the network by itself.
 * @param what what needs it, as the beginning of a sentence
 * @throws Error that says what to install
 */
export async function launchChromium(what: string, more: readonly string[] = []): Promise<Browser> {
  const executablePath = findChromium();
  if (!executablePath)
    throw new Error(
      `${what} needs Chromium: install the package "chromium", or set TOVEL_CHROMIUM to where it is.`,
    );
  return chromium.launch({
    executablePath,
    chromiumSandbox: process.getuid?.() !== 0,
    args: [...ARGUMENTS, ...more],
  });
}
