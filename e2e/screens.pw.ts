import { readFileSync } from 'node:fs';
import { expect, type Page, test } from '@playwright/test';
import { copyOfDemo, saved } from './support.ts';

const stage = (page: Page) => page.frameLocator('iframe[title^="Stage of"]').first();
const row = (page: Page, name: string | RegExp) => page.getByRole('treeitem', { name }).first();

test('a screen is settled by keyboard alone: Tab to the undecided, Enter, a letter', async ({ page }) => {
  const id = await copyOfDemo(page, 'Settled');
  await page.goto(`/p/${id}/screens/at/report-damage`);
  await expect(page.getByRole('tree')).toBeFocused();
  // One key after the other; whatever is proposed is taken, until nothing is undecided.
  await page.keyboard.press('Tab');
  await expect(page.getByRole('group', { name: 'Proposal' })).toContainText('header');
  for (let i = 0; i < 30 && (await page.getByRole('group', { name: 'Proposal' }).isVisible()); i++)
    await page.keyboard.press('Enter');
  await expect(page.getByText('0 undecided')).toBeVisible();
  // The flat drawing of a field is a field now, with its placeholder and its label.
  await expect(stage(page).getByRole('textbox', { name: 'Which part?' })).toHaveAttribute(
    'placeholder',
    'Blade, guard, cable …',
  );
  await expect(stage(page).locator('textarea')).toHaveCount(1);
  await expect(stage(page).getByRole('heading', { level: 1 })).toHaveText('Report damage');
  await saved(page);

  await row(page, /^Safe/).click();
  await page.getByRole('tree').focus();
  await page.keyboard.press('d');
  await expect(row(page, /^Safe, dialog/)).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(row(page, /^Safe, dialog/)).toHaveCount(0);
});

test('roles that are sure are taken together, on one screen and on all; one is given to all that are alike', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Bulk');
  await page.goto(`/p/${id}/screens/at/catalogue`);
  await page.getByRole('button', { name: /^Take \d+ that (is|are) sure/ }).click();
  await expect(row(page, /^Search field, search field/)).toBeVisible();
  await expect(stage(page).getByRole('searchbox')).toHaveAttribute('placeholder', 'Search 214 tools');

  await row(page, /^Tool row, list item/).click();
  await page.getByRole('tree').focus();
  await page.keyboard.press('b');
  await row(page, /^Tool row, button/).click();
  await page.getByRole('button', { name: /^Same for all 5 like this/ }).click();
  await expect(stage(page).locator('button[data-key="catalogue:8/4"]')).toHaveCount(1);

  await page.getByRole('link', { name: 'Board' }).click();
  await page.getByRole('button', { name: 'Take them on all screens' }).click();
  await expect(page.getByText('All roles that are sure are decided')).toBeVisible();
  await saved(page);
});

test('text, look and layout are changed in place, per width and state, and taken back one by one', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Edited');
  await page.goto(`/p/${id}/screens/at/welcome`);
  await row(page, /^Browse button/).click();
  await page.getByRole('tab', { name: 'Look' }).click();
  await page.getByRole('textbox', { name: 'Text', exact: true }).fill('See the tools');
  await page.keyboard.press('Enter');
  await expect(stage(page).getByText('See the tools')).toBeVisible();
  await page.getByRole('textbox', { name: 'Ground', exact: true }).fill('#123456');
  await page.keyboard.press('Enter');
  const button = stage(page).locator('[data-key="welcome:5"]').first();
  await expect(button).toHaveCSS('background-color', 'rgb(18, 52, 86)');

  // Narrower: what is said then holds up to that width only.
  await page.getByRole('slider', { name: 'Width of the window' }).focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowLeft');
  await page.getByRole('button', { name: /as it is/ }).click();
  await page.getByRole('option', { name: 'up to 360 px' }).click();
  await page.getByRole('textbox', { name: 'Corners', exact: true }).fill('20');
  await page.keyboard.press('Enter');
  await expect(button).toHaveCSS('border-top-left-radius', '20px');
  await expect(page.getByRole('button', { name: 'Breakpoint up to 360 px' })).toBeVisible();
  await page.getByRole('button', { name: 'To the drawn width, 390 px' }).click();
  await expect(button).not.toHaveCSS('border-top-left-radius', '20px');
  await saved(page);

  await page.getByRole('tab', { name: /^Edits/ }).click();
  const edits = page.getByRole('list', { name: 'Edits on this screen' });
  await expect(edits).toContainText('background-color: #123456');
  await page.getByRole('button', { name: /^Take back background-color/ }).click();
  await expect(button).toHaveCSS('background-color', 'rgb(47, 74, 58)');
  await expect(stage(page).getByText('See the tools')).toBeVisible();
});

test('how an element looks when hovered is seen while it is decided, and in the running app', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Hovered');
  await page.goto(`/p/${id}/screens/at/welcome`);
  await row(page, /^Browse button/).click();
  await page.getByRole('tab', { name: 'Look' }).click();
  await page.getByRole('button', { name: /as it is/ }).click();
  await page.getByRole('option', { name: 'when hovered' }).click();
  await page.getByRole('textbox', { name: 'Ground', exact: true }).fill('#884422');
  await page.keyboard.press('Enter');
  const button = stage(page).locator('[data-key="welcome:5"]').first();
  await expect(button).toHaveCSS('background-color', 'rgb(136, 68, 34)');
  await page.getByRole('tab', { name: 'Role' }).click();
  await expect(button).toHaveCSS('background-color', 'rgb(47, 74, 58)');
  await saved(page);

  await page.goto(`/p/${id}/run?at=/`);
  const frame = page.locator('iframe').first();
  await expect(frame).toHaveAttribute('src', /./);
  await page.goto((await frame.getAttribute('src'))!);
  const link = page.getByRole('link', { name: 'Browse the tools' });
  await expect(link).toHaveCSS('background-color', 'rgb(47, 74, 58)');
  await link.hover();
  await expect(link).toHaveCSS('background-color', 'rgb(136, 68, 34)');
});

test('a value that would leave its declaration is not taken', async ({ page }) => {
  const id = await copyOfDemo(page, 'Refused');
  await page.goto(`/p/${id}/screens/at/welcome`);
  await row(page, /^Browse button/).click();
  await page.getByRole('tab', { name: 'Look' }).click();
  await page.getByRole('textbox', { name: 'Shadow', exact: true }).fill('red; } body { display: none');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('plain style value');
  await expect(stage(page).getByText('Browse the tools')).toBeVisible();
});

test('a control is added in the style of the design’s own, and removed', async ({ page }) => {
  const id = await copyOfDemo(page, 'Added');
  await page.goto(`/p/${id}/screens/at/sign-in`);
  await row(page, /^Sign in button/).click();
  await page.getByRole('button', { name: /^Add/ }).click();
  await page.getByRole('menuitem', { name: 'Message' }).click();
  await expect(stage(page).getByRole('status')).toHaveText('Something to say');
  await page.getByRole('tab', { name: 'Look' }).click();
  await page.getByRole('button', { name: 'Remove' }).click();
  await expect(stage(page).getByRole('status')).toHaveCount(0);
});

test('a side bar is hidden on narrow windows and comes out as a drawer in the running app', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Drawer');
  await page.goto(`/p/${id}/screens/at/desk?element=${encodeURIComponent('desk:1/0/0')}`);
  await page.getByRole('tab', { name: 'Look' }).click();
  await page.getByRole('button', { name: /offer as a drawer/ }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Menu');
  await page.getByRole('button', { name: 'Make it a drawer' }).click();
  await expect(page.getByText('A drawer up to 767 px')).toBeVisible();
  await saved(page);

  await page.goto(`/p/${id}/run?at=/desk`);
  const frame = page.locator('iframe').first();
  await expect(frame).toHaveAttribute('src', /./);
  const address = (await frame.getAttribute('src'))!;
  await page.goto(address);
  await expect(page.getByText('Today at the desk')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Members' })).toBeVisible();
  await page.setViewportSize({ width: 600, height: 800 });
  await page.goto(address);
  await expect(page.getByText('Today at the desk')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Members' })).toBeHidden();
  await page.getByRole('button', { name: 'Menu' }).click();
  await page.getByRole('dialog', { name: 'Menu' }).getByRole('link', { name: 'Members' }).click();
  await expect(page.getByRole('heading', { name: 'Members' })).toBeVisible();
});

test('what repeats is taken, renamed, split and given up; the code has it', async ({ page }) => {
  const id = await copyOfDemo(page, 'Repeats');
  await page.goto(`/p/${id}/screens/repeats`);
  const list = page.getByRole('listbox', { name: 'What repeats' });
  await list.getByRole('option', { name: /^ToolRow, list, 5 places, proposed/ }).click();
  await expect(page.getByRole('heading', { name: '5 rows' })).toBeVisible();
  await expect(page.getByRole('table')).toContainText('image');
  await page.getByRole('button', { name: 'Take it' }).click();
  await list.getByRole('option', { name: /^ToolRow, list, 5 places, taken/ }).click();
  await page.getByRole('textbox', { name: 'Name of name' }).fill('tool');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('textbox', { name: 'Name of tool' })).toBeVisible();
  await saved(page);

  await page.goto(`/p/${id}/deliver`);
  const files = page.getByRole('treegrid', { name: 'Files' });
  await files.getByRole('row', { name: 'components' }).click();
  await files.getByRole('row', { name: 'ToolRow', exact: true }).click();
  await files.getByRole('row', { name: 'ToolRow.tsx' }).click();
  await expect(page.getByText('tool: string;')).toBeVisible();

  await page.goto(`/p/${id}/screens/repeats`);
  await list.getByRole('option', { name: /^ToolRow, list, 5 places, taken/ }).click();
  await page.getByRole('checkbox').first().check();
  await page.getByRole('button', { name: 'Let 1 go their own way' }).click();
  await expect(page.getByRole('heading', { name: '4 rows' })).toBeVisible();
  await page.getByRole('button', { name: 'Give it up' }).click();
  await expect(list.getByRole('option', { name: /^ToolRow.*taken/ })).toHaveCount(0);

  await list.getByRole('option', { name: /^Header, component/ }).click();
  await page.getByRole('button', { name: 'Refuse' }).click();
  await expect(list.getByRole('option', { name: /^Header, component/ })).toHaveCount(0);
  await page.reload();
  await expect(list.getByRole('option').first()).toBeVisible();
  await expect(list.getByRole('option', { name: /^Header, component/ })).toHaveCount(0);
});

test('tokens are named, changed on every screen at once, merged, exported and imported', async ({ page }) => {
  const id = await copyOfDemo(page, 'Tokens');
  await page.goto(`/p/${id}/screens/tokens`);
  await page.getByRole('button', { name: /^Name all \d+ values/ }).click();
  await expect(page.getByText('All are named')).toBeVisible();
  await page
    .getByRole('button', { name: /^Merge|^Make .* be / })
    .first()
    .click();
  await page.getByRole('textbox', { name: 'Name of color-green-2' }).fill('color-pine');
  await page.keyboard.press('Enter');
  await page.getByRole('textbox', { name: 'Value of color-pine', exact: true }).fill('#7a1f5c');
  await page.keyboard.press('Enter');
  await saved(page);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export as JSON' }).click();
  const json = JSON.parse(readFileSync(await (await download).path(), 'utf8')) as {
    color: Record<string, { $value: { hex: string } }>;
  };
  expect(json.color['color-pine'].$value.hex).toBe('#7a1f5c');

  await page.getByLabel('A file of design tokens').setInputFiles({
    name: 'brand.json',
    mimeType: 'application/json',
    buffer: Buffer.from(
      JSON.stringify({
        color: { 'color-pine': { $type: 'color', $value: '#0a3d62' } },
        time: { slow: { $type: 'duration', $value: '1s' } },
      }),
    ),
  });
  await expect(page.getByRole('status').filter({ hasText: 'brand.json' })).toContainText(
    'time.slow: of type duration',
  );
  for (const [screen, key] of [
    ['welcome', 'welcome:5'],
    ['report-damage', 'report-damage:8'],
  ]) {
    await page.goto(`/p/${id}/screens/at/${screen}`);
    await expect(stage(page).locator(`[data-key="${key}"]`).first()).toHaveCSS(
      'background-color',
      'rgb(10, 61, 98)',
    );
  }
});
