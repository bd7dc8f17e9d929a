import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
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

test('the zip installs, builds, checks its types and walks every link', async ({ page }) => {
  test.setTimeout(240_000);
  const id = await copyOfDemo(page, 'Zip');
  await page.goto(`/p/${id}/deliver`);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Download zip' }).click();
  const files = unzipSync(readFileSync(await (await download).path()));
  const folder = mkdtempSync(path.join(os.tmpdir(), 'tovel-zip-'));
  for (const [name, bytes] of Object.entries(files)) {
    mkdirSync(path.dirname(path.join(folder, name)), { recursive: true });
    writeFileSync(path.join(folder, name), bytes);
  }
  const npm = (...args: string[]): string =>
    execFileSync('npm', args, {
      cwd: folder,
      encoding: 'utf8',
      env: { ...process.env, CI: 'true', NO_COLOR: '1' },
    });
  npm('install', '--no-audit', '--no-fund');
  expect(npm('run', 'build')).toContain('built in');
  npm('exec', '--', 'tsc', '--noEmit');
  const links = (JSON.parse(readFileSync(path.join(folder, 'src/links.json'), 'utf8')) as unknown[]).length;
  expect(links).toBeGreaterThan(40);
  expect(npm('test')).toMatch(new RegExp(`Tests\\s+${links + 1} passed`));
  npm('exec', '--', 'prettier', '--check', '.');
});
