import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { copyOfDemo, newProject } from './support.ts';

test('a project is made, renamed, duplicated, deleted, and comes back', async ({ page }) => {
  await newProject(page, 'Allotment');
  await page.getByRole('link', { name: /all projects/ }).click();

  const more = (name: string) => page.getByRole('button', { name: `More for ${name}`, exact: true });
  await more('Allotment').click();
  await page.getByRole('menuitem', { name: 'Rename' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('');
  await page.keyboard.press('Enter');
  await expect(page.getByText('A project needs a name.')).toBeVisible();
  await page.getByRole('textbox', { name: 'Name' }).fill('Allotment rota');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('link', { name: 'Allotment rota', exact: true })).toBeVisible();

  await more('Allotment rota').click();
  await page.getByRole('menuitem', { name: 'Duplicate' }).click();
  await expect(page.getByRole('link', { name: 'Allotment rota copy' })).toBeVisible();

  await more('Allotment rota copy').click();
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await expect(page.getByRole('link', { name: 'Allotment rota copy' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('link', { name: 'Allotment rota copy' })).toBeVisible();

  await page.getByRole('link', { name: 'Allotment rota copy' }).press('Enter');
  await expect(page.getByText('No screens yet')).toBeVisible();
});

test('a project goes out as a .tovel file and comes in again as it was', async ({ page }) => {
  const id = await copyOfDemo(page, 'Carried');
  await page.goto('/');
  const rows = page.getByRole('row', { name: /^Carried \d/ });
  await page.getByRole('button', { name: 'More for Carried', exact: true }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'Export as .tovel' }).click();
  const file = readFileSync(await (await download).path());
  await page.request.delete(`/api/projects/${id}`);
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Projects' })).toBeVisible();
  await expect(rows).toHaveCount(0);

  await page
    .getByLabel('A .tovel file')
    .setInputFiles({ name: 'carried.tovel', mimeType: 'application/zip', buffer: file });
  await expect(page.getByRole('option', { name: /Welcome/ })).toBeVisible();
  await page.goto('/');
  await expect(rows).toContainText('14');
  await expect(rows).toContainText('55 of 111');
});

test('a file that is no project is refused in words', async ({ page }) => {
  await page.goto('/');
  await page
    .getByLabel('A .tovel file')
    .setInputFiles({ name: 'odd.tovel', mimeType: 'application/zip', buffer: Buffer.from('not a zip') });
  await expect(page.getByRole('alert')).toContainText('This is not a .tovel file');
});
