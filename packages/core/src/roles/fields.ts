import { type InputType } from './names.ts';
import { isPale, type Sight } from './sight.ts';

/** What a field takes, by what its label, its placeholder or its name says. */
const INPUT_WORDS: readonly (readonly [RegExp, InputType])[] = [
  [/\b(e-?mail)\b/i, 'email'],
  [/\b(pass ?(word|code|phrase)|pin)\b/i, 'password'],
  [/\b(search|find|filter by)\b/i, 'search'],
  [/\b(phone|mobile|tel(ephone)?)\b/i, 'tel'],
  [/\b(date|day of|birthday|dd ?\/ ?mm|until|from when)\b/i, 'date'],
  [/\b(url|web ?site|web address)\b/i, 'url'],
  [/\b(quantity|amount|how many|number of|count|age)\b/i, 'number'],
  [/\b(message|comment|notes?|description|text ?area|story|what happened|details)\b/i, 'multiline'],
];

/** A field higher than this, in px, holds several lines. */
const MULTILINE_HEIGHT = 84;

/** What a text field takes. */
export function inputTypeOf(field: Sight, label: string): InputType {
  if (field.element.box.height >= MULTILINE_HEIGHT) return 'multiline';
  const said = `${field.words} ${label} ${field.text} ${field.element.attributes?.placeholder ?? ''}`;
  const found = INPUT_WORDS.find(([pattern]) => pattern.test(said))?.[1];
  return found === 'multiline' ? 'text' : (found ?? 'text');
}

/** The text that stands right above a field, or before it in its row: its label. */
export function labelOfField(field: Sight): Sight | null {
  const { parent } = field;
  const { box } = field.element;
  if (!parent) return null;
  for (let i = field.index - 1; i >= Math.max(0, field.index - 2); i--) {
    const before = parent.children[i];
    if (before.element.kind !== 'text' || !before.text || before.text.length > 60) continue;
    const other = before.element.box;
    const isAbove = other.y + other.height <= box.y + 4 && box.y - other.y < 64 && other.x <= box.x + 24;
    const isBefore = other.x + other.width <= box.x + 8 && other.y + other.height > box.y;
    if (isAbove || isBefore) return before;
  }
  return null;
}

/** The texts in an element, each with how it looks. */
export function textsIn(sight: Sight): Sight[] {
  const found: Sight[] = [];
  const visit = (inner: Sight): void => {
    if (inner.element.kind === 'text' && inner.text) found.push(inner);
    inner.children.forEach(visit);
  };
  visit(sight);
  return found;
}

/** A line with room to type in: a frame or a pale ground, at most one text at its left, nothing that fills it. */
export function looksLikeField(sight: Sight): { isSure: boolean } | null {
  const { element, look, children } = sight;
  const { width, height } = element.box;
  if (element.kind !== 'box' || width < 90 || height < 26 || height > 260) return null;
  if (!look.hasBorder && !look.hasUnderline && !(look.hasFill && look.radius > 0)) return null;
  const texts = textsIn(sight);
  const icons = children.filter((child) => child.element.kind === 'vector' || child.element.kind === 'image');
  if (texts.length > 1 || children.length - icons.length > 1) return null;
  if (sight.hasOwnText && texts.length === 0 && sight.align === 'center') return null;
  const text = texts[0];
  if (!text) {
    const hasRoom = height <= 64 && width > 3 * height;
    return hasRoom && look.hasBorder && !sight.hasOwnText && !children.length ? { isSure: false } : null;
  }
  if (text.text.length > 60) return null;
  const isCentred = text.align === 'center' || isInMiddle(text, sight);
  if (isCentred) return null;
  // A field's text leaves most of it free, or is pale.
  const isFree =
    text.element.box.x - element.box.x < 64 && (height <= 64 || text.element.box.y - element.box.y < 40);
  if (!isFree || (height > 64 && !isPale(text.color))) return null;
  return { isSure: isPale(text.color) };
}

const isInMiddle = (inner: Sight, outer: Sight): boolean => {
  const [a, b] = [inner.element.box, outer.element.box];
  return a.width < b.width * 0.9 && Math.abs(a.x + a.width / 2 - b.x - b.width / 2) < 6;
};

/** Whether an element ends in something that points down, as selects do. */
export function hasDownArrow(sight: Sight): boolean {
  const last = sight.children.at(-1);
  if (!last) return /[▾▼⌄˅]\s*$/.test(sight.text);
  const { box, kind } = last.element;
  const atEnd = box.x > sight.element.box.x + sight.element.box.width * 0.7;
  if (/[▾▼⌄˅]\s*$/.test(last.text)) return true;
  return (
    kind === 'vector' &&
    atEnd &&
    box.width <= 28 &&
    sight.children.some((c) => c !== last && !!c.text) &&
    pointsDown(last)
  );
}

/** A chevron or a triangle that is wider than high, by its outline or its name. */
function pointsDown({ element, words }: Sight): boolean {
  if (/ (down|caret|drop|expand|select) /.test(words)) return true;
  if (/ (right|left|next|back) /.test(words)) return false;
  const d = JSON.stringify(element.vector ?? {});
  const path = /"d":"([^"]+)"/.exec(d)?.[1];
  const points = path ? pointsOf(path) : [];
  if (points.length !== 3) return false;
  const [a, b, c] = points;
  return Math.abs(a[1] - c[1]) < 1.5 && b[1] > a[1] + 1 && Math.abs(a[0] - c[0]) > 3;
}

/** The points of a path of straight lines; empty for any other. */
export function pointsOf(d: string): [number, number][] {
  if (/[cqsta]/i.test(d.replace(/e/gi, ''))) return [];
  const points: [number, number][] = [];
  let [x, y] = [0, 0];
  for (const [, command, rest] of d.matchAll(/([mlhvz])([^mlhvz]*)/gi)) {
    const n = (rest.match(/-?\d*\.?\d+/g) ?? []).map(Number);
    const isRelative = command === command.toLowerCase();
    const step = /h/i.test(command) || /v/i.test(command) ? 1 : 2;
    for (let i = 0; i + step <= n.length; i += step) {
      if (/h/i.test(command)) x = isRelative ? x + n[i] : n[i];
      else if (/v/i.test(command)) y = isRelative ? y + n[i] : n[i];
      else [x, y] = isRelative ? [x + n[i], y + n[i + 1]] : [n[i], n[i + 1]];
      points.push([x, y]);
    }
  }
  return points;
}
