import { expect, test } from '@playwright/test';
import { copyOfDemo } from './support.ts';

test('an app is published, a visitor on a phone leaves a note, and it is answered and settled at its element', async ({
  page,
  browser,
}) => {
  const id = await copyOfDemo(page, 'For others');
  await page.goto(`/p/${id}/deliver?in=publish`);
  await page.getByLabel('Title').fill('The library');
  await page.getByLabel(/^Pass phrase/).fill('hammer and nails');
  await page.getByRole('group', { name: 'What is shown' }).waitFor();
  await page.locator('form').getByRole('button', { name: 'Publish', exact: true }).click();
  const place = page.getByRole('region', { name: 'The published app' });
  await expect(place.getByRole('heading')).toHaveText('The library, version 1');
  const address = (await place.locator('code').textContent())!;
  await expect(place.getByRole('img')).toHaveAttribute('alt', `QR code of ${address}`);

  const phone = await browser.newContext({
    viewport: { width: 390, height: 780 },
    hasTouch: true,
    isMobile: true,
  });
  const visitor = await phone.newPage();
  await visitor.goto(address);
  await expect(visitor.getByRole('heading')).toHaveText('The library');
  await visitor.getByLabel('Pass phrase').fill('hammer and nails');
  await visitor.getByRole('button', { name: 'Enter' }).click();
  await visitor.getByRole('link', { name: 'Sign in' }).tap();
  await expect(visitor).toHaveURL(`${address}sign-in`);
  await visitor.goto(`${address}?notes`);
  await visitor.getByRole('button', { name: 'Leave a note' }).tap();
  // What is pressed now is meant, and does nothing else.
  await visitor.getByRole('link', { name: 'Sign in' }).tap();
  await visitor.getByLabel('Note', { exact: true }).fill('Too small for my thumb');
  await visitor.getByRole('button', { name: 'Send' }).tap();
  await expect(visitor.getByText('Thank you. The note was sent.')).toBeVisible();
  await expect(visitor).toHaveURL(`${address}?notes`);

  await page.getByRole('link', { name: '1 note of visitors' }).click();
  const note = page.getByRole('list', { name: 'Notes' }).getByRole('listitem');
  await expect(note).toContainText('Too small for my thumb');
  await expect(note.getByRole('link')).toHaveText('“Sign in” on Welcome');
  await note.getByLabel('Answer').fill('Larger in the next version');
  await note.getByRole('button', { name: 'Answer' }).click();
  // There is nothing more to answer with once that is kept.
  await expect(note.getByRole('button', { name: 'Answer' })).toBeDisabled();
  await visitor.reload();
  await visitor.getByRole('button', { name: 'A note about “Sign in”' }).tap();
  await expect(visitor.getByText('Answer: Larger in the next version')).toBeVisible();
  await note.getByRole('button', { name: 'Settle' }).click();
  await expect(page.getByRole('link', { name: /of visitors/ })).toBeHidden();

  await place.getByRole('button', { name: 'Take back' }).click();
  await expect(place).toContainText('Taken back: nobody sees it.');
  await expect(visitor.goto(address)).rejects.toThrow(/ERR_CONNECTION/);
  await phone.close();
});
