import type { Browser } from 'playwright-core';
import { ReadingPages } from './reading_pages.ts';

let browser: Browser | null = null;
let opened = 0;
const pages = new ReadingPages('This test', 2, (running) => {
  browser = running;
  opened++;
  return running.newPage();
});
afterAll(() => pages.close());
/** Ends the browser's own process, as a machine that runs out of memory does. */
const kill = async (): Promise<void> => {
  const session = await browser!.newBrowserCDPSession();
  await session.send('Browser.crash').catch(() => undefined);
};

test('as many work at once as there are pages, and the others wait for their turn', async () => {
  let now = 0;
  let most = 0;
  let meet!: () => void;
  // The second page takes a while to open: the first does not go through all of them before it is there.
  const areTwo = new Promise<void>((resolve) => (meet = resolve));
  const done = await Promise.all(
    [1, 2, 3, 4, 5].map((n) =>
      pages.use(async (page) => {
        most = Math.max(most, ++now);
        if (now === 2) meet();
        await areTwo;
        const answer = await page.evaluate((x) => x * x, n);
        now--;
        return answer;
      }),
    ),
  );
  expect(done).toEqual([1, 4, 9, 16, 25]);
  expect([most, opened]).toEqual([2, 2]);
});

test('what goes wrong in a page is said, and the page works on', async () => {
  const before = opened;
  await expect(
    pages.use((page) =>
      page.evaluate(() => {
        throw new Error('nothing to read');
      }),
    ),
  ).rejects.toThrow('nothing to read');
  expect(await pages.use((page) => page.evaluate(() => 'here'))).toBe('here');
  expect(opened).toBe(before);
});

test('a page that crashes costs itself alone, and is made anew', async () => {
  const crashed = pages.use(async (page) => {
    page.goto('chrome://crash').catch(() => undefined);
    await page.evaluate(() => new Promise(() => undefined));
  });
  await expect(crashed).rejects.toThrow(/crash/i);
  const after = await Promise.all([1, 2, 3].map((n) => pages.use((page) => page.evaluate((x) => -x, n))));
  expect(after).toEqual([-1, -2, -3]);
});

test('a browser that dies is started anew, and what it was at is done again', async () => {
  let tries = 0;
  const innocent = pages.use(async (page) => {
    tries++;
    if (tries === 1) await new Promise((resolve) => page.context().browser()!.on('disconnected', resolve));
    return page.evaluate(() => 'read');
  });
  const guilty = pages.use(async (page) => {
    await kill();
    return page.evaluate(() => new Promise(() => undefined));
  });
  await expect(guilty).rejects.toThrow('closed');
  expect(await innocent).toBe('read');
  expect(tries).toBeGreaterThan(1);
});
