import { expect, type Page, test } from '@playwright/test';
import { copyOfDemo, saved } from './support.ts';

/** Renames a screen at Screens, as a person does. */
const rename = async (page: Page, id: string, from: string, to: string): Promise<void> => {
  await page.goto(`/p/${id}/screens`);
  await page.getByRole('option', { name: new RegExp(`^${from}(,|$)`) }).click();
  const name = page.getByRole('textbox', { name: 'Name', exact: true });
  await expect(name).toHaveValue(from);
  await name.fill(to);
  await name.press('Enter');
  // Before the step shows, what is said to be saved is all that was before it.
  await expect(page.getByRole('option', { name: new RegExp(`^${to}(,|$)`) })).toBeVisible();
  await saved(page);
};
const steps = (page: Page) => page.getByRole('listbox', { name: 'Steps, the newest first' });

test('a state is named, looked at in all views, compared, returned to, and the return is taken back', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Versions');
  await rename(page, id, 'Catalogue', 'Tools to borrow');
  await rename(page, id, 'Reserve', 'Lend');
  await page.getByRole('link', { name: 'Iteration 1' }).click();
  await steps(page)
    .getByRole('option', { name: /Rename Catalogue to Tools to borrow/ })
    .click();
  await expect(page.getByRole('heading', { name: 'Rename Catalogue to Tools to borrow' })).toBeVisible();
  await page.getByRole('textbox', { name: 'Name of this version' }).fill('First review');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: '“First review”' })).toBeVisible();
  await expect(page.getByLabel('What differs between both')).toContainText('was called “Reserve”');

  await page.getByRole('button', { name: 'Look at it' }).click();
  await expect(page.getByText(/^This is how the project was/)).toBeVisible();
  await expect(page.getByRole('option', { name: /^Reserve(,|$)/ })).toBeVisible();
  await expect(page.getByRole('option', { name: /^Tools to borrow(,|$)/ })).toBeVisible();
  await page.getByRole('link', { name: /^Map/ }).click();
  await expect(page.getByText('Reserve').first()).toBeVisible();
  await page.getByRole('link', { name: /^Run/ }).click();
  await expect(
    page
      .frameLocator('iframe[title="The running app"]')
      .getByRole('heading', { name: 'Borrow the tool, skip the shop' }),
  ).toBeVisible({ timeout: 20_000 });

  await page.getByRole('button', { name: 'Go back to this' }).click();
  await expect(page.getByRole('option', { name: /^Reserve(,|$)/ })).toBeVisible();
  await expect(page.getByText(/^This is how the project was/)).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('option', { name: /^Lend(,|$)/ })).toBeVisible();
});

test('steps are found by words and by screen, and one older step is taken back alone', async ({ page }) => {
  const id = await copyOfDemo(page, 'Steps');
  await rename(page, id, 'Catalogue', 'Tools to borrow');
  await rename(page, id, 'Reserve', 'Lend');
  await page.goto(`/p/${id}/versions`);
  await expect(steps(page).getByRole('option')).toHaveText([
    /Rename Reserve to Lend/,
    /Rename Catalogue to Tools to borrow/,
    /The beginning/,
  ]);
  await page.getByRole('textbox', { name: 'Words of a step' }).fill('borrow');
  await expect(steps(page).getByRole('option')).toHaveCount(1);
  await steps(page).getByRole('option').click();
  await page.getByRole('button', { name: 'Take back this step alone' }).click();
  await expect(page.getByText(/taken back/).first()).toBeVisible();
  await page.getByRole('textbox', { name: 'Words of a step' }).fill('');
  await page.getByRole('button', { name: /^All screens/ }).click();
  await page.getByRole('option', { name: 'Lend', exact: true }).click();
  await expect(steps(page).getByRole('option')).toHaveText([/Rename Reserve to Lend/]);
  await page.goto(`/p/${id}/screens`);
  await expect(page.getByRole('option', { name: /^Catalogue(,|$)/ })).toBeVisible();
  await expect(page.getByRole('option', { name: /^Lend(,|$)/ })).toBeVisible();
});
