import { expect, test } from '@playwright/test';
import { copyOfDemo, departure, openJunction } from './support.ts';

test('the app is written in words: completed, held against what is there, and taken over', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'In words');
  await page.goto(`/p/${id}/map?view=sheet`);
  const sheet = page.getByRole('textbox', { name: 'Flow sheet' });
  await expect(sheet).toHaveValue(/screen "Welcome" at \/\n {2}press "Browse the tools" -> "Catalogue"/);

  // A line at the end of the first screen, with a name that is completed.
  await sheet.evaluate((entry: HTMLTextAreaElement) => {
    entry.focus();
    const end = entry.value.indexOf('\n\nscreen "Catalogue"');
    entry.setSelectionRange(end, end);
  });
  await page.keyboard.type('\n  hover "Browse the tools" -> "House');
  const offered = page.getByRole('listbox', { name: 'What can stand here' });
  await expect(offered.getByRole('option')).toHaveText([/^"House rules"/]);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('list', { name: 'Changes' })).toContainText('House rules');
  await page.keyboard.type(' by slid from left 200 ms');
  const problems = page.getByRole('list', { name: 'Problems' });
  await expect(problems).toContainText('“slid” is not what can stand here; expected fade, slide, push');
  await problems.getByRole('button').click();
  await page.keyboard.type('slide');
  await page.getByRole('button', { name: 'Take over' }).click();
  await expect(sheet).toHaveValue(/hover "Browse the tools" -> "House rules" by slide from left 200 ms\n/);

  await openJunction(page, id, 'Welcome');
  await expect(departure(page, 'Browse the tools').first()).toContainText('Catalogue');
  await page.goto(`/p/${id}/map`);
  await expect(page.getByRole('treeitem').filter({ hasText: 'House rules' })).not.toContainText('no way in');
});
