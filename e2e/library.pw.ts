import path from 'node:path';
import { expect, test } from '@playwright/test';
import { copyOfDemo, saved } from './support.ts';

const fixture = (name: string): string => path.join(import.meta.dirname, 'fixtures', name);

test('the team’s own components are read, matched with drawn ones, and imported by the delivered code', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'Own components');
  await page.goto(`/p/${id}/screens/repeats`);
  await page.getByRole('button', { name: /^Take \d+ that (is|are) sure/ }).click();
  const own = page.getByRole('region', { name: 'Your own components' });
  await own.getByLabel('Folder of your components').setInputFiles(fixture('papers'));
  await expect(own.getByRole('alert')).toContainText('no TypeScript source');
  await own.getByLabel('Folder of your components').setInputFiles(fixture('team-parts'));
  await expect(own.getByText('@mossgate/parts')).toBeVisible();
  await expect(own.getByRole('status').first()).toContainText('No match for');

  const list = page.getByRole('listbox', { name: 'What repeats' });
  await list.getByRole('option', { name: /^LoanCard/ }).click();
  await page.getByRole('button', { name: 'Use LoanCard' }).click();
  const given = page.getByRole('table', { name: 'What LoanCard is given' });
  await expect(given.getByRole('button', { name: /What title is given/ })).toContainText('name');
  await given.getByRole('button', { name: /What status is given/ }).click();
  await page.getByRole('option', { name: 'date', exact: true }).click();
  await given.getByRole('button', { name: /What detail is given/ }).click();
  await page.getByRole('option', { name: 'nothing', exact: true }).click();
  await saved(page);

  await page.goto(`/p/${id}/deliver`);
  const files = page.getByRole('treegrid', { name: 'Files' });
  await files.getByRole('row', { name: 'components' }).click();
  await files.getByRole('row', { name: 'LoanCard', exact: true }).click();
  await files.getByRole('row', { name: 'LoanCard.tsx' }).click();
  const code = page.getByRole('region', { name: /^Code of .*LoanCard\.tsx/ });
  await expect(code).toContainText("import { LoanCard as BaseLoanCard } from '@mossgate/parts';");
  await expect(code).toContainText('status={date}');
  await expect(code).not.toContainText('detail=');

  await page.goto(`/p/${id}/screens/repeats`);
  await own.getByRole('button', { name: 'Forget @mossgate/parts' }).click();
  await expect(own.getByText('@mossgate/parts')).toBeHidden();
});
