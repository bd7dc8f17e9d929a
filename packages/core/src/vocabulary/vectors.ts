import { inOrder } from '../json/json.ts';
import { isAttributeName } from './attributes.ts';
import { styleProblem, unsafePart } from './style_values.ts';

/**
 * SVG that a design may hold: elements that draw, and attributes with values of their kind. Everything that runs,
 * fetches, animates or leads somewhere is left out.
 */

const words = (list: string): ReadonlySet<string> => new Set(list.split(' '));

export const VECTOR_TAGS = words(
  'svg g path rect circle ellipse line polyline polygon text tspan textPath use symbol defs clipPath mask linearGradient radialGradient stop pattern marker filter feBlend feColorMatrix feComponentTransfer feComposite feConvolveMatrix feDiffuseLighting feDisplacementMap feDistantLight feDropShadow feFlood feFuncA feFuncB feFuncG feFuncR feGaussianBlur feMerge feMergeNode feMorphology feOffset fePointLight feSpecularLighting feSpotLight feTile feTurbulence title desc',
);

/** Attributes whose value is a style value of the same name. */
const STYLES = words(
  'clip-path clip-rule color color-interpolation-filters cursor display dominant-baseline fill fill-opacity fill-rule filter flood-color flood-opacity font-family font-size font-style font-variant font-weight font-stretch image-rendering letter-spacing lighting-color marker-end marker-mid marker-start mask opacity overflow paint-order pointer-events shape-rendering stop-color stop-opacity stroke stroke-dasharray stroke-dashoffset stroke-linecap stroke-linejoin stroke-miterlimit stroke-opacity stroke-width text-anchor text-decoration text-rendering vector-effect visibility word-spacing writing-mode unicode-bidi direction alignment-baseline baseline-shift color-interpolation',
);

const NUMBERS = words(
  'x y width height cx cy r rx ry x1 y1 x2 y2 dx dy fx fy fr offset stdDeviation k1 k2 k3 k4 baseFrequency numOctaves seed scale radius order kernelMatrix divisor bias targetX targetY tableValues slope intercept amplitude exponent azimuth elevation surfaceScale specularConstant specularExponent diffuseConstant pointsAtX pointsAtY pointsAtZ limitingConeAngle pathLength textLength startOffset rotate refX refY markerWidth markerHeight viewBox points values z kernelUnitLength',
);
const CHOICES: Readonly<Record<string, ReadonlySet<string>>> = Object.fromEntries(
  Object.entries({
    gradientUnits: 'userSpaceOnUse objectBoundingBox',
    clipPathUnits: 'userSpaceOnUse objectBoundingBox',
    maskUnits: 'userSpaceOnUse objectBoundingBox',
    maskContentUnits: 'userSpaceOnUse objectBoundingBox',
    patternUnits: 'userSpaceOnUse objectBoundingBox',
    patternContentUnits: 'userSpaceOnUse objectBoundingBox',
    filterUnits: 'userSpaceOnUse objectBoundingBox',
    primitiveUnits: 'userSpaceOnUse objectBoundingBox',
    markerUnits: 'userSpaceOnUse strokeWidth',
    spreadMethod: 'pad reflect repeat',
    stitchTiles: 'stitch noStitch',
    edgeMode: 'duplicate wrap none',
    xChannelSelector: 'R G B A',
    yChannelSelector: 'R G B A',
    lengthAdjust: 'spacing spacingAndGlyphs',
    preserveAlpha: 'true false',
    focusable: 'true false auto',
    'aria-hidden': 'true false',
    role: 'img presentation none',
    'xml:space': 'preserve default',
  }).map(([name, list]) => [name, words(list)]),
);
const TRANSFORMS = words('transform gradientTransform patternTransform');
const WORDS = words('in in2 result mode operator type method spacing version');

/** Names of attributes that elements of a drawing can have. */
export const VECTOR_ATTRIBUTES: readonly string[] = [
  ...STYLES,
  ...NUMBERS,
  ...Object.keys(CHOICES),
  ...TRANSFORMS,
  ...WORDS,
  'd',
  'id',
  'href',
  'orient',
  'preserveAspectRatio',
  'aria-label',
];

const PATH = /^[\sMmZzLlHhVvCcSsQqTtAaEe\d.,+-]*$/;
const TRANSFORM_NAMES = words(
  'matrix translate translateX translateY scale scaleX scaleY rotate skewX skewY deg px rad',
);
/** React's typings know only these, so that what else a file says is left out. */
const LISTED: Readonly<Record<string, ReadonlySet<string>>> = {
  'stroke-linecap': words('butt round square'),
  'stroke-linejoin': words('miter round bevel'),
  'text-anchor': words('start middle end'),
  'fill-rule': words('nonzero evenodd'),
  'color-interpolation-filters': words('auto sRGB linearRGB'),
  'dominant-baseline': words(
    'auto ideographic alphabetic hanging mathematical central middle text-after-edge text-before-edge',
  ),
  'alignment-baseline': words(
    'auto baseline middle central ideographic alphabetic hanging mathematical text-after-edge text-before-edge',
  ),
};
/**
 * How many elements are shown once every reused part is unfolded, counted up to `most` and no further: parts that reuse
 * parts that reuse parts grow beyond any number with a few lines.
 */
export function unfoldedCount<T>(
  root: T,
  parts: {
    readonly children: (node: T) => readonly T[];
    /** What a node that reuses another refers to, if it does. */
    readonly reused: (node: T) => T | undefined;
  },
  most: number,
): number {
  const known = new Map<T, number>();
  const open = new Set<T>();
  const count = (node: T): number => {
    const found = known.get(node);
    if (found !== undefined) return found;
    // What holds itself is drawn by nobody.
    if (open.has(node)) return 0;
    open.add(node);
    let sum = 1;
    for (const child of parts.children(node)) if (sum <= most) sum += count(child);
    const target = sum <= most ? parts.reused(node) : undefined;
    if (target) sum += count(target);
    open.delete(node);
    const bounded = Math.min(sum, most + 1);
    known.set(node, bounded);
    return bounded;
  };
  return count(root);
}

/** Longest list of numbers or path, in UTF-16 units. */
export const LONGEST_PATH = 1_000_000;
/** Whole paths that are checked before: a large one costs a pass over it. */
const LONGEST_OTHER = 20_000;

/** What is wrong with an attribute of a drawing; null when nothing is. */
export function vectorAttributeProblem(name: string, value: string): string | null {
  const isNot = (): string => `“${value.slice(0, 40)}” is no value of ${name}`;
  const most = name === 'd' || name === 'points' ? LONGEST_PATH : LONGEST_OTHER;
  if (value.length > most) return `the value of ${name} is longer than ${most} characters`;
  if (name === 'd') return PATH.test(value) ? null : isNot();
  if (NUMBERS.has(name)) return isNumberList(value) ? null : isNot();
  if (TRANSFORMS.has(name)) return isTransform(value) ? null : isNot();
  if (Object.hasOwn(CHOICES, name)) return CHOICES[name].has(value) ? null : isNot();
  if (name === 'id') return /^[\w.~%:-]{1,300}$/.test(value) ? null : isNot();
  if (name === 'href') return /^#[\w.~%:-]{1,300}$/.test(value) ? null : isNot();
  if (name === 'orient')
    return /^(auto|auto-start-reverse|-?[\d.]+(deg|rad|turn)?)$/.test(value) ? null : isNot();
  if (name === 'preserveAspectRatio') return /^[a-zA-Z ]{1,40}$/.test(value) ? null : isNot();
  if (name === 'aria-label') return value.length <= 500 ? null : isNot();
  if (WORDS.has(name)) return /^[\w.~-]{1,200}$/.test(value) ? null : isNot();
  if (STYLES.has(name)) {
    if (Object.hasOwn(LISTED, name)) return LISTED[name].has(value) ? null : isNot();
    if (unsafePart(value) !== null) return isNot();
    // Lengths without a unit are px here, which style sheets do not know.
    return isNumberList(value) ? null : styleProblem(name, value) === null ? null : isNot();
  }
  return isAttributeName(name) ? `a drawing has no attribute “${name}”` : `“${name.slice(0, 40)}” is no name`;
}

/** Numbers with or without units, read one after the other, so that it takes one pass whatever the list is. */
function isNumberList(value: string): boolean {
  const one = /[\s,]*[-+]?(?:\d+(?:\.\d*)?|\.\d+)(?:e[-+]?\d+)?(?:px|pt|mm|cm|in|em|ex|rem|%)?[\s,]*/iy;
  while (one.lastIndex < value.length) if (!one.test(value)) return false;
  return true;
}

const isTransform = (value: string): boolean =>
  /^[\w\s.,+()%-]*$/.test(value) &&
  (value.match(/[a-z]{2,}/gi) ?? []).every((name) => TRANSFORM_NAMES.has(name));

/** Whether an attribute of a drawing is a style by another way of writing. */
export const isVectorStyle = (name: string): boolean => STYLES.has(name);

const INHERITED =
  /^(color|cursor|direction|fill|fill-opacity|fill-rule|clip-rule|font(-.*)?|letter-spacing|line-height|marker(-.*)?|paint-order|pointer-events|shape-rendering|stroke(-.*)?|text-anchor|text-rendering|visibility|word-spacing|writing-mode)$/;
/** Whether the parts of a drawing take a style over from what they stand in. */
export const isInheritedVectorStyle = (name: string): boolean => INHERITED.test(name);

/** Attributes that refer to parts of a drawing by their names, besides those that say `url(#…)`. */
export const REFERRING: ReadonlySet<string> = new Set([
  'href',
  'xlink:href',
  'aria-labelledby',
  'aria-describedby',
  'begin',
  'end',
]);

const JSX_NAMES: Readonly<Record<string, string>> = { 'xml:space': 'xmlSpace', tabindex: 'tabIndex' };

/** The name that JSX has for an attribute of a drawing. */
export const jsxVectorName = (name: string): string =>
  JSX_NAMES[name] ??
  (name.startsWith('aria-') ? name : name.replace(/-([a-z])/g, (_, letter: string) => letter.toUpperCase()));

/** A node of a drawing, as far as it matters here. */
interface Drawn<T> {
  readonly tag: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly T[];
}

/** Most elements that a drawing shows, with what it reuses unfolded. */
const MOST_UNFOLDED = 40_000;

/**
 * A drawing without what it may not hold; `leftOut` hears of each. Null where nothing of it can be kept; the same value
 * where all is good.
 */
export function cleanVector<T extends Drawn<T>>(node: T, leftOut: (problem: string) => void): T | null {
  const made = cleanNode(node, leftOut);
  const byId = new Map<string, T>();
  const index = (one: T): void => {
    if (one.attributes.id) byId.set(one.attributes.id, one);
    one.children.forEach(index);
  };
  if (!made) return null;
  index(made);
  if (!byId.size) return made;
  const reused = (one: T): T | undefined => byId.get((one.attributes.href ?? '').slice(1));
  const children = (one: T): readonly T[] => one.children;
  if (unfoldedCount(made, { children, reused }, MOST_UNFOLDED) <= MOST_UNFOLDED) return made;
  leftOut('a drawing whose reused parts unfold without end');
  return null;
}

/** A value with its open parentheses closed, as browsers read what ends too early (CSS Syntax Module Level 3, 5.4.8). */
function closed(value: string): string {
  let open = 0;
  for (const sign of value) if (sign === '(' || sign === ')') open += sign === '(' ? 1 : -1;
  return value + ')'.repeat(Math.min(Math.max(0, open), 8));
}

function cleanNode<T extends Drawn<T>>(node: T, leftOut: (problem: string) => void): T | null {
  if (!VECTOR_TAGS.has(node.tag)) {
    leftOut(`<${node.tag.slice(0, 40)}> cannot be part of a drawing`);
    return null;
  }
  let attributes: Record<string, string> | null = null;
  for (const [name, value] of Object.entries(node.attributes)) {
    const problem = vectorAttributeProblem(name, value);
    if (problem === null) continue;
    attributes ??= { ...node.attributes };
    const whole = closed(value);
    if (whole !== value && vectorAttributeProblem(name, whole) === null) attributes[name] = whole;
    else {
      leftOut(problem);
      delete attributes[name];
    }
  }
  const children = node.children.map((child) => cleanNode(child, leftOut));
  const isSame = children.every((child, i) => child === node.children[i]);
  const ordered = inOrder(attributes ?? node.attributes);
  if (ordered === node.attributes && isSame) return node;
  return {
    ...node,
    attributes: ordered,
    ...(isSame ? {} : { children: children.filter((child) => child !== null) }),
  };
}
