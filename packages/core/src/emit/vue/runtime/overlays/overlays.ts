import type { OverlayDefinition } from './definition';

/** Stands for what each app writes here: what can open over its screens, by name. */
export const overlays: Record<string, OverlayDefinition> = {};
