import { useRoute, useRouter } from 'vue-router';
import type { Arrival } from './arrival';
import { fill } from './fill';
import { announce, hasPast } from './history';

export interface GoFunction {
  (to: string, arrival?: Arrival): void;
  /** One step back; to the fallback when the app was entered here. */
  back(fallback: string, arrival?: Arrival): void;
}

export function useGo(): GoFunction {
  const router = useRouter();
  const route = useRoute();
  const go = (to: string, arrival: Arrival = { kind: 'none' }): void => {
    announce(arrival, document.activeElement);
    void router.push(fill(to, route.params));
  };
  const back = (fallback: string, arrival?: Arrival): void => {
    if (!hasPast()) {
      go(fallback, arrival);
      return;
    }
    if (arrival && arrival.kind !== 'none') announce(arrival);
    router.back();
  };
  return Object.assign(go, { back });
}
