import { expect, type Page, test } from '@playwright/test';
import { copyOfDemo, departure, openJunction, saved } from './support.ts';

/** Adds a variable at Data, of the kind of this label. */
async function addVariable(page: Page, name: string, kind?: string): Promise<void> {
  await page.getByRole('button', { name: 'Add a variable' }).click();
  const group = page.getByRole('group', { name: 'A new variable' });
  await group.getByRole('textbox', { name: 'Name' }).fill(name);
  if (kind) {
    await group.getByRole('button', { name: /Is$/ }).click();
    await page.getByRole('option', { name: kind }).click();
  }
  await group.getByRole('button', { name: 'Add it' }).click();
  await expect(page.getByRole('textbox', { name: `Name of ${name}` })).toBeVisible();
}

test('a number is remembered: presses count it, a text says it, a condition depends on it, Run shows and sets it', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Variables');
  await page.goto(`/p/${id}/data?at=variables`);
  await addVariable(page, 'Days', 'a number');
  await addVariable(page, 'Long loan');
  await page.getByRole('row', { name: 'Long loan' }).getByRole('button', { name: 'Work it out …' }).click();
  const source = page.getByRole('combobox', { name: 'What Long loan is worked out from' });
  await source.fill('day');
  await expect(page.getByRole('option', { name: 'days a number' })).toBeVisible();
  await source.fill('days');
  await source.press('Enter');
  await expect(page.getByText('Long loan is yes or no, and that is not')).toBeVisible();
  await source.fill('days > 1');
  await source.press('Enter');
  await expect(page.getByRole('row', { name: 'Days' })).toContainText('looked at by Long loan');

  await openJunction(page, id, 'Reserve');
  await departure(page, 'Mon 25').click();
  await page.getByRole('combobox', { name: 'Goes to' }).fill('days: one');
  await expect(page.getByRole('option', { name: /^Days: one more/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(departure(page, 'Mon 25')).toContainText('Days: one more');
  await departure(page, 'Wed 27').click();
  await page.getByRole('combobox', { name: 'Goes to' }).fill('Days = days * 2');
  await page.keyboard.press('Enter');
  await expect(departure(page, 'Wed 27')).toContainText('Days: days * 2');
  await departure(page, 'Fri 29').click();
  await page.getByRole('combobox', { name: 'Goes to' }).fill('say `Picked after ${days}`');
  await page.keyboard.press('Enter');
  await expect(departure(page, 'Fri 29')).toContainText('Say `Picked after ${days}`');

  await page.goto(`/p/${id}/screens/at/reserve?tab=shows`);
  await page
    .getByRole('treeitem', { name: /Pick it up on/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Its text: work it out' }).click();
  const says = page.getByRole('combobox', { name: /^Its text, of/ });
  await says.fill("longLoan ? 'A long one' : `${days} so far`");
  await says.press('Enter');
  await expect(page.getByText('“0 so far” at first')).toBeVisible();
  await saved(page);

  await page.goto(`/p/${id}/run`);
  const app = page.frameLocator('iframe').first();
  await expect(app.getByText('Borrow the tool')).toBeVisible();
  const bar = page.getByRole('textbox', { name: 'Address' });
  await bar.fill('/tools/reserve');
  await bar.press('Enter');
  await expect(app.getByText('0 so far')).toBeVisible();
  await app.getByRole('button', { name: /Mon/ }).press('Enter');
  await expect(app.getByText('1 so far')).toBeVisible();
  await page.getByRole('button', { name: 'What it remembers' }).click();
  const panel = page.getByRole('complementary', { name: 'What the app remembers' });
  await expect(panel.getByRole('textbox', { name: 'Days' })).toHaveValue('1');
  await expect(panel.getByText('Long loan: no worked out')).toBeVisible();
  await app.getByRole('button', { name: /Wed/ }).press('Enter');
  await expect(app.getByText('A long one')).toBeVisible();
  await app.getByRole('button', { name: /Fri/ }).press('Enter');
  await expect(app.getByRole('status')).toContainText('Picked after 2');
  await expect(panel.getByText('Long loan: yes worked out')).toBeVisible();
  await expect(panel.getByRole('list', { name: 'What happened, the newest first' })).toContainText('Days: 2');
  await panel.getByRole('textbox', { name: 'Days' }).fill('0');
  await panel.getByRole('textbox', { name: 'Days' }).press('Enter');
  await expect(app.getByText('0 so far')).toBeVisible();
});
