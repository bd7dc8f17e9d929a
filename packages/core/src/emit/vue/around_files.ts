import type { Packages } from '../bundled/project_files.ts';
import { listsTest } from '../bundled/tested_lists.ts';

/** What an app of Vue needs to be built and checked. */
export const packages: Packages = {
  check: 'vue-tsc --noEmit',
  dependencies: { vue: '^3.5.0', 'vue-router': '^4.6.0' },
  devDependencies: { '@vitejs/plugin-vue': '^6.0.0', 'vue-tsc': '^3.0.0' },
  plugin: { name: 'vue', from: '@vitejs/plugin-vue' },
};

/** Presses each link listed in links.json where it stands, and looks where that leads. */
export const linksTest = (
  hasConditions: boolean,
  hasLists: boolean,
): string => `import { afterEach, expect, test, vi } from 'vitest';
import { createApp } from 'vue';
import { createMemoryHistory } from 'vue-router';
import App from './App.vue';
import links from './links.json';
${hasLists ? "import lists from './lists.json';\n" : ''}import { newRouter } from './shell/router';
${hasConditions ? "import { type Conditions, setCondition } from './state/conditions';\n" : ''}import { calledSo, type ListedLink } from './testing/page';

let unmount = () => {};
afterEach(() => unmount());

async function open(address: string) {
  const router = newRouter(createMemoryHistory());
  const container = document.body.appendChild(document.createElement('div'));
  const app = createApp(App).use(router);
  unmount = () => {
    app.unmount();
    container.remove();
  };
  await router.push(address);
  app.mount(container);
  await router.isReady();
  return { router, container };
}

test.each(links as ListedLink[])('$from: $name → $to', async (link) => {
  const { from, role, name, at = 0, to, kind${hasConditions ? ', given = {}' : ''} } = link;
${hasConditions ? '  for (const [name, value] of Object.entries(given))\n    setCondition(name as keyof Conditions, value);\n' : ''}  const { router, container } = await open(from);
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
  await vi.waitFor(() => expect(router.currentRoute.value.fullPath).toBe(to), { timeout: 15_000 });
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
${hasLists ? listsTest((address) => `open(${address})`, 'unmount()', hasConditions) : ''}`;
