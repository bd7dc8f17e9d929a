import { createStandIn, type EmittedProject, type StandIn, type StandInPlan } from '@tovel/core';
import { AppBuild, bundledPage } from './app_build.ts';
import type { Site } from './renderer.ts';
import { vendorFile } from './vendor.ts';

const ORIGIN = 'https://app.invalid';
const BASE = '/app/';

export interface RunningApp {
  /** The address of a path of the app, as `/tools/12`. */
  readonly at: (path: string) => string;
  readonly site: Site;
}

/**
 * Bundles a generated app and answers for it: its page under every path, its scripts, styles and pictures, and its APIs.
 * @param bytesOf the bytes of a kept file by its hash
 * @throws Error that says why it does not build
 */
export async function runningApp(
  emitted: EmittedProject,
  bytesOf: (hash: string) => Promise<{ readonly type: string; readonly bytes: Uint8Array } | null>,
): Promise<RunningApp> {
  const bundle = new AppBuild(BASE);
  const { files, error } = await bundle.build(emitted);
  await bundle.dispose();
  if (error !== null) throw new Error(`The app does not build: ${error}`);
  const assets = new Map<string, string>();
  const standIns = new Map<string, StandIn>();
  let page = '';
  for (const file of emitted.files) {
    if ('asset' in file) assets.set(file.path.replace(/^src\/assets\//, ''), file.asset);
    else if (file.path === 'index.html') page = file.text;
    const api = /^api\/([\w-]+)\.json$/.exec(file.path)?.[1];
    if (api !== undefined && 'text' in file)
      standIns.set(api, createStandIn(JSON.parse(file.text) as StandInPlan, `${BASE}api/${api}`));
  }
  const html = bundledPage(page, BASE);
  const script = (body: Uint8Array | undefined) =>
    body ? { type: 'text/javascript; charset=utf-8', body } : null;
  const site: Site = async ({ origin, pathname, searchParams }, request) => {
    if (origin !== ORIGIN) return null;
    if (pathname.startsWith('/_vendor/')) return script(await vendorFile(pathname.slice(9)));
    if (!pathname.startsWith(BASE)) return null;
    const asked = decodeURIComponent(pathname.slice(BASE.length));
    if (asked === '_app/app.js') return script(files.get('app.js'));
    if (asked === '_app/app.css')
      return { type: 'text/css; charset=utf-8', body: files.get('app.css') ?? '' };
    if (asked.startsWith('_assets/')) return pictureOf(asked.slice(8));
    const api = /^api\/([\w-]+)\/(.*)$/.exec(asked);
    if (api) return api[2].startsWith('pictures/') ? pictureOf(api[2].slice(9)) : answerOf(api[1], api[2]);
    return { type: 'text/html; charset=utf-8', body: html };

    async function pictureOf(name: string) {
      const hash = assets.get(name);
      const asset = hash === undefined ? null : await bytesOf(hash);
      return asset && { type: asset.type, body: asset.bytes };
    }
    function answerOf(name: string, path: string) {
      const { status, body } = standIns.get(name)?.answer(
        {
          method: request.method,
          path: `/${path}`,
          query: Object.fromEntries(searchParams),
          body: request.body === null ? undefined : (JSON.parse(request.body) as unknown),
        },
        {},
      ) ?? { status: 404, body: null };
      return {
        status,
        type: 'application/json; charset=utf-8',
        body: body === undefined ? '' : JSON.stringify(body),
      };
    }
  };
  return { at: (path) => `${ORIGIN}${BASE}${path.replace(/^\//, '')}`, site };
}
