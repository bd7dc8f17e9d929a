import { readFileSync } from 'node:fs';
import { expect, type Page, test } from '@playwright/test';
import { copyOfDemo, saved } from './support.ts';

const item = (page: Page, name: RegExp) => page.getByRole('option', { name });
const cell = (page: Page, text: string) => page.getByRole('gridcell', { name: text, exact: true });

test('records are taken from what is drawn, written anew by keyboard, and the screens say it', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Records');
  await page.goto(`/p/${id}/data`);
  await item(page, /^tools, 5 records, proposed/).click();
  await expect(page.getByText(/% sure: .*rows of one kind/)).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(item(page, /^tools, 5 records, taken/)).toBeVisible();

  await cell(page, 'Apple press').click();
  await page.keyboard.press('Enter');
  await page.getByRole('textbox', { name: 'name of Apple press' }).fill('Cider press');
  await page.keyboard.press('Enter');
  await expect(cell(page, 'Cider press')).toBeVisible();
  // Escape leaves a cell as it was; a letter begins anew.
  await page.keyboard.press('Home');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.type('X');
  await page.keyboard.press('Escape');
  await expect(cell(page, 'Tile cutter')).toBeFocused();
  await saved(page);

  for (const screen of ['catalogue', 'desk-tools']) {
    await page.goto(`/p/${id}/screens/at/${screen}`);
    const stage = page.frameLocator('iframe[title^="Stage of"]').first();
    await expect(stage.getByText('Cider press')).toBeVisible();
    await expect(stage.getByText('Apple press')).toHaveCount(0);
  }
});

test('values come from a spreadsheet and go out as CSV; what has no place is told', async ({ page }) => {
  const id = await copyOfDemo(page, 'Table');
  await page.goto(`/p/${id}/data`);
  await item(page, /^members, 5 records, proposed/).click();
  await page.getByRole('button', { name: 'Take it' }).click();
  await page.getByRole('button', { name: 'Paste values …' }).click();
  const sheet = page.getByRole('dialog', { name: 'Values for members' });
  await sheet.getByRole('textbox').fill('name\tloans\tage\nInes Okafor\t5\t40\nMarit Solberg\t1\t50\n');
  await expect(sheet.getByText('1 value differs from now.')).toBeVisible();
  await expect(sheet.getByText('Line 1: “age” is no field, and was left out.')).toBeVisible();
  await sheet.getByRole('button', { name: 'Take 1 value' }).click();
  await expect(cell(page, '5')).toBeVisible();

  await page.getByRole('button', { name: /^Save as/ }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'CSV' }).click();
  const [head, first] = readFileSync(await (await download).path(), 'utf8').split('\n');
  expect(head).toBe('name,street,loans,member');
  expect(first).toBe('Ines Okafor,Alder Lane,5,since March');
  // Undone, it says again what was drawn.
  await page.keyboard.press('Control+z');
  await expect(cell(page, '2')).toBeVisible();
});

test('a field is called and typed otherwise; what is refused stays away', async ({ page }) => {
  const id = await copyOfDemo(page, 'Fields');
  await page.goto(`/p/${id}/data`);
  await page.getByRole('button', { name: /^Take \d that are sure/ }).click();
  await item(page, /^members, .* taken/).click();
  await cell(page, 'since March').click();
  const name = page.getByRole('textbox', { name: 'Name in code' });
  await name.fill('name');
  await name.press('Enter');
  await expect(page.getByText('Another field is called so.')).toBeVisible();
  await name.fill('memberSince');
  await name.press('Enter');
  await expect(page.getByRole('columnheader', { name: /memberSince/ })).toBeVisible();

  const proposed = page.getByRole('option', { name: /proposed$/ });
  const count = await proposed.count();
  await proposed.first().click();
  await page.keyboard.press('Backspace');
  await expect(proposed).toHaveCount(count - 1);
  await saved(page);
  await page.reload();
  await expect(page.getByRole('option', { name: /taken$/ }).first()).toBeVisible();
  await expect(proposed).toHaveCount(count - 1);
});

test('forms and controls are listed, each with its way to where it stands', async ({ page }) => {
  const id = await copyOfDemo(page, 'Seen');
  await page.goto(`/p/${id}/data?at=forms`);
  await expect(page.getByText('New loan adds a record')).toBeVisible();
  await item(page, /^Controls/).click();
  await page.getByRole('link', { name: 'Earlier' }).click();
  await expect(page).toHaveURL(/junction\/desk-members\?element=/);
  await expect(page.getByRole('region', { name: 'Stage: Members' })).toBeVisible();
});
