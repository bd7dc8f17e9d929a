import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { expect, test } from '@playwright/test';
import { copyOfDemo, saved } from './support.ts';

const git = (cwd: string, ...args: string[]): string =>
  execFileSync('git', ['-c', 'user.name=Ida', '-c', 'user.email=ida@example.org', ...args], {
    cwd,
    encoding: 'utf8',
  });

const change = (file: string, from: string, to: string): void => {
  const text = readFileSync(file, 'utf8');
  expect(text).toContain(from);
  writeFileSync(file, text.replace(from, to));
};

test('code is pushed, changed by hand elsewhere, and pushed again with the lines of both; a conflict is decided in place', async ({
  page,
}) => {
  // The whole app is written and merged each time that the branch is looked at.
  test.setTimeout(150_000);
  const atLength = { timeout: 40_000 };
  const id = await copyOfDemo(page, 'Shared');
  const name = `shared-${id}`;
  await page.goto(`/p/${id}/deliver`);
  await page.getByRole('button', { name: 'Repository' }).click();
  await page.getByRole('button', { name: 'the repository that comes with Tovel' }).click();
  const address = page.getByRole('textbox', { name: /^Address of the repository/ });
  const shipped = (await address.inputValue()).replace(/[^/]*$/, '');
  await address.fill(`${shipped}${name}.git`);
  await page.getByRole('button', { name: 'Which branches are there?' }).click();
  await expect(page.getByText('None yet: the first push makes one.')).toBeVisible();
  await page.getByRole('button', { name: 'Connect' }).click();
  await page.getByRole('button', { name: /^Push \d+ files$/ }).click(atLength);
  await expect(page.getByText(/^Pushed as [0-9a-f]{8}\.$/)).toBeVisible(atLength);
  await expect(page.getByRole('heading', { name: 'Nothing to push' })).toBeVisible(atLength);

  // Somebody else takes it, writes a handler and says a text otherwise.
  const folder = mkdtempSync(path.join(os.tmpdir(), 'tovel-clone-'));
  git(
    folder,
    'clone',
    '--quiet',
    `${shipped.replace('http://', 'http://ida:mossgate@')}${name}.git`,
    'theirs',
  );
  const theirs = path.join(folder, 'theirs');
  const welcome = path.join(theirs, 'src/screens/Welcome/Welcome.tsx');
  change(welcome, '<main ', '<main onPointerEnter={greet} ');
  change(welcome, 'How does it work?', 'How is it done?');
  change(welcome, 'Browse the tools', 'See the tools');
  git(theirs, 'commit', '--quiet', '-am', 'Greets people');
  git(theirs, 'push', '--quiet');

  // Meanwhile the design says that text otherwise, too.
  await page.goto(`/p/${id}/screens/at/welcome`);
  await page
    .getByRole('treeitem', { name: /How does it work/ })
    .last()
    .click();
  await page.getByRole('tab', { name: 'Look' }).click();
  await page.getByRole('textbox', { name: 'Text', exact: true }).fill('How do we work?');
  await page.keyboard.press('Enter');
  await saved(page);

  await page.goto(`/p/${id}/deliver?in=repository`);
  await expect(page.getByRole('list', { name: 'Commits of others' })).toContainText(
    'Greets people',
    atLength,
  );
  const question = page.getByRole('article', { name: /^To be decided at line \d+$/ });
  await expect(question).toContainText('How is it done?');
  await expect(question).toContainText('How do we work?');
  const push = page.getByRole('button', { name: /^Push \d+ files?$/ });
  await expect(push).toBeDisabled();
  // What was written by hand and means something in the design is taken over into it.
  const offers = page.getByRole('list', { name: 'What can be taken over' });
  await expect(offers).toContainText('“See the tools”, was “Browse the tools”');
  await offers.getByRole('button', { name: 'Take over' }).click();
  await expect(offers).toBeHidden(atLength);
  await expect(question).toContainText('How do we work?', atLength);
  await question.getByRole('button', { name: 'Take the design’s' }).click();
  await push.click(atLength);
  await expect(page.getByText(/^Pushed as [0-9a-f]{8}\.$/)).toBeVisible(atLength);

  git(theirs, 'pull', '--quiet', '--ff-only');
  const text = readFileSync(welcome, 'utf8');
  expect(text).toContain('<main onPointerEnter={greet} ');
  expect(text).toContain('How do we work?');
  expect(text).toContain('See the tools');
  expect(git(theirs, 'log', '-1', '--format=%s')).toContain('How does it work?');

  // Nothing there is touched where the two go their own ways.
  await page.getByRole('button', { name: 'Disconnect' }).click();
  await expect(page.getByRole('heading', { name: 'Into the repository of your team' })).toBeVisible();
  expect(git(theirs, 'ls-remote', '--heads', 'origin')).toContain('refs/heads/');
});
