import { readFileSync } from 'node:fs';
import { expect, type Page, test } from '@playwright/test';
import { copyOfDemo, saved } from './support.ts';

const item = (page: Page, name: RegExp) => page.getByRole('option', { name });
const cell = (page: Page, text: string) => page.getByRole('gridcell', { name: text, exact: true });

test('records are taken from what is drawn, written anew by keyboard, and the screens say it', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Records');
  await page.goto(`/p/${id}/data`);
  // Enter takes what was pressed, whether it is shown yet or not.
  await item(page, /^tools, 5 records, proposed/).click();
  await page.keyboard.press('Enter');
  await expect(item(page, /^tools, 5 records, taken/)).toBeVisible();

  await cell(page, 'Apple press').click();
  await page.keyboard.press('Enter');
  await page.getByRole('textbox', { name: 'name of Apple press' }).fill('Cider press');
  await page.keyboard.press('Enter');
  await expect(cell(page, 'Cider press')).toBeVisible();
  // Escape leaves a cell as it was; a letter begins anew.
  await page.keyboard.press('Home');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.type('X');
  await page.keyboard.press('Escape');
  await expect(cell(page, 'Tile cutter')).toBeFocused();
  await saved(page);

  for (const screen of ['catalogue', 'desk-tools']) {
    await page.goto(`/p/${id}/screens/at/${screen}`);
    const stage = page.frameLocator('iframe[title^="Stage of"]').first();
    await expect(stage.getByText('Cider press')).toBeVisible();
    await expect(stage.getByText('Apple press')).toHaveCount(0);
  }
});

test('values come from a spreadsheet and go out as CSV; what has no place is told', async ({ page }) => {
  const id = await copyOfDemo(page, 'Table');
  await page.goto(`/p/${id}/data`);
  await item(page, /^members, 5 records, proposed/).click();
  await page.getByRole('button', { name: 'Take it' }).click();
  await page.getByRole('button', { name: 'Paste values …' }).click();
  const sheet = page.getByRole('dialog', { name: 'Values for members' });
  await sheet.getByRole('textbox').fill('name\tloans\tage\nInes Okafor\t5\t40\nMarit Solberg\t1\t50\n');
  await expect(sheet.getByText('1 value differs from now.')).toBeVisible();
  await expect(sheet.getByText('Line 1: “age” is no field, and was left out.')).toBeVisible();
  await sheet.getByRole('button', { name: 'Take 1 value' }).click();
  await expect(cell(page, '5')).toBeVisible();

  await page.getByRole('button', { name: /^Save as/ }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'CSV' }).click();
  const [head, first] = readFileSync(await (await download).path(), 'utf8').split('\n');
  expect(head).toBe('name,street,loans,member');
  expect(first).toBe('Ines Okafor,Alder Lane,5,since March');
  // Undone, it says again what was drawn.
  await page.keyboard.press('Control+z');
  await expect(cell(page, '2')).toBeVisible();
});

test('a collection is added and filled in; what speaks of one that is called otherwise follows', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Names');
  await page.goto(`/p/${id}/data`);
  await item(page, /^Texts/).click();
  await page.getByRole('button', { name: 'Let it say so' }).first().click();
  const says = page.getByRole('combobox', { name: 'What Catalogue says here' });
  await expect(says).toHaveValue('`Search ${count(tools)} tools`');
  await item(page, /^tools/).click();
  const called = page.getByRole('textbox', { name: 'What it is called in code' });
  await called.fill('1st');
  await expect(page.getByText('Letters and digits, a letter first.')).toBeVisible();
  await called.fill('machines');
  await called.press('Enter');
  await item(page, /^Texts/).click();
  await expect(says).toHaveValue('`Search ${count(machines)} tools`');

  await page.getByRole('button', { name: 'Add a collection' }).click();
  await page.getByRole('button', { name: 'Add a record' }).click();
  await expect(item(page, /^records, 1 record, taken/)).toBeVisible();
});

test('a field is called and typed otherwise; what is refused stays away', async ({ page }) => {
  const id = await copyOfDemo(page, 'Fields');
  await page.goto(`/p/${id}/data`);
  await page.getByRole('button', { name: /^Take \d that (is|are) sure/ }).click();
  await item(page, /^members, .* taken/).click();
  await cell(page, 'since March').click();
  const name = page.getByRole('textbox', { name: 'Name in code' });
  await name.fill('name');
  await name.press('Enter');
  await expect(page.getByText('Another field is called so.')).toBeVisible();
  await name.fill('memberSince');
  await name.press('Enter');
  await expect(page.getByRole('columnheader', { name: /memberSince/ })).toBeVisible();

  const proposed = page.getByRole('option', { name: /proposed$/ });
  const count = await proposed.count();
  await proposed.first().click();
  await page.keyboard.press('Backspace');
  await expect(proposed).toHaveCount(count - 1);
  await saved(page);
  await page.reload();
  await expect(page.getByRole('option', { name: /taken$/ }).first()).toBeVisible();
  await expect(proposed).toHaveCount(count - 1);
});

test('forms and controls are listed, each with its way to where it stands', async ({ page }) => {
  const id = await copyOfDemo(page, 'Seen');
  await page.goto(`/p/${id}/data?at=forms`);
  await expect(page.getByText('New loan adds a record')).toBeVisible();
  await item(page, /^Controls/).click();
  await page.getByRole('option', { name: 'Earlier: Previous page' }).click();
  await page.getByRole('link', { name: 'Members', exact: true }).click();
  await expect(page).toHaveURL(/junction\/desk-members\?element=/);
  await expect(page.getByRole('region', { name: 'Stage: Members' })).toBeVisible();
});

/** The running app, at an address in it. */
async function runAt(page: Page, id: string, address: string, width: string) {
  await page.goto(`/p/${id}/run`);
  const app = page.frameLocator('iframe').first();
  await expect(app.getByText('Borrow the tool')).toBeVisible();
  await page
    .getByRole('radio', { name: width })
    .or(page.getByRole('button', { name: width }))
    .first()
    .click();
  const bar = page.getByRole('textbox', { name: 'Address' });
  await bar.fill(address);
  await bar.press('Enter');
  return app;
}

test('controls are chosen and made to work: a table sorts, searches and counts in the running app', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Deeds');
  await page.goto(`/p/${id}/data?at=controls`);
  const controls = page.getByRole('listbox', { name: 'Controls that can work' });
  await expect(controls.getByRole('option', { name: 'Loans: Sort by loans' })).toHaveAttribute(
    'aria-selected',
    'true',
  );
  // One is left out by keyboard, the others are made to work.
  await controls.getByRole('option', { name: 'Street: Sort by street' }).focus();
  await page.keyboard.press('Space');
  await page.keyboard.press('Enter');
  await expect(controls.getByRole('option')).toHaveCount(1);
  await expect(page.getByText('it does something already')).toBeVisible();
  await page.goto(`/p/${id}/data?at=texts`);
  await page
    .getByRole('button', { name: /^Let it say|^Let these/ })
    .first()
    .click();
  await expect(page.getByRole('combobox', { name: 'What Members says here' })).toHaveValue(
    '`${lastShown(members)} of ${found(members)}`',
  );
  await saved(page);

  const app = await runAt(page, id, '/desk/members', '1280');
  const names = app.locator('tbody tr td:first-child');
  await expect(app.getByText('5 of 5')).toBeVisible();
  await app.getByRole('button', { name: 'Loans' }).click();
  await app.getByRole('button', { name: 'Loans' }).click();
  await expect(names.first()).toHaveText('Wanda Pryce');
  await expect(app.getByRole('columnheader', { name: 'Loans' })).toHaveAttribute('aria-sort', 'descending');
  await app.getByRole('searchbox', { name: 'Find a member' }).fill('alder');
  await expect(names).toHaveText(['Wanda Pryce', 'Ines Okafor']);
  await expect(app.getByText('2 of 2')).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Address' })).toHaveValue(
    '/desk/members?sort=-loans&search=alder',
  );
  await app.getByRole('searchbox', { name: 'Find a member' }).fill('nobody');
  await expect(app.getByText('Nothing fits.')).toBeVisible();
});

test('a form is made to work: it checks what is filled in, and what it adds is in the list', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Lending');
  await page.goto(`/p/${id}/data?at=forms`);
  await page.getByRole('button', { name: /^Make all \d+ sure ones work/ }).click();
  await expect(page.getByText('Works: adds to loans')).toBeVisible();
  await page.getByRole('button', { name: 'What Member must be' }).click();
  const most = page.getByRole('textbox', { name: 'Most letters' });
  await most.fill('none');
  await most.press('Enter');
  await expect(page.getByText('A whole number, up to 10000')).toBeVisible();
  await most.fill('40');
  await most.press('Enter');
  await expect(page.getByRole('row', { name: /^Member/ })).toContainText('at most 40 letters');
  const message = page.getByRole('textbox', { name: 'Said where it is wrong' });
  await message.fill('Say who takes it.');
  await message.press('Enter');
  await saved(page);

  const app = await runAt(page, id, '/desk/new-loan', '1280');
  await app.getByRole('button', { name: 'Lend it' }).click();
  await expect(app.getByRole('alert')).toHaveText('Say who takes it.');
  await expect(app.getByLabel('Member', { exact: false }).first()).toBeFocused();
  await app.getByPlaceholder('Name or card number').fill('Ines Okafor');
  await expect(app.getByRole('alert')).toHaveCount(0);
  await app.getByRole('button', { name: 'Lend it' }).click();
  // What was added is seen where the desk lists it.
  const bar = page.getByRole('textbox', { name: 'Address' });
  await expect(bar).toHaveValue('/desk');
  await bar.fill('/desk/new-loan');
  await bar.press('Enter');
  await expect(app.getByPlaceholder('Name or card number')).toHaveValue('');

  // Who leaves with something filled in is asked first.
  await app.getByPlaceholder('Name or card number').fill('Marit');
  await app.getByRole('link', { name: 'Members' }).first().click();
  await app.getByRole('button', { name: 'Stay here' }).click();
  await expect(app.getByPlaceholder('Name or card number')).toHaveValue('Marit');
  await app.getByRole('link', { name: 'Members' }).first().click();
  await app.getByRole('button', { name: 'Leave it' }).click();
  await expect(bar).toHaveValue('/desk/members');
  await bar.fill('/loans');
  await bar.press('Enter');
  await expect(app.getByText('Loft ladder')).toHaveCount(2);

  // What happened is told beside it, and can be set back.
  await page.getByRole('button', { name: 'What it remembers' }).click();
  const panel = page.getByRole('complementary', { name: 'What the app remembers' });
  await expect(panel.getByRole('listitem').first()).toContainText('Added to loans');
  await expect(panel.getByRole('listitem').first()).toContainText('after “Lend it”');
  await panel.getByRole('button', { name: 'Set everything back' }).click();
  await expect(app.getByText('Loft ladder')).toHaveCount(1);
});

test('a screen that rows lead to shows the record that was pressed', async ({ page }) => {
  const id = await copyOfDemo(page, 'Details');
  await page.goto(`/p/${id}/data?at=texts`);
  await page.getByRole('button', { name: /^Let these/ }).click();
  await expect(page.getByRole('combobox', { name: 'What Tool detail says here' }).first()).toHaveValue(
    /^tool\.(name|picture)$/,
  );
  await saved(page);
  const app = await runAt(page, id, '/tools', '390');
  await app.getByText('Tile cutter').click();
  await expect(app.getByRole('heading', { name: 'Tile cutter' })).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Address' })).toHaveValue('/tools/tile-cutter');
  await app.getByText('Reserve').click();
  await expect(page.getByRole('textbox', { name: 'Address' })).toHaveValue('/tools/reserve/tile-cutter');
  await expect(app.getByText('Tile cutter')).toBeVisible();
});

test('a record more than those that are drawn is on the next page', async ({ page }) => {
  const id = await copyOfDemo(page, 'Further');
  await page.goto(`/p/${id}/data?at=controls`);
  await page.getByRole('button', { name: /^Make these/ }).click();
  await item(page, /^members, 5 records, taken/).click();
  await page.getByRole('button', { name: 'Add a record', exact: true }).click();
  await page.keyboard.type('Ylva Norr');
  await page.keyboard.press('Tab');
  await page.keyboard.type('Mill Street');
  await page.keyboard.press('Enter');
  await expect(cell(page, 'Ylva Norr')).toBeVisible();
  await page.getByRole('button', { name: 'Add a field', exact: true }).click();
  await page.keyboard.type('gold');
  await page.keyboard.press('Enter');
  await expect(cell(page, 'gold')).toBeVisible();
  await saved(page);
  const app = await runAt(page, id, '/desk/members', '1280');
  await app.getByRole('button', { name: 'Next' }).click();
  await expect(app.locator('tbody tr td:first-child')).toHaveText(['Ylva Norr']);
  await expect(app.getByRole('button', { name: 'Next' })).toBeDisabled();
});

test('an expression is completed and checked as one types, and said by the text', async ({ page }) => {
  const id = await copyOfDemo(page, 'Expressions');
  await page.goto(`/p/${id}/data?at=texts`);
  await page
    .getByRole('button', { name: /^Let it say|^Let these/ })
    .first()
    .click();
  const field = page.getByRole('combobox', { name: 'What Members says here' });
  await field.fill('`${sum(members, (one) => one.lo');
  await expect(page.getByRole('option', { name: 'loans number' })).toBeVisible();
  await page.keyboard.press('Enter');
  await page.keyboard.type(')} out`');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('cell', { name: '6 out', exact: true })).toBeVisible();
  await field.fill('count(membres)');
  await expect(page.getByText('nothing is called membres; there are')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await expect(field).toHaveValue('`${sum(members, (one) => one.loans)} out`');
});
