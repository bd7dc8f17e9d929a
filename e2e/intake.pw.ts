import {
  closeSync,
  ftruncateSync,
  mkdtempSync,
  openSync,
  readdirSync,
  readFileSync,
  writeFileSync,
} from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { expect, type Page, test } from '@playwright/test';
import { strToU8, zipSync } from 'fflate';
import { copyOfDemo, demoFiles, demoFolder, departure, newProject, openJunction, saved } from './support.ts';

test('files come in as screens with names, routes and their own links', async ({ page }) => {
  await newProject(page, 'Taken in');
  await page.getByLabel('Files', { exact: true }).setInputFiles(demoFiles());
  await expect(page.getByRole('heading', { name: '15 screens came in' })).toBeVisible({ timeout: 30_000 });
  await page.getByRole('tab', { name: /^Left out/ }).click();
  await expect(page.getByText('The hidden layer “Redlines” was left out.')).toBeVisible();

  await page.getByRole('link', { name: /^Screens/ }).click();
  // The contact sheet of Intake has the same names as long as the next view is on its way.
  const sheet = page.getByRole('listbox', { name: 'Screens', exact: true });
  await expect(sheet.getByRole('option')).toHaveCount(15);
  await sheet.getByRole('option', { name: /^Tool detail/ }).click();
  await expect(page.getByRole('textbox', { name: 'Route' })).toHaveValue('/tool-detail');
  await page.goto(page.url().replace('screens', 'junction').replace(/\?.*/, '/desk-members'));
  await expect(page.getByRole('row', { name: /Repairs.*live/ })).toBeVisible();
});

test('a folder comes in whole', async ({ page }) => {
  await newProject(page, 'Folder');
  await page.getByLabel('Folder', { exact: true }).setInputFiles(demoFolder);
  await expect(page.getByRole('heading', { name: '15 screens came in' })).toBeVisible({ timeout: 30_000 });
});

test('screens are worked on while others are still being read', async ({ page }) => {
  const id = await newProject(page, 'Arriving');
  let letIn = (): void => {};
  const untilThen = new Promise<void>((resolve) => (letIn = resolve));
  await page.route(`**/api/projects/${id}/intake`, async (route) => {
    await untilThen;
    await route.continue();
  });
  const rows = '<li><a href="p1.html">A row of a list</a> <b>with some words</b></li>'.repeat(120);
  await page.getByLabel('Files', { exact: true }).setInputFiles(
    Array.from({ length: 24 }, (_, i) => ({
      name: `p${i + 1}.html`,
      mimeType: 'text/html',
      buffer: Buffer.from(`<title>Page ${i + 1}</title><h1>Page ${i + 1}</h1><ul>${rows}</ul>`),
    })),
  );
  await expect(page.getByRole('listbox').getByRole('option', { name: /^Page 1\b/ })).toBeVisible();

  await page.getByRole('link', { name: /^Screens/ }).click();
  const sheet = page.getByRole('listbox', { name: 'Screens', exact: true });
  await expect(page.getByText(/^(Reading screens: \d+ of 24|All screens are read)/)).toBeVisible();
  await sheet.getByRole('option', { name: /^Page 1\b/ }).click();
  const name = page.getByRole('textbox', { name: 'Name' });
  await name.fill('First of all');
  await name.press('Enter');
  await expect(page.getByText('Kept here until all screens are read')).toBeVisible();
  await page.getByRole('link', { name: /^Run/ }).click();
  await expect(page.getByRole('heading', { name: 'Screens are still being read' })).toBeVisible();
  await page.getByRole('link', { name: /^Intake/ }).click();
  await expect(page.getByRole('heading', { name: /^Working out what 24 screens/ })).toBeVisible();
  letIn();
  await expect(page.getByRole('heading', { name: '24 screens came in' })).toBeVisible();
  await saved(page);

  await page.reload();
  await expect(page.getByRole('listbox').getByRole('option', { name: /^First of all/ })).toBeVisible();
  await expect(page.getByRole('heading', { name: /^24 screens/ })).toBeVisible();
});

test('reading can be stopped, and what was read comes in', async ({ page }) => {
  await newProject(page, 'Stopped');
  const rows = '<li>A row of a list</li>'.repeat(400);
  await page.getByLabel('Files', { exact: true }).setInputFiles(
    Array.from({ length: 60 }, (_, i) => ({
      name: `p${i + 100}.html`,
      mimeType: 'text/html',
      buffer: Buffer.from(`<title>Page ${i}</title><h1>Page ${i}</h1><ul>${rows}</ul>`),
    })),
  );
  await page.getByRole('button', { name: 'Stop, keep what is read' }).click();
  await expect(page.getByRole('heading', { name: /^\d+ screens? came in$/ })).toBeVisible();
  await page.getByRole('tab', { name: /^Left out/ }).click();
  await expect(page.getByText('Not read, because the intake was cancelled.').first()).toBeVisible();
});

test('what pages show is no screen, unless somebody makes it one, now or later', async ({ page }) => {
  const drawing = (words: string): string =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="400" height="300"><text x="20" y="60">${words}</text></svg>`;
  const files = {
    'desk.html': '<title>Desk</title><h1>Desk</h1><img src="plan.svg"><img src="map.svg">',
    'plan.svg': drawing('Plan of the shed'),
    'map.svg': drawing('Map of the yard'),
  };
  await newProject(page, 'Shown');
  await page.getByLabel('Files', { exact: true }).setInputFiles(
    Object.entries(files).map(([name, text]) => ({
      name,
      mimeType: name.endsWith('svg') ? 'image/svg+xml' : 'text/html',
      buffer: Buffer.from(text),
    })),
  );
  await expect(page.getByRole('heading', { name: '1 screen came in' })).toBeVisible();
  await page.getByRole('tab', { name: /^Left out/ }).click();
  await expect(page.getByText('2 pictures')).toBeVisible();
  await page.getByText('and 1 more').click();
  await page.getByRole('button', { name: 'Make map.svg a screen' }).click();
  await expect(page.getByRole('option', { name: /^Map/ })).toBeVisible();

  await saved(page);
  await page.reload();
  await page.getByRole('tab', { name: /^Left out/ }).click();
  await page.getByRole('button', { name: 'Make plan.svg a screen' }).click();
  await expect(page.getByRole('option', { name: /^Plan/ })).toBeVisible();
  await expect(page.getByRole('heading', { name: /^3 screens/ })).toBeVisible();
});

test('bad files are said, and the rest of the batch comes in', async ({ page }) => {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'tovel-intake-'));
  const at = (name: string): string => path.join(folder, name);
  writeFileSync(at('cut.svg'), readFileSync(path.join(demoFolder, 'welcome.svg')).subarray(0, 900));
  writeFileSync(
    at('bundle.zip'),
    zipSync({
      '../outside.svg': strToU8('<svg/>'),
      'inside/sign-in.svg': readFileSync(path.join(demoFolder, 'sign-in.svg')),
    }),
  );
  const huge = openSync(at('huge.svg'), 'w');
  ftruncateSync(huge, 200 * 2 ** 20);
  closeSync(huge);
  writeFileSync(
    at('hostile.html'),
    `<title>Hostile</title><script>top.document.title = 'taken'; fetch('http://127.0.0.1:1/x')</script>
     <body onload="top.hit = 1"><h1>Still a page</h1><img src="http://127.0.0.1:1/x.png" onerror="top.hit = 1">
     <iframe src="javascript:top.hit = 1"></iframe><a href="javascript:top.hit = 1">Press</a>
     <svg><a xlink:href="javascript:top.hit = 1"><text y="20">Drawn</text></a></svg></body>`,
  );
  const asked: string[] = [];
  page.on('request', (request) => asked.push(request.url()));
  await newProject(page, 'Mixed');
  await page
    .getByLabel('Files', { exact: true })
    .setInputFiles([at('cut.svg'), at('bundle.zip'), at('huge.svg'), at('hostile.html')]);
  await expect(page.getByRole('heading', { name: '2 screens came in' })).toBeVisible({ timeout: 30_000 });

  const out = page.getByRole('list', { name: 'What was left out' });
  await expect(out).toContainText('not complete or not well formed');
  await expect(out).toContainText('points outside the archive');
  await expect(out).toContainText('The file is 200 MB');
  await expect(out).toContainText('A script was left out');
  expect(await page.evaluate(() => 'hit' in window)).toBe(false);
  expect(asked.filter((url) => url.includes('127.0.0.1:1/'))).toEqual([]);

  await page.getByRole('option', { name: /^Hostile/ }).dblclick();
  await page.locator('[data-stage]').click({ position: { x: 20, y: 20 } });
  expect(await page.evaluate(() => 'hit' in window)).toBe(false);
  expect(await page.title()).toContain('Tovel');
});

test('an intake can be cancelled, and then nothing is added', async ({ page }) => {
  await newProject(page, 'Cancelled');
  // Pages take long enough for a person to change their mind; a hundred take longer than the test.
  const body = readFileSync(path.join(demoFolder, 'desk.html'));
  const files = Array.from({ length: 100 }, (_, i) => ({
    name: `page-${i}.html`,
    mimeType: 'text/html',
    buffer: body,
  }));
  await page.getByLabel('Files', { exact: true }).setInputFiles(files);
  await expect(page.getByText(/Reading screens: \d+ of 100/)).toBeVisible();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByRole('heading', { name: 'Cancelled; nothing was added' })).toBeVisible();
  await expect(page.getByRole('listbox', { name: 'Screens that came in' })).toHaveCount(0);
});

const fixtures = path.resolve('e2e/fixtures');
const filesIn = (...folders: string[]): string[] =>
  folders.flatMap((folder) =>
    readdirSync(path.join(fixtures, folder)).map((name) => path.join(fixtures, folder, name)),
  );
const cameIn = (page: Page, count: number) =>
  expect(
    page.getByRole('heading', { name: `${count} ${count === 1 ? 'screen' : 'screens'} came in` }),
  ).toBeVisible({ timeout: 45_000 });
const onSheet = (page: Page, name: string) =>
  page
    .getByRole('listbox', { name: 'Screens that came in' })
    .getByRole('option', { name: new RegExp(`^${name}, `) });

test('a pile is made clean: findings are taken one by one, by kind, and undone', async ({ page }) => {
  await newProject(page, 'Pile');
  await page.getByLabel('Files', { exact: true }).setInputFiles(filesIn('pile'));
  await cameIn(page, 11);
  const found = page.getByRole('listbox', { name: 'What was found' });
  await expect(found).toContainText('Basket copy is drawn as Basket is');
  await found.focus();
  await page.keyboard.press('f');
  await expect(page.getByText('and 1 skipped')).toBeVisible();
  await expect(found).not.toContainText('Basket copy is drawn');
  await page.getByRole('button', { name: 'Make it a counterpart' }).click();
  await expect(onSheet(page, 'Checkout mobile')).toHaveAccessibleName(/counterpart/);
  await page
    .getByRole('button', { name: /all 2$/ })
    .first()
    .click();
  await expect(page.getByText('and 1 counterpart, 2 overlays, 1 skipped')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText('and 1 counterpart, 1 skipped')).toBeVisible();
});

test('many screens are decided about with single keys', async ({ page }) => {
  await newProject(page, 'Keys on the sheet');
  await page.getByLabel('Files', { exact: true }).setInputFiles(filesIn('pile'));
  await cameIn(page, 11);
  await onSheet(page, 'Colours').click();
  await onSheet(page, 'Components').click({ modifiers: ['ControlOrMeta'] });
  await expect(page.getByRole('heading', { name: '2 of 11 chosen' })).toBeVisible();
  await page.keyboard.press('s');
  await expect(onSheet(page, 'Colours')).toHaveAccessibleName(/skipped/);
  await page.keyboard.press('k');
  await expect(onSheet(page, 'Colours')).toHaveAccessibleName(/screen/);
  await onSheet(page, 'Basket \\(empty\\)').click();
  await page.keyboard.press('o');
  await page.keyboard.type('baske');
  await page.keyboard.press('Enter');
  await expect(onSheet(page, 'Basket \\(empty\\)')).toHaveAccessibleName(/overlay/);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /Sorted/ }).click();
  await page.getByRole('option', { name: 'By name' }).click();
  const names = page.getByRole('listbox', { name: 'Screens that came in' }).getByRole('option');
  await expect(names.first()).toHaveAccessibleName(/^Basket/);
});

test('one screen is read: hovering marks the other side, and a layer that is left out stays out', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Reading');
  await page.goto(`/p/${id}/intake/catalogue`);
  const tree = page.getByRole('tree', { name: 'Elements' });
  await tree.getByRole('treeitem', { name: /^Search field/ }).hover();
  await expect(page.locator('[data-outline=hovered]')).toBeVisible();
  await page.locator('[data-stage]').hover({ position: { x: 60, y: 60 } });
  await tree.getByRole('treeitem', { name: /Status bar/ }).click();
  await page.keyboard.press('x');
  await expect(tree.getByRole('treeitem', { name: /Status bar/ })).toContainText('left out');
  await expect(page.frameLocator('iframe').first().getByText('9:41')).toHaveCount(0);
  await page.keyboard.press('x');
  await expect(page.frameLocator('iframe').first().getByText('9:41')).toBeVisible();
});

test('a picture is read: text is found in it, taken, drawn by hand, wired and run', async ({ page }) => {
  await newProject(page, 'Photo');
  await page
    .getByLabel('Files', { exact: true })
    .setInputFiles(path.join(fixtures, 'pictures/basket photo.png'));
  await cameIn(page, 1);
  await onSheet(page, 'Basket photo').dblclick();
  const panel = page.getByRole('region', { name: 'Found in the picture' });
  await expect(panel).toContainText('Reserve all three');
  await panel
    .getByRole('listitem')
    .filter({ hasText: /Reserve all three.*box/ })
    .getByRole('button', { name: 'Take' })
    .click();
  await expect(page.getByRole('tree', { name: 'Elements' })).toContainText('Reserve all three');
  const stage = (await page.locator('[data-stage]').boundingBox())!;
  await page.mouse.move(stage.x + 30, stage.y + 110);
  await page.mouse.down();
  await page.mouse.move(stage.x + 240, stage.y + 152, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByRole('heading', { name: 'Hedge trimmer', exact: false })).toBeVisible();
  await page.getByRole('button', { name: 'Open in Junction' }).click();
  await expect(departure(page, 'Reserve all three')).toContainText('open');
  await departure(page, 'Reserve all three').focus();
  await page.keyboard.type('https://example.org/');
  await page.keyboard.press('Enter');
  await page.getByRole('link', { name: 'Run', exact: true }).click();
  const app = page.frameLocator('iframe[title="The running app"]');
  await expect(app.getByRole('link', { name: 'Reserve all three' })).toHaveAttribute(
    'href',
    'https://example.org/',
  );
});

test('layered pictures, PDF pages and pages of utility classes come in from the browser, too', async ({
  page,
}) => {
  await newProject(page, 'Formats');
  await page.getByLabel('Files', { exact: true }).setInputFiles(filesIn('papers', 'pages'));
  await cameIn(page, 5);
  for (const name of ['Kiosk', 'Leaflet', 'Opening times', 'Everything survives', 'Shed calendar'])
    await expect(onSheet(page, name)).toBeVisible();
  await onSheet(page, 'Shed calendar').dblclick();
  const picture = page.frameLocator('iframe').first();
  await expect(picture.locator('header')).toHaveCSS('background-color', 'rgb(47, 74, 58)');
  await expect(picture.locator('header svg')).toBeVisible();
  await page.goto(page.url().replace(/intake.*/, 'intake/kiosk'));
  await page.getByRole('treeitem', { name: /^Actions/ }).click();
  await page.getByRole('button', { name: 'One picture' }).click();
  await expect(picture.getByRole('img', { name: 'Actions' })).toBeVisible();
});

test('pasted source becomes a screen that asks for its name', async ({ page }) => {
  await newProject(page, 'Pasted');
  await page.getByRole('button', { name: 'Paste source' }).click();
  await page.getByRole('textbox', { name: 'Source' }).fill('no tags here');
  await page.getByRole('button', { name: 'Bring it in' }).click();
  await expect(page.getByText('Give the screen a name.')).toBeVisible();
  await expect(page.getByText('This is neither HTML nor SVG')).toBeVisible();
  await page.getByRole('textbox', { name: 'Name of the screen' }).fill('Notice board');
  await page.getByRole('textbox', { name: 'Source' }).fill('<h1 style="color:#b9552d">Closed on Monday</h1>');
  await page.keyboard.press('Tab');
  await page.getByRole('button', { name: 'Bring it in' }).click();
  await cameIn(page, 1);
  await expect(onSheet(page, 'Notice board')).toHaveAccessibleName(/1 found|screen/);
  await onSheet(page, 'Notice board').dblclick();
  await expect(
    page.frameLocator('iframe').first().getByRole('heading', { name: 'Closed on Monday' }),
  ).toBeVisible();
});

test('screens come by link, and the source says when nothing has changed', async ({ page }) => {
  await newProject(page, 'By link');
  await page.getByRole('button', { name: 'From a link' }).click();
  const address = page.getByRole('textbox', { name: /^Address of a page/ });
  await address.fill('http://127.0.0.1:9/private.svg');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/private or local network/)).toBeVisible();
  const port = (await (await page.request.get('/api/settings')).json()).designPort as number;
  await address.fill(`http://127.0.0.1:${port}/mossgate/iteration-1.zip`);
  await page.keyboard.press('Enter');
  await cameIn(page, 15);
  await page.getByRole('button', { name: 'From a link' }).click();
  await page.getByRole('button', { name: 'Refresh' }).click();
  await expect(page.getByText(/^Nothing has changed at/)).toBeVisible();
});

test('a file that comes in again replaces its screen and keeps its wiring; undo brings the old one back', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Again');
  await page.goto(`/p/${id}/intake`);
  await page.getByLabel('Files', { exact: true }).setInputFiles({
    name: 'welcome.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from(
      readFileSync(path.join(demoFolder, 'welcome.svg'), 'utf8').replace(
        'Browse the tools',
        'See every tool',
      ),
    ),
  });
  await page.getByRole('button', { name: 'Take it in', exact: true }).click({ timeout: 30_000 });
  await expect(page.getByText(/^1 screen: 1 changed · decided elements:/)).toBeVisible();
  await openJunction(page, id, 'Welcome');
  await expect(departure(page, 'See every tool')).toContainText('Catalogue');
  await page.keyboard.press('Control+z');
  await expect(departure(page, 'Browse the tools')).toContainText('Catalogue');
});
