import { expect, type Page, test } from '@playwright/test';
import { copyOfDemo, newProject, saved } from './support.ts';

/** Opens the Screens station with a screen chosen, and returns the field of its name. */
async function nameField(page: Page, id: string, screen: string) {
  await page.goto(`/p/${id}/screens`);
  await page.getByRole('option', { name: new RegExp(`^${screen}(,|$)`) }).click();
  return page.getByRole('textbox', { name: 'Name', exact: true });
}

/** Renames a screen as somebody in another window does. */
async function rename(page: Page, id: string, screen: string, name: string): Promise<void> {
  const state = (await (await page.request.get(`/api/projects/${id}`)).json()) as {
    app: { screens: Record<string, { name: string }> };
    history: { seq: number };
  };
  const key = Object.keys(state.app.screens).find((one) => state.app.screens[one].name === screen)!;
  const response = await page.request.post(`/api/projects/${id}/changes`, {
    data: {
      base: state.history.seq,
      label: `Rename ${screen}`,
      author: 'somebody.else',
      change: { kind: 'put', table: 'screens', key, value: { ...state.app.screens[key], name } },
    },
  });
  expect(response.status()).toBe(200);
}

test('what others do shows at once; what is half typed stays, and the other value is offered', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Two at once');
  const field = await nameField(page, id, 'Welcome');
  await field.fill('Welcome to the li');
  await rename(page, id, 'Welcome', 'Start');
  await expect(page.getByText('Changed elsewhere to “Start”.')).toBeVisible();
  await expect(field).toHaveValue('Welcome to the li');
  if (process.env.TOVEL_SHOTS) await page.screenshot({ path: `${process.env.TOVEL_SHOTS}/typed.png` });
  await page.getByRole('button', { name: 'Take “Start” instead' }).click();
  await expect(field).toHaveValue('Start');

  await rename(page, id, 'Catalogue', 'Tools to borrow');
  await expect(page.getByRole('option', { name: /^Tools to borrow/ })).toBeVisible();
});

test('undo takes back what was done here, and names what was done elsewhere first', async ({ page }) => {
  const id = await copyOfDemo(page, 'Own steps');
  const field = await nameField(page, id, 'Welcome');
  await expect(field).toHaveValue('Welcome');
  await field.fill('Hello');
  await field.press('Enter');
  await expect(page.getByRole('option', { name: /^Hello/ })).toBeVisible();
  await saved(page);
  await rename(page, id, 'Catalogue', 'Tools to borrow');
  await expect(page.getByRole('option', { name: /^Tools to borrow/ })).toBeVisible();

  const undo = page.getByRole('button', { name: /^Undo/ });
  await undo.click();
  await expect(page.getByRole('option', { name: /^Welcome/ })).toBeVisible();
  await expect(page.getByRole('option', { name: /^Tools to borrow/ })).toBeVisible();
  await expect(undo).toHaveAttribute('title', 'Rename Catalogue (made in another window)');
  await undo.click();
  await expect(page.getByRole('alert')).toContainText('“Rename Catalogue” was made in another window');
  if (process.env.TOVEL_SHOTS) await page.screenshot({ path: `${process.env.TOVEL_SHOTS}/undo.png` });
  await expect(page.getByRole('option', { name: /^Tools to borrow/ })).toBeVisible();
  await undo.click();
  await expect(page.getByRole('option', { name: /^Catalogue/ })).toBeVisible();
});

test('steps wait while the server is busy or away; a window that ends leaves them, and another offers them', async ({
  page,
  context,
}) => {
  const id = await copyOfDemo(page, 'Kept here');
  const changes = `**/api/projects/${id}/changes`;
  let isBusy = true;
  await page.route(changes, (route) =>
    isBusy
      ? route.fulfill({
          status: 429,
          headers: { 'retry-after': '1' },
          json: { code: 'busy', message: 'Busy.' },
        })
      : route.continue(),
  );
  const field = await nameField(page, id, 'Welcome');
  await expect(field).toHaveValue('Welcome');
  await field.fill('Hello');
  await field.press('Enter');
  await expect(page.getByText(/Not saved yet, but kept here/)).toBeVisible();
  isBusy = false;
  await saved(page);
  await page.unroute(changes);

  await page.route(changes, (route) => route.abort());
  await page.getByRole('option', { name: /^Catalogue/ }).click();
  // Typed any earlier, it would be a name of the screen before.
  await expect(field).toHaveValue(/^Catalogue/);
  await field.fill('Tools to borrow');
  await field.press('Enter');
  await expect(page.getByText(/Not saved yet, but kept here/)).toBeVisible();
  if (process.env.TOVEL_SHOTS) await page.screenshot({ path: `${process.env.TOVEL_SHOTS}/waiting.png` });
  await page.close({ runBeforeUnload: false });

  const next = await context.newPage();
  await next.goto(`/p/${id}/screens`);
  await expect(next.getByRole('option', { name: /^Hello/ })).toBeVisible();
  await expect(next.getByRole('alert')).toContainText(
    /A step was made here and not saved before the window ended/,
  );
  if (process.env.TOVEL_SHOTS) await next.screenshot({ path: `${process.env.TOVEL_SHOTS}/left.png` });
  await next.getByRole('button', { name: 'Save it' }).click();
  await expect(next.getByRole('option', { name: /^Tools to borrow/ })).toBeVisible();
  await saved(next);
  await next.reload();
  await expect(next.getByRole('option', { name: /^Tools to borrow/ })).toBeVisible();
  await expect(next.getByRole('alert')).toHaveCount(0);
});

test('many windows of one browser are open at once, and all follow', async ({ page, context }) => {
  test.setTimeout(60_000);
  const id = await copyOfDemo(page, 'Many windows');
  const windows = [page, ...(await Promise.all(Array.from({ length: 7 }, () => context.newPage())))];
  for (const one of windows) {
    await one.goto(`/p/${id}/screens`);
    await expect(one.getByRole('option', { name: /^Welcome/ })).toBeVisible();
  }
  const last = windows.at(-1)!;
  await last.getByRole('option', { name: /^Welcome/ }).click();
  const field = last.getByRole('textbox', { name: 'Name', exact: true });
  await expect(field).toHaveValue('Welcome');
  await field.fill('Hello');
  await field.press('Enter');
  await saved(last);
  for (const one of windows) await expect(one.getByRole('option', { name: /^Hello/ })).toBeVisible();
});

test('a batch that could not be kept is sent again, without choosing the files anew', async ({ page }) => {
  const id = await newProject(page, 'Sent again');
  const intake = `**/api/projects/${id}/intake`;
  await page.route(intake, (route) => route.abort());
  await page.getByLabel('Files', { exact: true }).setInputFiles('e2e/fixtures/pile/basket.svg');
  await expect(page.getByRole('heading', { name: 'Not taken in' })).toBeVisible();
  await expect(page.getByText(/What was read is held here/)).toBeVisible();
  if (process.env.TOVEL_SHOTS) await page.screenshot({ path: `${process.env.TOVEL_SHOTS}/again.png` });
  await page.unroute(intake);
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByRole('heading', { name: '1 screen came in' })).toBeVisible();
});

test('a batch can be cancelled while a file is being read', async ({ page }) => {
  await newProject(page, 'Cancelled');
  const large = `<svg xmlns="http://www.w3.org/2000/svg" width="390" height="844">${'<g><rect width="9" height="9" fill="red"/></g>'.repeat(9000)}</svg>`;
  await page.getByLabel('Files', { exact: true }).setInputFiles(
    Array.from({ length: 8 }, (_, i) => ({
      name: `large ${i}.svg`,
      mimeType: 'image/svg+xml',
      buffer: Buffer.from(large),
    })),
  );
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByRole('heading', { name: 'Cancelled; nothing was added' })).toBeVisible();
});
