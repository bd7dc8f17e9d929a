import type { Packages } from '../bundled/project_files.ts';
import { listsTest } from '../bundled/tested_lists.ts';

/** What an app of React needs to be built and checked. */
export const packages: Packages = {
  check: 'tsc --noEmit',
  dependencies: { react: '^19.2.0', 'react-dom': '^19.2.0', 'react-router': '^7.9.0' },
  network: { '@tanstack/react-query': '^5.90.0' },
  devDependencies: {
    '@types/react': '^19.2.0',
    '@types/react-dom': '^19.2.0',
    '@vitejs/plugin-react': '^6.0.0',
  },
  plugin: { name: 'react', from: '@vitejs/plugin-react' },
  jsx: 'react-jsx',
};

/** Presses each link listed in links.json where it stands, and looks where that leads. */
export const linksTest = (
  hasVariables: boolean,
  hasLists: boolean,
  isRemote: boolean,
): string => `${isRemote ? "import { QueryClientProvider } from '@tanstack/react-query';\n" : ''}import { act } from 'react';
import { createRoot } from 'react-dom/client';
import { createMemoryRouter, matchRoutes, RouterProvider } from 'react-router';
import { afterEach, ${isRemote ? 'beforeEach, ' : ''}expect, test, vi } from 'vitest';
${isRemote ? "import { queryClient } from './api/queryClient';\n" : ''}import links from './links.json';
${hasLists ? "import lists from './lists.json';\n" : ''}import { routes } from './routes';
${hasVariables ? "import { type Variables, setVariable } from './state/variables';\n" : ''}import { calledSo, type ListedLink } from './testing/page';
${isRemote ? "import { answerAnew } from './testing/apis';\n" : ''}
Object.assign(globalThis, { IS_REACT_ACT_ENVIRONMENT: true });

let unmount = () => {};
afterEach(() => act(() => unmount()));
${isRemote ? '\nbeforeEach(() => {\n  queryClient.clear();\n  answerAnew();\n});\n' : ''}
async function open(entries: string[]) {
  const router = createMemoryRouter(routes, { initialEntries: entries });
  const container = document.body.appendChild(document.createElement('div'));
  const root = createRoot(container);
  unmount = () => {
    root.unmount();
    container.remove();
  };
${
  isRemote
    ? `  await act(async () =>
    root.render(
      <QueryClientProvider client={queryClient}>
        <RouterProvider router={router} />
      </QueryClientProvider>,
    ),
  );`
    : '  await act(async () => root.render(<RouterProvider router={router} />));'
}
  await arrived(router);
  return { router, container };
}

/** Screens are loaded when somebody comes there${isRemote ? ', and records after that' : ''}. */
async function arrived(router: ReturnType<typeof createMemoryRouter>) {
  await act(() =>
    vi.waitUntil(() => router.state.initialized && router.state.navigation.state === 'idle', {
      timeout: 30_000,
      interval: 5,
    }),
  );
${
  isRemote
    ? `  await act(() => vi.waitUntil(() => queryClient.isFetching() === 0, { interval: 5 }));
  // Screens are told of them a moment later.
  await act(() => new Promise((done) => setTimeout(done)));
`
    : ''
}}

test.each(links as ListedLink[])('$from: $name → $to', async (link) => {
  const { from, role, name, at = 0, to, kind${hasVariables ? ', given = {}' : ''} } = link;
${
  hasVariables
    ? `  await act(async () => {
    for (const [name, value] of Object.entries(given))
      setVariable(name as keyof Variables, value);
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
  for (const { to, kind } of links as ListedLink[]) {
    if (kind !== 'go' && kind !== 'back') continue;
    const found = matchRoutes(routes, to.replace(/[?#].*/, ''));
    expect(found?.at(-1)?.route.path, to).not.toBe('*');
  }
});
${hasLists ? listsTest((address) => `open([${address}])`, 'await act(async () => unmount())', hasVariables) : ''}`;
