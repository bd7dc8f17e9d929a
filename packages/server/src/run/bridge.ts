/**
 * What Run puts beside a generated app, and only there: it tells the frame around it where the app is, and goes
 * where it is told. Served as a script of its own; the app's code knows nothing of it.
 */
export function bridgeScript(appOrigin: string): string {
  // Some compilers wrap named functions in a helper that only they have.
  return `const __name = (made) => made;\n(${bridge.toString()})(${JSON.stringify(appOrigin)});`;
}

/* Runs in the frame. */
function bridge(appOrigin: string): void {
  const { history, location, parent, sessionStorage, localStorage } = globalThis as unknown as {
    history: {
      state: { idx?: number } | null;
      pushState: Push;
      replaceState: Push;
      back(): void;
      forward(): void;
    };
    location: { pathname: string; search: string; hash: string; reload(): void; assign(to: string): void };
    parent: { postMessage(message: unknown, origin: string): void };
    sessionStorage: {
      getItem(key: string): string | null;
      setItem(key: string, value: string): void;
      removeItem(key: string): void;
    };
    localStorage: { removeItem(key: string): void };
  };
  type Push = (state: unknown, unused: string, url?: string) => void;
  const win = globalThis as unknown as {
    addEventListener(
      type: string,
      listen: (event: {
        origin: string;
        data: {
          tovel?: string;
          to?: string;
          name?: string;
          value?: boolean;
          marks?: unknown[];
          kept?: unknown;
          mark?: unknown;
        };
      }) => void,
    ): void;
    scrollTo(x: number, y: number): void;
    scrollX: number;
    scrollY: number;
    requestAnimationFrame(run: () => void): void;
  };
  interface Node {
    closest(selector: string): Node | null;
    matches(selector: string): boolean;
    value?: string;
    type?: string;
    textContent?: string;
  }
  interface Pressing {
    target: Node;
    /** Of a key. */
    key?: string;
    preventDefault(): void;
    stopImmediatePropagation(): void;
  }
  interface Holder {
    querySelectorAll(selector: string): ArrayLike<Node>;
    append(node: object): void;
  }
  const globals = globalThis as unknown as {
    document: Holder & {
      head: Holder;
      body: Holder;
      createElement(tag: string): { textContent: string; remove(): void };
      getAnimations(): {
        finished: Promise<unknown>;
        effect: { getComputedTiming(): { endTime?: unknown } } | null;
      }[];
      addEventListener(type: string, listen: (event: Pressing) => void, capture: boolean): void;
    };
    MutationObserver: new (heard: () => void) => { observe(node: Holder, how: object): void };
  };
  const { document } = globals;
  const base = '/' + location.pathname.split('/')[1];
  const pathNow = (): string =>
    (location.pathname.slice(base.length) || '/') + location.search + location.hash;
  // What is pressed and entered is told by its place among its kind, so that a journey can be recorded.
  const listen = (type: string, kind: string, selector: string): void =>
    document.addEventListener(
      type,
      ({ target }) => {
        const node = target.closest?.(selector);
        const index = node ? Array.from(document.querySelectorAll(selector)).indexOf(node) : -1;
        if (index < 0) return;
        const text = node!.type === 'password' ? '' : (node!.value ?? '');
        const says = saidBy(node as Lit);
        parent.postMessage({ tovel: kind, index, path: pathNow(), text, says }, appOrigin);
      },
      true,
    );
  listen('click', 'press', 'a, button, [role="link"]');
  listen('change', 'enter', 'input, textarea, select');
  // What leads nowhere yet is lit up, and tells that it was pressed; the app may draw itself anew at any time.
  interface Lit extends Node {
    localName: string;
    getAttribute(name: string): string | null;
    setAttribute(name: string, value: string): void;
    removeAttribute(name: string): void;
    getBoundingClientRect(): { left: number; bottom: number };
  }
  interface Mark {
    key: string;
    seen: { tag: string; says: string; nth: number; nthOfTag: number };
  }
  const LIT = 'data-lit';
  /** Longer than this, in ms, and it moves for its own sake. */
  const MOST_MOVING = 3000;
  const REACHED = 'data-lit-reached';
  let marks: Mark[] = [];
  const litStyle = document.createElement('style');
  litStyle.textContent = `[${LIT}] { outline: 3px dashed #c75300 !important; outline-offset: 2px !important; cursor: pointer !important; }`;
  const saidBy = (node: Lit): string =>
    (
      ['aria-label', 'alt', 'placeholder'].map((name) => node.getAttribute(name)?.trim()).find(Boolean) ??
      node.textContent ??
      ''
    )
      .replace(/\s+/g, ' ')
      .trim()
      .slice(0, 120);
  const foundBy = (seen: Mark['seen']): Lit | null => {
    const ofTag = Array.from(document.body.querySelectorAll(seen.tag)) as Lit[];
    const alike = ofTag.filter((node) => saidBy(node) === seen.says);
    return alike[seen.nth] ?? alike[0] ?? ofTag[seen.nthOfTag] ?? null;
  };
  const light = (): void => {
    const lit = new Map<Lit, string>();
    for (const { key, seen } of marks) {
      const found = foundBy(seen);
      if (found) lit.set(found, key);
    }
    for (const node of Array.from(document.querySelectorAll(`[${LIT}]`)) as Lit[])
      if (!lit.has(node)) {
        node.removeAttribute(LIT);
        if (node.getAttribute(REACHED) !== null) node.removeAttribute('tabindex');
        node.removeAttribute(REACHED);
      }
    for (const [node, key] of lit) {
      if (node.getAttribute(LIT) !== key) node.setAttribute(LIT, key);
      // Whoever has no pointer gets there, too.
      if (node.matches('a[href], button, input, select, textarea, [tabindex]')) continue;
      node.setAttribute('tabindex', '0');
      node.setAttribute(REACHED, '');
    }
  };
  let isLighting = false;
  const lightSoon = (): void => {
    if (isLighting) return;
    isLighting = true;
    win.requestAnimationFrame(() => {
      isLighting = false;
      light();
    });
  };
  const mark = (wanted: Mark[]): void => {
    marks = wanted;
    if (marks.length) document.head.append(litStyle);
    else litStyle.remove();
    light();
  };
  new globals.MutationObserver(() => marks.length && lightSoon()).observe(document.body, {
    childList: true,
    subtree: true,
  });
  const pressLit = (event: Pressing): void => {
    const node = event.target.closest?.(`[${LIT}]`) as Lit | null;
    if (!node || (event.key !== undefined && event.key !== 'Enter' && event.key !== ' ')) return;
    event.preventDefault();
    event.stopImmediatePropagation();
    const { left: x, bottom: y } = node.getBoundingClientRect();
    parent.postMessage({ tovel: 'open-end', key: node.getAttribute(LIT), x, y }, appOrigin);
  };
  document.addEventListener('click', pressLit, true);
  document.addEventListener('keydown', pressLit, true);
  // What the app remembers is told as it changes, with what was pressed last.
  let pressed = '';
  document.addEventListener(
    'click',
    ({ target }) => {
      const node = target.closest?.('a, button, [role="link"], input');
      if (node) pressed = (node.textContent || node.value || '').trim().slice(0, 60);
    },
    true,
  );
  const apiKey = 'tovel-tried';
  const conditionsKey = `${base}/conditions`;
  const recordsKey = `${base}/records/`;
  type Kept = Record<string, unknown> & { id: string };
  interface Done {
    added?: Kept[];
    changed?: Record<string, Record<string, unknown>>;
    removed?: string[];
  }
  const shortJson = (value: unknown): string => {
    try {
      return JSON.stringify(value) ?? '';
    } catch {
      return String(value);
    }
  };
  // What goes wrong in the app, with what was pressed last.
  const tellError = (thrown: unknown): void => {
    const {
      name,
      message,
      stack = '',
    } = (thrown ?? {}) as { name?: string; message?: string; stack?: string };
    // A transition that the next one cut short is no mistake.
    if (name === 'AbortError') return;
    const says = String(message ?? thrown).slice(0, 500);
    const at = /\/_app\/app\.js:(\d+):(\d+)/.exec(stack);
    parent.postMessage(
      { tovel: 'error', says, line: at ? Number(at[1]) : null, by: pressed, path: pathNow() },
      appOrigin,
    );
  };
  win.addEventListener('error', (event) => tellError((event as unknown as { error: unknown }).error));
  win.addEventListener('unhandledrejection', (event) =>
    tellError((event as unknown as { reason: unknown }).reason),
  );
  for (const level of ['error', 'warn', 'log'] as const) {
    const { console } = globalThis as unknown as { console: Record<string, (...said: unknown[]) => void> };
    const original = console[level].bind(console);
    console[level] = (...said) => {
      original(...said);
      const says = said
        .map((one) =>
          one instanceof Error ? one.message : typeof one === 'object' ? shortJson(one) : String(one),
        )
        .join(' ');
      parent.postMessage({ tovel: 'console', level, says: says.slice(0, 500), by: pressed }, appOrigin);
    };
  }
  const read = <T>(text: string | null): T => {
    try {
      return JSON.parse(text ?? '{}') as T;
    } catch {
      return {} as T;
    }
  };
  const tellState = (changes: readonly object[]): void =>
    parent.postMessage(
      {
        tovel: 'state',
        conditions: read<object>(sessionStorage.getItem(conditionsKey)),
        tried: sessionStorage.getItem(apiKey) ?? 'usual',
        changes,
        by: pressed,
      },
      appOrigin,
    );
  const saidOf = (says: Record<string, unknown>): string => Object.values(says).filter(Boolean).join(' · ');
  const changesOf = (collection: string, before: Done, now: Done): object[] => [
    ...(now.added ?? [])
      .filter((one) => !(before.added ?? []).some(({ id }) => id === one.id))
      .map(({ id: _id, ...says }) => ({ collection, did: 'added', says: saidOf(says) })),
    ...(now.removed ?? [])
      .filter((id) => !(before.removed ?? []).includes(id))
      .map((id) => ({ collection, did: 'removed', says: id })),
    ...Object.entries(now.changed ?? {})
      .filter(([id, says]) => JSON.stringify(says) !== JSON.stringify(before.changed?.[id]))
      .map(([id, says]) => ({
        collection,
        did: 'changed',
        says: `${id}: ${saidOf(says)}`,
      })),
  ];
  const { Storage } = globalThis as unknown as { Storage: { prototype: StorageMethods } };
  interface StorageMethods {
    setItem(key: string, value: string): void;
    getItem(key: string): string | null;
  }
  const { setItem } = Storage.prototype;
  Storage.prototype.setItem = function set(this: StorageMethods, key: string, value: string): void {
    const before = this.getItem(key);
    setItem.call(this, key, value);
    if (key === conditionsKey) {
      const was = read<Record<string, unknown>>(before);
      tellState(
        Object.entries(read<Record<string, unknown>>(value))
          .filter(([name, is]) => was[name] !== is)
          .map(([name, is]) => ({ condition: name, is })),
      );
    } else if (key.startsWith(recordsKey))
      tellState(changesOf(key.slice(recordsKey.length), read<Done>(before), read<Done>(value)));
  };
  // The app is loaded anew after each change of the project, and asks nobody about that.
  win.addEventListener('beforeunload', (event) =>
    (event as unknown as { stopImmediatePropagation(): void }).stopImmediatePropagation(),
  );
  // What the app asks of described APIs is told, and is asked as somebody wants to try it.
  const frame = globalThis as unknown as {
    fetch: Fetch;
    Headers: new (from?: unknown) => Headers;
    Event: new (kind: string, how: object) => object;
  };
  interface Headers {
    set(name: string, value: string): void;
    get(name: string): string | null;
  }
  interface Response {
    status: number;
    headers: Headers;
  }
  type Fetch = (address: string, options?: { method?: string; headers?: unknown }) => Promise<Response>;
  const ask = frame.fetch.bind(globalThis);
  frame.fetch = async (address, options = {}) => {
    if (!address.startsWith(`${base}/api/`)) return ask(address, options);
    const headers = new frame.Headers(options.headers);
    headers.set('x-tried', sessionStorage.getItem(apiKey) ?? '');
    const by = pressed;
    const began = Date.now();
    const request = (status: number, operation: string): object => ({
      method: options.method ?? 'GET',
      path: address.slice(base.length + 4).replace(/^\/[^/]*/, ''),
      operation,
      status,
      ms: Date.now() - began,
    });
    try {
      const response = await ask(address, { ...options, headers });
      tellRequest(
        request(response.status, decodeURIComponent(response.headers.get('x-operation') ?? '')),
        by,
      );
      return response;
    } catch (error) {
      tellRequest(request(0, ''), by);
      throw error;
    }
  };
  const tellRequest = (request: object, by: string): void =>
    parent.postMessage({ tovel: 'request', request, by }, appOrigin);
  // All that the app remembers, so that one can go on from here later.
  const kept = (): { conditions: string | null; records: Record<string, string> } => ({
    conditions: sessionStorage.getItem(conditionsKey),
    records: Object.fromEntries(
      (Object.entries(localStorage) as unknown as [string, string][]).filter(([key]) =>
        key.startsWith(recordsKey),
      ),
    ),
  });
  const restore = ({ conditions, records }: ReturnType<typeof kept>): void => {
    if (conditions === null) sessionStorage.removeItem(conditionsKey);
    else setItem.call(sessionStorage as unknown as StorageMethods, conditionsKey, conditions);
    for (const key of Object.keys(localStorage))
      if (key.startsWith(recordsKey) && !(key in records)) localStorage.removeItem(key);
    for (const [key, value] of Object.entries(records))
      if (key.startsWith(recordsKey)) setItem.call(localStorage as unknown as StorageMethods, key, value);
  };
  interface Actable extends Lit {
    click(): void;
    dispatchEvent(event: object): void;
  }
  // What has just come may still be moving in, and what goes is there until then.
  const stillness = async (): Promise<void> => {
    const frames = (count: number): Promise<void> =>
      new Promise((resolve) =>
        win.requestAnimationFrame(() => (count > 1 ? void frames(count - 1).then(resolve) : resolve())),
      );
    await frames(2);
    const moving = globals.document
      .getAnimations()
      .filter(({ effect }) => Number(effect?.getComputedTiming().endTime) < MOST_MOVING)
      .map(({ finished }) => finished);
    await Promise.allSettled(moving);
    await frames(1);
  };
  // One thing is done as a person would, for a journey that is replayed.
  const act = (mark: Mark, text: string | undefined): boolean => {
    const alike = (Array.from(document.body.querySelectorAll(mark.seen.tag)) as Actable[]).filter(
      (one) => saidBy(one) === mark.seen.says,
    );
    const node = alike[mark.seen.nth] ?? alike[0];
    if (!node) return false;
    if (text === undefined) node.click();
    else {
      // Frameworks listen to what the browser itself sets.
      const { prototype } = Object.getPrototypeOf(node).constructor as { prototype: object };
      Object.getOwnPropertyDescriptor(prototype, 'value')?.set?.call(node, text);
      for (const kind of ['input', 'change']) node.dispatchEvent(new frame.Event(kind, { bubbles: true }));
    }
    return true;
  };
  let top = Number(sessionStorage.getItem('tovel-top') ?? 0);
  const tell = (): void => {
    const at = history.state?.idx ?? 0;
    top = Math.max(top, at);
    sessionStorage.setItem('tovel-top', String(top));
    parent.postMessage(
      {
        tovel: 'place',
        path: pathNow(),
        canGoBack: at > 0,
        canGoForward: at < top,
        kept: kept(),
      },
      appOrigin,
    );
  };
  for (const name of ['pushState', 'replaceState'] as const) {
    const original = history[name].bind(history);
    history[name] = (...args: Parameters<Push>) => {
      original(...args);
      if (name === 'pushState') top = history.state?.idx ?? 0;
      tell();
    };
  }
  win.addEventListener('popstate', tell);
  win.addEventListener('message', ({ origin, data }) => {
    if (origin !== appOrigin || !data) return;
    if (data.tovel === 'back' && (history.state?.idx ?? 0) > 0) history.back();
    if (data.tovel === 'forward' && (history.state?.idx ?? 0) < top) history.forward();
    if (data.tovel === 'mark') mark((data.marks ?? []) as Mark[]);
    if (data.tovel === 'do') {
      const { mark: wanted, name } = data;
      void stillness().then(() => {
        const found = act(wanted as Mark, name);
        parent.postMessage({ tovel: 'did', found }, appOrigin);
      });
    }
    if (data.tovel === 'restore') {
      restore(data.kept as ReturnType<typeof kept>);
      location.assign(base + data.to!);
    }
    if (data.tovel === 'go') location.assign(base + data.to!);
    if (data.tovel === 'set') {
      pressed = '';
      const now = { ...read<object>(sessionStorage.getItem(conditionsKey)), [data.name!]: data.value };
      sessionStorage.setItem(conditionsKey, JSON.stringify(now));
      location.reload();
    }
    if (data.tovel === 'try') {
      sessionStorage.setItem(apiKey, data.name!);
      location.reload();
    }
    if (data.tovel === 'set-back') {
      sessionStorage.removeItem(apiKey);
      const setBack = ask(`${base}/api`, { method: 'DELETE' });
      sessionStorage.removeItem(conditionsKey);
      for (const key of Object.keys(localStorage))
        if (key.startsWith(recordsKey)) localStorage.removeItem(key);
      void setBack.then(() => location.reload());
    }
    if (data.tovel === 'reload') {
      sessionStorage.setItem('tovel-scroll', JSON.stringify([win.scrollX, win.scrollY]));
      location.reload();
    }
  });
  const scroll = sessionStorage.getItem('tovel-scroll');
  if (scroll) {
    sessionStorage.removeItem('tovel-scroll');
    const [x, y] = JSON.parse(scroll) as [number, number];
    const restore = (left: number): void => {
      win.scrollTo(x, y);
      if (left > 0 && win.scrollY < y) win.requestAnimationFrame(() => restore(left - 1));
    };
    restore(30);
  }
  tell();
  tellState([]);
}
