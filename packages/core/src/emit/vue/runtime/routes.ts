import type { RouteRecordRaw } from 'vue-router';

/** Stands for what each app writes here: which screen lives at which path. */
export const routes: RouteRecordRaw[] = [];
