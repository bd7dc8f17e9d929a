/** @jest-environment jsdom */
/// <reference lib="dom" />
import { loadedRuntime } from '../../testing/loaded_runtime.ts';

interface Now {
  signedIn: boolean;
  days: number;
  view: string;
  note: string;
  long: boolean;
}
interface Store {
  now(): Now;
  set<K extends keyof Now>(name: K, value: Now[K] | ((now: Now) => Now[K])): void;
  listen(tell: () => void): () => void;
}

/** The delivered file as it runs, on a page that is opened anew. */
function opened(): Store {
  const made = loadedRuntime<{ createStore(initial: Now, rules: object): Store }>('state/store.ts');
  return made.createStore(
    { signedIn: false, days: 1, view: 'list', note: '', long: false },
    {
      kept: { days: 'device', view: 'address', note: 'screen' },
      derived: { long: (now: Now) => now.days > 3 && now.signedIn },
    },
  );
}

beforeEach(() => {
  sessionStorage.clear();
  localStorage.clear();
  history.replaceState(null, '', '/');
});

test('what is set is there at once, with what is worked out from it, and whoever listens is told', () => {
  const store = opened();
  let told = 0;
  const stop = store.listen(() => told++);
  store.set('days', (now) => now.days + 1);
  store.set('days', (now) => now.days * 2);
  expect([store.now().days, store.now().long]).toEqual([4, false]);
  store.set('signedIn', true);
  expect(store.now().long).toBe(true);
  expect(store.now()).toBe(store.now());
  expect(told).toBe(3);
  stop();
  store.set('days', 0);
  expect([told, store.now().long]).toEqual([3, false]);
});

test('each is remembered for as long as is said', () => {
  const store = opened();
  store.set('signedIn', true);
  store.set('days', 5);
  store.set('note', 'here');
  store.set('view', 'grid');
  expect(location.search).toBe('?view=grid');
  const again = opened().now();
  expect(again).toEqual({ signedIn: true, days: 5, view: 'grid', note: '', long: true });
  // Another tab knows what is on the device, and its own address.
  sessionStorage.clear();
  history.replaceState(null, '', '/');
  expect(opened().now()).toEqual({ signedIn: false, days: 5, view: 'list', note: '', long: false });
});

test('what belongs to a screen is forgotten elsewhere, and the address is followed', () => {
  const store = opened();
  store.set('note', 'here');
  history.pushState(null, '', '/?view=grid');
  expect(store.now()).toMatchObject({ note: 'here', view: 'grid' });
  history.pushState(null, '', '/tools');
  expect(store.now()).toMatchObject({ note: '', view: 'list' });
  store.set('view', 'grid');
  store.set('view', 'list');
  expect(location.href).toBe('http://localhost/tools');
});

test('what was kept and cannot be read is as at first', () => {
  sessionStorage.setItem('/variables', '{');
  localStorage.setItem('/variables', 'null');
  expect(opened().now()).toMatchObject({ signedIn: false, days: 1 });
});
