import { useEffect, useSyncExternalStore } from 'react';
import { forgetGone, onOpened, type Opened, opened } from './opened';

/** What is open now. What a component has shown is forgotten with it. */
export function useOpened(): Opened {
  useEffect(() => forgetGone, []);
  return useSyncExternalStore(onOpened, opened);
}
