import { expect, test } from '@playwright/test';
import { copyOfDemo, saved } from './support.ts';

test('what leads nowhere lights up in the running app, is wired where it is, and works at once', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Lit');
  await page.goto(`/p/${id}/run?at=/desk`);
  const app = page.frameLocator('iframe[title="The running app"]');
  const button = page.getByRole('button', { name: /open ends? here$/ });
  await expect(button).toHaveText('6 open ends here');
  await expect(app.getByRole('heading', { name: 'Coming back' })).toBeVisible();
  await button.click();
  await expect(app.locator('[data-lit]')).toHaveCount(6);

  // By keyboard: what it may be is said first, and another one is typed.
  await app.getByText('All loans').focus();
  await page.keyboard.press('Enter');
  const board = page.getByRole('dialog', { name: 'Where “All loans” leads' });
  await expect(board).toContainText('Perhaps My loans');
  await page.keyboard.type('House');
  await page.keyboard.press('Enter');
  await expect(board).toBeHidden();
  await expect(button).toHaveText('5 open ends here');
  await saved(page);
  await expect(app.locator('[data-lit]')).toHaveCount(5);
  await app.getByRole('link', { name: 'All loans' }).click();
  await expect(page.getByRole('textbox', { name: 'Address in the app' })).toHaveValue('/rules');

  // What does something is not asked about; where nothing is lit, all is as visitors have it.
  await button.click();
  await expect(app.locator('[data-lit]')).toHaveCount(0);
});
