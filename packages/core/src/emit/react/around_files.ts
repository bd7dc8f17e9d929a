import type { Packages } from '../bundled/project_files.ts';
import { script } from '../script.ts';
import { hooksOfTests, startOfTests, takenByTestedApp, type TestedApp } from '../tested/tested_app.ts';

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

/** Opens the app for its own tests. */
export function testedAppTsx(app: TestedApp): string {
  const { variables, isRemote } = app;
  return script`${isRemote ? script`import { QueryClientProvider } from '@tanstack/react-query';\n` : NOTHING}import { act } from 'react';
import { createRoot } from 'react-dom/client';
import { createMemoryRouter, matchRoutes, RouterProvider } from 'react-router';
import { afterEach${hooksOfTests(app)}, vi } from 'vitest';
${isRemote ? script`import { queryClient } from '../api/queryClient';\n` : NOTHING}${takenByTestedApp(app)}import { routes } from '../routes';

Object.assign(globalThis, { IS_REACT_ACT_ENVIRONMENT: true });

${startOfTests(app, script`variables()`)}
${variables ? script`/** @param given variables that are so before */\n` : NOTHING}export async function open(address: string${variables ? script`, given: Given = {}` : NOTHING}): Promise<OpenApp> {
${variables ? script`  await act(async () => give(given));\n` : NOTHING}  const router = createMemoryRouter(routes, { initialEntries: [address] });
  const container = document.body.appendChild(document.createElement('div'));
  const root = createRoot(container);
  close = async () => {
    await act(async () => root.unmount());
    container.remove();
    close = async () => {};
  };
${
  isRemote
    ? script`  await act(async () =>
    root.render(
      <QueryClientProvider client={queryClient}>
        <RouterProvider router={router} />
      </QueryClientProvider>,
    ),
  );`
    : script`  await act(async () => root.render(<RouterProvider router={router} />));`
}
  await arrived(router);
  const addressNow = () => {
    const { pathname, search, hash } = router.state.location;
    return pathname + search + hash;
  };
  return {
    container,
    address: addressNow,
    does: async (deed) => {
      await act(async () => deed());
      await arrived(router);
    },
    moment: () => momentAt(addressNow()),
    close: () => close(),
  };
}

/** Screens are loaded when somebody comes there${isRemote ? script`, and records after that` : NOTHING}. */
async function arrived(router: ReturnType<typeof createMemoryRouter>) {
  await act(() =>
    vi.waitUntil(() => router.state.initialized && router.state.navigation.state === 'idle', {
      timeout: 30_000,
      interval: 5,
    }),
  );
${
  isRemote
    ? script`  await act(() => vi.waitUntil(() => queryClient.isFetching() === 0, { interval: 5 }));
  // Screens are told of them a moment later.
  await act(() => new Promise((done) => setTimeout(done)));
`
    : NOTHING
}}

/** Whether there is a screen at an address. */
export const hasScreen = (address: string): boolean =>
  matchRoutes(routes, address.replace(/[?#].*/, ''))?.at(-1)?.route.path !== '*';
`.text;
}

const NOTHING = script``;
