import { execFileSync } from 'node:child_process';
import { once } from 'node:events';
import { mkdirSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { expect, test } from '@playwright/test';
import { unzipSync } from 'fflate';
import { copyOfDemo, openJunction, saved } from './support.ts';

test('a line shows its element, and an element its line', async ({ page }) => {
  const id = await copyOfDemo(page, 'Code');
  await page.goto(`/p/${id}/deliver`);
  const code = page.getByRole('region', { name: /^Code of src\/screens\/Welcome\/Welcome.tsx/ });
  await code.getByText('Browse the tools').click();
  const outline = page.locator('[data-outline]');
  await expect(outline).toBeVisible();
  const picture = page.locator('[data-stage]');
  const [box, whole] = [(await outline.boundingBox())!, (await picture.boundingBox())!];
  expect((box.y - whole.y) / whole.height).toBeGreaterThan(0.6);

  await picture.click({ position: { x: whole.width / 2, y: whole.height * 0.8 } });
  // Whether the press meets the button or the text in its middle, it is the lines of Sign in that are marked.
  const marked = code.locator('[data-marked]');
  await expect(marked.filter({ hasText: /sign ?in/i })).not.toHaveCount(0);
  await expect(marked.filter({ hasText: /browse/i })).toHaveCount(0);
});

test('the code is told in figures, and one screen is taken alone with what it needs', async ({ page }) => {
  const id = await copyOfDemo(page, 'One screen');
  await page.goto(`/p/${id}/deliver`);
  await expect(page.getByLabel('The code in figures')).toContainText(/Lines of code[\d,]+/);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: /^Zip of it and the \d+ it needs$/ }).click();
  const files = Object.keys(unzipSync(readFileSync(await (await download).path())));
  expect(files).toContain('src/screens/Welcome/Welcome.tsx');
  expect(files).toContain('src/navigation/links.tsx');
  expect(files.filter((file) => /package.json|screens\/(?!Welcome)/.test(file))).toEqual([]);

  await page.getByRole('button', { name: /Names of files/ }).click();
  await page.getByRole('option', { name: 'my-loans.tsx' }).click();
  await expect(page.getByRole('region', { name: 'Code of src/screens/welcome/welcome.tsx' })).toBeVisible();
});

test('the code is written as plain pages: links, going back, an overlay and an open address work from any file server', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Plain pages');
  await openJunction(page, id, 'Reserve');
  await page.getByRole('button', { name: 'Wiring' }).click();
  await page.getByRole('menuitem', { name: 'Make it an overlay' }).click();
  await page.getByRole('button', { name: 'Make it an overlay' }).click();
  await expect(page.getByRole('region', { name: 'Stage: Reserve' })).toContainText('overlay');
  await page.goto(`/p/${id}/deliver`);
  await page.getByRole('button', { name: /Written as/ }).click();
  await page.getByRole('option', { name: 'Plain pages' }).click();
  const code = page.getByRole('region', { name: 'Code of index.html' });
  await expect(code).toContainText('<!doctype html>');
  await code.getByText('welcome', { exact: true }).click();
  await expect(page.locator('[data-outline]')).toBeVisible();
  await saved(page);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Download zip' }).click();
  const files = unzipSync(readFileSync(await (await download).path()));
  expect(Object.keys(files)).not.toContain('package.json');

  const server = createServer((request, response) => {
    const asked = decodeURIComponent((request.url ?? '/').replace(/\?.*$/, '').slice(1));
    const name = asked === '' || asked.endsWith('/') ? `${asked}index.html` : asked;
    const found = Object.hasOwn(files, name) ? files[name] : null;
    response
      .writeHead(found ? 200 : 404, { 'content-type': TYPES[path.extname(name)] ?? 'image/png' })
      .end(found ? Buffer.from(found) : '');
  }).listen(0, '127.0.0.1');
  try {
    await once(server, 'listening');
    const missing: string[] = [];
    page.on('response', (response) => {
      if (response.status() === 404) missing.push(response.url());
    });
    page.on('pageerror', (error) => missing.push(error.message));
    await page.goto(`http://127.0.0.1:${(server.address() as AddressInfo).port}/`);
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
    expect(missing).toEqual([]);
  } finally {
    server.close();
  }
});

/** What the file server says its files are. */
const TYPES: Readonly<Record<string, string>> = {
  '.html': 'text/html',
  '.css': 'text/css',
  '.js': 'text/javascript',
  '.svg': 'image/svg+xml',
};

test('the zip installs, builds, checks its types and walks every link', async ({ page }) => {
  test.setTimeout(240_000);
  const id = await copyOfDemo(page, 'Zip');
  await page.goto(`/p/${id}/deliver`);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Download zip' }).click();
  const files = unzipSync(readFileSync(await (await download).path()));
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
  npm('install', '--no-audit', '--no-fund');
  expect(npm('run', 'build')).toContain('built in');
  npm('exec', '--', 'tsc', '--noEmit');
  const links = (JSON.parse(readFileSync(path.join(folder, 'src/links.json'), 'utf8')) as unknown[]).length;
  expect(links).toBeGreaterThan(40);
  expect(npm('test')).toMatch(new RegExp(`Tests\\s+${links + 1} passed`));
  npm('exec', '--', 'prettier', '--check', '.');
});
