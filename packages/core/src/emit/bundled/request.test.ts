/** @jest-environment jsdom */
/// <reference lib="dom" />
import { loadedRuntime } from '../../testing/loaded_runtime.ts';

interface Along {
  readonly headers?: Readonly<Record<string, string | undefined>>;
  readonly query?: Readonly<Record<string, string | undefined>>;
  readonly credentials?: RequestCredentials;
}
const { requestsTo, signedIn } = loadedRuntime<{
  requestsTo(
    base: string,
    along?: Along,
  ): (method: string, path: string, options: { readonly query: object }) => Promise<unknown>;
  signedIn(token: string | null): void;
}>('api/request.ts');

const asked: { readonly url: string; readonly init: RequestInit }[] = [];
beforeEach(() => {
  asked.length = 0;
  sessionStorage.clear();
  window.fetch = async (url, init) => {
    asked.push({ url: String(url), init: init! });
    return { ok: true, text: async () => '{"n":1}' } as Response;
  };
});

const sent = async (along?: Along): Promise<(typeof asked)[number]> => {
  await requestsTo('/api', along)('GET', '/tools', { query: { page: 2 } });
  return asked[0];
};

test('what is said by the environment goes along with each request, and what is not said does not', async () => {
  const { url, init } = await sent({
    headers: { 'X-Api-Key': 'k', 'X-Other': '', authorization: undefined },
    query: { branch: 'north', empty: undefined },
    credentials: 'include',
  });
  expect(url).toBe('/api/tools?branch=north&page=2');
  expect(init.headers).toEqual({ 'X-Api-Key': 'k', accept: 'application/json' });
  expect(init.credentials).toBe('include');
});

test('who has signed in goes before a token of the environment', async () => {
  signedIn('mine');
  const { init } = await sent({ headers: { authorization: 'Bearer theirs' } });
  expect(init.headers).toEqual({ accept: 'application/json', authorization: 'Bearer mine' });
  signedIn(null);
  asked.length = 0;
  expect((await sent()).init.headers).toEqual({ accept: 'application/json' });
});
