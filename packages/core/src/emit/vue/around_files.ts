import type { Packages } from '../bundled/project_files.ts';
import { listsTest } from '../bundled/tested_lists.ts';

/** What an app of Vue needs to be built and checked. */
export const packages: Packages = {
  check: 'vue-tsc --noEmit',
  dependencies: { vue: '^3.5.0', 'vue-router': '^4.6.0' },
  network: { '@tanstack/vue-query': '^5.90.0' },
  // From 3.3 on, classes of a sheet that is imported are taken for texts in long templates.
  devDependencies: { '@vitejs/plugin-vue': '^6.0.0', 'vue-tsc': '~3.2.0' },
  plugin: { name: 'vue', from: '@vitejs/plugin-vue' },
};

/** Presses each link listed in links.json where it stands, and looks where that leads. */
export const linksTest = (
  hasVariables: boolean,
  hasLists: boolean,
  isRemote: boolean,
): string => `${isRemote ? "import { VueQueryPlugin } from '@tanstack/vue-query';\n" : ''}import { afterEach, ${isRemote ? 'beforeEach, ' : ''}expect, test, vi } from 'vitest';
import { createApp } from 'vue';
import { createMemoryHistory } from 'vue-router';
import App from './App.vue';
${isRemote ? "import { queryClient } from './api/queryClient';\n" : ''}import links from './links.json';
${hasLists ? "import lists from './lists.json';\n" : ''}import { newRouter } from './shell/router';
${hasVariables ? "import { type Variables, setVariable } from './state/variables';\n" : ''}import { calledSo, type ListedLink } from './testing/page';
${isRemote ? "import { answerAnew } from './testing/apis';\n" : ''}
let unmount = () => {};
afterEach(() => unmount());
${isRemote ? '\nbeforeEach(() => {\n  queryClient.clear();\n  answerAnew();\n});\n' : ''}
async function open(address: string) {
  const router = newRouter(createMemoryHistory());
  const container = document.body.appendChild(document.createElement('div'));
  const app = createApp(App).use(router)${isRemote ? '.use(VueQueryPlugin, { queryClient })' : ''};
  unmount = () => {
    app.unmount();
    container.remove();
  };
  await router.push(address);
  app.mount(container);
  await router.isReady();
${
  isRemote
    ? `  await vi.waitUntil(() => queryClient.isFetching() === 0, { timeout: 30_000, interval: 5 });
  // Screens are told of records a moment after they have come.
  await new Promise((done) => setTimeout(done));
`
    : ''
}  return { router, container };
}

test.each(links as ListedLink[])('$from: $name → $to', async (link) => {
  const { from, role, name, at = 0, to, kind${hasVariables ? ', given = {}' : ''} } = link;
${hasVariables ? '  for (const [name, value] of Object.entries(given))\n    setVariable(name as keyof Variables, value);\n' : ''}  const { router, container } = await open(from);
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
  pressed.click();
  if (kind === 'open') {
    await vi.waitFor(() => expect(container.querySelector(\`#overlay-\${to}\`)).not.toBeNull());
    return;
  }
  // Screens are loaded when somebody comes there.
  await vi.waitFor(() => expect(router.currentRoute.value.fullPath).toBe(to), { timeout: 30_000 });
  expect(router.currentRoute.value.name).not.toBe('not-found');
  const { hash } = router.currentRoute.value;
  if (hash) await vi.waitFor(() => expect(container.querySelector(hash)).not.toBeNull());
});

test('every path that is linked to has a screen', () => {
  const router = newRouter(createMemoryHistory());
  for (const { to, kind } of links as ListedLink[]) {
    if (kind !== 'go' && kind !== 'back') continue;
    expect(router.resolve(to).name, to).not.toBe('not-found');
  }
});
${hasLists ? listsTest((address) => `open(${address})`, 'unmount()', hasVariables) : ''}`;
