/** The app document: what the design shall do. Refers to the design by keys and never copies it. */

import type { Box, RegionKind } from './design.ts';
import type { Interaction, Side, When } from './interaction.ts';

export type * from './interaction.ts';

/**
 * What a drawn screen is in the app: a screen, nothing, the same as another at a different width, or something that
 * opens over another. A planned one has not been drawn yet.
 */
export type Use = 'screen' | 'skip' | 'counterpart' | 'overlay' | 'planned';

/** How a screen takes part in the app. A screen that has no entry has been deleted from it. */
export interface ScreenEntry {
  readonly name: string;
  /**
   * Absolute path with what may vary in it: `/`, `/tools/:toolId`, `/loans/:loanId?`, `/help/*`. The screen at `/*` is
   * shown where no other fits.
   */
  readonly route: string;
  /** Values of path parameters to show the screen with where nobody gives any. */
  readonly params?: Readonly<Record<string, string>>;
  readonly guard?: Guard;
  readonly overlay?: Overlay;
  readonly use: Use;
  /** Of which screen it is a counterpart or an overlay. */
  readonly of?: string;
  /** As a counterpart: the window width in px at which the one layout gives way to the other. */
  readonly turn?: number;
  /** Sorts the screens; any finite number, so that a move touches one entry. */
  readonly order: number;
}

/** Something that is true or not while the app runs, such as whether one is signed in. */
export interface Condition {
  readonly name: string;
  /** Whether it holds when the app opens. */
  readonly initial: boolean;
}

/** A condition that a screen needs, and where one goes when it does not hold. */
export interface Guard extends When {
  /** Key of the screen to show instead. */
  readonly otherwise: string;
}

export type OverlayKind = 'dialog' | 'drawer' | 'sheet' | 'popover' | 'menu' | 'toast';

/** How a screen that is an overlay opens and closes. */
export interface Overlay {
  readonly kind: OverlayKind;
  /** Of a drawer or sheet: from which side it comes. */
  readonly side?: Side;
  /** What lies behind cannot be used meanwhile. */
  readonly modal: boolean;
  readonly escape: boolean;
  /** A press outside closes it. */
  readonly outside: boolean;
  /** Has an address of its own, so that Back closes it. */
  readonly url?: true;
  /** Of a toast: milliseconds after which it goes by itself. */
  readonly ms?: number;
  /** Keys of the screens that it opens over; any where that is not said. */
  readonly over?: readonly string[];
  /** Key of the element that is the overlay, where the drawing shows it over a screen. */
  readonly panel?: string;
}

/** What several screens share, written once around them: a layout route with an outlet. */
export interface Layout {
  readonly name: string;
  /** Keys of the screens. */
  readonly screens: readonly string[];
}

/** Where a path that no screen lives at leads. */
export interface Redirect {
  /** Key of a screen. */
  readonly to: string;
}

/** A named way through the app. */
export interface Journey {
  readonly name: string;
  /** Key of the screen that it begins at. */
  readonly start: string;
  readonly steps: readonly JourneyStep[];
}

/** One thing that is done on the way. */
export type JourneyStep =
  /** An interaction, by its key, and the screen that it leads to. */
  | { readonly kind: 'do'; readonly interaction: string; readonly to: string }
  /** Something entered into a field, by the element's key. */
  | { readonly kind: 'enter'; readonly element: string; readonly text: string };

/** What somebody decided about one element; what is not said is as the design has it. */
export interface Layer {
  /** Whether it is part of the app, whatever the design says. */
  readonly show?: boolean;
  readonly name?: string;
  /** A role in ARIA terms; `none` for an element that only looks as if it had one. */
  readonly role?: string;
  /** Of a text field: `email`, `password`, `search`, `number`, `date`, `tel`, `url`, or `multiline`. */
  readonly input?: string;
  /** Of a heading, 1 to 6. */
  readonly level?: number;
  /** The accessible name, of a picture its alternative text. */
  readonly label?: string;
  /** Of a chart: `bar`, `line` or `pie`. */
  readonly chart?: string;
  /** Shown as one picture, with nothing in it that can be pressed. */
  readonly flat?: true;
  /** Lets presses through to what lies beneath. */
  readonly through?: true;
  /** Scrolls what does not fit. */
  readonly scrolls?: true;
}

/** An element drawn by hand, or taken from what was found, on a screen that is a picture. */
export interface Region {
  readonly kind: RegionKind;
  readonly box: Box;
  readonly name: string;
  readonly role?: string;
  readonly text?: string;
}

/** What layers of layered files become where nothing is said of the layer itself. */
export interface Settings {
  readonly groups: 'container' | 'picture';
  /** Whether a layer's name gives its role. */
  readonly names: 'role' | 'plain';
  readonly hidden: 'out' | 'in';
}

export const defaultSettings: Settings = { groups: 'container', names: 'role', hidden: 'out' };

/** Several places that are one component, or rows of one list. */
export interface Component {
  readonly name: string;
  readonly kind: 'component' | 'list';
  /** Element keys of the places; of a list its rows, in order. */
  readonly places: readonly string[];
  /** Names that a person gave to props, by the name that Tovel found. */
  readonly props?: Readonly<Record<string, string>>;
}

export type TokenKind = 'color' | 'size' | 'weight' | 'space' | 'radius' | 'shadow';

/** A value that recurs, under a name. The name is the key under which it is kept. */
export interface Token {
  readonly kind: TokenKind;
  readonly value: string;
  /** The values of the design that it stands for. */
  readonly from: readonly string[];
}

export type AddedKind = 'button' | 'field' | 'select' | 'list' | 'table' | 'divider' | 'message';

/** A plain control that a person put on a screen. */
export interface Added {
  readonly kind: AddedKind;
  readonly text: string;
  /** Key of the element that it stands in. */
  readonly within: string;
  /** Key of the element that it follows; the first in its container where that is not said. */
  readonly after?: string;
}

/** A part of a screen that on narrow windows is a drawer. */
export interface Drawer {
  /** Widest window, in px, at which the part is a drawer. */
  readonly below: number;
  readonly side: 'left' | 'right';
  readonly name: string;
  /** Key of the element that opens it. */
  readonly opener?: string;
}

/** Kinds of layers that a project can have a default role for. */
export type LayerKind = 'text' | 'image' | 'vector' | 'box';

export interface App {
  readonly format: 'tovel-app/1';
  /** Key of the screen that opens first. */
  readonly start: string | null;
  readonly screens: Readonly<Record<string, ScreenEntry>>;
  /** By element key, further ones of the same element with `|2` and so on. */
  readonly interactions: Readonly<Record<string, Interaction>>;
  /** Elements that look pressable and are meant to do nothing, by element key. */
  readonly still: Readonly<Record<string, true>>;
  /** By element key. */
  readonly layers: Readonly<Record<string, Layer>>;
  /** By the key that the element gets. */
  readonly regions: Readonly<Record<string, Region>>;
  readonly settings: Readonly<Partial<Settings>>;
  /** Findings that somebody has looked at and let stand, by their id; with the reason where one was given. */
  readonly dismissed: Readonly<Record<string, true | string>>;
  /** What is shown in another way than it was drawn, by element, condition and property (`editKey`). */
  readonly edits: Readonly<Record<string, string>>;
  /** By an id of their own. */
  readonly components: Readonly<Record<string, Component>>;
  /** By name. */
  readonly tokens: Readonly<Record<string, Token>>;
  /** By the key that the element gets. */
  readonly added: Readonly<Record<string, Added>>;
  /** By the key of the part. */
  readonly drawers: Readonly<Record<string, Drawer>>;
  /** Roles of layers that nothing else is known of; by `LayerKind`. */
  readonly defaults: Readonly<Record<string, string>>;
  /** Proposals that were refused, by their id. */
  readonly refused: Readonly<Record<string, true>>;
  /** By an id of their own. */
  readonly conditions: Readonly<Record<string, Condition>>;
  /** By the path, as a route is written. */
  readonly redirects: Readonly<Record<string, Redirect>>;
  /** By an id of their own. */
  readonly layouts: Readonly<Record<string, Layout>>;
  /** By an id of their own. */
  readonly journeys: Readonly<Record<string, Journey>>;
  /** Words that mean the same in this project, by word. */
  readonly synonyms: Readonly<Record<string, string>>;
}

export const emptyApp: App = {
  format: 'tovel-app/1',
  start: null,
  screens: {},
  interactions: {},
  still: {},
  layers: {},
  regions: {},
  settings: {},
  dismissed: {},
  edits: {},
  components: {},
  tokens: {},
  added: {},
  drawers: {},
  defaults: {},
  refused: {},
  conditions: {},
  redirects: {},
  layouts: {},
  journeys: {},
  synonyms: {},
};
