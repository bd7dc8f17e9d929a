import { useSyncExternalStore } from 'react';

/** What is true or not while the app runs. Kept for as long as the tab is open. */
export interface Conditions {
  /** Signed in. */
  signedIn: boolean;
}

const KEY = `${import.meta.env.BASE_URL}conditions`;
const listeners = new Set<() => void>();
let now: Conditions = {
  signedIn: false,
  ...JSON.parse(sessionStorage.getItem(KEY) ?? '{}'),
};

export function setCondition(name: keyof Conditions, value: boolean): void {
  now = { ...now, [name]: value };
  sessionStorage.setItem(KEY, JSON.stringify(now));
  listeners.forEach((tell) => tell());
}

export function useConditions(): Conditions {
  return useSyncExternalStore(
    (tell) => {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },
    () => now,
  );
}
