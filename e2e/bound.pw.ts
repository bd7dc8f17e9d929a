import { expect, type Page, test } from '@playwright/test';
import { newProject, openJunction, saved } from './support.ts';

const ROWS = [
  ['Hedge trimmer', 'Shed 2', 'free', '14'],
  ['Pillar drill', 'Workshop', 'out', '31'],
  ['Apple press', 'Shed 1', 'free', '7'],
  ['Tile cutter', 'Shed 2', 'out', '12'],
  ['Wet saw', 'Workshop', 'free', '4'],
];
/** A page of tools whose choice, numbers and chart stand still until somebody says what they show. */
const sheds = `<!doctype html><html lang="en"><title>Tools in the sheds</title><style>
  body { font-family: sans-serif } td, th { padding: 8px 12px; text-align: left } .chart { color: #2c6e49 }</style>
  <main><h1>Tools in the sheds</h1>
  <label>Shed <select name="shed"><option value="">Any shed</option><option>Shed 1</option></select></label>
  <p>Nothing picked yet</p>
  <table><thead><tr><th><input type="checkbox" aria-label="Select all"></th><th>Tool</th><th>Shed</th><th>Status</th><th>Loans</th><th>List</th></tr></thead>
  <tbody>${ROWS.map(
    (cells) =>
      `<tr><td><input type="checkbox" aria-label="Select"></td>${cells.map((cell) => `<td>${cell}</td>`).join('')}<td><button>Pick</button></td></tr>`,
  ).join('')}</tbody></table>
  <canvas class="chart" aria-label="Chart of loans" width="600" height="200"></canvas></main></html>`;

/** Says by an expression what an element shows; the element is found in the outline by its name. */
async function shows(page: Page, name: RegExp, what: string, source: string): Promise<void> {
  await page.getByRole('treeitem', { name }).first().click();
  await page.getByRole('button', { name: `${what}: work it out` }).click();
  const field = page.getByRole('combobox', { name: new RegExp(`^${what}, of`) });
  await field.fill(source);
  await field.press('Enter');
  await expect(field).toHaveValue(source);
}

test('choices, lists and charts follow records; what is picked is remembered; one box ticks all', async ({
  page,
}) => {
  const id = await newProject(page, 'Bound');
  await page
    .getByLabel('Files', { exact: true })
    .setInputFiles([{ name: 'sheds.html', mimeType: 'text/html', buffer: Buffer.from(sheds) }]);
  await expect(page.getByRole('heading', { name: '1 screen came in' })).toBeVisible({ timeout: 30_000 });
  await page.goto(`/p/${id}/data`);
  await page.getByRole('button', { name: 'Take it' }).click();
  await expect(page.getByRole('option', { name: /^tools, 5 records, taken/ })).toBeVisible();
  await page.getByRole('checkbox', { name: 'Required' }).check();
  await page.getByRole('option', { name: /^Controls/ }).click();
  await page.getByRole('button', { name: 'Make these 5 work' }).click();
  await page.getByRole('option', { name: /^Variables/ }).click();
  await page.getByRole('button', { name: 'Add a variable' }).click();
  const adding = page.getByRole('group', { name: 'A new variable' });
  await adding.getByRole('textbox', { name: 'Name' }).fill('Picked');
  await adding.getByRole('button', { name: /Is$/ }).click();
  await page.getByRole('option', { name: 'a list of texts' }).click();
  await adding.getByRole('button', { name: 'Add it' }).click();
  await expect(page.getByRole('textbox', { name: 'Name of Picked' })).toBeVisible();

  await saved(page);
  await openJunction(page, id, 'Tools in the sheds');
  await page
    .getByRole('row', { name: /Pick.*Hedge trimmer|Pick/ })
    .first()
    .click();
  await page.getByRole('combobox', { name: 'Goes to' }).fill('Picked = toggled(picked, tool.tool)');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('row', { name: /Picked: toggled/ }).first()).toBeVisible();
  await page.getByRole('button', { name: 'Also' }).click();
  await page.getByRole('menuitem', { name: /^At all 5 places/ }).click();
  await expect(page.getByRole('row', { name: /Picked: toggled/ })).toHaveCount(5);

  await saved(page);
  await page.goto(`/p/${id}/screens/at/sheds?tab=shows`);
  await shows(page, /^shed, select/, 'What can be chosen', 'unique(map(tools, (tool) => tool.shed))');
  await expect(page.getByText('Shed 2, Workshop, Shed 1 at first')).toBeVisible();
  await shows(
    page,
    /^Nothing picked yet/,
    'Its text',
    "count(picked) ? join(picked, ' and ') : 'Nothing picked'",
  );
  await shows(
    page,
    /^Tool Shed Status.*, table/,
    'Which records it shows',
    'filter(tools, (tool) => tool.loans > 5)',
  );
  await saved(page);
  // Of a long outline only what is near is there.
  await page.goto(`/p/${id}/screens/at/sheds?tab=shows&element=${encodeURIComponent('sheds:1/0/4')}`);
  await shows(page, /^Chart of loans/, 'How large its points are', 'map(tools, (tool) => tool.loans)');
  await saved(page);

  await page.goto(`/p/${id}/run`);
  const app = page.frameLocator('iframe').first();
  await expect(app.getByRole('combobox', { name: /Shed/ }).getByRole('option')).toHaveText([
    'Any shed',
    'Shed 2',
    'Workshop',
    'Shed 1',
  ]);
  await expect(app.getByRole('row')).toHaveCount(5);
  await expect(app.getByText('Wet saw')).toHaveCount(0);
  await expect(app.getByRole('img', { name: /14.*31.*7.*12.*4/ })).toBeVisible();
  await app.getByRole('checkbox', { name: 'Select all' }).check();
  for (const box of await app.getByRole('checkbox', { name: 'Select', exact: true }).all())
    await expect(box).toBeChecked();
  await app
    .getByRole('row', { name: /Apple press/ })
    .getByRole('button', { name: 'Pick' })
    .click();
  await app
    .getByRole('row', { name: /Tile cutter/ })
    .getByRole('button', { name: 'Pick' })
    .click();
  await expect(app.getByText('Apple press and Tile cutter')).toBeVisible();
  await app
    .getByRole('row', { name: /Apple press/ })
    .getByRole('button', { name: 'Pick' })
    .click();
  await expect(app.locator('p', { hasText: /^Tile cutter$/ })).toBeVisible();
});
