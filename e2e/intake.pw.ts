import { mkdtempSync, openSync, ftruncateSync, closeSync, writeFileSync, readFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { expect, test } from '@playwright/test';
import { strToU8, zipSync } from 'fflate';
import { demoFiles, demoFolder, newProject } from './support.ts';

test('files come in as screens with names, routes and their own links', async ({ page }) => {
  await newProject(page, 'Taken in');
  await page.getByLabel('Files', { exact: true }).setInputFiles(demoFiles());
  await expect(page.getByRole('heading', { name: '15 screens came in' })).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText('The hidden layer “Redlines” was left out.')).toBeVisible();

  await page.getByRole('link', { name: 'Screens', exact: true }).click();
  await expect(page.getByRole('option')).toHaveCount(15);
  await page.getByRole('option', { name: /^Tool detail/ }).click();
  await expect(page.getByRole('textbox', { name: 'Route' })).toHaveValue('/tool-detail');
  await page.goto(page.url().replace('screens', 'junction').replace(/\?.*/, '/desk-members'));
  await expect(page.getByRole('row', { name: /Repairs.*live/ })).toBeVisible();
});

test('a folder comes in whole', async ({ page }) => {
  await newProject(page, 'Folder');
  await page.getByLabel('Folder', { exact: true }).setInputFiles(demoFolder);
  await expect(page.getByRole('heading', { name: '15 screens came in' })).toBeVisible({ timeout: 30_000 });
});

test('bad files are said, and the rest of the batch comes in', async ({ page }) => {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'tovel-intake-'));
  const at = (name: string): string => path.join(folder, name);
  writeFileSync(at('cut.svg'), readFileSync(path.join(demoFolder, 'welcome.svg')).subarray(0, 900));
  writeFileSync(
    at('bundle.zip'),
    zipSync({
      '../outside.svg': strToU8('<svg/>'),
      'inside/sign-in.svg': readFileSync(path.join(demoFolder, 'sign-in.svg')),
    }),
  );
  const huge = openSync(at('huge.svg'), 'w');
  ftruncateSync(huge, 200 * 2 ** 20);
  closeSync(huge);
  writeFileSync(
    at('hostile.html'),
    `<title>Hostile</title><script>top.document.title = 'taken'; fetch('http://127.0.0.1:1/x')</script>
     <body onload="top.hit = 1"><h1>Still a page</h1><img src="http://127.0.0.1:1/x.png" onerror="top.hit = 1">
     <iframe src="javascript:top.hit = 1"></iframe><a href="javascript:top.hit = 1">Press</a>
     <svg><a xlink:href="javascript:top.hit = 1"><text y="20">Drawn</text></a></svg></body>`,
  );
  const asked: string[] = [];
  page.on('request', (request) => asked.push(request.url()));
  await newProject(page, 'Mixed');
  await page
    .getByLabel('Files', { exact: true })
    .setInputFiles([at('cut.svg'), at('bundle.zip'), at('huge.svg'), at('hostile.html')]);
  await expect(page.getByRole('heading', { name: '2 screens came in' })).toBeVisible({ timeout: 30_000 });

  const out = page.getByRole('region', { name: 'What was left out' });
  await expect(out).toContainText('not complete or not well formed');
  await expect(out).toContainText('points outside the archive');
  await expect(out).toContainText('The file is 200 MB');
  await expect(out).toContainText('A script was left out');
  expect(await page.evaluate(() => 'hit' in window)).toBe(false);
  expect(asked.filter((url) => url.includes('127.0.0.1:1/'))).toEqual([]);

  await page.getByRole('link', { name: 'Hostile' }).click();
  await page.locator('[data-stage]').click({ position: { x: 20, y: 20 } });
  expect(await page.evaluate(() => 'hit' in window)).toBe(false);
  expect(await page.title()).toContain('Tovel');
});

test('an intake can be cancelled, and then nothing is added', async ({ page }) => {
  await newProject(page, 'Cancelled');
  // Pages take long enough for a person to change their mind; a hundred take longer than the test.
  const body = readFileSync(path.join(demoFolder, 'desk.html'));
  const files = Array.from({ length: 100 }, (_, i) => ({
    name: `page-${i}.html`,
    mimeType: 'text/html',
    buffer: body,
  }));
  await page.getByLabel('Files', { exact: true }).setInputFiles(files);
  await expect(page.getByText(/Reading screens: \d+ of 100/)).toBeVisible();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByRole('heading', { name: 'Cancelled; nothing was added' })).toBeVisible();
  await expect(page.getByText('0 screens')).toBeVisible();
});
