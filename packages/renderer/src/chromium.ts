import { existsSync } from 'node:fs';
import type { Browser } from 'playwright-core';

/** Where Chromium usually is; `TOVEL_CHROMIUM` names another place. */
const PLACES = [
  '/usr/bin/chromium',
  '/usr/bin/chromium-browser',
  '/usr/bin/google-chrome',
  '/snap/bin/chromium',
];

/**
 * What Chromium does for somebody who sits before it. The pages behind its address line alone, made anew for each window, take a
 * quarter of the time of a small job. The list takes the place of the one that the driver gives, so that what matters of that is
 * here, too: nothing goes out by itself, addresses stay as they are, and a page is painted as soon as it can be.
 */
const UNUSED = [
  'WebUIOmniboxPopup',
  'WebUIOmniboxAimPopup',
  'AimEnabled',
  'LensOverlay',
  'MediaRouter',
  'NetworkTimeServiceQuerying',
  'OptimizationHints',
  'PreconnectToSearch',
  'HttpsUpgrades',
  'HttpsFirstBalancedModeAutoEnable',
  'PaintHolding',
  'AvoidUnnecessaryBeforeUnloadCheckSync',
  'DestroyProfileOnBrowserClose',
  'SpareRendererForSitePerProcess',
];

/** How a Chromium is started that nobody sits before, and that asks nothing of the network by itself. */
export const UNATTENDED: readonly string[] = [
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  `--disable-features=${UNUSED.join()}`,
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
  // It takes half a second to load: most commands never draw anything.
  const { chromium } = await import('playwright-core');
  return chromium.launch({
    executablePath,
    chromiumSandbox: process.getuid?.() !== 0,
    args: [...UNATTENDED, '--hide-scrollbars', ...more],
  });
}
