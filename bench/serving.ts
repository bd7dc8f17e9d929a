/** What measurements of delivered apps in a browser have in common. */
import { createServer, type RequestListener, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import path from 'node:path';
import pixelmatch from 'pixelmatch';
import type { BrowserContext } from 'playwright-core';
import { PNG } from 'pngjs';

const TYPES: Readonly<Record<string, string>> = {
  '.html': 'text/html',
  '.css': 'text/css',
  '.js': 'text/javascript',
  '.svg': 'image/svg+xml',
};

/** How many of a hundred pixels two addresses show otherwise. */
export async function differing(
  context: BrowserContext,
  viewport: { readonly width: number; readonly height: number },
  ...addresses: [string, string]
): Promise<number> {
  const page = await context.newPage();
  await page.setViewportSize(viewport);
  const shots: PNG[] = [];
  for (const address of addresses) {
    // Screens are loaded when one comes there.
    await page.goto(address, { waitUntil: 'networkidle' });
    shots.push(PNG.sync.read(await page.screenshot({ animations: 'disabled' })));
  }
  await page.close();
  const [{ width, height, data }, other] = shots;
  return (
    (pixelmatch(data, other.data, undefined, width, height, { threshold: 0.1 }) / (width * height)) * 100
  );
}

/** A file server for what is in memory. @param otherwise the file for addresses without one */
export async function serving(
  files: ReadonlyMap<string, string | Uint8Array>,
  types: ReadonlyMap<string, string>,
  otherwise?: string,
): Promise<{ readonly server: Server; readonly at: (file: string) => string }> {
  const answer: RequestListener = (request, response) => {
    const asked = decodeURIComponent((request.url ?? '/').replace(/[?#].*$/, '').slice(1));
    const wanted = asked === '' || asked.endsWith('/') ? `${asked}index.html` : asked;
    const name = files.has(wanted) || otherwise === undefined || path.extname(wanted) ? wanted : otherwise;
    const file = files.get(name);
    response
      .writeHead(file === undefined ? 404 : 200, {
        'content-type': types.get(name) ?? TYPES[path.extname(name)] ?? 'image/png',
      })
      .end(file === undefined ? '' : Buffer.from(file as Uint8Array));
  };
  const server = createServer(answer).listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  const { port } = server.address() as AddressInfo;
  return { server, at: (file) => `http://127.0.0.1:${port}/${file}` };
}
