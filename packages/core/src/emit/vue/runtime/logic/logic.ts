import type { HTMLAttributes } from 'vue';
import type { Hook } from './hooked';

/** What a screen has of its own besides its design: hooks around what people do there, and attributes of its outermost element. */
export type Logic<Acts> = {
  [Act in keyof Acts]?: Acts[Act] extends unknown[] ? Hook<Acts[Act]> : never;
} & {
  root?: HTMLAttributes;
};
