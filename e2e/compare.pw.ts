import { expect, test } from '@playwright/test';
import { copyOfDemo, saved } from './support.ts';

test('what runs is held against what was drawn through each lens; a difference is told, put right and accepted', async ({
  page,
}) => {
  // The app is built and drawn by a second browser.
  test.setTimeout(150_000);
  const atLength = { timeout: 60_000 };
  const id = await copyOfDemo(page, 'Compared');
  await page.goto(`/p/${id}/compare?view=desk-members%201280`);
  const causes = page.getByRole('complementary', { name: 'What makes the difference' });
  await expect(causes.getByRole('heading', { name: 'The same, pixel by pixel' })).toBeVisible(atLength);
  await expect(page.getByRole('img', { name: 'What was drawn' })).toBeVisible();
  await expect(page.getByRole('img', { name: 'What runs' })).toBeVisible();

  // Somebody says a text otherwise; that is told as their decision.
  await page.goto(`/p/${id}/screens/at/desk-members`);
  await page
    .getByRole('treeitem', { name: /Add member/ })
    .last()
    .click();
  await page.getByRole('tab', { name: 'Look' }).click();
  await page.getByRole('textbox', { name: 'Text', exact: true }).fill('New member');
  await page.keyboard.press('Enter');
  await saved(page);
  await page.goto(`/p/${id}/compare?view=desk-members%201280`);
  const told = page
    .getByRole('listbox', { name: 'Causes' })
    .getByRole('option', { name: /says “New member”, was “Add member”/ });
  await expect(told).toBeVisible(atLength);
  await told.click();
  await expect(causes.getByText('Somebody decided that this shall be so.')).toBeVisible();

  // As plain pages it is written with that decision.
  const hold = async (against: string): Promise<void> => {
    await page.getByRole('button', { name: /Held against/ }).click();
    await page.getByRole('option', { name: against }).click();
  };
  await hold('Written as plain pages');
  await expect(causes.getByRole('heading', { name: 'The same, pixel by pixel' })).toBeVisible(atLength);
  await hold('What was drawn');
  await expect(told).toBeVisible(atLength);

  // The other lenses.
  await page.getByRole('button', { name: 'Wipe' }).click();
  const line = page.getByRole('slider', { name: 'How much of the reference is seen' });
  await line.press('End');
  await expect(line).toHaveAttribute('aria-valuetext', '100 %');
  await page.getByRole('button', { name: 'Blink' }).click();
  await page.getByRole('button', { name: 'Hold' }).click();
  const other = page.getByRole('button', { name: 'The other one' });
  await other.click();
  await page.getByRole('button', { name: 'Difference' }).click();
  await expect(page.getByText(/% of all pixels differ; they are marked/)).toBeVisible();
  await expect(page.getByRole('img', { name: 'What differs' })).toBeVisible();

  // A drawing that was read not quite as it is: accepted, and no longer.
  await page.getByRole('option', { name: /^Welcome at 390:/ }).click();
  const first = page.getByRole('listbox', { name: 'Causes' }).getByRole('option').first();
  await expect(first).toBeVisible(atLength);
  await first.click();
  await causes.getByRole('button', { name: 'Accept', exact: true }).click();
  await expect(first).toContainText('accepted');
  await causes.getByRole('button', { name: 'No longer accept' }).click();
  await expect(first).not.toContainText('accepted');
});

test('all screens are compared with progress, which can be stopped; a sweep shows where a screen breaks', async ({
  page,
}) => {
  test.setTimeout(240_000);
  // Browsers draw dozens of pages for this, beside whatever else draws then.
  const atLength = { timeout: 110_000 };
  const id = await copyOfDemo(page, 'Swept');
  await page.goto(`/p/${id}/compare?in=all`);
  await page.getByRole('button', { name: /^Compare all \d+$/ }).click();
  await expect(page.getByRole('status').filter({ hasText: /of \d+ compared/ })).toBeVisible();
  const table = page.getByRole('table', { name: 'All screens' });
  await expect(table.getByRole('button', { name: /^Welcome at 390: \d/ })).toBeVisible(atLength);
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByRole('button', { name: /^Compare all/ })).toBeVisible();

  await page.getByRole('button', { name: 'Widths' }).click();
  await page.getByRole('button', { name: 'Look at all widths' }).click();
  const cell = page.getByRole('button', { name: /^Welcome at 320: \d+ wrong$/ });
  await expect(cell).toBeVisible(atLength);
  await page.getByRole('button', { name: 'Stop' }).click();
  await cell.click();
  await expect(page.getByRole('list', { name: 'Faults' })).toContainText(/contrast 4\.3, needs 4\.5/);
  // What was found is a finding like all others, with the way to its place.
  await page.getByRole('button', { name: 'Findings' }).click();
  const found = page.getByRole('region', { name: 'Findings of comparing' });
  await expect(found.getByRole('option').first()).toContainText(/on Welcome/);
  await found.getByRole('listbox').focus();
  await page.keyboard.press('Enter');
  await cell.click();
  await page.getByRole('link', { name: 'See it there, in Run' }).click();
  await expect(page.getByTitle('The running app')).toHaveCSS('width', '322px');
});

test('a screen is listened to: problems, the way of the Tab key, its outline; and where it draws the eye', async ({
  page,
}) => {
  test.setTimeout(150_000);
  const atLength = { timeout: 60_000 };
  const id = await copyOfDemo(page, 'Heard');
  await page.goto(`/p/${id}/compare?in=heard&view=desk-members%201280`);
  const side = page.getByRole('complementary', { name: 'What is read out' });
  await expect(side).toBeVisible(atLength);
  await expect(page.getByRole('img', { name: 'The running screen' })).toBeVisible();
  await side.getByRole('button', { name: 'Tab key' }).click();
  await expect(side.getByRole('status')).toContainText(/stops \d+ times/);
  const first = side.getByRole('button', { name: /^1, / });
  await first.click();
  await expect(first).toHaveAttribute('aria-pressed', 'true');
  await side.getByRole('button', { name: 'Outline' }).click();
  await expect(side.getByRole('button', { name: /^h1, Members/ })).toBeVisible();
  await expect(side.getByRole('button', { name: /navigation/ }).first()).toBeVisible();

  await page.getByRole('button', { name: 'One screen' }).click();
  await page.getByRole('button', { name: 'Attention' }).click();
  const running = page.getByRole('region', { name: 'What runs' });
  await expect(
    running
      .getByRole('list', { name: 'In the order in which they draw the eye' })
      .getByRole('listitem')
      .first(),
  ).toBeVisible(atLength);
  await expect(running.getByText(/% of the attention on [\d.]+ % of the room/)).toBeVisible();
});
