import { useSyncExternalStore } from 'react';

/** What is true or not while the app runs. Kept for as long as the tab is open. */
export interface Variables {
  /** Signed in. */
  signedIn: boolean;
}

const KEY = `${import.meta.env.BASE_URL}variables`;
const listeners = new Set<() => void>();
let now: Variables = {
  signedIn: false,
  ...JSON.parse(sessionStorage.getItem(KEY) ?? '{}'),
};

export function setVariable(name: keyof Variables, value: boolean): void {
  now = { ...now, [name]: value };
  sessionStorage.setItem(KEY, JSON.stringify(now));
  listeners.forEach((tell) => tell());
}

export function useVariables(): Variables {
  return useSyncExternalStore(
    (tell) => {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },
    () => now,
  );
}
