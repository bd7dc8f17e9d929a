import { shallowRef } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import type { Arrival } from '../navigation/arrival';
import { overlays } from './overlays';

interface Opened {
  name: string;
  id: number;
  opener: Element | null;
  arrival?: Arrival;
}

export interface Overlays {
  open(name: string, arrival?: Arrival): void;
  /** Closes the uppermost one. */
  close(): void;
}

/** Of the address: what is open over the screen, where that is part of it. */
export const PARAMETER = 'show';

/** What else is open, the uppermost last. */
export const opened = shallowRef<Opened[]>([]);
let count = 0;

export function useOverlays(): Overlays {
  const router = useRouter();
  const route = useRoute();
  return {
    open(name, arrival) {
      const definition = overlays[name];
      if (!definition) return;
      if (definition.hasAddress) {
        const query = { ...route.query, [PARAMETER]: name };
        void router.push({ query, state: { isOpened: true } });
        return;
      }
      const opener = document.activeElement;
      const others = opened.value.filter((other) => other.name !== name);
      opened.value = [...others, { name, id: ++count, opener, arrival }];
    },
    close() {
      if (opened.value.length) opened.value = opened.value.slice(0, -1);
      else if (globalThis.history?.state?.isOpened) router.back();
      else if (route.query[PARAMETER]) {
        const { [PARAMETER]: _open, ...query } = route.query;
        void router.replace({ query });
      }
    },
  };
}
