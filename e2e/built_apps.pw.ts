import { execFileSync } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { expect, type Page, test } from '@playwright/test';
import { unzipSync } from 'fflate';
import { copyOfDemo, openJunction, saved } from './support.ts';

type Files = Readonly<Record<string, Uint8Array>>;

/** A copy of the demo in which Reserve opens over the screen that it is reserved from. */
async function withOverlay(page: Page, name: string): Promise<string> {
  const id = await copyOfDemo(page, name);
  await openJunction(page, id, 'Reserve');
  await page.getByRole('button', { name: 'Wiring' }).click();
  await page.getByRole('menuitem', { name: 'Make it an overlay' }).click();
  await page.getByRole('button', { name: 'Make it an overlay' }).click();
  await expect(page.getByRole('region', { name: 'Stage: Reserve' })).toContainText('overlay');
  return id;
}

/** The files of a project as Deliver hands them over, written as a target. */
async function delivered(page: Page, id: string, target: string): Promise<Files> {
  await page.goto(`/p/${id}/deliver`);
  await page.getByRole('button', { name: /Written as/ }).click();
  await page.getByRole('option', { name: target }).click();
  await expect(page.getByRole('button', { name: /Written as/ })).toContainText(target);
  await saved(page);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Download zip' }).click();
  return unzipSync(readFileSync(await (await download).path()));
}

/** Installs, builds and tests what was delivered as a person does; gives what was built. */
function built(files: Files): Files {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'tovel-zip-'));
  for (const [name, bytes] of Object.entries(files)) {
    mkdirSync(path.dirname(path.join(folder, name)), { recursive: true });
    writeFileSync(path.join(folder, name), bytes);
  }
  const npm = (...args: string[]): string =>
    execFileSync('npm', args, {
      cwd: folder,
      encoding: 'utf8',
      env: { ...process.env, CI: 'true', NO_COLOR: '1' },
    });
  npm('install', '--no-audit', '--no-fund', '--prefer-offline');
  expect(npm('run', 'build')).toContain('built in');
  const json = <T>(name: string): T | null => {
    const file = path.join(folder, 'src', name);
    return existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as T) : null;
  };
  const pressed = json<{ name: string; to: string }[]>('links.json')!;
  const links = pressed.length;
  // What many screens have alike is pressed on one of them.
  expect(new Set(pressed.map(({ name, to }) => `${name} ${to}`)).size).toBeGreaterThan(20);
  const {
    lists = [],
    forms = [],
    deeds = [],
    changes = [],
    gestures = [],
  } = json<{
    lists: unknown[];
    forms: { needs: unknown[]; filled?: object }[];
    deeds: unknown[];
    changes: unknown[];
    gestures: unknown[];
  }>('behaviour.json') ?? {};
  // Each link is tried, and whether every path has a screen; each list, each form, and what else is pressed or entered.
  const tests =
    links +
    1 +
    lists.length +
    forms.filter(({ needs }) => needs.length).length +
    forms.filter(({ filled }) => filled).length +
    deeds.length +
    changes.length +
    gestures.length;
  expect(npm('test')).toMatch(new RegExp(`Tests\\s+${tests} passed`));
  npm('exec', '--', 'prettier', '--check', '.');
  const dist = path.join(folder, 'dist');
  return Object.fromEntries(
    readdirSync(dist, { recursive: true, withFileTypes: true })
      .filter((entry) => entry.isFile())
      .map((entry) => {
        const file = path.join(entry.parentPath, entry.name);
        return [path.relative(dist, file), readFileSync(file)];
      }),
  );
}

/** What the file server says its files are. */
const TYPES: Readonly<Record<string, string>> = {
  '.html': 'text/html',
  '.css': 'text/css',
  '.js': 'text/javascript',
  '.svg': 'image/svg+xml',
};

/** A file server; of an app that is one page, every address without a file is that page. */
async function serving(files: Files, isOnePage: boolean): Promise<{ server: Server; address: string }> {
  const server = createServer((request, response) => {
    const asked = decodeURIComponent((request.url ?? '/').replace(/\?.*$/, '').slice(1));
    const isFolder = asked === '' || asked.endsWith('/') || (isOnePage && !path.extname(asked));
    const name = isFolder ? (isOnePage ? 'index.html' : `${asked}index.html`) : asked;
    const found = Object.hasOwn(files, name) ? files[name] : null;
    response
      .writeHead(found ? 200 : 404, { 'content-type': TYPES[path.extname(name)] ?? 'image/png' })
      .end(found ? Buffer.from(found) : '');
  }).listen(0, '127.0.0.1');
  await once(server, 'listening');
  return { server, address: `http://127.0.0.1:${(server.address() as AddressInfo).port}/` };
}

/** One step back and forth again, faster than a transition plays. */
async function backAndForth(page: Page): Promise<void> {
  await page.evaluate(async () => {
    for (const step of [-1, 1]) {
      const popped = new Promise((done) => addEventListener('popstate', done, { once: true }));
      history.go(step);
      await popped;
    }
  });
  await expect(page).toHaveTitle('Tool detail');
  await expect(page.getByRole('button', { name: 'Reserve', exact: true })).toBeVisible();
}

/** The way that a visitor goes, the same whatever the app is written as. */
async function walk(page: Page, address: string, isOnePage: boolean): Promise<void> {
  const wrong: string[] = [];
  page.on('response', (response) => {
    if (response.status() === 404) wrong.push(response.url());
  });
  page.on('pageerror', (error) => wrong.push(error.message));
  await page.goto(address);
  await page.getByRole('link', { name: 'Browse the tools' }).click();
  await expect(page).toHaveTitle('Catalogue');
  await page.getByRole('link', { name: /Hedge trimmer/ }).click();
  await expect(page).toHaveTitle('Tool detail');
  const opener = page.getByRole('button', { name: 'Reserve', exact: true });
  await opener.click();
  const dialog = page.getByRole('dialog', { name: 'Reserve' });
  await expect(dialog).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(dialog).toBeHidden();
  await expect(opener).toBeFocused();
  await page.goBack();
  await expect(page).toHaveTitle('Catalogue');
  await page.goForward();
  await expect(page).toHaveTitle('Tool detail');
  if (isOnePage) await backAndForth(page);
  expect(wrong).toEqual([]);
}

for (const [target, isBuilt] of [
  ['React', true],
  ['Vue', true],
  ['Plain pages', false],
] as const)
  test(`written as ${target} the app works from any file server, and a visitor goes the same way`, async ({
    page,
  }) => {
    test.setTimeout(240_000);
    const id = await withOverlay(page, `As ${target}`);
    const files = await delivered(page, id, target);
    expect(Object.hasOwn(files, 'package.json')).toBe(isBuilt);
    const { server, address } = await serving(isBuilt ? built(files) : files, isBuilt);
    try {
      await walk(page, address, isBuilt);
    } finally {
      server.close();
    }
  });

test('what stands behind the screens works in what was delivered: a tool is lent and handed back', async ({
  page,
}) => {
  test.setTimeout(240_000);
  const id = await copyOfDemo(page, 'Delivered at work', 'Mossgate Tool Library, at work');
  const { server, address } = await serving(built(await delivered(page, id, 'Vue')), true);
  try {
    await page.goto(`${address}tools`);
    await page.getByRole('link', { name: /Apple press/ }).click();
    await page.getByRole('link', { name: 'Reserve', exact: true }).click();
    await page.getByRole('button', { name: 'Reserve for Tuesday' }).click();
    await expect(page).toHaveURL(/\/loans$/);
    await expect(page.getByText('Due Tuesday 3')).toBeVisible();
    // It is kept on the device.
    await page.goto(`${address}tools/apple-press`);
    await expect(page.getByText('Not here')).toBeVisible();
    await page.goto(`${address}loans`);
    await page.getByRole('link', { name: 'Return' }).first().click();
    await page.getByRole('button', { name: 'Hand it back' }).click();
    await expect(page.getByText('Due Tuesday 3')).toBeHidden();
    await page.goto(`${address}tools/apple-press`);
    await expect(page.getByText('Free today')).toBeVisible();
  } finally {
    server.close();
  }
});

test('of plain pages a line of code shows its element', async ({ page }) => {
  const id = await copyOfDemo(page, 'Lines of pages');
  await page.goto(`/p/${id}/deliver`);
  await page.getByRole('button', { name: /Written as/ }).click();
  await page.getByRole('option', { name: 'Plain pages' }).click();
  const code = page.getByRole('region', { name: 'Code of index.html' });
  await expect(code).toContainText('<!doctype html>');
  await code.getByText('welcome', { exact: true }).click();
  await expect(page.locator('[data-outline]')).toBeVisible();
});
