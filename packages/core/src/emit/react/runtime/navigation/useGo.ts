import { useMemo } from 'react';
import { useNavigate, useParams } from 'react-router';
import type { Arrival } from './arrival';
import { fill } from './fill';
import { afterPop, announce, announceBack, entryNumber, needsOwnTransition } from './history';

export interface GoFunction {
  (to: string, arrival?: Arrival): void;
  /** One step back; to the fallback when the app was entered here. */
  back(fallback: string, arrival?: Arrival): void;
}

const NONE: Arrival = { kind: 'none' };

export function useGo(): GoFunction {
  const navigate = useNavigate();
  const params = useParams();
  return useMemo(() => {
    const go = (to: string, arrival = NONE): void => {
      const viewTransition = announce(arrival, document.activeElement);
      void navigate(fill(to, params), { viewTransition });
    };
    const back = (fallback: string, arrival = NONE): void => {
      if (entryNumber() === 0) {
        go(fallback, arrival);
        return;
      }
      announceBack(arrival);
      if (!needsOwnTransition(arrival)) void navigate(-1);
      else
        document.startViewTransition(() => {
          void navigate(-1);
          return afterPop();
        });
    };
    return Object.assign(go, { back });
  }, [navigate, params]);
}
