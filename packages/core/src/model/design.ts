/**
 * The design document: what was drawn. Immutable, one per iteration; nothing in it is ever edited. Its shapes are declared
 * here once: types, checks at every door and the published JSON Schema come from them.
 */

import {
  choice,
  elementKey,
  fields,
  type FieldsOf,
  flag,
  lazy,
  list,
  number,
  optional,
  type Schema,
  screenKey,
  table,
  text,
  title,
  type ValueOf,
  whole,
} from '../schema/schema.ts';
import { attributeProblem, isAttributeName } from '../vocabulary/attributes.ts';
import { isStateSelector, styleProblem } from '../vocabulary/style_values.ts';
import { TAGS } from '../vocabulary/tags.ts';
import { VECTOR_TAGS, vectorAttributeProblem } from '../vocabulary/vectors.ts';

/** Bounds on a design document; intake keeps to them, and what comes from outside must. */
export const designLimits = {
  screens: 5000,
  /** Elements of one screen. */
  elements: 20_000,
  /** Nesting of elements within a screen. */
  depth: 220,
  /** UTF-16 units of one text. */
  text: 200_000,
  /** How far from the origin anything lies, in px. */
  extent: 10_000_000,
  assets: 20_000,
  notices: 100_000,
} as const;

const extent = number(-designLimits.extent, designLimits.extent);
const size = number(0, designLimits.extent);

export const hash = text(64, {
  pattern: /^[0-9a-f]{64}$/,
  says: 'expected a SHA-256 in hex',
  examples: ['a'.repeat(64)],
});
const fileName = text(2000);
const placeText = text(2000);

const boxFields = {
  x: extent,
  y: extent,
  width: size,
  height: size,
} as const;
export const boxSchema = fields(boxFields);
/** A rectangle in CSS pixels, relative to the top left corner of its screen. */
export type Box = FieldsOf<typeof boxFields>;

const declarations: Schema<Readonly<Record<string, string>>> = table(
  text(80, { examples: ['color', 'background-color'] }),
  text(20_000, { examples: ['#123456', 'inherit'] }),
  {
    max: 600,
    problem: (name, value) => styleProblem(name, String(value)),
  },
);
/** CSS declarations by property name, in kebab case, longhands only. */
export type Declarations = ValueOf<typeof declarations>;

const windowWidth = text(5, { pattern: /^\d{1,5}$/, says: 'expected a width in px', examples: ['600'] });
const stateStyles = table(
  text(80, {
    says: 'expected a state, as :checked',
    holds: isStateSelector,
    examples: [':hover', '::before'],
  }),
  declarations,
  { max: 40 },
);
const widthStyles = table(windowWidth, declarations, { max: 100 });
/** All that one class of a style sheet says: at all widths, up to some, from some on, and in states. */
export const classStyleSchema = fields({
  base: declarations,
  at: widthStyles,
  from: widthStyles,
  states: stateStyles,
});
export type ClassStyle = ValueOf<typeof classStyleSchema>;
const styleFields = {
  base: declarations,
  /** What differs at or below a viewport width; keys are `max-width` in px. */
  at: optional(widthStyles),
  /** What differs at or above a viewport width; keys are `min-width` in px. */
  from: optional(widthStyles),
  hover: optional(declarations),
  focus: optional(declarations),
  disabled: optional(declarations),
  /** By what follows the selector: `:checked`, `:checked::before`. */
  states: optional(stateStyles),
  before: optional(declarations),
  after: optional(declarations),
  placeholder: optional(declarations),
} as const;
export type ElementStyle = FieldsOf<typeof styleFields>;

export const ELEMENT_KINDS = ['box', 'text', 'image', 'vector', 'control'] as const;
export type ElementKind = (typeof ELEMENT_KINDS)[number];

const sourceFields = {
  file: fileName,
  /** Slash-joined element-child index from the document's root element, counting dropped elements too. */
  path: placeText,
  /** The authored id, where there is one. */
  id: optional(text(1000)),
} as const;
/** Where an element stands in its file. */
export type ElementSource = FieldsOf<typeof sourceFields>;

const vectorFields = {
  tag: text(40, { says: 'expected an element of a drawing', holds: (tag) => VECTOR_TAGS.has(tag) }),
  attributes: table(text(60), text(1_000_000), {
    max: 200,
    problem: (name, value) => vectorAttributeProblem(name, String(value)),
  }),
  text: optional(text(designLimits.text)),
} as const;
/** A node of an inline vector drawing, free of scripts and outside references. */
export interface VectorNode extends FieldsOf<typeof vectorFields> {
  readonly children: readonly VectorNode[];
}
const vector: Schema<VectorNode> = lazy('vector', () => vectorShape);
const vectorShape: Schema<VectorNode> = fields({
  ...vectorFields,
  children: list(vector, { max: designLimits.elements }),
});

const elementFields = {
  /** Unique in the design and stable while the element stays in its place: `screen:path`. */
  key: elementKey,
  kind: choice(ELEMENT_KINDS),
  /** As a person would call it: layer name, label or text. */
  name: text(designLimits.text),
  /** What it was called when it first came in, where that is not its name now: names in code stay while it is the same. */
  firstName: optional(text(designLimits.text)),
  /** HTML tag; absent on a bare run of text. */
  tag: optional(text(40, { says: 'expected an HTML element', holds: (tag) => TAGS.has(tag) })),
  role: optional(text(200)),
  /** Class names, as far as they may say what the element is. */
  classes: optional(text(1000)),
  box: boxSchema,
  style: fields(styleFields),
  /** HTML attributes that have a meaning of their own (`href`, `type`, `alt`, …). */
  attributes: optional(
    table(text(60, { says: 'expected a name', holds: isAttributeName }), text(5000), { max: 100 }),
  ),
  text: optional(text(designLimits.text)),
  /** What it says as it was drawn, where somebody edited that: what it is called in code does not follow. */
  drawnText: optional(text(designLimits.text)),
  /** Ids of others that it says it opens, chooses or turns; of several that are shown in turn, which: a step or a number. */
  controls: optional(
    fields({ ids: list(text(1000, { min: 1 }), { min: 1, max: 20 }), turn: optional(text(20, { min: 1 })) }),
  ),
  /** Drawn but not shown: a hidden layer, a closed dialog. Left out of the app until somebody shows it. */
  hidden: optional(flag),
  /** SHA-256 of an asset, for an image. */
  asset: optional(hash),
  vector: optional(vector),
  source: fields(sourceFields),
} as const;
export interface Element extends FieldsOf<typeof elementFields> {
  readonly children: readonly Element[];
}
/** What names in code are made of. */
export const nameInCode = ({ name, firstName }: Pick<Element, 'name' | 'firstName'>): string =>
  firstName ?? name;

const element: Schema<Element> = lazy('element', () => elementShape);
const elementShape: Schema<Element> = fields(
  { ...elementFields, children: list(element, { max: designLimits.elements }) },
  // Which attributes an element can have depends on its tag.
  (value) => attributesProblem(value as unknown as Element),
);

export const REGION_KINDS = ['box', 'row', 'text'] as const;
export type RegionKind = (typeof REGION_KINDS)[number];

const foundRegionFields = {
  kind: choice(REGION_KINDS),
  box: boxSchema,
  text: optional(text(designLimits.text)),
  /** How sure it is, 0 to 1. */
  confidence: number(0, 1),
} as const;
/** Something that was seen in a picture. */
export type FoundRegion = FieldsOf<typeof foundRegionFields>;

export const SCREEN_USES = ['screen', 'overlay', 'counterpart', 'skip'] as const;
export type ScreenUse = (typeof SCREEN_USES)[number];

/** What a key of a screen looks like; it is part of the keys of its elements. */
export const SCREEN_KEY = /^[a-z0-9-]{1,200}$/;

const screenFields = {
  key: screenKey,
  name: title(300),
  /** The whole title of the page that it came from. */
  title: optional(text(300)),
  source: fields({ file: fileName, path: placeText }),
  width: size,
  height: size,
  root: element,
  use: choice(SCREEN_USES),
  counterpartOf: optional(screenKey),
  /** SHA-256 of a picture of how the screen should look, where one came along. */
  reference: optional(hash),
  /** What was found in the picture that the screen is, to be taken as elements. */
  regions: optional(list(fields(foundRegionFields), { max: 20_000 })),
} as const;
export interface Screen extends FieldsOf<typeof screenFields> {
  /** Of a settled overlay that was cut out of a screen that stays: the key of that screen, which its elements' keys name. */
  readonly cutFrom?: string;
  /** Of a settled screen with counterparts: which of its elements stand for others of it, by key. */
  readonly aliases?: Readonly<Record<string, string>>;
}
export const screenSchema = fields(screenFields);

const cssWord = (property: string) => (value: string) => styleProblem(property, value) === null;
const fontFaceFields = {
  family: text(200, { min: 1, pattern: /^[^"'\\<>{};\n]+$/, says: 'expected the name of a font' }),
  /** `400`, or a range: `100 900`. */
  weight: text(20, { pattern: /^\d{1,4}( \d{1,4})?$/, says: 'expected a weight, as 400 or 100 900' }),
  style: text(60, { says: 'expected a style of a font', holds: cssWord('font-style') }),
  stretch: optional(
    text(60, {
      pattern: /^([a-z-]+|\d+(\.\d+)?%)( ([a-z-]+|\d+(\.\d+)?%))?$/,
      says: 'expected a width of a font',
    }),
  ),
  unicodeRange: optional(
    text(8000, {
      pattern: /^u\+[0-9a-f?]{1,6}(-[0-9a-f]{1,6})?(\s*,\s*u\+[0-9a-f?]{1,6}(-[0-9a-f]{1,6})?)*$/i,
      says: 'expected ranges of characters',
    }),
  ),
  /** SHA-256 of its file. */
  asset: hash,
} as const;
/** A face of a font that screens show their text in. */
export type FontFace = FieldsOf<typeof fontFaceFields>;
export const fontFaceSchema = fields(fontFaceFields);

/** Types of files that a project keeps. */
export const ASSET_TYPES = [
  'image/png',
  'image/jpeg',
  'image/webp',
  'image/gif',
  'image/avif',
  'image/svg+xml',
  'text/html',
  'application/xhtml+xml',
  'text/css',
  'text/plain',
  'text/markdown',
  'image/openraster',
  'application/pdf',
  'font/woff2',
  'font/woff',
  'font/ttf',
  'font/otf',
] as const;

const assetFields = {
  hash,
  type: choice(ASSET_TYPES as readonly string[]),
  size: whole(0, 2 ** 31),
  file: fileName,
} as const;
/** A stored file, named by the SHA-256 of its bytes. */
export type AssetRef = FieldsOf<typeof assetFields>;

export const NOTICE_LEVELS = ['error', 'warning', 'info'] as const;
export type NoticeLevel = (typeof NOTICE_LEVELS)[number];

const noticeFields = {
  level: choice(NOTICE_LEVELS),
  code: text(80),
  file: fileName,
  message: text(2000),
  path: optional(placeText),
} as const;
/** Something that intake dropped, changed or could not read: what, where, and what to do. */
export type Notice = FieldsOf<typeof noticeFields>;

const designFields = {
  format: choice(['tovel-design/1'] as const),
  iteration: whole(0, 1_000_000),
  screens: list(screenSchema as Schema<Screen>, { max: designLimits.screens }),
  assets: list(fields(assetFields), { max: designLimits.assets }),
  notices: list(fields(noticeFields), { max: designLimits.notices }),
  fonts: optional(list(fontFaceSchema, { max: 2000 })),
  /** Texts that came along and say what the app is to be. */
  brief: optional(text(200_000)),
} as const;
export type Design = FieldsOf<typeof designFields>;
export const designSchema = fields(designFields);

export const emptyDesign: Design = {
  format: 'tovel-design/1',
  iteration: 1,
  screens: [],
  assets: [],
  notices: [],
};

/** What is wrong with the attributes of an element; null when nothing is. */
function attributesProblem({ tag, attributes }: Pick<Element, 'tag' | 'attributes'>): string | null {
  for (const [name, value] of Object.entries(attributes ?? {})) {
    const problem = attributeProblem(tag ?? 'span', name, value);
    if (problem) return problem;
  }
  return null;
}
