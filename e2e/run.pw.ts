import { expect, test } from '@playwright/test';
import { copyOfDemo, departure, openJunction, saved } from './support.ts';

test('what leads nowhere lights up in the running app, is wired where it is, and works at once', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Lit');
  await page.goto(`/p/${id}/run?at=/desk`);
  const app = page.frameLocator('iframe[title="The running app"]');
  const button = page.getByRole('button', { name: /open ends? here$/ });
  await expect(button).toHaveText('6 open ends here');
  await expect(app.getByRole('heading', { name: 'Coming back' })).toBeVisible();
  await button.click();
  await expect(app.locator('[data-lit]')).toHaveCount(6);

  // By keyboard: what it may be is said first, and another one is typed.
  await app.getByText('All loans').focus();
  await page.keyboard.press('Enter');
  const board = page.getByRole('dialog', { name: 'Where “All loans” leads' });
  await expect(board).toContainText('Perhaps My loans');
  await page.keyboard.type('House');
  await page.keyboard.press('Enter');
  await expect(board).toBeHidden();
  await expect(button).toHaveText('5 open ends here');
  await saved(page);
  await expect(app.locator('[data-lit]')).toHaveCount(5);
  await app.getByRole('link', { name: 'All loans' }).click();
  await expect(page.getByRole('textbox', { name: 'Address in the app' })).toHaveValue('/rules');

  // What does something is not asked about; where nothing is lit, all is as visitors have it.
  await button.click();
  await expect(app.locator('[data-lit]')).toHaveCount(0);
});

test('what happens is on a tape, to go back to; journeys are made again in the running app, with where they break', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Tape');
  // One of the ways is taken away.
  await openJunction(page, id, 'Welcome');
  await departure(page, 'Sign in').first().click();
  await page.getByRole('button', { name: 'Unwire' }).click();
  await saved(page);
  await page.goto(`/p/${id}/run`);
  const app = page.frameLocator('iframe[title="The running app"]');
  await app.getByRole('link', { name: 'Browse the tools' }).waitFor();
  await page.getByRole('button', { name: 'Tape', exact: true }).click();
  await app.getByRole('link', { name: 'Browse the tools' }).click();
  await app.getByRole('link', { name: /Hedge trimmer/ }).click();
  const tape = page.getByRole('list', { name: 'What happened, the oldest first' });
  await expect(tape.getByRole('listitem')).toContainText([
    'Welcome',
    'Pressed “Browse the tools”',
    'Catalogue',
    /Pressed “Hedge trimmer/,
    'Tool detail',
  ]);
  const address = page.getByRole('textbox', { name: 'Address in the app' });
  await expect(address).toHaveValue('/tools/detail');
  // A stretch of it is a journey.
  await tape.getByRole('button', { name: /^Go on from Welcome/ }).click();
  await page.getByRole('menuitem', { name: 'A journey from here on' }).click();
  await expect(page.getByRole('button', { name: 'Recording · 2 steps · save' })).toBeVisible();
  await page.getByRole('button', { name: 'Discard' }).click();
  await tape.getByRole('button', { name: /^Go on from Catalogue/ }).click();
  await page.getByRole('menuitem', { name: 'Back to here' }).click();
  await expect(address).toHaveValue('/tools');

  const journeys = page.getByRole('table', { name: 'Journeys' });
  await page.getByRole('button', { name: 'All at once' }).click();
  await expect(journeys.getByRole('status')).toHaveText(
    [/^✓ 4 steps/, /^✗ broke at step 1: nothing on Welcome does that any more/, /^✓ 3 steps/],
    { timeout: 20_000 },
  );
});

test('the app runs at three widths beside each other, and what is done in one is done in all', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Three');
  await page.goto(`/p/${id}/run`);
  // One width is dragged, by pointer and by keyboard.
  const edge = page.getByRole('separator', { name: 'Width of the window' });
  await expect(edge).toHaveAttribute('aria-valuenow', '390');
  await edge.press('ArrowRight');
  await expect(edge).toHaveAttribute('aria-valuenow', '400');
  const { x, y } = (await edge.boundingBox())!;
  await page.mouse.move(x + 6, y + 60);
  await page.mouse.down();
  await page.mouse.move(x + 56, y + 60);
  await page.mouse.up();
  await expect(edge).toHaveAttribute('aria-valuenow', '500');
  await page.getByRole('button', { name: 'Three', exact: true }).click();
  const [narrow, middle, wide] = [
    'The running app',
    'The running app at 768 px',
    'The running app at 1280 px',
  ].map((title) => page.frameLocator(`iframe[title="${title}"]`));
  // By keyboard: where things are in a frame that is drawn smaller, the test's pointer does not know.
  await middle.getByRole('link', { name: 'Browse the tools' }).press('Enter');
  await expect(page.getByRole('textbox', { name: 'Address in the app' })).toHaveValue('/tools');
  await expect(wide.getByRole('link', { name: /Hedge trimmer/ })).toBeVisible();
  await narrow.getByRole('link', { name: /Hedge trimmer/ }).press('Enter');
  await expect(wide.getByRole('link', { name: 'Reserve' })).toBeVisible();
  await page.getByRole('button', { name: '1280', exact: true }).click();
  await expect(page.getByRole('textbox', { name: 'Address in the app' })).toHaveValue('/tools/detail');
});

test('what goes wrong in the app is told by its line and the element; a window is laid down and fitted', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Wrong');
  await page.goto(`/p/${id}/run?at=/tools`);
  const app = page.frameLocator('iframe[title="The running app"]');
  const trimmer = app.getByRole('link', { name: /Hedge trimmer/ });
  await trimmer.waitFor();
  await page.getByRole('button', { name: 'Tape', exact: true }).click();
  // Something that the app calls fails on this device.
  await trimmer.evaluate(() => {
    window.matchMedia = () => {
      throw new TypeError('no media here');
    };
  });
  await trimmer.click();
  const wrong = page.getByRole('listitem').filter({ hasText: 'no media here' });
  await expect(wrong).toContainText('after “Hedge trimmer Shed 2');
  await expect(wrong.locator('code')).toHaveText(/^\w[\w/]+\.tsx?:\d+$/);

  const frame = page.locator('iframe[title="The running app"]');
  const width = () => frame.evaluate((element) => element.clientWidth);
  await page.getByRole('button', { name: '390', exact: true }).click();
  await page.getByRole('button', { name: 'Lying' }).click();
  await expect.poll(width).toBe(842);
  await page.getByRole('button', { name: '1280', exact: true }).click();
  await page.getByRole('button', { name: 'Fit' }).click();
  await expect(page.getByText(/^1280 px at \d\d %$/)).toBeVisible();
  await expect.poll(width).toBe(1280);
});
