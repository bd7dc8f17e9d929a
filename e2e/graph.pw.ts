import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { copyOfDemo, departure, newProject, openJunction, saved } from './support.ts';

test('a route is typed anew in the tree, moved in and out by keyboard, and dragged under another', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Tree');
  await page.goto(`/p/${id}/map`);
  const tree = page.getByRole('tree', { name: 'Routes' });
  const item = (name: string | RegExp) => tree.getByRole('treeitem').filter({ hasText: name });
  await item('Tool detail').focus();
  await page.keyboard.press('Enter');
  const field = page.getByRole('textbox', { name: 'Route of Tool detail' });
  await field.fill('/tools');
  await expect(tree.getByRole('alert')).toContainText('Catalogue has this route already');
  await page.keyboard.press('Enter');
  await expect(field).toBeVisible();
  await field.fill('/tools/:toolId');
  await page.keyboard.press('Enter');
  await expect(item('Tool detail')).toContainText(':toolId');
  await expect(item('Tool detail')).toBeFocused();
  await item('Tool detail').click();
  await expect(page.getByRole('textbox', { name: 'Shown with :toolId' })).toHaveValue('hedge-trimmer');

  // What lies below comes along, and links follow by themselves.
  await item(/Catalogue/).focus();
  await page.keyboard.press('F2');
  await page.keyboard.type('/things');
  await page.keyboard.press('Enter');
  await openJunction(page, id, 'Catalogue');
  await expect(departure(page, 'Hedge trimmer')).toContainText('/things/:toolId');

  await page.goto(`/p/${id}/map`);
  await item('House rules').focus();
  await page.keyboard.press('Alt+ArrowRight');
  await expect(item('House rules')).toHaveAttribute('aria-level', '2');
  await page.keyboard.press('Alt+ArrowLeft');
  await expect(item('House rules')).toHaveAttribute('aria-level', '1');
  await item('House rules').dragTo(item('Today at the desk'));
  await expect(item('House rules')).toHaveAttribute('title', /at \/desk\/rules/);
});

test('a guarded screen shows another one until its condition holds, in the running app, too', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Guard');
  await page.goto(`/p/${id}/map`);
  await page.getByRole('treeitem').filter({ hasText: 'My loans' }).click();
  const details = page.getByRole('region', { name: 'Route of My loans' });
  await details.getByRole('button', { name: /Can be entered/ }).click();
  await page.getByRole('option', { name: /something new/ }).click();
  await page.getByRole('textbox', { name: 'What must be so' }).fill('Signed in');
  await page.keyboard.press('Enter');
  await expect(details.getByRole('button', { name: /Else shows/ })).toContainText('Sign in');
  await expect(page.getByRole('region', { name: 'Findings' })).toContainText(
    'Nobody reaches My loans from Welcome: it is entered only if signed in',
  );

  await openJunction(page, id, 'Sign in');
  await departure(page, 'Sign in').first().click();
  await page.getByRole('button', { name: 'More' }).click();
  await page.getByRole('button', { name: /Another step/ }).click();
  await page.getByRole('option', { name: 'Signed in: yes' }).click();
  await expect(departure(page, 'Sign in').first()).toContainText('Signed in: yes, then');
  await saved(page);

  await page.goto(`/p/${id}/run?at=/loans`);
  const app = page.frameLocator('iframe[title="The running app"]');
  const address = page.getByRole('textbox', { name: 'Address in the app' });
  await expect(address).toHaveValue('/sign-in');
  await app.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(address).toHaveValue('/loans');
});

test('an element does several things: another gesture, a condition, and all places of a list', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Several');
  await openJunction(page, id, 'Catalogue');
  await departure(page, 'Hedge trimmer').click();
  await page.getByRole('button', { name: 'Also' }).click();
  await page.getByRole('menuitem', { name: 'Another gesture or condition' }).click();
  const second = page.locator('tr[data-row$="|2"]');
  await expect(second).toContainText('long press');
  await expect(second).toContainText('also');
  await second.click();
  await page.keyboard.press('Enter');
  await page.keyboard.type('house');
  await page.keyboard.press('Enter');
  await expect(second).toContainText('/rules');
  await expect(departure(page, 'Hedge trimmer').first()).toContainText('/tools/detail');

  // Several lines at once.
  await departure(page, 'Apple press').click();
  await departure(page, 'Loft ladder').click({ modifiers: ['Shift'] });
  await expect(page.getByRole('group', { name: 'Edit 2 elements' })).toBeVisible();
  await departure(page, 'Loft ladder').focus();
  await page.keyboard.type('tool d');
  await page.keyboard.press('Enter');
  await expect(departure(page, 'Apple press')).toContainText('Tool detail');
  await expect(departure(page, 'Loft ladder')).toContainText('Tool detail');
});

test('wiring is typed line by line, copied from another screen, and pasted', async ({ page }) => {
  const id = await copyOfDemo(page, 'Typed');
  await openJunction(page, id, 'Catalogue');
  await page.getByRole('button', { name: 'Wiring' }).click();
  await page.getByRole('menuitem', { name: /Type it/ }).click();
  await page
    .getByRole('textbox', { name: /A line each/ })
    .fill('garden → House rules fade\nwod → Catalogue\n5 long press → back');
  const sheet = page.getByRole('dialog');
  await expect(sheet).toContainText('nothing on this screen is called “wod”');
  await sheet.getByRole('button', { name: 'Wire the 2 that are clear' }).click();
  await expect(departure(page, 'Garden')).toContainText('fade 240 ms');
  await expect(departure(page, 'Bike')).toContainText('long press');

  await departure(page, 'Garden').focus();
  await page.keyboard.press('Control+c');
  await departure(page, 'Wood').focus();
  await page.keyboard.press('Control+v');
  await expect(departure(page, 'Wood')).toContainText('House rules');

  await openJunction(page, id, 'House rules');
  await page.getByRole('button', { name: 'Wiring' }).click();
  await page.getByRole('menuitem', { name: /Copy it/ }).click();
  await expect(page.getByRole('dialog')).toContainText(/Copy wiring to House rules/);
  await page.keyboard.press('Escape');
});

test('a screen becomes an overlay that opens, closes by Escape and by its elements, and gives the focus back', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Overlay');
  await openJunction(page, id, 'Reserve');
  await page.getByRole('button', { name: 'Wiring' }).click();
  await page.getByRole('menuitem', { name: 'Make it an overlay' }).click();
  await page.getByRole('button', { name: 'Make it an overlay' }).click();
  await expect(page.getByRole('region', { name: 'Stage: Reserve' })).toContainText('overlay');
  await openJunction(page, id, 'Tool detail');
  await expect(departure(page, 'Reserve')).toContainText('opens');
  await saved(page);

  await page.goto(`/p/${id}/run?at=/tools/detail`);
  const app = page.frameLocator('iframe[title="The running app"]');
  const opener = app.getByRole('button', { name: 'Reserve', exact: true });
  await opener.click();
  const dialog = app.getByRole('dialog', { name: 'Reserve' });
  await expect(dialog).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(dialog).toBeHidden();
  await expect(opener).toBeFocused();
});

test('a screen that is not drawn yet is planned, counts as open work, and is drawn later', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Planned');
  await openJunction(page, id, 'Catalogue');
  await departure(page, 'Bar: Help').focus();
  await page.keyboard.type('Opening hours');
  await page.getByRole('option', { name: /Opening hours.*to be drawn/ }).click();
  await expect(departure(page, 'Bar: Help')).toContainText('/opening-hours');
  await page.goto(`/p/${id}/map`);
  await expect(page.getByRole('treeitem').filter({ hasText: 'Opening hours' })).toContainText('to be drawn');
  await expect(page.getByRole('region', { name: 'Findings' })).toContainText(
    'Opening hours is still to be drawn; 1 link leads to it.',
  );
  await saved(page);
  await page.goto(`/p/${id}/run?at=/opening-hours`);
  const app = page.frameLocator('iframe[title="The running app"]');
  await expect(app.getByText('This screen is still to be drawn.')).toBeVisible();

  await page.goto(`/p/${id}/intake`);
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles({
      name: 'opening-hours.svg',
      mimeType: 'image/svg+xml',
      buffer: Buffer.from(
        '<svg xmlns="http://www.w3.org/2000/svg" width="390" height="844"><text x="24" y="60" font-size="22">Monday to Friday</text></svg>',
      ),
    });
  await expect(page.getByRole('option', { name: /^Opening hours, screen/ })).toBeVisible();
  await saved(page);
  await page.goto(`/p/${id}/map`);
  await expect(page.getByRole('treeitem').filter({ hasText: 'Opening hours' })).not.toContainText(
    'to be drawn',
  );
  await openJunction(page, id, 'Catalogue');
  await expect(departure(page, 'Bar: Help')).toContainText('Opening hours');
  await expect(departure(page, 'Bar: Help')).toContainText('live');
});

test('a journey is recorded in Run, checked on the map, and breaks with a reason when a link goes', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Journey');
  await page.goto(`/p/${id}/run`);
  const app = page.frameLocator('iframe[title="The running app"]');
  const address = page.getByRole('textbox', { name: 'Address in the app' });
  await expect(app.getByRole('link', { name: 'Browse the tools' })).toBeVisible();
  await page.getByRole('button', { name: 'Record a journey' }).click();
  await app.getByRole('link', { name: 'Browse the tools' }).click();
  await expect(address).toHaveValue('/tools');
  await app.getByText('Pillar drill').click();
  await expect(address).toHaveValue('/tools/detail');
  await app.getByRole('link', { name: 'Reserve' }).click();
  await page.getByRole('button', { name: /Recording · 3 steps/ }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('First reservation');
  await page.keyboard.press('Enter');
  const journey = page.getByRole('region', { name: 'Journey First reservation' });
  await expect(journey.getByRole('listitem')).toHaveText([
    'Welcome',
    '1 Browse the tools → Catalogue',
    '2 Pillar drill → Tool detail',
    '3 Reserve → Reserve',
  ]);
  await journey.getByRole('button', { name: /Next on Reserve/ }).click();
  await page.getByRole('option', { name: 'Reserve for Tuesday → My loans' }).click();
  await expect(journey.getByRole('listitem')).toHaveCount(5);
  const download = page.waitForEvent('download');
  await journey.getByRole('button', { name: 'Save as a test' }).click();
  const written = readFileSync(await (await download).path(), 'utf8');
  expect(written).toContain("test('First reservation', async ({ page }) => {");
  expect(written).toContain("getByRole('link', { name: 'Browse the tools', exact: true }).click();");
  await saved(page);

  await openJunction(page, id, 'Tool detail');
  await departure(page, 'Reserve').focus();
  await page.keyboard.press('Delete');
  await page.goto(`/p/${id}/map`);
  await expect(page.getByRole('region', { name: 'Journeys' })).toContainText('stuck at 3');
  await expect(page.getByRole('region', { name: 'Findings' })).toContainText(
    'The journey “First reservation” breaks at step 3',
  );
});

test('lines: stations by keyboard, search, what leads where; findings in place, with a reason to let them stand', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Lines');
  await page.goto(`/p/${id}/map`);
  const lines = page.getByRole('region', { name: 'Lines' });
  await lines.getByRole('button', { name: /^Welcome/ }).focus();
  await page.keyboard.press('ArrowRight');
  await expect(lines.getByRole('button', { name: /^Catalogue/ })).toBeFocused();
  await expect(page.getByRole('region', { name: 'About Catalogue' })).toContainText('1 press from the start');
  await page.getByRole('searchbox', { name: 'Find a screen' }).fill('repairs');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'About Repairs' })).toContainText(
    'Every way there passes through Sign in',
  );

  const findings = page.getByRole('region', { name: 'Findings' });
  await findings.getByRole('button', { name: /In groups/ }).click();
  await page.getByRole('option', { name: 'by screen' }).click();
  await expect(findings.getByRole('heading', { name: /^Welcome · \d/ })).toBeVisible();
  const list = findings.getByRole('listbox', { name: 'What was found' });
  await list.focus();
  await page.keyboard.press('ArrowDown');
  await expect(findings.getByRole('region', { name: /^Picture of/ })).toBeVisible();
  const looked = await list.getByRole('option', { selected: true }).locator('span').first().textContent();
  await page.keyboard.press('d');
  await page.getByRole('textbox', { name: 'Why' }).fill('It opens the door of the shed');
  await page.keyboard.press('Enter');
  await expect(list).not.toContainText(looked!);
  await findings.getByRole('button', { name: '1 may stand' }).click();
  await expect(page.getByRole('dialog')).toContainText('It opens the door of the shed');
  await page.getByRole('button', { name: 'Bring back' }).click();
  await page.keyboard.press('Escape');
  await expect(list).toContainText(looked!);
});

test('what screens share around them becomes a layout route', async ({ page }) => {
  const id = await copyOfDemo(page, 'Layout');
  await page.goto(`/p/${id}/map`);
  await page.getByRole('button', { name: '14 screens' }).click();
  await page.getByRole('menuitem', { name: /Layouts/ }).click();
  const sheet = page.getByRole('dialog');
  await expect(sheet).toContainText('they have the same 7 links around them');
  await sheet.getByRole('button', { name: 'Take' }).click();
  await expect(sheet.getByRole('button', { name: 'Dissolve' })).toBeVisible();
  await page.keyboard.press('Escape');
  await saved(page);
  await page.goto(`/p/${id}/run?at=/desk/members`);
  const app = page.frameLocator('iframe[title="The running app"]');
  await expect(app.getByRole('heading', { name: 'Members' })).toBeVisible();
  await app.getByRole('link', { name: /^Tools/ }).click();
  await expect(page.getByRole('textbox', { name: 'Address in the app' })).toHaveValue('/desk/tools');
  await expect(app.getByRole('navigation')).toBeVisible();
});

test('all that is proposed is taken above a chosen sureness, and words of the project count', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Proposals');
  await openJunction(page, id, 'Catalogue');
  await page.getByRole('button', { name: 'Wiring' }).click();
  await page.getByRole('menuitem', { name: 'Words that mean the same' }).click();
  await page.getByRole('textbox', { name: 'Word' }).fill('garden');
  await page.getByRole('textbox', { name: 'Means' }).fill('repairs');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toContainText('garden = repairs');
  await page.keyboard.press('Escape');
  await expect(departure(page, 'Garden')).toContainText(/Repairs\? \d+ %/);

  await page.getByRole('button', { name: 'Wiring' }).click();
  await page.getByRole('menuitem', { name: 'All that is proposed' }).click();
  const sheet = page.getByRole('dialog');
  const take = sheet.getByRole('button', { name: /^Take \d+(, \d+ links)?$/ });
  const sure = await take.textContent();
  await sheet.getByRole('slider').fill('35');
  await expect(take).not.toHaveText(sure!);
  await take.click();
  await expect(departure(page, 'Garden')).toContainText('live');
  await page.keyboard.press('Control+z');
  await expect(departure(page, 'Garden')).toContainText('proposed');
});

test('a drawing of a screen with a dialog on it is cut into screen and overlay', async ({ page }) => {
  const button = (name: string, x: number, y: number): string =>
    `<g id="${name}" data-name="${name} button"><rect x="${x}" y="${y}" width="120" height="40" rx="8" fill="#234"/><text x="${x + 60}" y="${y + 25}" font-size="14" text-anchor="middle" fill="#fff">${name}</text></g>`;
  const drawing = `<svg xmlns="http://www.w3.org/2000/svg" width="390" height="844" viewBox="0 0 390 844"><text x="24" y="60" font-size="22">Loans</text>${button('Return', 24, 100)}<rect width="390" height="844" fill="#000" fill-opacity="0.4"/><g id="Confirm dialog"><rect x="40" y="300" width="310" height="180" rx="12" fill="#fff"/><text x="60" y="340" font-size="20">Really?</text>${button('Cancel', 50, 400)}${button('Yes', 200, 400)}</g></svg>`;
  const id = await newProject(page, 'Cut');
  await page.getByLabel('Files', { exact: true }).setInputFiles({
    name: 'loans.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from(drawing),
  });
  await expect(page.getByRole('option', { name: /^Loans/ })).toBeVisible();
  await openJunction(page, id, 'Loans');
  await page.getByRole('button', { name: 'Wiring' }).click();
  await page.getByRole('menuitem', { name: 'Make it an overlay' }).click();
  await expect(page.getByRole('dialog')).toContainText('“Cancel” will close it');
  await page.getByRole('button', { name: 'Cut it out' }).click();
  await expect(departure(page, 'Cancel')).toHaveCount(0);
  await departure(page, 'Return').focus();
  await page.keyboard.type('confirm');
  await page.keyboard.press('Enter');
  await expect(departure(page, 'Return')).toContainText('opens');
  await openJunction(page, id, 'Confirm dialog');
  await expect(departure(page, 'Cancel')).toContainText('Close');
  await saved(page);

  await page.goto(`/p/${id}/run`);
  const app = page.frameLocator('iframe[title="The running app"]');
  await app.getByRole('button', { name: 'Return' }).click();
  await expect(app.getByRole('dialog', { name: 'Confirm dialog' })).toBeVisible();
  await app.getByRole('button', { name: 'Cancel' }).click();
  await expect(app.getByRole('dialog')).toBeHidden();
});
