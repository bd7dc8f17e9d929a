import { expect, test } from '@playwright/test';
import { copyOfDemo, saved } from './support.ts';

test('what became of the code since it was handed over is told by file, by screen and by line', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Handed over');
  await page.goto(`/p/${id}/deliver?in=changes`);
  await expect(page.getByRole('heading', { name: 'The code was not handed over yet' })).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Download zip' }).click();
  expect((await download).suggestedFilename()).toBe('handed-over.zip');
  await expect(page.getByRole('heading', { name: 'The code is what it was then' })).toBeVisible();

  await page.goto(`/p/${id}/screens`);
  await page.getByRole('option', { name: /^My loans/ }).click();
  const name = page.getByRole('textbox', { name: 'Name' }).first();
  await expect(name).toHaveValue('My loans');
  await name.fill('Borrowed');
  await name.press('Enter');
  await saved(page);

  await page.goto(`/p/${id}/deliver`);
  await expect(page.getByRole('row', { name: /^Borrowed, \d of note$/ })).toBeVisible();
  await page.getByRole('button', { name: 'Changes', exact: true }).click();
  await expect(page.getByRole('button', { name: /^Zip, Today.* Since/ })).toBeVisible();
  const files = page.getByRole('listbox', { name: 'Files that changed' });
  await expect(files.getByRole('option', { name: /Borrowed\.tsx/ })).toHaveAttribute('aria-selected', 'true');
  const lines = page.getByRole('region', { name: 'Changes of src/screens/Borrowed/Borrowed.tsx' });
  await expect(lines).toContainText('It was src/screens/MyLoans/MyLoans.tsx.');
  await expect(lines).toContainText('export function Borrowed() {');
  await expect(page.getByRole('list', { name: 'Steps since then' })).toContainText(
    'Rename My loans to Borrowed',
  );
  await files.getByRole('option', { name: /routes\.tsx/ }).click();
  await expect(page.getByRole('region', { name: 'Changes of src/routes.tsx' })).toContainText('Borrowed');
  await page.getByRole('button', { name: 'By kind' }).click();
  await expect(files.getByText(/^Changed · \d+$/)).toBeVisible();

  // Taken back, the code is what it was.
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('heading', { name: 'The code is what it was then' })).toBeVisible();
});
