import { expect, test } from '@playwright/test';
import { copyOfDemo, newProject, saved } from './support.ts';

test('other looks run beside each other; one is kept for the whole app in one step, another waits', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Looks');
  await page.goto(`/p/${id}/screens/alternatives`);
  const looks = page.getByRole('figure');
  await expect(looks).toHaveCount(7);
  await page.getByRole('button', { name: /How many/ }).click();
  await page.getByRole('option', { name: '3', exact: true }).click();
  const appIn = (n: number) => looks.nth(n).frameLocator('iframe');
  const browse = (n: number) => appIn(n).getByRole('link', { name: 'Browse the tools' });
  await expect(browse(1)).toBeVisible();
  const filled = (n: number) =>
    browse(n).evaluate((link) => getComputedStyle(link).backgroundColor) as Promise<string>;
  const drawn = await filled(0);
  await expect.poll(() => filled(1)).not.toBe(drawn);

  // From one colour: as many as are asked for.
  await page.getByLabel('From one colour, as #rrggbb').fill('#2b4c9b');
  await page.getByRole('button', { name: 'Type', exact: true }).click();
  await expect(looks).toHaveCount(4);
  await expect(looks.nth(1)).toContainText(/blue|sky|violet/i);

  // What is done in one is done in all.
  await browse(2).press('Enter');
  await expect(appIn(0).getByRole('heading', { name: 'Tools to borrow' })).toBeVisible();
  await expect(appIn(3).getByRole('heading', { name: 'Tools to borrow' })).toBeVisible();

  await looks
    .nth(2)
    .getByRole('button', { name: /aside$/ })
    .click();
  const side = page.getByRole('complementary', { name: 'What is tried' });
  await expect(side.getByRole('listitem')).toHaveCount(1);
  await looks.nth(1).getByRole('button', { name: /^Keep/ }).click();
  await saved(page);
  await page.getByRole('link', { name: 'Tokens' }).click();
  await expect(page.getByText(/drawn as #2f4a3a/)).toBeVisible();

  // It is a step as any other.
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByText(/drawn as #2f4a3a/)).toHaveCount(0);
  await page.getByRole('link', { name: 'Alternatives' }).click();
  await expect(side.getByRole('listitem')).toHaveCount(1);
  await side.getByRole('button', { name: /^Keep/ }).click();
  await expect(looks.first()).toContainText('As it is');
});

const homeDrawn = (look: string, body: string): string =>
  `<!doctype html><html><head><title>Home ${look}</title><style>body{margin:0;font:16px sans-serif}main{padding:40px}</style></head><body><main><h1>Borrow what you need</h1><p>Kept by neighbours for neighbours.</p>${body}</main></body></html>`;

test('of several drawings of one screen one is kept, with the wiring of the other', async ({ page }) => {
  const id = await newProject(page, 'Ways');
  const file = (name: string, text: string) => ({ name, mimeType: 'text/html', buffer: Buffer.from(text) });
  await page
    .getByLabel('Files', { exact: true })
    .setInputFiles([
      file('home.html', homeDrawn('', '<p><a href="tools.html">Browse the tools</a></p>')),
      file('home-v2.html', homeDrawn('v2', '<button type="button">Browse the tools</button>')),
      file(
        'tools.html',
        '<!doctype html><html><head><title>Tools</title></head><body><h1>All tools</h1></body></html>',
      ),
    ]);
  await expect(page.getByRole('heading', { name: '3 screens came in' })).toBeVisible({ timeout: 30_000 });
  const sheet = page.getByRole('listbox', { name: 'Screens' });
  await sheet.getByRole('option', { name: /^Home v2/ }).click();
  await page.keyboard.press('a');
  await page.getByRole('combobox', { name: 'Screen' }).fill('Home');
  await page.keyboard.press('Enter');
  await expect(sheet.getByRole('option', { name: 'Home v2, alternative' })).toBeVisible();
  await saved(page);

  await page.goto(`/p/${id}/screens/alternatives`);
  const drawings = page.getByRole('figure');
  await expect(drawings).toHaveCount(2);
  const second = drawings.nth(1).frameLocator('iframe');
  await second.getByText('Browse the tools').press('Enter');
  await expect(second.getByRole('heading', { name: 'All tools' })).toBeVisible();
  await page.getByRole('button', { name: 'Keep Home v2' }).click();
  await expect(drawings.nth(0)).toContainText('home-v2.html');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(drawings.nth(0)).toContainText('home.html');
});
