import { readFileSync } from 'node:fs';
import path from 'node:path';
import { expect, type Page, test } from '@playwright/test';
import { copyOfDemo, demoFolder, departure, newProject, openJunction } from './support.ts';

const catalogue = (change: (svg: string) => string) => ({
  name: 'catalogue.svg',
  mimeType: 'image/svg+xml',
  buffer: Buffer.from(change(readFileSync(path.join(demoFolder, 'catalogue.svg'), 'utf8'))),
});

/** Chooses a newer file at Intake; ends at Iterate, where it waits. */
const bring = async (page: Page, id: string, file: ReturnType<typeof catalogue>): Promise<void> => {
  await page.goto(`/p/${id}/intake`);
  await page.getByLabel('Files', { exact: true }).setInputFiles(file);
  await expect(page.getByRole('heading', { name: 'The next round, not taken in yet' })).toBeVisible({
    timeout: 30_000,
  });
};
/** A drawing of a phone's size. */
const drawing = (name: string, body: string) => ({
  name,
  mimeType: 'image/svg+xml',
  buffer: Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="390" height="844"><rect width="390" height="844" fill="#fff"/>${body}</svg>`,
  ),
});
const button = (name: string, x: number, y: number): string =>
  `<g id="${name}" data-name="${name} button"><rect x="${x}" y="${y}" width="120" height="40" rx="8" fill="#234"/><text x="${x + 60}" y="${y + 25}" font-size="14" text-anchor="middle" fill="#fff">${name}</text></g>`;
/** A project of its own from a few drawings. */
const projectFrom = async (
  page: Page,
  name: string,
  ...files: ReturnType<typeof drawing>[]
): Promise<string> => {
  const id = await newProject(page, name);
  await page.getByLabel('Files', { exact: true }).setInputFiles(files);
  // They show before they are in.
  await expect(
    page.getByRole('heading', { name: new RegExp(`^${files.length} screens? came in`) }),
  ).toBeVisible({ timeout: 30_000 });
  return id;
};
const take = (page: Page) => page.getByRole('button', { name: /^Take it in/ }).click();

test('a redrawn screen shows what differs before it is taken in, keeps its links, and is taken back', async ({
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
        /<\/svg>\s*$/,
        '<rect id="Hairline" width="390" height="1" fill="#ddd8ca"/><g id="Chip_Near" data-name="Chip Near"><rect x="300" y="210" width="64" height="32" rx="16" fill="#eee"/><text x="332" y="231" font-size="14" text-anchor="middle">Near</text></g></svg>',
      ),
    ),
  );
  await expect(
    page.getByText(/^1 screen: 1 changed · 4 links: 4 kept, 0 to decide, 0 let go$/),
  ).toBeVisible();
  await page.getByRole('option', { name: /^Catalogue/ }).click();
  const near = page.getByRole('list', { name: 'What differs' }).getByRole('button', { name: /^Near: new/ });
  await near.focus();
  await expect(page.locator('[data-side="after"] [data-outline]')).toHaveCount(1);
  await page.getByRole('button', { name: 'Over each other' }).click();
  await expect(page.getByRole('slider', { name: 'How much of the newer one shows' })).toBeVisible();
  await take(page);
  await expect(
    page.getByText(/^1 screen: 1 changed · decided elements: \d+ kept, 0 to decide/),
  ).toBeVisible();

  await openJunction(page, id, 'Catalogue');
  const names = (texts: readonly string[]): string[] => texts.map((text) => text.replace(/^\d+\s*/, ''));
  await expect(departure(page, 'Near')).toBeVisible();
  expect(names(await rows.filter({ hasText: 'live' }).allInnerTexts())).toEqual(names(live));

  await page.getByRole('link', { name: /^Iterate/ }).click();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('heading', { name: 'No second round yet' })).toBeVisible();
});

test('the demo’s second round comes by its link: one press takes what is sure, and all is as it was after undo', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'By link');
  await page.goto(`/p/${id}/iterate`);
  await page.getByRole('button', { name: /^Ask .*latest\.zip for the next round$/ }).click();
  await expect(
    page.getByText(
      /^17 screens: .*1 renamed, 1 parted off, 1 new, 1 gone, 9 the same · 56 links: 54 kept, 1 to decide/,
    ),
  ).toBeVisible({ timeout: 30_000 });
  await expect(page.getByRole('heading', { name: /^Findings that come/ })).toBeVisible();
  await page.getByRole('list', { name: 'To decide' }).focus();
  await page.keyboard.press('1');
  await expect(page.getByText(/56 links: 55 kept, 0 to decide, 1 let go/)).toBeVisible();
  await page.getByRole('button', { name: 'Ask 1 again' }).click();
  await page.getByRole('button', { name: 'Take all that is sure, 1' }).click();
  await expect(page.getByText(/56 links: 55 kept, 0 to decide, 1 let go/)).toBeVisible();
  await take(page);
  await expect(
    page.getByText(/decided elements: \d+ kept \(1 by hand\), 0 to decide, 1 let go/),
  ).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('heading', { name: 'No second round yet' })).toBeVisible();
});

test('a round waits for whoever comes back, and is put away without a trace', async ({ page }) => {
  const id = await copyOfDemo(page, 'Put away');
  await bring(
    page,
    id,
    catalogue((svg) => svg.replace('Search 214 tools', 'Search 230 tools')),
  );
  await page.goto(`/p/${id}/screens`);
  const station = page.getByRole('link', { name: /^Iterate/ });
  await expect(station).toContainText('1');
  await station.click();
  await page.getByRole('option', { name: /^Catalogue/ }).click();
  await expect(page.getByText('text was “Search 214 tools”, is “Search 230 tools”')).toBeVisible();
  await page.getByRole('button', { name: 'Put away' }).click();
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
  await take(page);
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

test('the Map shows a round before it is taken in, and what went along with the wrong element is put right, before and after', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Put right');
  await bring(
    page,
    id,
    catalogue((svg) => svg.replace('Search 214 tools', 'Search 230 tools')),
  );
  await page.getByRole('button', { name: 'Lines', exact: true }).click();
  await expect(page.getByText('No new screen · none gone · 0 new ways, 0 gone (dashed)')).toBeVisible();
  const station = page.getByRole('button', { name: /^Catalogue/ });
  await station.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('option', { name: /^Catalogue/, selected: true })).toBeVisible();
  await page.getByRole('button', { name: 'Pictures' }).click();

  const along = page.getByRole('list', { name: 'Goes along' });
  await along.getByRole('button', { name: '“My loans”' }).click();
  await page.getByRole('combobox', { name: /^Another element, by its name/ }).fill('Garden');
  await page.getByRole('option', { name: 'Garden', exact: true }).first().click();
  await along.focus();
  await page.keyboard.press('p');
  await expect(along.getByText('You put it on “Garden”.')).toBeVisible();
  await take(page);

  await page.getByRole('button', { name: 'What went along with Catalogue' }).click();
  const went = page.getByRole('list', { name: 'What went along', exact: true });
  await went.getByRole('button', { name: '“Garden”' }).click();
  await page.locator('[data-stage]').click({ position: { x: 24, y: 24 } });
  await went.getByRole('button', { name: /^It is “/ }).click();
  await expect(went.getByRole('button', { name: '“Garden”' })).toHaveCount(0);
  await openJunction(page, id, 'Catalogue');
  await expect(departure(page, 'Garden')).not.toContainText('live');
});

test('a screen that is drawn over another one now is its overlay: links open it, and what it had around it is listed', async ({
  page,
}) => {
  const shelf = `<text x="24" y="60" font-size="22">Tools on the shelf</text>${button('Ladder', 24, 100)}${button('Drill', 24, 160)}`;
  const asking = `<text x="60" y="640" font-size="20">Keep it until Friday?</text>${button('Never', 50, 700)}${button('Lend', 200, 700)}`;
  const id = await projectFrom(
    page,
    'Overlaid',
    drawing('keep.svg', button('Home', 24, 780) + asking),
    drawing('shelf.svg', shelf),
  );
  const wire = async (screen: string, element: string, to: string): Promise<void> => {
    await openJunction(page, id, screen);
    await departure(page, element).click();
    await page.getByRole('combobox', { name: 'Goes to' }).fill(to);
    await page.keyboard.press('Enter');
    await expect(departure(page, element)).toContainText('live');
  };
  await wire('Shelf', 'Ladder', 'Keep');
  await wire('Keep', 'Home', 'Shelf');
  await bring(
    page,
    id,
    drawing(
      'keep.svg',
      `${shelf}<rect width="390" height="844" fill="#000" fill-opacity="0.4"/><g id="Ask"><rect x="40" y="600" width="310" height="180" fill="#fff"/>${asking}</g>`,
    ),
  );
  await expect(
    page.getByText(/^1 screen: 1 an overlay now · 1 link: 0 kept, 0 to decide, 1 let go$/),
  ).toBeVisible();
  await page.getByRole('option', { name: /^Keep.*an overlay of Shelf now/ }).click();
  const differs = page.getByRole('list', { name: 'What differs' });
  await expect(differs.getByRole('button', { name: 'Home: gone' })).toBeVisible();
  await expect(differs.getByRole('button', { name: /^Ladder/ })).toHaveCount(0);
  await take(page);
  await expect(page.getByRole('group', { name: /Home/ })).toContainText('leads to Shelf');
  await page.getByRole('link', { name: /^Run/ }).click();
  const app = page.frameLocator('iframe');
  await app
    .getByRole('button', { name: 'Ladder' })
    .or(app.getByRole('link', { name: 'Ladder' }))
    .click({ timeout: 30_000 });
  await expect(app.getByRole('dialog')).toContainText('Keep it until Friday?');
});

test('rows that are built otherwise are asked about, and taken apart by one key', async ({ page }) => {
  const shelf = (more: (i: number) => string) =>
    drawing(
      'shelf.svg',
      `<text x="24" y="60" font-size="28">Shelf</text><g id="List">${[
        'Saw',
        'Drill',
        'Ladder',
        'Plane',
        'Press',
        'Rasp',
      ]
        .map(
          (name, i) =>
            `<g id="Row_${name}" data-name="Row ${name}"><rect x="24" y="${100 + i * 70}" width="342" height="60" fill="#eee"/><text x="40" y="${125 + i * 70}" font-size="16">${name}</text><text x="40" y="${145 + i * 70}" font-size="12">back on day ${i}</text>${more(i)}</g>`,
        )
        .join('')}</g>`,
    );
  const id = await projectFrom(
    page,
    'Rebuilt',
    shelf(() => ''),
  );
  await bring(
    page,
    id,
    shelf((i) => `<text x="300" y="${135 + i * 70}" font-size="12">free</text>`),
  );
  await page.getByRole('option', { name: /^Shelf/ }).click();
  const asked = page.getByRole('list', { name: 'To decide' });
  await expect(asked).toContainText('Its places are built otherwise now: a text more.');
  await asked.focus();
  await page.keyboard.press('d');
  await expect(page.getByRole('button', { name: /^Ask 1 again/ })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Take it in', exact: true })).toBeVisible();
  await take(page);
  await expect(page.getByText(/^1 screen: 1 changed · decided elements: .*0 to decide/)).toBeVisible();
  const { app } = (await (await page.request.get(`/api/projects/${id}`)).json()) as {
    app: { components: Record<string, unknown> };
  };
  expect(Object.keys(app.components)).toEqual([]);
});

test('a screen that is drawn without its bar leaves its layout, is told on the Map, and is put back by one press', async ({
  page,
}) => {
  const names = ['Home', 'Tools', 'Loans', 'Help'];
  const bar = names.map((name) => `<a href="${name.toLowerCase()}.html">${name}</a>`).join('');
  const site = (name: string, hasBar = true) => ({
    name: `${name.toLowerCase()}.html`,
    mimeType: 'text/html',
    buffer: Buffer.from(
      `<!doctype html><title>${name}</title><style>nav{display:flex;gap:16px;padding:16px;background:#234}a{color:#fff}</style>${hasBar ? `<nav>${bar}</nav>` : ''}<main><h1>${name}</h1><p>What ${name} is for.</p></main>`,
    ),
  });
  const id = await projectFrom(page, 'Left', ...names.map((name) => site(name)));
  const layouts = async (): Promise<string[][]> => {
    const { app } = (await (await page.request.get(`/api/projects/${id}`)).json()) as {
      app: { layouts: Record<string, { screens: string[] }> };
    };
    return Object.values(app.layouts).map(({ screens }) => screens.toSorted());
  };
  await expect.poll(layouts).toEqual([['help', 'home', 'loans', 'tools']]);
  await bring(page, id, site('Home', false));
  await take(page);
  await expect(page.getByRole('heading', { name: 'Iteration 2' })).toBeVisible();
  expect(await layouts()).toEqual([['help', 'loans', 'tools']]);

  await page.getByRole('link', { name: /^Map/ }).click();
  const told = page.getByText(/Home is no longer in the layout/);
  await expect(told).toBeVisible();
  await page.getByRole('button', { name: 'Put it back into the layout' }).click();
  await expect(told).toBeHidden();
  await expect.poll(layouts).toEqual([['help', 'home', 'loans', 'tools']]);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(told).toBeVisible();
});
