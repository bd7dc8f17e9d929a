import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { copyOfDemo, departure, saved } from './support.ts';

test('Screens: a name and a route are edited, and a clash is said at the field', async ({ page }) => {
  const id = await copyOfDemo(page, 'Routes');
  await page.goto(`/p/${id}/screens?screen=reserve`);
  const route = page.getByRole('textbox', { name: 'Route' });
  await route.fill('/tools');
  await expect(page.getByText('Catalogue has this route already. Choose another.')).toBeVisible();
  await expect(route).toHaveAttribute('aria-invalid', 'true');
  await route.fill('/tools/hold');
  await page.keyboard.press('Enter');
  await page.getByRole('textbox', { name: 'Name' }).fill('Hold a tool');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('option', { name: 'Hold a tool' })).toBeVisible();
  await page.getByRole('button', { name: 'Make it the start' }).click();
  await expect(page.getByRole('option', { name: 'Hold a tool, start screen' })).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(route).toHaveValue('/tools/hold');
});

test('Screens: arrows move, S skips, and the order is the person’s', async ({ page }) => {
  const id = await copyOfDemo(page, 'Order');
  await page.goto(`/p/${id}/screens`);
  await page.getByRole('option').first().focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('s');
  await expect(page.getByRole('option').nth(1)).toHaveAccessibleName(/skipped/);
  const second = await page.getByRole('option').nth(1).getAttribute('aria-label');
  await page.getByRole('button', { name: 'Earlier' }).click();
  await expect(page.getByRole('option').first()).toHaveAccessibleName(second!);
});

test('Map: a cell shows its links, a head leads to its screen, findings are mended in place', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Map');
  await page.goto(`/p/${id}/map?view=grid`);
  await page.getByRole('button', { name: 'Catalogue to Tool detail: 2 links' }).click();
  const links = page.getByRole('region', { name: 'Links of the chosen cell' });
  await expect(links).toContainText('Hedge trimmer');
  await expect(links).toContainText('Pillar drill');
  // Where no element leads at once, the way round is shown.
  await page.getByRole('button', { name: 'Catalogue to Reserve: no links' }).click();
  await expect(links).toContainText('The shortest way is 2 presses');
  await expect(links.getByRole('listitem')).toContainText([
    'on Catalogue, to Tool detail',
    'on Tool detail, to Reserve',
  ]);
  await page.getByRole('button', { name: 'Welcome to Report damage: no links' }).click();
  await expect(links).toContainText('Every way there passes through My loans, Return check.');

  await page.getByRole('button', { name: /Order of the screens/ }).click();
  await page.getByRole('option', { name: 'By presses from the start' }).click();
  await expect(page.getByRole('rowheader')).toContainText([/^Welcome0$/, /^Catalogue1$/, /^Sign in1$/]);
  await expect(page.getByRole('rowheader').last()).toHaveText('House rules–');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save' }).click();
  await page.getByRole('menuitem', { name: 'The graph as GraphML' }).click();
  expect((await download).suggestedFilename()).toBe('map.graphml');
  expect(readFileSync(await (await download).path(), 'utf8')).toContain('<edge id="link-1" source="');

  const findings = page.getByRole('region', { name: 'Findings' });
  await expect(findings).toContainText('Nobody reaches House rules');
  await expect(findings).toContainText('Report damage has no way out');
  await page.getByRole('contentinfo').getByRole('link', { name: '1 broken' }).click();
  await expect(findings.getByRole('option')).toHaveCount(1);
  await findings.getByRole('button', { name: 'Unwire' }).click();
  await expect(findings).toContainText('Nothing to look at.');
  await expect(page.getByRole('contentinfo')).not.toContainText('broken');

  await page.getByRole('button', { name: 'Grid' }).click();
  await page.getByRole('columnheader', { name: 'Sign in' }).getByRole('link').click();
  await expect(page.getByRole('region', { name: 'Stage: Sign in' })).toBeVisible();
});

test('Jump goes anywhere by typing', async ({ page }) => {
  const id = await copyOfDemo(page, 'Jump');
  await page.goto(`/p/${id}/map?view=grid`);
  await expect(page.getByRole('region', { name: 'Routes' })).toBeVisible();
  await page.keyboard.press('Alt+j');
  await expect(page.getByRole('combobox')).toBeFocused();
  await page.keyboard.type('hand it');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'Stage: Return check' })).toBeVisible();
  await expect(departure(page, 'Hand it back')).toHaveAttribute('aria-selected', 'true');
});

test('Run: the app navigates, goes back, takes an address, and shows an edit where it is', async ({
  page,
  context,
}) => {
  const id = await copyOfDemo(page, 'Run');
  await page.goto(`/p/${id}/run`);
  const app = page.frameLocator('iframe[title="The running app"]');
  const address = page.getByRole('textbox', { name: 'Address in the app' });
  await app.getByRole('link', { name: 'Browse the tools' }).click();
  await expect(app.getByRole('heading', { name: 'Tools to borrow' })).toBeVisible();
  await expect(address).toHaveValue('/tools');
  await app.getByText('Pillar drill').click();
  await expect(address).toHaveValue('/tools/detail');
  await page.getByRole('button', { name: 'Back', exact: true }).click();
  await expect(address).toHaveValue('/tools');
  await page.getByRole('button', { name: 'Forward' }).click();
  await expect(address).toHaveValue('/tools/detail');
  await app.getByRole('button', { name: 'Back', exact: true }).click();
  await expect(address).toHaveValue('/tools');
  await address.fill('/loans');
  await page.keyboard.press('Enter');
  await expect(app.getByRole('heading', { name: 'My loans' })).toBeVisible();
  await page.getByRole('button', { name: '768' }).click();
  await expect(page.locator('iframe[title="The running app"]')).toHaveCSS('width', '770px');

  await expect(app.getByRole('link', { name: 'Help' })).toHaveCount(0);
  const other = await context.newPage();
  await other.goto(`/p/${id}/junction/my-loans`);
  await departure(other, 'Bar: Help').focus();
  await other.keyboard.type('house');
  await other.keyboard.press('Enter');
  // By key: presses find what stands in a frame only once that has been drawn.
  await app.getByRole('link', { name: 'Help' }).press('Enter');
  await expect(address).toHaveValue('/rules');
});

test('every view of the project can be read without a mouse and says what it is', async ({ page }) => {
  const id = await copyOfDemo(page, 'Keys');
  for (const view of ['intake', 'screens', 'junction/welcome', 'map', 'run', 'deliver']) {
    await page.goto(`/p/${id}/${view}`);
    await expect(page.getByRole('navigation', { name: 'Stations' })).toBeVisible();
    const unnamed = await page.locator('button:visible, a:visible, input:visible').evaluateAll(
      (all) =>
        all.filter((element) => {
          const control = element as HTMLInputElement;
          const name =
            control.getAttribute('aria-label') ??
            control.getAttribute('aria-labelledby') ??
            control.textContent?.trim() ??
            '';
          return !name && !control.labels?.length;
        }).length,
    );
    expect(unnamed, `controls without a name in ${view}`).toBe(0);
  }
});
