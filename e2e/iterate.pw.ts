import { readFileSync } from 'node:fs';
import path from 'node:path';
import { expect, type Page, test } from '@playwright/test';
import { copyOfDemo, demoFolder, departure, openJunction } from './support.ts';

const catalogue = (change: (svg: string) => string) => ({
  name: 'catalogue.svg',
  mimeType: 'image/svg+xml',
  buffer: Buffer.from(change(readFileSync(path.join(demoFolder, 'catalogue.svg'), 'utf8'))),
});

const bring = async (page: Page, id: string, file: ReturnType<typeof catalogue>): Promise<void> => {
  await page.goto(`/p/${id}/intake`);
  await page.getByLabel('Files', { exact: true }).setInputFiles(file);
  await expect(page.getByRole('heading', { name: '1 screen came in' })).toBeVisible({ timeout: 30_000 });
};

test('a redrawn screen keeps its links, with a line and a chip put in; the station says what it did', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Next round');
  await openJunction(page, id, 'Catalogue');
  const rows = page.getByRole('grid', { name: 'Departures' }).getByRole('row');
  const live = await rows.filter({ hasText: 'live' }).allInnerTexts();
  expect(live.length).toBeGreaterThan(2);

  await bring(
    page,
    id,
    catalogue((svg) =>
      svg.replace(
        /(<svg[^>]*>)/,
        '$1<rect id="Hairline" width="390" height="1" fill="#ddd8ca"/><g id="Chip_Near" data-name="Chip Near"><rect x="300" y="210" width="64" height="32" rx="16" fill="#eee"/><text x="332" y="231" font-size="14" text-anchor="middle">Near</text></g>',
      ),
    ),
  );
  await openJunction(page, id, 'Catalogue');
  const names = (texts: readonly string[]): string[] => texts.map((text) => text.replace(/^\d+\s*/, ''));
  await expect(departure(page, 'Near')).toBeVisible();
  expect(names(await rows.filter({ hasText: 'live' }).allInnerTexts())).toEqual(names(live));

  await page.getByRole('link', { name: /^Iterate/ }).click();
  await expect(
    page.getByText(/^1 screen: 1 changed · decided elements: \d+ kept, 0 to decide, 0 let go$/),
  ).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('heading', { name: 'No second round yet' })).toBeVisible();
});

test('what is gone waits, is put on another element, and works there', async ({ page }) => {
  const id = await copyOfDemo(page, 'Let go');
  await bring(
    page,
    id,
    catalogue((svg) =>
      svg.replace(/<g id="Tab_My_loans"[\s\S]*?<\/g>\s*<text[^>]*>My loans<\/text>\s*<\/g>/, ''),
    ),
  );
  await page.getByRole('link', { name: /^Iterate/ }).click();
  const row = page.getByRole('group', { name: /My loans/ });
  await expect(row).toContainText('leads to My loans');
  await row.getByRole('button', { name: /My loans/ }).click();
  await page.locator('[data-stage]').click({ position: { x: 24, y: 24 } });
  await row.getByRole('button', { name: /^Put it on/ }).click();
  await expect(row).toHaveCount(0);
  await openJunction(page, id, 'Catalogue');
  await expect(
    page.getByRole('grid', { name: 'Departures' }).getByRole('row', { name: /My loans.*live/ }),
  ).toBeVisible();
});
