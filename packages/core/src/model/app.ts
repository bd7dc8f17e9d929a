/** The app document: what the design shall do. Refers to the design by keys and never copies it. */

/** How a screen takes part in the app. A screen that has no entry has been deleted from it. */
export interface ScreenEntry {
  readonly name: string;
  /** Absolute path, `/` or `/tool-detail`. */
  readonly route: string;
  readonly use: 'screen' | 'skip';
  /** Sorts the screens; any finite number, so that a move touches one entry. */
  readonly order: number;
}

export type Side = 'left' | 'right' | 'top' | 'bottom';

/** How the next screen arrives; `ms` is the duration in milliseconds. */
export type Arrival =
  | { readonly kind: 'none' }
  | { readonly kind: 'fade'; readonly ms: number }
  | { readonly kind: 'slide'; readonly from: Side; readonly ms: number };

export type Target =
  | { readonly kind: 'screen'; readonly screen: string }
  /** One step back in the browser's history; `fallback` is the screen to show where there is no history. */
  | { readonly kind: 'back'; readonly fallback?: string }
  | { readonly kind: 'anchor'; readonly screen: string; readonly element: string }
  | { readonly kind: 'external'; readonly href: string };

/** What an element does. The element is the key under which it is kept. */
export interface Interaction {
  readonly on: 'press';
  readonly target: Target;
  readonly arrival: Arrival;
}

export interface App {
  readonly format: 'tovel-app/1';
  /** Key of the screen that opens first. */
  readonly start: string | null;
  readonly screens: Readonly<Record<string, ScreenEntry>>;
  /** By element key. */
  readonly interactions: Readonly<Record<string, Interaction>>;
  /** Elements that look pressable and are meant to do nothing, by element key. */
  readonly still: Readonly<Record<string, true>>;
}

export const emptyApp: App = {
  format: 'tovel-app/1',
  start: null,
  screens: {},
  interactions: {},
  still: {},
};
