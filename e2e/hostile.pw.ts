import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import path from 'node:path';
import { expect, type Page, test } from '@playwright/test';
import { build } from 'esbuild';
import { unzipSync } from 'fflate';
import { asInCode, type EmittedProject } from '@tovel/core';
import { typeErrors } from '../packages/core/src/testing/typecheck.ts';
import { newProject } from './support.ts';

const folder = path.resolve('e2e/fixtures/hostile');

/** A server that notes what it is asked for; returns its address. */
async function listen(answer: http.RequestListener): Promise<{ server: http.Server; address: string }> {
  const server = http.createServer(answer);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return { server, address: `127.0.0.1:${(server.address() as AddressInfo).port}` };
}

/** The hostile files, with the address that they would reach. */
const hostileFiles = (listener: string) =>
  readdirSync(folder).map((name) => ({
    name,
    mimeType: name.endsWith('.svg') ? 'image/svg+xml' : 'text/html',
    buffer: Buffer.from(readFileSync(path.join(folder, name), 'utf8').replaceAll('LISTENER', listener)),
  }));

/** Touches all that can be touched on a page that runs. */
async function touchAll(page: Page): Promise<void> {
  await page.evaluate(() => {
    for (const element of document.querySelectorAll<HTMLElement>('body *')) {
      for (const type of ['pointerover', 'mouseover', 'pointerenter', 'focus', 'toggle', 'error', 'load'])
        element.dispatchEvent(new Event(type, { bubbles: true }));
      if (!element.closest('a[href^="http"]'))
        element.dispatchEvent(new MouseEvent('click', { bubbles: true, cancelable: true }));
    }
  });
}

test('nothing that hostile screens bring runs or is fetched, in any view, in Run, or in the app that is delivered', async ({
  page,
}) => {
  test.setTimeout(240_000);
  const asked: string[] = [];
  const listener = await listen((request, response) => {
    asked.push(request.url!);
    response.end('');
  });
  const errors: string[] = [];
  page.on('pageerror', (error) => errors.push(error.message));
  const files = hostileFiles(listener.address);
  const id = await newProject(page, 'Hostile');
  await page.getByLabel('Files', { exact: true }).setInputFiles(files);
  await expect(page.getByRole('heading', { name: `${files.length} screens came in` })).toBeVisible({
    timeout: 30_000,
  });
  await page.getByRole('tab', { name: /^Left out/ }).click();
  await expect(page.getByText(/is no name of an attribute/).first()).toBeVisible();
  await expect(page.getByText(/is no element that screens are written with/).first()).toBeVisible();
  await expect(page.getByText(/is no value of fill|no value of stroke|holds “;”/).first()).toBeVisible();

  const state = (await (await page.request.get(`/api/projects/${id}`)).json()) as {
    app: { screens: Record<string, { name: string; route: string }> };
  };
  const keys = Object.keys(state.app.screens);
  for (const view of [
    'intake',
    'screens',
    'screens/repeats',
    'screens/tokens',
    'map',
    'map?view=grid',
    'map?view=lines',
  ])
    await test.step(view, async () => {
      await page.goto(`/p/${id}/${view}`);
      await expect(page.getByRole('status').filter({ hasText: 'Saved' })).toBeVisible();
    });
  for (const key of keys)
    await test.step(key, async () => {
      for (const view of [`intake/${key}`, `screens/at/${key}`, `junction/${key}`]) {
        await page.goto(`/p/${id}/${view}`);
        await expect(page.getByRole('status').filter({ hasText: 'Saved' })).toBeVisible();
      }
    });
  await page.goto(`/p/${id}/deliver`);
  await expect(page.getByRole('button', { name: 'Download zip' })).toBeVisible();

  await page.goto(`/p/${id}/run`);
  const frame = page.frameLocator('iframe').first();
  await expect(frame.locator('#root > *').first()).toBeVisible({ timeout: 20_000 });

  // The delivered code passes the compiler and, built and served without any policy, reaches nobody.
  const zip = await page.request.get(`/api/projects/${id}/code.zip`);
  expect(zip.status()).toBe(200);
  const delivered = unzipSync(new Uint8Array(await zip.body()));
  const decode = new TextDecoder();
  const project = {
    files: Object.entries(delivered)
      .filter(([name]) => /\.(tsx?|css|json|html)$/.test(name))
      .map(([name, bytes]) => ({ path: name, text: decode.decode(bytes) })),
    fileOfScreen: new Map(),
  } as EmittedProject;
  expect(typeErrors([project])).toEqual([]);
  mkdirSync('.run', { recursive: true });
  const out = mkdtempSync(path.resolve('.run/hostile-'));
  for (const [name, bytes] of Object.entries(delivered)) {
    mkdirSync(path.dirname(path.join(out, name)), { recursive: true });
    writeFileSync(
      path.join(out, name),
      name.endsWith('.module.css') ? asInCode(new TextDecoder().decode(bytes)) : bytes,
    );
  }
  await build({
    entryPoints: { app: path.join(out, 'src/main.tsx') },
    outdir: path.join(out, 'dist'),
    bundle: true,
    format: 'esm',
    jsx: 'automatic',
    loader: { '.module.css': 'local-css', '.png': 'file', '.svg': 'file' },
    define: { 'process.env.NODE_ENV': '"production"', 'import.meta.env.BASE_URL': '"/"' },
    logLevel: 'silent',
  });
  const app = await listen((request, response) => {
    const name = /^\/app\.(js|css)$/.exec(request.url!)?.[0];
    if (name) {
      response.setHeader('content-type', name.endsWith('js') ? 'text/javascript' : 'text/css');
      response.end(readFileSync(path.join(out, 'dist', name)));
    } else {
      response.setHeader('content-type', 'text/html');
      response.end(
        '<!doctype html><link rel="stylesheet" href="/app.css"><div id="root"></div><script type="module" src="/app.js"></script>',
      );
    }
  });
  try {
    for (const key of keys) {
      await page.goto(`http://${app.address}${state.app.screens[key].route}`);
      await expect(page.locator('#root > *').first()).toBeAttached();
      await touchAll(page);
      expect(await page.evaluate(() => (window as unknown as { hit?: number }).hit)).toBeUndefined();
    }
  } finally {
    app.server.close();
    listener.server.close();
    rmSync(out, { recursive: true, force: true });
  }
  expect(asked).toEqual([]);
  expect(errors).toEqual([]);
});

test('a project file whose documents hold code is refused, with the place', async ({ page }) => {
  const hostile = path.resolve('e2e/fixtures/pile/basket.svg');
  const id = await newProject(page, 'To be spoilt');
  await page.getByLabel('Files', { exact: true }).setInputFiles(hostile);
  await expect(page.getByRole('heading', { name: '1 screen came in' })).toBeVisible({ timeout: 30_000 });
  const archive = await (await page.request.get(`/api/projects/${id}/archive`)).body();
  const { zipSync } = await import('fflate');
  const spoil = (name: string, from: string, to: string): Buffer => {
    const files = unzipSync(new Uint8Array(archive));
    const text = new TextDecoder().decode(files[name]);
    expect(text).toContain(from);
    files[name] = new TextEncoder().encode(text.replace(from, to));
    return Buffer.from(zipSync(files));
  };
  const rows: readonly [Buffer, RegExp][] = [
    [
      spoil(
        'app.json',
        '"variables": {}',
        `"variables": {"c": {"name": "C", "initial": "(()=>fetch('x'))()"}}`,
      ),
      /app\.json: variables\/c: expected true or false/,
    ],
    [
      spoil('design.json', '"style": {', `"attributes": {"a={alert('x')} b": ""}, "style": {`),
      /design\.json: screens\/0\/root.*expected a name/,
    ],
  ];
  for (const [buffer, message] of rows) {
    await page.goto('/');
    await page
      .getByLabel('A .tovel file')
      .setInputFiles({ name: 'spoilt.tovel', mimeType: 'application/zip', buffer });
    await expect(page.getByRole('alert')).toContainText(message);
  }
});
