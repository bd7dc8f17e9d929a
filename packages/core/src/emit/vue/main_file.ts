import type { WrittenApp } from '../bundled/dialect.ts';

/** Writes `main.ts`, with which the app begins. */
export const mainTs = (
  { fonts, tokens, shared }: WrittenApp['sheets'],
  isRemote: boolean,
  followsAddress: boolean,
): string => `${isRemote ? "import { VueQueryPlugin } from '@tanstack/vue-query';\n" : ''}import { createApp } from 'vue';
import { createWebHistory } from 'vue-router';
${shared ? "// Before the screens, whose own styles come after what they share.\nimport './styles/shared.module.css';\n" : ''}import App from './App.vue';
${isRemote ? "import { queryClient } from './api/queryClient';\n" : ''}import { newRouter } from './shell/router';
${followsAddress ? "import { followAddress } from './state/variables';\n" : ''}import './styles/base.css';
${fonts ? "import './styles/fonts.css';\n" : ''}${tokens ? "import './styles/tokens.css';\n" : ''}import './styles/transitions.css';

${
  followsAddress
    ? `const router = newRouter(createWebHistory(import.meta.env.BASE_URL));
router.afterEach(followAddress);

`
    : ''
}${
  isRemote
    ? `createApp(App)
  .use(${followsAddress ? 'router' : 'newRouter(createWebHistory(import.meta.env.BASE_URL))'})
  .use(VueQueryPlugin, { queryClient })
  .mount('#app');`
    : `createApp(App).use(${followsAddress ? 'router' : 'newRouter(createWebHistory(import.meta.env.BASE_URL))'}).mount('#app');`
}
`;

/** Writes `App.vue`: the present screen, and what is open over it. */
export const appVue = (hasOverlays: boolean, hasNotice: boolean): string => `<script setup lang="ts">
import { RouterView } from 'vue-router';
${hasOverlays ? "import OverlayHost from './overlays/OverlayHost.vue';\n" : ''}${hasNotice ? "import Notice from './shell/Notice.vue';\n" : ''}</script>

<template>
  <RouterView />
${hasOverlays ? '  <OverlayHost />\n' : ''}${hasNotice ? '  <Notice />\n' : ''}</template>
`;
