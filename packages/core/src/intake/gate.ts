import {
  type Box,
  designLimits,
  type Element,
  type ElementStyle,
  type FontFace,
  fontFaceSchema,
  type Notice,
  type Screen,
  screenSchema,
} from '../model/design.ts';
import { inOrder } from '../json/json.ts';
import { findProblem, problemText } from '../schema/problem.ts';
import { LONGEST_KEY } from '../schema/schema.ts';
import { attributeProblem, attributeRule, LONGEST_VALUE } from '../vocabulary/attributes.ts';
import { cleanStyle, isStateSelector } from '../vocabulary/style_values.ts';
import { writtenTag } from '../vocabulary/tags.ts';
import { cleanVector } from '../vocabulary/vectors.ts';
import { worstFirst } from './notice_causes.ts';

/** Names are shown in lists and become names in code; longer ones only hide what matters. */
const LONGEST_NAME = 120;
/** Kinds of things left out that are said one by one; the rest is counted. */
const MOST_SAID = 30;

/**
 * What every reader's screens pass before they come in: whatever a design may not hold is left out of the screen, and
 * said, and all the rest of it stays. The same screen where all is good; null, with the reason, for one that cannot be
 * mended.
 */
export function cleanScreen(screen: Screen): { screen: Screen | null; notices: Notice[] } {
  const leftOut = new Map<string, { count: number; readonly path: string }>();
  const gate = new Gate((problem, path) => {
    const known = leftOut.get(problem);
    if (known) known.count++;
    else leftOut.set(problem, { count: 1, path });
  });
  const root = gate.element(screen.root) ?? screen.root;
  const name = shortened(wellFormed(screen.name).trim(), LONGEST_NAME) || 'Screen';
  const title = screen.title === undefined ? undefined : shortened(wellFormed(screen.title), 300);
  const extent = (n: number): number =>
    Math.min(Math.max(Number.isFinite(n) ? n : 0, 0), designLimits.extent);
  const [width, height] = [extent(screen.width), extent(screen.height)];
  const isSame =
    root === screen.root &&
    name === screen.name &&
    title === screen.title &&
    width === screen.width &&
    height === screen.height;
  const made: Screen = isSame
    ? screen
    : { ...screen, root, name, width, height, ...(title === undefined ? {} : { title }) };
  const { file } = screen.source;
  const said = [...leftOut].slice(0, MOST_SAID).map(([problem, { count, path }]): Notice => ({
    level: 'warning',
    code: 'left-out',
    file,
    path,
    message: `Left out, since it has no place in a screen: ${problem}${count > 1 ? ` (${count} times)` : ''}.`,
  }));
  if (leftOut.size > MOST_SAID)
    said.push({
      level: 'warning',
      code: 'left-out',
      file,
      message: `${leftOut.size - MOST_SAID} more kinds of things that have no place in a screen were left out.`,
    });
  const problem = findProblem(screenSchema, made);
  if (!problem) return { screen: made, notices: said.map(cleanNotice) };
  const says = `The screen cannot be taken in: ${problemText(problem)}. Simplify it there and bring it in again.`;
  return {
    screen: null,
    notices: [...said, { level: 'error', code: 'screen-refused', file, message: says } as const].map(
      cleanNotice,
    ),
  };
}

/**
 * A face of a font as a design can hold it. What is said of it in a way that none can be, browsers take no notice of, and
 * neither does this; null where its name cannot be written.
 */
export function cleanFontFace<F extends Omit<FontFace, 'asset'>>(face: F): F | null {
  const { required, optional } = fontFaceSchema;
  const isGood = (name: string, value: unknown): boolean =>
    findProblem(required[name] ?? optional[name], value) === null;
  if (!isGood('family', face.family)) return null;
  const { stretch, unicodeRange, ...made } = face;
  return {
    ...made,
    weight: isGood('weight', face.weight) ? face.weight : '400',
    style: isGood('style', face.style) ? face.style : 'normal',
    ...(stretch !== undefined && isGood('stretch', stretch) ? { stretch } : {}),
    ...(unicodeRange !== undefined && isGood('unicodeRange', unicodeRange) ? { unicodeRange } : {}),
  } as F;
}

/** A notice that fits into a design, whatever the file that it is about is called. */
export const cleanNotice = (notice: Notice): Notice => ({
  ...notice,
  file: shortened(wellFormed(notice.file), 2000),
  message: shortened(wellFormed(notice.message), 2000),
  ...(notice.path === undefined ? {} : { path: notice.path.slice(0, 2000) }),
});

/**
 * Notices that a design can hold: each once, and of too many those that tell of the worst, with one more that says so.
 * @param most at least 1
 */
export function fewEnough(notices: readonly Notice[], most: number = designLimits.notices): Notice[] {
  const all = [...new Map(notices.map((notice) => [JSON.stringify(notice), notice])).values()];
  if (all.length <= most) return all;
  const worst = all.toSorted(worstFirst);
  const [{ file }] = worst.splice(most - 1);
  const message = `${all.length - most + 1} more remarks on these files are too many to keep. Bring the files in bit by bit to see them.`;
  return [...worst, { level: 'warning', code: 'remarks-left-out', file, message }];
}

type LeftOut = (problem: string, path: string) => void;

class Gate {
  readonly #leftOut: LeftOut;

  constructor(leftOut: LeftOut) {
    this.#leftOut = leftOut;
  }

  /** The element as a design may hold it; null where it can be none. */
  element(element: Element): Element | null {
    const { path } = element.source;
    const say = (problem: string): void => this.#leftOut(problem, path);
    if (element.key.length > LONGEST_KEY) {
      say('what is nested this deeply');
      return null;
    }
    const made: { -readonly [K in keyof Element]: Element[K] } = { ...element };
    if (element.tag !== undefined) made.tag = writtenTag(element.tag, false);
    made.name = wellFormed(shortened(element.name, designLimits.text));
    made.box = cleanBox(element.box);
    made.style = this.#style(element.style, say);
    const attributes = this.#attributes(made.tag, element.attributes, say);
    if (attributes) made.attributes = attributes;
    else delete made.attributes;
    if (element.text !== undefined) {
      if (element.text.length > designLimits.text)
        say(`what follows the first ${designLimits.text} characters of a text`);
      made.text = wellFormed(shortened(element.text, designLimits.text));
    }
    if (element.role !== undefined) made.role = shortened(wellFormed(element.role), 200);
    if (element.classes !== undefined) made.classes = shortened(wellFormed(element.classes), 1000);
    if (element.controls?.ids.some((id) => id.length > 1000 || wellFormed(id) !== id))
      made.controls = {
        ...element.controls,
        ids: element.controls.ids.map((id) => shortened(wellFormed(id), 1000)),
      };
    if (
      element.source.id !== undefined &&
      (element.source.id.length > 1000 || wellFormed(element.source.id) !== element.source.id)
    )
      made.source = { ...element.source, id: shortened(wellFormed(element.source.id), 1000) };
    if (element.vector) {
      const vector = cleanVector(element.vector, say);
      if (vector) made.vector = vector;
      else delete made.vector;
    }
    const children = element.children.map((child) => this.element(child));
    if (!children.every((child, i) => child === element.children[i]))
      made.children = children.filter((child) => child !== null);
    return isShallowlyEqual(made, element) ? element : made;
  }

  #attributes(
    tag: string | undefined,
    attributes: Element['attributes'],
    say: (problem: string) => void,
  ): Element['attributes'] | null {
    if (!attributes) return null;
    let made: Record<string, string> | null = null;
    for (const [name, value] of Object.entries(attributes)) {
      const given = wellFormed(value);
      const trimmed = given.trim();
      // A name with a space before it is meant all the same, wherever else it is said so.
      const isTrimmed = trimmed !== given && attributeProblem(tag ?? 'span', name, given) !== null;
      const plain = isTrimmed ? trimmed : given;
      const problem = attributeProblem(tag ?? 'span', name, plain);
      if (problem === null && plain === value) continue;
      made ??= { ...attributes };
      if (problem === null) made[name] = plain;
      else {
        delete made[name];
        // A reference to nothing says nothing.
        if (plain === '' && attributeRule(tag ?? 'span', name)?.value === 'id') continue;
        say(plain.length > LONGEST_VALUE ? `a value of ${name} of ${plain.length} characters` : problem);
      }
    }
    return inOrder(made ?? attributes);
  }

  #style(style: ElementStyle, say: (problem: string) => void): ElementStyle {
    const clean = <T extends Readonly<Record<string, string>>>(css: T): T => inOrder(cleanStyle(css, say));
    let made: Record<string, unknown> | null = null;
    for (const [part, css] of Object.entries(style)) {
      if (css === undefined) continue;
      let now: unknown;
      if (part === 'at' || part === 'from' || part === 'states') {
        const table = css as Readonly<Record<string, Readonly<Record<string, string>>>>;
        const isGood = (key: string): boolean =>
          part === 'states' ? isStateSelector(key) : /^\d{1,5}$/.test(key);
        const entries = Object.entries(table).filter(([key]) => isGood(key));
        for (const key of Object.keys(table))
          if (!isGood(key)) say(`“${key.slice(0, 40)}” is no state or width`);
        const cleaned = entries.map(([key, inner]) => [key, clean(inner)] as const);
        const isSame =
          cleaned.length === Object.keys(table).length &&
          cleaned.every(([key, inner]) => table[key] === inner);
        now = isSame ? css : Object.fromEntries(cleaned);
      } else now = clean(css as Readonly<Record<string, string>>);
      if (now !== css) (made ??= { ...style })[part] = now;
    }
    return (made as ElementStyle | null) ?? style;
  }
}

const shortened = (text: string, most: number): string =>
  text.length > most ? wellFormed(text.slice(0, most)) : text;

/** Half a surrogate pair can be neither stored nor written; it shows as the sign for a character that is not there. */
const wellFormed = (text: string): string =>
  /[\ud800-\udfff]/.test(text) ? text.replace(/\p{Surrogate}/gu, '\ufffd') : text;

function cleanBox(box: Box): Box {
  const near = (n: number): number =>
    Number.isFinite(n) ? Math.min(Math.max(n, -designLimits.extent), designLimits.extent) : 0;
  const made = {
    x: near(box.x),
    y: near(box.y),
    width: Math.max(near(box.width), 0),
    height: Math.max(near(box.height), 0),
  };
  return made.x === box.x && made.y === box.y && made.width === box.width && made.height === box.height
    ? box
    : made;
}

function isShallowlyEqual(a: object, b: object): boolean {
  const keys = Object.keys(a) as (keyof object)[];
  return keys.length === Object.keys(b).length && keys.every((key) => a[key] === b[key]);
}
