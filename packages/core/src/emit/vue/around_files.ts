import type { Packages } from '../bundled/project_files.ts';
import { script } from '../script.ts';
import { hooksOfTests, startOfTests, takenByTestedApp, type TestedApp } from '../tested/tested_app.ts';

/** What an app of Vue needs to be built and checked. */
export const packages: Packages = {
  check: 'vue-tsc --noEmit',
  dependencies: { vue: '^3.5.0', 'vue-router': '^4.6.0' },
  network: { '@tanstack/vue-query': '^5.90.0' },
  // From 3.3 on, classes of a sheet that is imported are taken for texts in long templates.
  devDependencies: { '@vitejs/plugin-vue': '^6.0.0', 'vue-tsc': '~3.2.0' },
  plugin: { name: 'vue', from: '@vitejs/plugin-vue' },
};

/** Opens the app for its own tests. */
export function testedAppTs(app: TestedApp): string {
  const { variables, isRemote } = app;
  return script`${isRemote ? script`import { VueQueryPlugin } from '@tanstack/vue-query';\n` : NOTHING}import { afterEach${hooksOfTests(app)}${isRemote ? script`, vi` : NOTHING} } from 'vitest';
import { createApp${isRemote ? NOTHING : script`, nextTick`} } from 'vue';
import { createMemoryHistory } from 'vue-router';
import App from '../App.vue';
${isRemote ? script`import { queryClient } from '../api/queryClient';\n` : NOTHING}${takenByTestedApp(app)}import { newRouter } from '../shell/router';

${startOfTests(app, script`variables`)}
${variables ? script`/** @param given variables that are so before */\n` : NOTHING}export async function open(address: string${variables ? script`, given: Given = {}` : NOTHING}): Promise<OpenApp> {
${variables ? script`  give(given);\n` : NOTHING}  const router = newRouter(createMemoryHistory());
  const container = document.body.appendChild(document.createElement('div'));
  const app = createApp(App).use(router)${isRemote ? script`.use(VueQueryPlugin, { queryClient })` : NOTHING};
  close = async () => {
    app.unmount();
    container.remove();
    // While developing, Vue Router keeps all routers for tools that may look at them later, and with them their apps.
    Reflect.deleteProperty(globalThis, '__VUE_DEVTOOLS_PLUGINS__');
    close = async () => {};
  };
  await router.push(address);
  app.mount(container);
  await router.isReady();
  await settled();
  const addressNow = () => router.currentRoute.value.fullPath;
  return {
    container,
    address: addressNow,
    does: async (deed) => {
      deed();
      await settled();
    },
    moment: () => momentAt(addressNow()),
    close: () => close(),
  };
}

${
  isRemote
    ? script`async function settled() {
  await vi.waitUntil(() => queryClient.isFetching() === 0, { timeout: 30_000, interval: 5 });
  // Screens are told of records a moment after they have come.
  await new Promise((done) => setTimeout(done));
}`
    : script`const settled = () => nextTick();`
}

/** Whether there is a screen at an address. */
export const hasScreen = (address: string): boolean =>
  newRouter(createMemoryHistory()).resolve(address).name !== 'not-found';
`.text;
}

const NOTHING = script``;
