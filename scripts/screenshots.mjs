// npm run screenshots [VIEW...]: pictures of every main view, made from the demo project on a server of their own.
import { execFileSync, spawn } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { checkNode, ensureBuilt, ensurePackages, ensurePrograms, root } from './lib/setup.mjs';

checkNode();
ensurePackages();
ensurePrograms();
ensureBuilt();
const { chromium } = await import('playwright-core');

const out = path.join(root, 'docs/screenshots');
const data = mkdtempSync(path.join(os.tmpdir(), 'tovel-shots-'));
const base = 'http://127.0.0.1:4610';
const server = spawn(process.execPath, [path.join(root, 'packages/server/dist/main.mjs')], {
  env: { ...process.env, TOVEL_PORT: '4610', TOVEL_RUN_PORT: '4611', TOVEL_DATA: data },
  stdio: ['ignore', 'pipe', 'inherit'],
});
await new Promise((resolve, reject) => {
  server.stdout.on('data', (text) => String(text).includes('ready at') && resolve());
  server.on('exit', () => reject(new Error('The server did not start.')));
});

mkdirSync(out, { recursive: true });
const browser = await chromium.launch({
  executablePath: process.env.TOVEL_CHROMIUM ?? '/usr/bin/chromium',
  chromiumSandbox: process.getuid?.() !== 0,
  args: ['--disable-quic', '--no-first-run', '--disable-background-networking'],
});
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const all = await (await page.request.get(`${base}/api/projects`)).json();
  // The one to begin with; beside it stands the demo at work.
  const project = all.find(({ name }) => name === 'Mossgate Tool Library');
  const at = (view) => `${base}/p/${project.id}/${view}`;
  const settled = async () => {
    // News stay connected, so that the network is never idle.
    await page.waitForLoadState('load');
    await page.evaluate(() => document.fonts.ready);
  };
  /** Pictures of screens are drawn when there is time: until no more of them come. */
  const drawn = async () => {
    const count = () => page.locator('iframe[title^="Picture of"]').count();
    for (let before = -1, tries = 0; before !== (await count()) && tries < 12; tries++) {
      before = await count();
      await page.waitForTimeout(1500);
    }
  };
  const shoot = async (name) => {
    await settled();
    await drawn();
    // Frames draw what they hold after they have loaded it.
    await page.waitForTimeout(600);
    await page.screenshot({ path: path.join(out, `${name}.png`) });
  };
  const views = {
    projects: async () => page.goto(base),
    intake: async () => page.goto(at('intake')),
    reading: async () => {
      await page.goto(at('intake/catalogue'));
      await page.getByRole('treeitem', { name: /^Search field/ }).click();
    },
    screens: async () => page.goto(at('screens?screen=tool-detail')),
    elements: async () => {
      await page.goto(at('screens/at/reserve'));
      await page.getByRole('button', { name: /^Take \d+ that are sure/ }).waitFor();
      await page.keyboard.press('Tab');
    },
    alternatives: async () => {
      await page.goto(at('screens/alternatives'));
      await page.getByRole('button', { name: /Seen on/ }).click();
      await page.getByRole('option', { name: 'Today at the desk' }).click();
      await page.getByText('Building the app').waitFor({ state: 'hidden' });
      for (const frame of await page.locator('iframe').all())
        await frame.contentFrame().getByRole('heading', { name: 'Coming back' }).waitFor();
    },
    repeats: async () => {
      await page.goto(at('screens/repeats'));
      await page.getByRole('option', { name: /^ToolRow,/ }).click();
    },
    junction: async () => {
      await page.goto(at('junction/catalogue'));
      await page.getByRole('button', { name: /^Pin 8/ }).click();
      await page.keyboard.type('to');
    },
    map: async () => {
      await page.goto(at('map'));
      await page.locator("[id='station my-loans'] circle").click();
    },
    'flow-sheet': async () => {
      await page.goto(at('map?view=sheet'));
      const sheet = page.getByRole('textbox', { name: 'Flow sheet' });
      await sheet.evaluate((entry) => {
        entry.focus();
        const end = entry.value.indexOf('\n\nscreen "Catalogue"');
        entry.setSelectionRange(end, end);
      });
      await page.keyboard.type('\n  hover "Browse the tools" -> "T');
    },
    data: async () => {
      await page.goto(at('data?at=controls'));
      await page.getByRole('option', { name: 'Loans: Sort by loans' }).focus();
    },
    run: async () => {
      await page.goto(at('run?at=/tools'));
      await page.getByText(/^(Building|Writing) the app/).waitFor({ state: 'hidden' });
      await page.getByRole('button', { name: 'Tape', exact: true }).click();
      await page.getByRole('button', { name: 'All at once' }).click();
      await page.getByText(/^✓ 3 steps/).waitFor({ timeout: 60_000 });
      await page.getByRole('button', { name: /open ends? here/ }).click();
    },
    // A visitor leaves a note, and the window hears of it.
    publish: async () => {
      await page.goto(at('deliver?in=publish'));
      await page.locator('form').getByRole('button', { name: 'Publish', exact: true }).click();
      const address = (await page.locator('section code').textContent()).trim();
      await page.request.post(`${address}_notes`, {
        data: {
          path: '/',
          text: 'I nearly missed this. Could it stand further up?',
          author: 'Ines',
          seen: { tag: 'a', says: 'Sign in', nth: 0, nthOfTag: 1 },
        },
      });
      await page.getByRole('list', { name: 'Notes' }).getByRole('listitem').waitFor();
    },
    // A heading is made smaller, and told as what differs.
    compare: async () => {
      const { id } = await (await page.request.post(`${base}/api/projects/${project.id}/copy`)).json();
      await page.goto(`${base}/p/${id}/screens/at/desk-members`);
      await page
        .getByRole('treeitem', { name: /Add member/ })
        .last()
        .click();
      await page.getByRole('tab', { name: 'Look' }).click();
      await page.getByRole('textbox', { name: 'Text', exact: true }).fill('New member');
      await page.keyboard.press('Enter');
      await page.getByText(/Saved \d/).waitFor();
      await page.goto(`${base}/p/${id}/compare?view=desk-members%201280`);
      await page
        .getByRole('listbox', { name: 'Causes' })
        .getByRole('option')
        .first()
        .click({ timeout: 60_000 });
      await page.waitForFunction(() => [...document.images].every((image) => image.complete));
    },
    deliver: async () => {
      await page.goto(at('deliver'));
      await page.getByText('Browse the tools').first().click();
    },
    // Pushed, changed there by somebody else, and by the design meanwhile.
    repository: async () => {
      const { id } = await (await page.request.post(`${base}/api/projects/${project.id}/copy`)).json();
      const of = (view) => `${base}/p/${id}/${view}`;
      await page.goto(of('deliver?in=repository'));
      await page.getByRole('button', { name: 'the repository that comes with Tovel' }).click();
      const address = await page.getByRole('textbox', { name: /^Address/ }).inputValue();
      await page.getByRole('button', { name: 'Connect' }).click();
      await page.getByRole('button', { name: /^Push \d/ }).click();
      await page.getByText(/^Pushed as/).waitFor({ timeout: 60_000 });
      const theirs = path.join(data, 'theirs');
      const git = (...args) =>
        execFileSync('git', ['-c', 'user.name=Ines Okafor', '-c', 'user.email=ines@example.org', ...args]);
      git('clone', '--quiet', address.replace('http://', 'http://team:mossgate@'), theirs);
      const file = path.join(theirs, 'src/screens/Welcome/Welcome.tsx');
      const text = readFileSync(file, 'utf8');
      writeFileSync(
        file,
        text
          .replace('<main ', '<main onPointerEnter={greet} ')
          .replace('How does it work?', 'How is it done?'),
      );
      git('-C', theirs, 'commit', '--quiet', '-am', 'Greets whoever comes in');
      git('-C', theirs, 'push', '--quiet');
      await page.goto(of('screens/at/welcome'));
      await page
        .getByRole('treeitem', { name: /How does it work/ })
        .last()
        .click();
      await page.getByRole('tab', { name: 'Look' }).click();
      await page.getByRole('textbox', { name: 'Text', exact: true }).fill('How do we work?');
      const saved = page.waitForResponse((response) => response.url().endsWith('/changes'));
      await page.keyboard.press('Enter');
      await saved;
      // The window puts away what has been saved.
      await page.waitForTimeout(800);
      await page.goto(of('deliver?in=repository'));
      await page.locator('[data-outline]').waitFor({ timeout: 60_000 });
    },
    'junction-dark': async () => {
      await page.emulateMedia({ colorScheme: 'dark' });
      await page.goto(at('junction/my-loans'));
    },
    // The last, since they bring the next round in.
    iterate: async () => {
      await page.goto(at('intake'));
      await page.getByLabel('Folder', { exact: true }).setInputFiles(path.join(root, 'demo/iteration-2'));
      await page.getByRole('heading', { name: 'The next round, not taken in yet' }).waitFor();
      await page.getByRole('option', { name: /^Catalogue/ }).click();
      await page.locator('[data-side="after"] [data-outline]').waitFor();
    },
    versions: async () => {
      await page.goto(at('iterate'));
      await page.getByRole('button', { name: /^Take it in/ }).click();
      await page.getByRole('heading', { name: 'Iteration 2' }).waitFor();
      await page.goto(at('versions?at=0'));
      await page.getByRole('textbox', { name: 'Name of this version' }).fill('As it was shown first');
      await page.getByRole('button', { name: 'Name it' }).click();
      await page.locator('[data-side="after"]').waitFor();
    },
  };
  const wanted = process.argv.slice(2);
  for (const [name, open] of Object.entries(views)) {
    if (wanted.length && !wanted.includes(name)) continue;
    await open();
    await shoot(name);
    await page.emulateMedia({ colorScheme: 'light' });
  }
} finally {
  await browser.close();
  server.kill('SIGTERM');
  await new Promise((resolve) => server.on('exit', resolve));
  rmSync(data, { recursive: true, force: true });
}
