import { readdirSync } from 'node:fs';
import path from 'node:path';
import { expect, type Page } from '@playwright/test';

export const demoFolder = path.resolve('demo/iteration-1');

/** The demo's own screens as files to choose. */
export const demoFiles = (): string[] =>
  readdirSync(demoFolder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => path.join(entry.parentPath, entry.name));

/** Makes a project in the interface; ends at its Intake. */
export async function newProject(page: Page, name: string): Promise<string> {
  await page.goto('/');
  await page.getByRole('button', { name: 'New project' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill(name);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Drop the screens here' })).toBeVisible();
  return /\/p\/([^/]+)/.exec(page.url())![1];
}

/** A copy of a demo project of its own for a test; returns its id. @param of which one */
export async function copyOfDemo(page: Page, name: string, of = 'Mossgate Tool Library'): Promise<string> {
  const list = (await (await page.request.get('/api/projects')).json()) as { id: string; name: string }[];
  const demo = list.find((project) => project.name === of)!;
  const { id } = (await (await page.request.post(`/api/projects/${demo.id}/copy`)).json()) as { id: string };
  await page.request.patch(`/api/projects/${id}`, { data: { name } });
  return id;
}

/** Opens the Junction of a screen by its name. */
export async function openJunction(page: Page, id: string, screen: string): Promise<void> {
  await page.goto(`/p/${id}/screens`);
  await page.getByRole('option', { name: new RegExp(`^${screen}(,|$)`) }).dblclick();
  await expect(page.getByRole('region', { name: `Stage: ${screen}` })).toBeVisible();
}

/** The row of an element among the departures. */
export const departure = (page: Page, label: string) =>
  page
    .getByRole('grid', { name: 'Departures' })
    .getByRole('row')
    .filter({ has: page.getByRole('gridcell', { name: label, exact: true }) });

/** Resolves when everything is on the server. */
export const saved = (page: Page) =>
  expect(page.getByRole('status').filter({ hasText: /Saved \d/ })).toBeVisible();
