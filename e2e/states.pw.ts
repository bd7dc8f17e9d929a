import { expect, test } from '@playwright/test';
import { copyOfDemo, saved } from './support.ts';

test('what is stated of a screen is tried in all states, and what breaks it is a journey', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Stated');
  await page.goto(`/p/${id}/map`);
  await page
    .getByRole('button', { name: /^Reserve/ })
    .first()
    .click();
  const about = page.getByRole('region', { name: 'About Reserve' });
  const state = async (what: string): Promise<void> => {
    await about.getByRole('button', { name: /State that nobody is here unless/ }).click();
    await page.getByRole('option', { name: what }).click();
  };
  await state('one has been on Tool detail');
  const stated = about.getByRole('list', { name: 'Stated' });
  await expect(stated).toContainText('without having been on Tool detail.holds');
  await state('one has been on My loans');
  await expect(stated).toContainText('without having been on My loans.does not hold');
  const finding = page.getByText(
    /^It is stated that nobody gets to Reserve without having been on My loans, but/,
  );
  await expect(finding).toContainText(
    '“Browse the tools”, “Hedge trimmer”, “Reserve” leads there all the same',
  );
  await page.getByRole('button', { name: 'Keep the way as a journey' }).click();
  await expect(page.getByText('Against: nobody gets to Reserve', { exact: false }).first()).toBeVisible();
  await stated.getByRole('button', { name: /^No longer state .* My loans/ }).click();
  await expect(finding).toHaveCount(0);
  await saved(page);
});
