import { stringifySorted } from '../../json/json.ts';

/** The files around the source of an emitted app: what it is built, checked and tested with. */

export function packageJson(name: string, hasJourneys: boolean, hasTests: boolean): string {
  const content = {
    name,
    private: true,
    version: '0.1.0',
    type: 'module',
    scripts: {
      dev: 'vite',
      build: 'tsc --noEmit && vite build',
      ...(hasTests ? { test: 'vitest run' } : {}),
      ...(hasJourneys ? { 'test:journeys': 'playwright test' } : {}),
      format: 'prettier --write .',
    },
    dependencies: { react: '^19.2.0', 'react-dom': '^19.2.0', 'react-router': '^7.9.0' },
    devDependencies: {
      ...(hasJourneys ? { '@playwright/test': '^1.56.0' } : {}),
      '@types/react': '^19.2.0',
      '@types/react-dom': '^19.2.0',
      '@vitejs/plugin-react': '^6.0.0',
      ...(hasTests ? { jsdom: '^26.1.0' } : {}),
      prettier: '^3.6.0',
      typescript: '~6.0.0',
      vite: '^8.0.0',
      ...(hasTests ? { vitest: '^4.0.0' } : {}),
    },
  };
  return `${JSON.stringify(content, null, 2)}\n`;
}

export const tsconfigJson = (hasJourneys: boolean): string =>
  `${stringifySorted(
    {
      compilerOptions: {
        target: 'ES2022',
        module: 'ESNext',
        moduleResolution: 'bundler',
        lib: ['ES2023', 'DOM', 'DOM.Iterable'],
        jsx: 'react-jsx',
        strict: true,
        noEmit: true,
        noUnusedLocals: true,
        noUnusedParameters: true,
        isolatedModules: true,
        resolveJsonModule: true,
        skipLibCheck: true,
        types: ['vite/client'],
      },
      include: ['src', ...(hasJourneys ? ['e2e', 'playwright.config.ts'] : []), 'vite.config.ts'],
    },
    2,
  ).replace(/\[\n\s+([^\]]+?)\n\s+\]/g, (_, items: string) => `[${items.replace(/\n\s+/g, ' ')}]`)}\n`;

export const viteConfig = (hasTests: boolean): string => `import react from '@vitejs/plugin-react';
import { defineConfig } from '${hasTests ? 'vitest/config' : 'vite'}';

export default defineConfig({
  plugins: [react()],
  // Classes with dashes in sheets are called without them in code.
  css: { modules: { localsConvention: 'dashesOnly' } },
${hasTests ? "  test: { environment: 'jsdom', include: ['src/**/*.test.{ts,tsx}'], testTimeout: 20_000 },\n" : ''}});
`;

/** Presses each link listed in links.json where it stands, and looks where that leads. */
export const linksTest = (hasConditions: boolean): string => `import { act } from 'react';
import { createRoot } from 'react-dom/client';
import { createMemoryRouter, matchRoutes, RouterProvider } from 'react-router';
import { afterEach, expect, test, vi } from 'vitest';
import links from './links.json';
import { routes } from './routes';
${hasConditions ? "import { type Conditions, setCondition } from './state/conditions';\n" : ''}
interface Listed {
  from: string;
  role: string;
  name: string;
  at?: number;
  kind: string;
  to: string;
  given?: Record<string, boolean>;
}

Object.assign(globalThis, { IS_REACT_ACT_ENVIRONMENT: true });
window.scrollTo = () => {};
Element.prototype.scrollIntoView = () => {};
// What a browser does over the page, and this stand-in for one does not know.
HTMLDialogElement.prototype.showModal ??= function show(this: HTMLDialogElement) {
  this.open = true;
};
HTMLDialogElement.prototype.show ??= HTMLDialogElement.prototype.showModal;
HTMLDialogElement.prototype.close ??= function close(this: HTMLDialogElement) {
  this.open = false;
};
HTMLElement.prototype.showPopover ??= () => {};

let unmount = () => {};
afterEach(() => act(() => unmount()));

async function open(entries: string[]) {
  const router = createMemoryRouter(routes, { initialEntries: entries });
  const container = document.body.appendChild(document.createElement('div'));
  const root = createRoot(container);
  unmount = () => {
    root.unmount();
    container.remove();
  };
  await act(async () => root.render(<RouterProvider router={router} />));
  await arrived(router);
  return { router, container };
}

/** Screens are loaded when somebody comes there. */
async function arrived(router: ReturnType<typeof createMemoryRouter>) {
  await act(() =>
    vi.waitUntil(() => router.state.initialized && router.state.navigation.state === 'idle', {
      timeout: 15_000,
      interval: 5,
    }),
  );
}

/** What can be pressed that has a role and, as far as it is given, a name. */
function calledSo(container: HTMLElement, role: string, name: string): HTMLElement[] {
  const plain = (text: string): string => text.replace(/\\s+/g, '');
  const wanted = plain(name);
  return [...container.querySelectorAll<HTMLElement>('a, button, [role="link"]')].filter(
    (element) => {
      const own = element.getAttribute('role') ?? (element.tagName === 'BUTTON' ? 'button' : 'link');
      const called = plain(element.getAttribute('aria-label') ?? textOf(element));
      return own === role && (wanted ? called.startsWith(wanted) : called === '');
    },
  );
}

/** The text of an element with what its pictures say. */
function textOf(node: Node): string {
  if (node instanceof HTMLImageElement) return node.alt;
  if (node.nodeType === Node.TEXT_NODE) return node.textContent ?? '';
  return [...node.childNodes].map(textOf).join('');
}

test.each(links as Listed[])('$from: $name → $to', async (link) => {
  const { from, role, name, at = 0, to, kind${hasConditions ? ', given = {}' : ''} } = link;
${
  hasConditions
    ? `  await act(async () => {
    for (const [name, value] of Object.entries(given))
      setCondition(name as keyof Conditions, value);
  });
`
    : ''
}  const { router, container } = await open([from]);
  const pressed = calledSo(container, role, name)[at];
  expect(pressed, \`the \${role} “\${name}” stands on \${from}\`).toBeDefined();
  if (kind === 'drawer') {
    expect(container.querySelector(to)).not.toBeNull();
    return;
  }
  if (kind === 'external') {
    expect(pressed.getAttribute('href') ?? to).toBe(to);
    return;
  }
  if (kind === 'file') {
    expect(pressed.getAttribute('download') ?? to).toBe(to);
    return;
  }
  await act(async () => pressed.click());
  await arrived(router);
  if (kind === 'open') {
    expect(container.querySelector(\`#overlay-\${to}\`)).not.toBeNull();
    return;
  }
  const { pathname, search, hash } = router.state.location;
  expect(pathname + search + hash).toBe(to);
  expect(router.state.matches.at(-1)?.route.path).not.toBe('*');
  if (hash) expect(container.querySelector(hash)).not.toBeNull();
});

test('every path that is linked to has a screen', () => {
  for (const { to, kind } of links) {
    if (kind !== 'go' && kind !== 'back') continue;
    const found = matchRoutes(routes, to.replace(/[?#].*/, ''));
    expect(found?.at(-1)?.route.path, to).not.toBe('*');
  }
});
`;
