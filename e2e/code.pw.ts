import { expect, test } from '@playwright/test';
import { copyOfDemo, saved } from './support.ts';

test('a text that is written in the code is one of the project, and what only code can say is kept', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Written code');
  await page.goto(`/p/${id}/deliver`);
  const code = page.getByRole('region', { name: 'Code of src/screens/Welcome/Welcome.tsx' });
  await expect(code).toContainText('Browse the tools');
  await page.getByRole('button', { name: 'Edit', exact: true }).click();
  const entry = page.getByRole('textbox', { name: /^Code of .*Welcome\.tsx, to be written$/ });
  await expect(entry).toBeFocused();
  const text = await entry.inputValue();
  await entry.fill(
    text
      .replace('Browse the tools', 'See the tools')
      .replace('return (', "console.info('welcome');\n\n  return ("),
  );
  // Another file is looked at meanwhile; what was begun stays.
  await page.getByRole('row', { name: 'README.md' }).click();
  await page.getByRole('row', { name: /^Welcome\.tsx, not saved/ }).click();
  await expect(entry).toHaveValue(/See the tools/);
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(
    page.getByText('Changed in the project: “See the tools”, was “Browse the tools”.'),
  ).toBeVisible();
  await expect(page.getByText('What means nothing in the project is kept as you wrote it.')).toBeVisible();
  await expect(page.getByRole('row', { name: /^Welcome\.tsx, by hand/ })).toBeVisible();
  await saved(page);

  // The design says the text, and the code goes on having the line.
  await page.goto(`/p/${id}/deliver`);
  await expect(code).toContainText("console.info('welcome');");
  await page.getByRole('button', { name: 'Take it all back' }).click();
  await expect(code).not.toContainText('console.info');
  await expect(code).toContainText('See the tools');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(code).toContainText("console.info('welcome');");
});

test('a value of a style that is written in the code is one of the design', async ({ page }) => {
  const id = await copyOfDemo(page, 'Written style');
  await page.goto(`/p/${id}/deliver`);
  await page.getByRole('row', { name: 'Welcome', exact: true }).getByRole('button').click();
  await page.getByRole('row', { name: 'Welcome.module.css' }).click();
  await page.getByRole('button', { name: 'Edit', exact: true }).click();
  const entry = page.getByRole('textbox', { name: /Welcome\.module\.css, to be written$/ });
  const before = await entry.inputValue();
  const size = /font-size: (\d+)px;/.exec(before)![0];
  await entry.fill(before.replace(size, 'font-size: 41px;'));
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText(/^Changed in the project: font-size: 41px, was/)).toBeVisible();
  await expect(page.getByRole('group', { name: 'Written by hand' })).toBeHidden();
});
