import type { Component } from 'vue';
import type { OverlayWay } from './way';

/** What opens over a screen, and how. */
export interface OverlayDefinition extends OverlayWay {
  Content: Component;
}
