import { expect, test } from '@playwright/test';
import { copyOfDemo, departure, openJunction, saved } from './support.ts';

test('an element is wired by pointer: press it, type a name, Enter', async ({ page }) => {
  const id = await copyOfDemo(page, 'By pointer');
  await openJunction(page, id, 'Catalogue');
  await expect(departure(page, 'Apple press')).toContainText(/open|proposed/);
  await page.getByRole('button', { name: /^Pin 8: Apple press/ }).click();
  await expect(page.getByRole('combobox', { name: 'Goes to' })).toBeFocused();
  await page.keyboard.type('tool d');
  await expect(page.getByRole('option', { name: /^Tool detail/ })).toHaveAttribute('aria-selected', 'true');
  await page.keyboard.press('Enter');
  await expect(departure(page, 'Apple press')).toContainText('Tool detail');
  await expect(departure(page, 'Apple press')).toContainText('live');

  await page.locator('[data-stage]').click({ position: { x: 120, y: 60 } });
  await expect(page.getByRole('group', { name: /^Edit Tools to borrow/ })).toBeVisible();
  await page.keyboard.type('https://example.org/tools');
  await page.keyboard.press('Enter');
  await expect(departure(page, 'Tools to borrow')).toContainText('https://example.org/tools');
});

test('a screen is wired by keyboard alone, and undo and redo survive a reload', async ({ page }) => {
  const id = await copyOfDemo(page, 'By keyboard');
  await openJunction(page, id, 'Report damage');
  await departure(page, 'Back button').focus();
  await page.keyboard.type('bac');
  await page.keyboard.press('Enter');
  await expect(departure(page, 'Back button')).toContainText('Back');
  await expect(departure(page, 'Back button')).toBeFocused();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await page.keyboard.type('My lo');
  await page.keyboard.press('Enter');
  await expect(departure(page, 'Send the report')).toContainText('/loans');
  await saved(page);

  await page.reload();
  await expect(departure(page, 'Send the report')).toContainText('live');
  await page.keyboard.press('Control+z');
  await expect(departure(page, 'Send the report')).toContainText('open');
  await page.keyboard.press('Control+z');
  await expect(departure(page, 'Back button')).toContainText('open');
  await saved(page);
  await page.reload();
  await expect(departure(page, 'Send the report')).toContainText('open');
  await page.keyboard.press('Control+Shift+z');
  await expect(departure(page, 'Back button')).toContainText('live');
  await expect(departure(page, 'Send the report')).toContainText('open');
});

test('what is proposed is taken by one key, refused for good, and taken together', async ({ page }) => {
  const id = await copyOfDemo(page, 'Proposed');
  await openJunction(page, id, 'Tool detail');
  const reserve = departure(page, 'Reserve');
  const wired = await reserve.textContent();
  if (wired?.includes('live')) {
    await reserve.click();
    await page.getByRole('button', { name: 'Unwire' }).click();
  }
  await expect(reserve).toContainText(/Reserve\? \d+ %/);
  await reserve.focus();
  await expect(page.getByRole('group', { name: 'Proposal' })).toContainText('because');
  await page.keyboard.press('+');
  await expect(reserve).toContainText('live');
  await page.keyboard.press('Control+z');
  await expect(reserve).toContainText('proposed');
  await reserve.focus();
  await page.keyboard.press('-');
  await expect(reserve).not.toContainText(/Reserve\? \d+ %/);
  await saved(page);
  await page.reload();
  await expect(reserve).toContainText('open');
  await expect(reserve).not.toContainText(/Reserve\? \d+ %/);
});

test('unwire, mark still, and how it arrives', async ({ page }) => {
  const id = await copyOfDemo(page, 'Standing');
  await openJunction(page, id, 'Tool detail');
  const reserve = departure(page, 'Reserve');
  await reserve.click();
  await page.getByRole('button', { name: /Arrives by/ }).click();
  await page.getByRole('option', { name: 'Fade' }).click();
  await page.getByRole('textbox', { name: 'Milliseconds' }).fill('400');
  await page.keyboard.press('Enter');
  await expect(reserve).toContainText('fade 400 ms');
  await reserve.focus();
  await page.keyboard.press('Delete');
  await expect(reserve).toContainText(/open|proposed/);
  await page.keyboard.press('.');
  await expect(reserve).toContainText('still');
  await page.getByRole('button', { name: 'Open again' }).click();
  await expect(reserve).toContainText(/open|proposed/);
});

test('a link leads to a place on a screen that is chosen by pressing it', async ({ page }) => {
  const id = await copyOfDemo(page, 'Anchor');
  await openJunction(page, id, 'My loans');
  await departure(page, 'Help').or(departure(page, 'Bar: Help')).first().click();
  await page.getByRole('combobox', { name: 'Goes to' }).fill('House');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Also' }).click();
  await page.getByRole('menuitem', { name: 'A place on it' }).click();
  await expect(page.getByRole('heading', { name: 'Press the place on House rules' })).toBeVisible();
  const stage = page.locator('[data-stage]');
  const { height } = (await stage.boundingBox())!;
  await stage.click({ position: { x: 150, y: height * 0.33 } });
  await expect(departure(page, 'Bar: Help')).toContainText('at “Say when it breaks”');
});

test('a link to a screen that is skipped is broken and stays listed', async ({ page }) => {
  const id = await copyOfDemo(page, 'Broken');
  await page.goto(`/p/${id}/screens?screen=reserve`);
  await page.getByRole('button', { name: /Use/ }).click();
  await page.getByRole('option', { name: 'Skip it' }).click();
  await expect(page.getByRole('contentinfo')).toContainText('2 broken');
  await openJunction(page, id, 'Tool detail');
  await expect(departure(page, 'Reserve')).toContainText('Reserve is skipped');
  await expect(departure(page, 'Reserve')).toContainText('broken');
  await page.keyboard.press('Control+z');
  await expect(departure(page, 'Reserve')).toContainText('live');
});

test('two people on one project see each other, and neither loses a step', async ({ page, context }) => {
  const id = await copyOfDemo(page, 'Together');
  const other = await context.newPage();
  await openJunction(page, id, 'Catalogue');
  await openJunction(other, id, 'Sign in');
  await departure(page, 'Garden').focus();
  await page.keyboard.type('.');
  await departure(other, 'Join the library').focus();
  await other.keyboard.type('welc');
  await other.keyboard.press('Enter');
  await saved(page);
  await saved(other);
  await expect(page.getByRole('contentinfo')).toContainText('56 of 110');
  await expect(other.getByRole('contentinfo')).toContainText('56 of 110');
});
