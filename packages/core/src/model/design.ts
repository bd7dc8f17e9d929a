/** The design document: what was drawn. Immutable, one per iteration; nothing in it is ever edited. */

/** A rectangle in CSS pixels, relative to the top left corner of its screen. */
export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** CSS declarations by property name, in kebab case, longhands only. */
export type Declarations = Readonly<Record<string, string>>;

export interface ElementStyle {
  readonly base: Declarations;
  /** What differs at or below a viewport width; keys are `max-width` in px. */
  readonly at?: Readonly<Record<string, Declarations>>;
  /** What differs at or above a viewport width; keys are `min-width` in px. */
  readonly from?: Readonly<Record<string, Declarations>>;
  readonly hover?: Declarations;
  readonly focus?: Declarations;
  readonly disabled?: Declarations;
  /** By what follows the selector: `:checked`, `:checked::before`. */
  readonly states?: Readonly<Record<string, Declarations>>;
  readonly before?: Declarations;
  readonly after?: Declarations;
  readonly placeholder?: Declarations;
}

export type ElementKind = 'box' | 'text' | 'image' | 'vector' | 'control';

/** Where an element stands in its file. */
export interface ElementSource {
  readonly file: string;
  /** Slash-joined element-child index from the document's root element, counting dropped elements too. */
  readonly path: string;
  /** The authored id, where there is one. */
  readonly id?: string;
}

/** A node of an inline vector drawing, already free of scripts and outside references. */
export interface VectorNode {
  readonly tag: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly VectorNode[];
  readonly text?: string;
}

export interface Element {
  /** Unique in the design and stable while the element stays in its place: `screen:path`. */
  readonly key: string;
  readonly kind: ElementKind;
  /** As a person would call it: layer name, label or text. */
  readonly name: string;
  /** HTML tag; absent on a bare run of text. */
  readonly tag?: string;
  readonly role?: string;
  /** Class names, as far as they may say what the element is. */
  readonly classes?: string;
  readonly box: Box;
  readonly style: ElementStyle;
  /** HTML attributes that have a meaning of their own (`href`, `type`, `alt`, …). */
  readonly attributes?: Readonly<Record<string, string>>;
  readonly text?: string;
  /** Drawn but not shown: a hidden layer, a closed dialog. Left out of the app until somebody shows it. */
  readonly hidden?: boolean;
  /** SHA-256 of an asset, for an image. */
  readonly asset?: string;
  readonly vector?: VectorNode;
  readonly children: readonly Element[];
  readonly source: ElementSource;
}

export interface Screen {
  readonly key: string;
  readonly name: string;
  /** The whole title of the page that it came from. */
  readonly title?: string;
  readonly source: { readonly file: string; readonly path: string };
  readonly width: number;
  readonly height: number;
  readonly root: Element;
  readonly use: ScreenUse;
  readonly counterpartOf?: string;
  /** SHA-256 of a picture of how the screen should look, where one came along. */
  readonly reference?: string;
  /** What was found in the picture that the screen is, to be taken as elements. */
  readonly regions?: readonly FoundRegion[];
  /** Of a settled overlay that was cut out of a screen that stays: the key of that screen, which its elements' keys name. */
  readonly cutFrom?: string;
  /** Of a settled screen with counterparts: which of its elements stand for others of it, by key. */
  readonly aliases?: Readonly<Record<string, string>>;
}

export type ScreenUse = 'screen' | 'overlay' | 'counterpart' | 'skip';

export type RegionKind = 'box' | 'row' | 'text';

/** Something that was seen in a picture. */
export interface FoundRegion {
  readonly kind: RegionKind;
  readonly box: Box;
  readonly text?: string;
  /** How sure it is, 0 to 1. */
  readonly confidence: number;
}

/** A face of a font that screens show their text in. */
export interface FontFace {
  readonly family: string;
  /** `400`, or a range: `100 900`. */
  readonly weight: string;
  readonly style: string;
  readonly stretch?: string;
  readonly unicodeRange?: string;
  /** SHA-256 of its file. */
  readonly asset: string;
}

/** A stored file, named by the SHA-256 of its bytes. */
export interface AssetRef {
  readonly hash: string;
  readonly type: string;
  readonly size: number;
  readonly file: string;
}

export type NoticeLevel = 'error' | 'warning' | 'info';

/** Something that intake dropped, changed or could not read: what, where, and what to do. */
export interface Notice {
  readonly level: NoticeLevel;
  readonly code: string;
  readonly file: string;
  readonly message: string;
  readonly path?: string;
}

export interface Design {
  readonly format: 'tovel-design/1';
  readonly iteration: number;
  readonly screens: readonly Screen[];
  readonly assets: readonly AssetRef[];
  readonly notices: readonly Notice[];
  readonly fonts?: readonly FontFace[];
  /** Texts that came along and say what the app is to be. */
  readonly brief?: string;
}

export const emptyDesign: Design = {
  format: 'tovel-design/1',
  iteration: 1,
  screens: [],
  assets: [],
  notices: [],
};
