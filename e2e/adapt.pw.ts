import { expect, test } from '@playwright/test';
import { copyOfDemo, saved } from './support.ts';

test('what is pressed in the running app is changed where it is: its text, its size, what it is', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Adapted');
  await page.goto(`/p/${id}/run?at=/tools`);
  const app = page.frameLocator('iframe[title="The running app"]');
  const panel = page.getByRole('complementary', { name: 'Adapt' });
  await app.getByRole('heading', { name: 'Tools to borrow' }).waitFor();
  await page.getByRole('button', { name: 'Adapt' }).click();
  await expect(panel).toContainText('Press what is to be changed');

  // While it is pointed at, nothing is done by a press.
  await app
    .getByRole('link', { name: /Hedge trimmer/ })
    .getByText('Hedge trimmer')
    .click();
  await expect(page.getByRole('textbox', { name: 'Address in the app' })).toHaveValue('/tools');
  await expect(app.locator('[data-pointed-chosen]')).toHaveText('Hedge trimmer');

  await app.getByRole('heading', { name: 'Tools to borrow' }).click();
  await panel.getByRole('textbox', { name: 'Text' }).fill('Tools to take home');
  await page.keyboard.press('Enter');
  const heading = app.getByRole('heading', { name: 'Tools to take home' });
  await expect(heading).toBeVisible();
  // It stays the one that is chosen, though it says something else by now.
  await expect(heading).toHaveAttribute('data-pointed-chosen', '');
  await panel.getByRole('textbox', { name: 'Size' }).fill('22px');
  await page.keyboard.press('Enter');
  await expect(heading).toHaveCSS('font-size', '22px');

  // By keyboard: what is in the list is chosen there, and what it is is said.
  await panel.getByRole('tree').focus();
  await page.keyboard.press('ArrowDown');
  await panel.getByRole('tab', { name: 'Role' }).click();
  await app.getByText('Shed 2 · free today').click();
  await panel
    .getByRole('button', { name: /^Heading/ })
    .first()
    .click();
  await expect(app.getByRole('heading', { name: 'Shed 2 · free today' })).toBeVisible();
  await saved(page);

  // Afterwards the app is as visitors have it.
  await page.getByRole('button', { name: 'Adapt' }).click();
  await expect(panel).toBeHidden();
  await app.getByRole('link', { name: /Hedge trimmer/ }).click();
  await expect(page.getByRole('textbox', { name: 'Address in the app' })).toHaveValue('/tools/detail');
});

test('a change is taken over while the app runs: what was typed, scrolled and opened stays as it is', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Taken over');
  await page.goto(`/p/${id}/run?at=/desk/new-loan`);
  const app = page.frameLocator('iframe[title="The running app"]');
  const field = app.getByRole('textbox').first();
  await page.getByRole('button', { name: '1280' }).click();
  await field.fill('ladder');
  const inside = page.frames().find((frame) => frame.url().endsWith(`/${id}/desk/new-loan`))!;
  await inside.evaluate(() => {
    Object.assign(window, { stays: true });
    document.body.style.minHeight = '3000px';
    scrollTo(0, 40);
  });

  await page.getByRole('button', { name: 'Adapt' }).click();
  const panel = page.getByRole('complementary', { name: 'Adapt' });
  await app.getByRole('heading', { name: 'New loan' }).click();
  await panel.getByRole('textbox', { name: 'Text' }).fill('Lend a tool');
  await page.keyboard.press('Enter');
  const heading = app.getByRole('heading', { name: 'Lend a tool' });
  await expect(heading).toBeVisible();
  await panel.getByRole('textbox', { name: 'Size' }).fill('22px');
  await page.keyboard.press('Enter');
  await expect(heading).toHaveCSS('font-size', '22px');
  await expect(field).toHaveValue('ladder');
  expect(await inside.evaluate(() => [(window as { stays?: boolean }).stays, scrollY > 0])).toEqual([
    true,
    true,
  ]);
  expect(await inside.evaluate(() => document.querySelectorAll('link[rel="stylesheet"]').length)).toBe(1);
  await saved(page);
});

test('at three widths each can be pointed at, and what a narrow one says otherwise is told and changed there', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'At three');
  await page.goto(`/p/${id}/run?at=/desk/new-loan`);
  await page.getByRole('button', { name: 'Three', exact: true }).click();
  await page.getByRole('button', { name: 'Adapt' }).click();
  const panel = page.getByRole('complementary', { name: 'Adapt' });
  const [narrow, middle, wide] = [
    'The running app',
    'The running app at 768 px',
    'The running app at 1280 px',
  ].map((title) => page.frameLocator(`iframe[title="${title}"]`).getByRole('heading', { name: 'New loan' }));
  // Where things are in a frame that is drawn smaller, the test's pointer does not know.
  await middle.dispatchEvent('click');
  await expect(wide).toHaveAttribute('data-pointed-chosen', '');
  await expect(narrow).toHaveAttribute('data-pointed-chosen', '');
  const condition = panel.getByRole('button', { name: /as it is/ });
  await condition.click();
  await page.getByRole('option', { name: 'up to 768 px' }).click();
  const size = panel.getByRole('textbox', { name: 'Size' });
  await size.fill('15px');
  await page.keyboard.press('Enter');
  await expect(middle).toHaveCSS('font-size', '15px');
  await expect(wide).not.toHaveCSS('font-size', '15px');

  await condition.click();
  await page.getByRole('option', { name: 'at every width' }).click();
  const otherwise = panel.getByRole('list', { name: 'Said otherwise at 768 px' });
  await expect(otherwise).toContainText('At 768 px other values hold of font-size');
  await size.fill('31px');
  await page.keyboard.press('Enter');
  await expect(wide).toHaveCSS('font-size', '31px');
  await expect(middle).toHaveCSS('font-size', '15px');
  await otherwise.getByRole('button', { name: 'change those up to 768 px' }).click();
  await expect(otherwise).toBeHidden();
  await size.fill('17px');
  await page.keyboard.press('Enter');
  await expect(middle).toHaveCSS('font-size', '17px');
  await expect(wide).toHaveCSS('font-size', '31px');
  // It was drawn smaller on phones.
  await expect(narrow).toHaveCSS('font-size', '24px');
  await narrow.dispatchEvent('click');
  await expect(panel.getByRole('list', { name: 'Said otherwise at 390 px' })).toContainText('font-size');
  await saved(page);
});
