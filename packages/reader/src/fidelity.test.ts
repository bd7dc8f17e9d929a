import path from 'node:path';
import {
  addToDesign,
  applyChange,
  emptyApp,
  emptyDesign,
  EmissionPlan,
  emitScreenOf,
  printHtml,
  readBatch,
  takeIn,
  walkElements,
} from '@tovel/core';
import { launchChromium } from '@tovel/renderer/chromium';
import { measureFidelity } from './testing/fidelity.ts';
import { folderFiles } from './testing/folder_files.ts';
import { HeadlessHost } from './headless.ts';

const root = path.resolve(__dirname, '../../..');

/** How much of a screen may differ from its source, both drawn by the same Chromium. */
const allowed = (file: string): number => (/\.x?html?$/.test(file) ? 0.005 : 0.015);

test.each(['demo/iteration-1', 'e2e/fixtures/pile', 'e2e/fixtures/drawings'])(
  'every screen of %s looks as its source does, at each width',
  async (folder) => {
    const files = await folderFiles(path.join(root, folder));
    const { rows } = await measureFidelity(files, path.join(root, folder));
    expect(rows.length).toBeGreaterThan(3);
    expect(rows.filter(({ file, share }) => share > allowed(file))).toEqual([]);
  },
  180_000,
);

test('what is drawn lies where it was drawn, within two pixels', async () => {
  const host = new HeadlessHost();
  const files = await folderFiles(path.join(root, 'demo/iteration-1'));
  const result = await readBatch(
    files.filter((file) => !file.path.endsWith('.html')),
    host,
  );
  await host.close();
  const design = addToDesign(emptyDesign, result);
  const app = applyChange(emptyApp, takeIn({ design, app: emptyApp }, design.screens));
  const plan = new EmissionPlan({ design, app });
  const browser = await launchChromium('Measuring');
  const page = await browser.newPage();
  let looked = 0;
  for (const screen of design.screens) {
    await page.setViewportSize({ width: screen.width, height: screen.height });
    await page.setContent(printHtml(emitScreenOf(plan, screen.key), () => 'data:,'));
    const places = new Map(
      await page.locator('[data-key]').evaluateAll((nodes) =>
        nodes.map((node): [string, number[]] => {
          const { x, y, width, height } = node.getBoundingClientRect();
          return [node.getAttribute('data-key')!, [x, y, width, height]];
        }),
      ),
    );
    walkElements(screen.root, (element) => {
      if (element.hidden) return false;
      // How wide text is, and what only holds text, depends on fonts; boxes that show do not.
      const shows =
        element.kind === 'image' || element.kind === 'vector' || !!element.style.base['background-color'];
      const place = places.get(element.key);
      if (!shows || element.kind === 'text' || !place) return true;
      looked++;
      const { x, y, width, height } = element.box;
      const off = Math.max(...[x, y, width, height].map((drawn, i) => Math.abs(drawn - place[i])));
      if (off > 2)
        throw new Error(
          `${screen.name}: ${element.name} is off by ${off} px: drawn ${JSON.stringify(element.box)}, placed ${place.join()}`,
        );
      return true;
    });
  }
  await browser.close();
  expect(looked).toBeGreaterThan(100);
});
