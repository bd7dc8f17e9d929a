import { expect, test } from '@playwright/test';
import { copyOfDemo, newProject, openJunction, saved } from './support.ts';

const AT_WORK = 'Mossgate Tool Library, at work';

test('a tool is looked for, reserved and handed back in the running app, and every screen knows', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'At work', AT_WORK);
  await page.goto(`/p/${id}/run?at=/tools`);
  const app = page.frameLocator('iframe[title="The running app"]');
  const address = page.getByRole('textbox', { name: 'Address in the app' });

  // Filters and search narrow what is shown.
  await app.getByRole('button', { name: 'Garden' }).press('Enter');
  await expect(app.getByText('Pillar drill')).toBeHidden();
  await app.getByRole('button', { name: 'All', exact: true }).press('Enter');
  await app.getByRole('searchbox').fill('ladder');
  await expect(app.getByRole('link', { name: /Shed|Workshop/ })).toHaveCount(1);
  // What was drawn for it stands where the list was, and goes when there is something again.
  await app.getByRole('searchbox').fill('zeppelin');
  await expect(app.getByText('No tool found')).toBeVisible();
  await expect(app.getByRole('button', { name: 'Garden' })).toHaveCount(1);
  await expect(app.getByText('Search 214 tools')).toHaveCount(0);
  await app.getByRole('searchbox').fill('');
  await expect(app.getByText('No tool found')).toBeHidden();

  // The row leads to the tool that it shows.
  await app.getByRole('link', { name: /Loft ladder/ }).press('Enter');
  await expect(address).toHaveValue('/tools/loft-ladder');
  await expect(app.getByRole('heading', { name: 'Loft ladder' })).toBeVisible();
  await app.getByRole('link', { name: 'Reserve' }).press('Enter');
  await app.getByRole('button', { name: 'Reserve for Tuesday' }).press('Enter');

  // There is a loan more, and the tool is out wherever it is shown.
  await expect(address).toHaveValue('/loans');
  await expect(app.getByText('Due Tuesday 3')).toBeVisible();
  await expect(
    app.getByRole('button', { name: 'Return' }).or(app.getByRole('link', { name: 'Return' })),
  ).toHaveCount(4);
  await address.fill('/tools/loft-ladder');
  await address.press('Enter');
  await expect(app.getByText('Not here')).toBeVisible();
  await expect(app.getByRole('link', { name: 'Reserve' })).toBeHidden();
  await address.fill('/desk/tools');
  await address.press('Enter');
  await expect(app.getByText('out', { exact: true })).toHaveCount(2);

  // Handed back, it is as before.
  await address.fill('/loans');
  await address.press('Enter');
  await app.getByRole('link', { name: 'Return' }).first().press('Enter');
  await expect(app.getByText('Loft ladder: Due Tuesday 3')).toBeVisible();
  await app.getByRole('button', { name: 'Hand it back' }).press('Enter');
  await expect(address).toHaveValue('/loans');
  await expect(app.getByText('Due Tuesday 3')).toBeHidden();
  await address.fill('/tools/loft-ladder');
  await address.press('Enter');
  await expect(app.getByText('Free today')).toBeVisible();
});

test('the desk is for those who sign in; what is lent there is counted and listed', async ({ page }) => {
  const id = await copyOfDemo(page, 'At the desk', AT_WORK);
  await page.goto(`/p/${id}/run?at=/desk/members`);
  const app = page.frameLocator('iframe[title="The running app"]');
  const address = page.getByRole('textbox', { name: 'Address in the app' });
  await expect(address).toHaveValue('/sign-in');
  await app.getByRole('textbox', { name: 'Email' }).fill('desk@mossgate.example');
  await app.getByLabel('Password').fill('shed two');
  await app.getByRole('button', { name: 'Sign in' }).press('Enter');
  await expect(address).not.toHaveValue('/sign-in');

  // Members are sorted, and there is a second page of them.
  await address.fill('/desk/members');
  await address.press('Enter');
  await expect(app.getByText('5 of 8')).toBeVisible();
  await app.getByRole('button', { name: /^Name/ }).press('Enter');
  await expect(app.getByRole('row').nth(1)).toContainText('Bela Horn');
  await app.getByRole('button', { name: 'Next' }).press('Enter');
  await expect(app.getByText('8 of 8')).toBeVisible();

  await address.fill('/desk/new-loan');
  await address.press('Enter');
  await app.getByRole('textbox', { name: 'Member' }).fill('Pia Lund');
  await app.getByRole('combobox', { name: 'Tool' }).selectOption('Hedge trimmer');
  await app.getByRole('button', { name: 'Lend it' }).press('Enter');
  await expect(address).toHaveValue('/desk');
  await expect(app.getByText('39', { exact: true })).toBeVisible();
  await address.fill('/loans');
  await address.press('Enter');
  await expect(app.getByText('Hedge trimmer', { exact: true })).toBeVisible();
  await expect(app.getByText(/^Due .*2026$/)).toBeVisible();
});

test('what is done to records is typed, with what cannot be told at once', async ({ page }) => {
  const id = await copyOfDemo(page, 'Typed deeds', AT_WORK);
  await openJunction(page, id, 'Tool detail');
  await page
    .getByRole('grid', { name: 'Departures' })
    .getByRole('row')
    .filter({ hasText: 'Join the waiting list' })
    .click();
  await page.getByRole('combobox', { name: 'Goes to' }).fill('set detail to Waited for, then My loans');
  await page.getByRole('option', { name: /detail becomes “Waited for”, then My loans/ }).click();
  await saved(page);
  await page.getByRole('button', { name: 'More' }).click();
  await expect(
    page.getByRole('button', { name: 'tools: detail becomes “Waited for”: take out' }),
  ).toBeVisible();
  const another = page.getByRole('textbox', { name: 'Another step, typed' });
  await another.fill('set price to 3');
  await expect(page.getByText(/Nothing that stays on the screen is meant/)).toBeVisible();
  await another.fill("add loan with price = '3'");
  await expect(page.getByText('loans have no field price')).toBeVisible();
  await another.fill('add loan');
  await another.press('Enter');
  await expect(page.getByRole('button', { name: /^loans: add one: .*take out$/ })).toBeVisible();
});

test('what a drawing shows while a list is empty is told at intake, and taken by one press', async ({
  page,
}) => {
  const id = await newProject(page, 'Drawn states');
  const files = [
    'demo/iteration-1/catalogue.svg',
    'demo/iteration-1/my-loans.svg',
    'demo/states/catalogue-empty.svg',
    'demo/states/catalogue-failed.svg',
  ];
  await page.locator('input[type=file]').first().setInputFiles(files);
  await expect(page.getByRole('option', { name: /^Catalogue, nothing found/ })).toBeVisible();
  await page.getByRole('option', { name: /^Catalogue, nothing found/ }).click();
  await expect(
    page.getByText(/Catalogue, nothing found is what Catalogue shows while there is nothing in its list/),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Make it the empty state of Catalogue' }).click();
  await expect(page.getByRole('option', { name: /^Catalogue, nothing found, empty state/ })).toBeVisible();
  await page.getByRole('option', { name: /^Catalogue, out of reach/ }).click();
  await expect(page.getByRole('button', { name: 'Make it the failed state of Catalogue' })).toBeVisible();
  await saved(page);
  expect(id).not.toBe('');
});
