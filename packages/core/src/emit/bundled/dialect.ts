import type { Script } from '../script.ts';
import type { NamedVariable } from '../named_variables.ts';
import type { EmittedFile } from '../emitted.ts';
import type { EmittedComponent } from '../form/components/extract.ts';
import type { EmittedList } from '../form/components/lists.ts';
import type { EmittedIcon } from '../form/icons.ts';
import type { PlacedLayout } from '../form/layouts/layouts.ts';
import type { MarkupElement } from '../form/markup.ts';
import type { EmissionPlan } from '../form/plan.ts';
import type { RouteEntry } from '../form/route_tree.ts';
import type { ScreenPart } from '../form/screen_parts.ts';
import type { ClassUse } from '../form/styles/places.ts';
import type { TestedApp } from '../tested/tested_app.ts';
import type { ApiCode } from '../form/live/apis.ts';
import type { ViewLogic } from './logic_files.ts';
import type { OverlayEntry } from './overlays_file.ts';

/** Text with, for each of its lines, the design element that the line writes. */
export interface PrintedCode {
  readonly text: string;
  readonly lines: readonly (string | null)[];
}

/** What a file with markup needs to know around it. */
export interface Around {
  /** Where classes went that are written in parts, or in the sheet that all share. */
  readonly classes: ReadonlyMap<string, readonly ClassUse[]>;
  readonly css: PrintedCode;
  readonly iconOf: (node: MarkupElement) => EmittedIcon | null;
  /** The import name and path of a picture. */
  readonly assetImport: (hash: string) => { readonly name: string; readonly path: string };
}

/** A screen, a layout or what opens over screens, with the pieces that it was parted into. */
export interface View extends Around {
  /** Its file, without what the name ends in. */
  readonly path: string;
  /** Name of its component. */
  readonly component: string;
  readonly root: MarkupElement;
  readonly parts: readonly ScreenPart[];
  readonly lists: readonly EmittedList[];
  /** Whether it holds the screens of a layout. */
  readonly hasOutlet: boolean;
  /** How people hook in there; null where they do not. */
  readonly logic: ViewLogic | null;
}

/** All that is written of an app beside its screens. */
export interface WrittenApp {
  readonly name: string;
  readonly plan: EmissionPlan;
  /** Versions of the team's own libraries that components are taken from, by what they are imported by. */
  readonly theirs: Readonly<Record<string, string>>;
  readonly rows: readonly RouteEntry[];
  readonly layouts: readonly PlacedLayout[];
  readonly overlays: readonly OverlayEntry[];
  readonly variables: readonly NamedVariable[];
  /** How it is opened for its own tests. */
  readonly testedApp: TestedApp;
  /** Described APIs that records come from. */
  readonly apis: readonly ApiCode[];
  /** Sheets that all share, where there are such. */
  readonly sheets: { readonly fonts: boolean; readonly tokens: boolean; readonly shared: boolean };
  readonly hasCharts: boolean;
  /** Whether anything is said over the screens. */
  readonly hasNotice: boolean;
  readonly hasTests: boolean;
  readonly hasJourneys: boolean;
}

/** How an app that a bundler builds is written with one framework. */
export interface Dialect {
  /** Whether components of the team's own are written in the place of those that are drawn. */
  readonly takesTheirs?: boolean;
  /** What the files of components end in. */
  readonly ending: '.tsx' | '.vue';
  /** Names that the framework or the runtime has. */
  readonly reserved: readonly string[];
  /** How what is worked out beside components speaks of variables and of records. */
  readonly beside: {
    /** What is taken of the variables, and what stands before an expression that looks at some. */
    readonly takes: string;
    readonly before: (names: readonly string[]) => Script | null;
    readonly variable: (name: string) => string;
    readonly all: (records: string) => string;
  };
  /** What it is written in, in words. */
  readonly made: string;
  /** Id of the element that the app is shown in, and the names of the files that it begins with. */
  readonly root: string;
  readonly main: string;
  readonly routes: string;
  /** Texts of the runtime, by path from the folder of the source. */
  readonly runtime: Readonly<Record<string, string>>;
  /** How many lines an element is written as. */
  readonly linesOf: (node: MarkupElement, around: Around) => number;
  readonly view: (view: View) => EmittedFile[];
  /**
   * @param pieces that it was parted into
   * @param path its file, without what the name ends in
   */
  readonly component: (
    component: EmittedComponent,
    pieces: readonly EmittedComponent[],
    path: string,
    around: Around,
  ) => EmittedFile[];
  readonly icon: (icon: EmittedIcon, assetImport: Around['assetImport']) => PrintedCode;
  /** What the app begins with, its routes, what it remembers, and what it is built, checked and tested with. */
  readonly around: (app: WrittenApp) => EmittedFile[];
}
