import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { unzipSync } from 'fflate';
import { copyOfDemo } from './support.ts';

test('a line shows its element, and an element its line', async ({ page }) => {
  const id = await copyOfDemo(page, 'Code');
  await page.goto(`/p/${id}/deliver`);
  const code = page.getByRole('region', { name: /^Code of src\/screens\/Welcome\/Welcome.tsx/ });
  await code.getByText('Browse the tools').click();
  const outline = page.locator('[data-outline]');
  await expect(outline).toBeVisible();
  const picture = page.locator('[data-stage]');
  const [box, whole] = [(await outline.boundingBox())!, (await picture.boundingBox())!];
  expect((box.y - whole.y) / whole.height).toBeGreaterThan(0.6);

  await picture.click({ position: { x: whole.width / 2, y: whole.height * 0.8 } });
  // Whether the press meets the button or the text in its middle, it is the lines of Sign in that are marked.
  const marked = code.locator('[data-marked]');
  await expect(marked.filter({ hasText: /sign ?in/i })).not.toHaveCount(0);
  await expect(marked.filter({ hasText: /browse/i })).toHaveCount(0);
});

test('the code is told in figures, and one screen is taken alone with what it needs', async ({ page }) => {
  const id = await copyOfDemo(page, 'One screen');
  await page.goto(`/p/${id}/deliver`);
  await expect(page.getByLabel('The code in figures')).toContainText(/Lines of code[\d,]+/);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: /^Zip of it and the \d+ it needs$/ }).click();
  const files = Object.keys(unzipSync(readFileSync(await (await download).path())));
  expect(files).toContain('src/screens/Welcome/Welcome.tsx');
  expect(files).toContain('src/navigation/Go.tsx');
  expect(files.filter((file) => /package.json|screens\/(?!Welcome)/.test(file))).toEqual([]);

  await page.getByRole('button', { name: /Names of files/ }).click();
  await page.getByRole('option', { name: 'my-loans.tsx' }).click();
  await expect(page.getByRole('region', { name: 'Code of src/screens/welcome/welcome.tsx' })).toBeVisible();
});
