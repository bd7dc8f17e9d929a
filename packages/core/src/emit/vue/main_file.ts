import type { WrittenApp } from '../bundled/dialect.ts';

/** Writes `main.ts`, with which the app begins. */
export const mainTs = ({
  fonts,
  tokens,
  shared,
}: WrittenApp['sheets']): string => `import { createApp } from 'vue';
import { createWebHistory } from 'vue-router';
${shared ? "// Before the screens, whose own styles come after what they share.\nimport './styles/shared.module.css';\n" : ''}import App from './App.vue';
import { newRouter } from './shell/router';
import './styles/base.css';
${fonts ? "import './styles/fonts.css';\n" : ''}${tokens ? "import './styles/tokens.css';\n" : ''}import './styles/transitions.css';

createApp(App).use(newRouter(createWebHistory(import.meta.env.BASE_URL))).mount('#app');
`;

/** Writes `App.vue`: the present screen, and what is open over it. */
export const appVue = (hasOverlays: boolean): string => `<script setup lang="ts">
import { RouterView } from 'vue-router';
${hasOverlays ? "import OverlayHost from './overlays/OverlayHost.vue';\n" : ''}</script>

<template>
  <RouterView />
${hasOverlays ? '  <OverlayHost />\n' : ''}</template>
`;
