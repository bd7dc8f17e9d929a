import { readFileSync } from 'node:fs';

import { expect, type Page, test } from '@playwright/test';
import { copyOfDemo, saved } from './support.ts';

const document = readFileSync('demo/openapi.yaml', 'utf8');

/** Describes the API of the demo and takes from it what is sure. */
async function describe(page: Page, id: string) {
  await page.goto(`/p/${id}/data?at=apis`);
  await page.getByRole('button', { name: 'Describe an API …' }).click();
  await page.getByRole('textbox', { name: 'Document or example' }).fill(document);
  await expect(page.getByText('Mossgate Tool Library can be read.')).toBeVisible();
  await page.getByRole('button', { name: 'Take it' }).click();
  await page.getByRole('button', { name: /^Let .* come from it/ }).click();
}

test('an API is described, and the running app asks it: slow, failing, and as usual', async ({ page }) => {
  const id = await copyOfDemo(page, 'Asked');
  await page.goto(`/p/${id}/data?at=controls`);
  await page.getByRole('button', { name: /^Make these/ }).click();
  await describe(page, id);
  await expect(page.getByRole('row', { name: /GET \/members lists/ })).toContainText('members');
  await saved(page);

  await page.goto(`/p/${id}/run?at=/desk/members`);
  const app = page.frameLocator('iframe').first();
  const names = app.locator('tbody tr td:first-child');
  await expect(names.first()).toHaveText('Ines Okafor');
  await page.getByRole('button', { name: 'What it remembers' }).click();
  const panel = page.getByRole('complementary', { name: 'What the app remembers' });
  const newest = panel.getByRole('listitem').first();
  await expect(newest).toContainText('GET /members?offset=0&limit=5');
  await expect(newest).toContainText('listMembers · 200');
  await app.getByRole('button', { name: 'Loans' }).click();
  await expect(newest).toContainText('sort_by=loanCount&order=asc');
  await expect(newest).toContainText('after “Loans”');
  await expect(names.first()).toHaveText('Teodor Banks');

  const answers = panel.getByRole('button', { name: /They answer/ });
  await answers.click();
  await page.getByRole('option', { name: 'failing' }).click();
  await expect(app.getByRole('alert').first()).toContainText('The service does not work at the moment.');
  await answers.click();
  await page.getByRole('option', { name: 'empty' }).click();
  await expect(app.getByText('Nothing fits.')).toBeVisible();
  await answers.click();
  await page.getByRole('option', { name: 'as usual' }).click();
  await expect(names.first()).toHaveText('Teodor Banks');
});

test('what a form adds is kept by the API, and what that refuses is said at its field', async ({ page }) => {
  const id = await copyOfDemo(page, 'Lent');
  await page.goto(`/p/${id}/data?at=forms`);
  await page.getByRole('button', { name: /^Make all \d+ sure ones work/ }).click();
  await expect(page.getByText('Works: adds to loans')).toBeVisible();
  await describe(page, id);
  await saved(page);

  await page.goto(`/p/${id}/run?at=/desk/new-loan`);
  const app = page.frameLocator('iframe').first();
  await app.getByPlaceholder('Name or card number').fill('Io');
  await app.getByRole('button', { name: 'Lend it' }).click();
  await expect(app.getByText('Expected 3 letters or more.')).toBeVisible();
  await expect(app.getByPlaceholder('Name or card number')).toBeFocused();
  await app.getByPlaceholder('Name or card number').fill('Ines Okafor');
  await app.getByRole('button', { name: 'Lend it' }).click();
  const bar = page.getByRole('textbox', { name: 'Address' });
  await expect(bar).toHaveValue('/desk');
  await bar.fill('/loans');
  await bar.press('Enter');
  await expect(app.getByText('Loft ladder')).toHaveCount(2);
});

test('who signs in asks the API first, and who is refused stays', async ({ page }) => {
  const id = await copyOfDemo(page, 'Signing');
  await page.goto(`/p/${id}/data?at=forms`);
  await page.getByRole('button', { name: /^Make all \d+ sure ones work/ }).click();
  await expect(page.getByText('Works: adds to loans')).toBeVisible();
  await describe(page, id);
  const fits = page.getByRole('list', { name: 'What fits' });
  await fits.getByRole('listitem').filter({ hasText: 'signIn' }).getByRole('button').click();
  await expect(fits.getByText('signIn')).toHaveCount(0);
  await saved(page);

  await page.goto(`/p/${id}/run?at=/sign-in`);
  const app = page.frameLocator('iframe').first();
  await app.getByPlaceholder('you@example.org').fill('ines@mossgate.example');
  const password = app.getByPlaceholder('At least 10 characters');
  await password.fill('short');
  await app.getByRole('button', { name: 'Sign in' }).click();
  await expect(app.getByText('Expected 8 letters or more.')).toBeVisible();
  await expect(password).toBeFocused();
  await password.fill('long enough');
  await app.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('textbox', { name: 'Address' })).toHaveValue('/loans');
});

test('an example of an answer is enough; what is wrong with it is told', async ({ page }) => {
  const id = await copyOfDemo(page, 'Example');
  await page.goto(`/p/${id}/data?at=tools`);
  await page.getByRole('button', { name: /^Take \d+ that (is|are) sure/ }).click();
  await page.goto(`/p/${id}/data?at=apis`);
  await page.getByRole('button', { name: 'Describe an API …' }).click();
  const text = page.getByRole('textbox', { name: 'Document or example' });
  await text.fill('{"openapi": "2.0"}');
  await expect(page.getByRole('status').getByText('it says no version')).toBeVisible();
  await text.fill('[{"key": "a1", "title": "Post driver", "image": "a.png", "state": "free"}]');
  const at = page.getByRole('textbox', { name: 'Path that gives this answer' });
  await at.fill('tools');
  await expect(page.getByText('a path begins with a slash')).toBeVisible();
  await at.fill('/tools');
  await page.getByRole('button', { name: 'Take it' }).click();
  await expect(page.getByRole('cell', { name: 'GET /tools' })).toBeVisible();
  await page
    .getByRole('list', { name: 'What fits' })
    .getByRole('button', { name: 'Take it' })
    .first()
    .click();
  // Which property a field is can be said otherwise.
  await page.getByRole('option', { name: /^tools, / }).click();
  await expect(page.getByText('The API has nothing for detail')).toBeVisible();
  await page.getByRole('button', { name: /Called by the API/ }).click();
  await page.getByRole('option', { name: 'nothing: it stays empty' }).click();
  await expect(page.getByText('The API has nothing for picture, detail')).toBeVisible();
  await saved(page);
});

test('an API is described by its address, and what cannot be fetched from is said', async ({
  page,
  baseURL,
}) => {
  const id = await copyOfDemo(page, 'Fetched');
  await page.goto(`/p/${id}/data?at=apis`);
  await page.getByRole('button', { name: 'Describe an API …' }).click();
  const address = page.getByLabel('Or its address');
  const fetchIt = page.getByRole('button', { name: 'Fetch it' });
  await address.fill('http://10.0.0.1/openapi.yaml');
  await fetchIt.click();
  await expect(page.getByText('10.0.0.1 is on a private or local network')).toBeVisible();
  const port = Number(new URL(baseURL!).port) + 2;
  await address.fill(`http://127.0.0.1:${port}/mossgate/openapi.yaml`);
  await fetchIt.click();
  await expect(page.getByText('Mossgate Tool Library can be read.')).toBeVisible();
  await page.getByRole('button', { name: 'Take it' }).click();
  await expect(page.getByRole('row', { name: /GET \/members lists/ })).toBeVisible();

  // What nobody took yet is taken along.
  const members = page
    .getByRole('list', { name: 'What fits' })
    .getByRole('listitem')
    .filter({ hasText: 'listMembers' });
  await expect(members).toContainText('members, which would be taken, can come from listMembers');
  await members.getByRole('button', { name: 'Take it' }).click();
  await expect(page.getByText('1 taken, ')).toBeVisible();
  await expect(page.getByRole('row', { name: /GET \/members lists/ })).toContainText('members');
});
