/** How something opens over a screen, and how it closes. */
export interface OverlayWay {
  /** Its accessible name. */
  label: string;
  kind: 'dialog' | 'drawer' | 'sheet' | 'popover' | 'menu' | 'toast';
  /** From where a drawer or sheet comes. */
  side?: 'left' | 'right' | 'top' | 'bottom';
  /** What lies behind cannot be used meanwhile. */
  modal: boolean;
  closesBy: { escape: boolean; outside: boolean };
  /** It is part of the address (`?show=name`), so that going back closes it. */
  hasAddress?: boolean;
  /** Milliseconds after which it goes by itself. */
  ms?: number;
  /** Paths of the screens that it opens over; any where none are given. */
  over?: string[];
}
