import { createContext, useContext } from 'react';
import type { Arrival } from '../navigation/arrival';

export interface Overlays {
  open(name: string, arrival?: Arrival): void;
  /** Closes the uppermost one. */
  close(): void;
}

export const OverlaysContext = createContext<Overlays>({ open() {}, close() {} });

export const useOverlays = (): Overlays => useContext(OverlaysContext);
