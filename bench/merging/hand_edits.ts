import { parse } from '@babel/parser';
import type { EmittedFile, Versions } from '@tovel/core';
import { format } from 'prettier';

/** What somebody did to a file, what is written for it now, and what they make together; null where asking is right. */
export interface HandEdit {
  readonly kind: string;
  readonly path: string;
  readonly base: string;
  readonly theirs: string;
  readonly ours: string;
  readonly expected: string | null;
  /** What is as right: where both put something behind one element, nothing says which comes first. */
  readonly or?: readonly string[];
  readonly mayAsk?: boolean;
  readonly lines: NonNullable<Versions['lines']>;
}

/** A file as it is written, with the elements of its lines. */
interface Written {
  readonly text: string;
  readonly lines: readonly (string | null)[];
}

/** An element in a file, found by the parser alone: the merge has no part in it. */
interface Found {
  readonly start: number;
  readonly end: number;
  /** Behind its tag's name, and behind its opening tag. */
  readonly named: number;
  readonly opened: number;
  readonly closes: number | null;
  /** Its only content, where that is a text. */
  readonly text: { readonly start: number; readonly end: number } | null;
  readonly className: { readonly start: number; readonly end: number; readonly said: string } | null;
  readonly isAlone: boolean;
  /** Where what it stands in beside others ends: itself, or the condition or loop that it is written in. */
  readonly standsUntil: number;
}

interface Node {
  readonly type: string;
  readonly start: number;
  readonly end: number;
  readonly [field: string]: unknown;
}

type Edit = (written: string, element: Found) => string | null;

const isComponent = (text: string, { start }: Found): boolean => /^<[A-Z]/.test(text.slice(start, start + 2));

/** Edits that an element itself is told: a component that it became would not take them, or make nothing of them. */
const TOLD = new Set(['a handler', 'an attribute', 'a class more', 'an element in it']);

/** An element that holds nothing, with something in it. */
function holding(text: string, { start, named, opened }: Found, what: string): string {
  const opening = text.slice(start, opened).replace(/\s*\/>$/, '>');
  return instead(text, start, opened, `${opening}${what}</${text.slice(start + 1, named)}>`);
}

const put = (text: string, at: number, what: string): string => text.slice(0, at) + what + text.slice(at);
const instead = (text: string, start: number, end: number, what: string): string =>
  text.slice(0, start) + what + text.slice(end);
const withImport = (text: string, line: string): string => `${line}\n${text}`;

const NOTE = '<p className="note">A note of ours</p>';
const BADGE = '<Badge kind="ours" />';

/** Edits of an element of a component. */
const EDITS: Readonly<Record<string, Edit>> = {
  'a handler': (text, { named }) => put(text, named, ' onClick={track}'),
  'an attribute': (text, { named }) => put(text, named, ' data-tour="first"'),
  'a class more': (text, { className }) =>
    className?.said.startsWith('{styles.')
      ? instead(text, className.start, className.end, `{\`\${${className.said.slice(1, -1)}} mine\`}`)
      : null,
  'an element around it': (text, { start, end }) =>
    withImport(
      put(put(text, end, '</Tracked>'), start, '<Tracked name="here">'),
      "import { Tracked } from '../../tracking';",
    ),
  'an element behind it': (text, { end, isAlone }) => (isAlone ? null : put(text, end, NOTE)),
  'an element in it': (text, found) => {
    if (found.closes !== null) return put(text, found.opened, BADGE);
    // A component that is given no content takes none.
    return isComponent(text, found) ? null : holding(text, found, BADGE);
  },
  'shown only if': (text, { start, end, isAlone }) =>
    isAlone ? null : put(put(text, end, ')}'), start, '{isOpen && ('),
  'a text that is translated': (text, found) =>
    found.text ? instead(text, found.text.start, found.text.end, "{t('greeting')}") : null,
  'another text': (text, found) =>
    found.text ? instead(text, found.text.start, found.text.end, 'Words of our own') : null,
  'taken out': (text, { start, end, isAlone }) => (isAlone ? null : instead(text, start, end, '')),
};

/** Edits of a component as a whole. */
const WHOLE: Readonly<Record<string, (text: string) => string | null>> = {
  'a hook': (text) => {
    const at = text.indexOf('  return (');
    return at < 0
      ? null
      : withImport(
          put(text, at, "  useEffect(() => {\n    visited('here');\n  }, []);\n\n"),
          "import { useEffect } from 'react';",
        );
  },
  'a function': (text) => {
    const at = text.indexOf('  return (');
    return at < 0 ? null : put(text, at, '  const track = () => {\n    console.info(1);\n  };\n\n');
  },
  'a remark': (text) => {
    const at = text.indexOf('export function');
    return at < 0 ? null : put(text, at, '// Seen by everybody first.\n');
  },
};

/** Edits of a rule, given its class and where its block begins and ends. */
const RULES: Readonly<Record<string, (text: string, open: number, close: number) => string | null>> = {
  'a declaration': (text, open) => put(text, open, '\n  scroll-margin-top: 12px;'),
  'another value': (text, open, close) => {
    const found = /([a-z-]+): ([^;]+);/.exec(text.slice(open, close));
    return found
      ? instead(text, open + found.index, open + found.index + found[0].length, `${found[1]}: inherit;`)
      : null;
  },
  'a rule behind it': (text, _, close) => put(text, close + 1, '\n\n.ours {\n  outline: none;\n}'),
};

/**
 * Edits of all files that are there before and after, in an order by chance.
 * @param design the elements that the design has by now
 */
export function editsOf(
  was: readonly EmittedFile[],
  is: readonly EmittedFile[],
  design: ReadonlySet<string>,
  random: () => number,
): HandEdit[] {
  const now = new Map(is.map((file) => [file.path, file]));
  const edits: HandEdit[] = [];
  for (const file of was) {
    const other = now.get(file.path);
    if (!('text' in file) || !other || !('text' in other) || file.text === other.text) continue;
    const [base, ours] = [file, other].map(({ text, lines }): Written => ({ text, lines: lines ?? [] }));
    const made = file.path.endsWith('.tsx')
      ? componentEdits(file.path, base, ours, design, random)
      : file.path.endsWith('.module.css')
        ? sheetEdits(file.path, base, ours, random)
        : [];
    edits.push(...made.map((edit) => ({ ...edit, lines: { base: base.lines, ours: ours.lines } })));
  }
  return edits
    .map((edit) => [random(), edit] as const)
    .sort(([a], [b]) => a - b)
    .map(([, edit]) => edit);
}

function componentEdits(
  path: string,
  base: Written,
  ours: Written,
  design: ReadonlySet<string>,
  random: () => number,
): Omit<HandEdit, 'lines'>[] {
  const [before, after] = [elementsOf(base), elementsOf(ours)];
  const edits: Omit<HandEdit, 'lines'>[] = [];
  for (const [kind, edit] of Object.entries(WHOLE)) {
    const theirs = edit(base.text);
    if (theirs && random() < 0.2)
      edits.push({ kind, path, base: base.text, theirs, ours: ours.text, expected: edit(ours.text) });
  }
  for (const [key, element] of before) {
    if (random() > 0.5) continue;
    const kinds = Object.entries(EDITS);
    const [kind, edit] = kinds[Math.floor(random() * kinds.length)];
    const theirs = edit(base.text, element);
    if (theirs === null) continue;
    const there = after.get(key);
    const said = (written: Written, found: Found): string | null =>
      found.text && written.text.slice(found.text.start, found.text.end).replace(/\s+/g, ' ').trim();
    let expected = there ? edit(ours.text, there) : kind === 'taken out' ? ours.text : null;
    // It is there, on a line with others or in another file: nothing here says where.
    if (!there && design.has(key)) continue;
    // It is in a file of its own by now, and here only its use is left.
    const isParted = there && !isComponent(base.text, element) && isComponent(ours.text, there);
    if (isParted && TOLD.has(kind)) expected = null;
    // It is there, and cannot be edited so any more: it is all that is written, where it was one of several.
    else if (there && edit(ours.text, there) === null && kind !== 'a class more') continue;
    // What somebody put behind something that is gone stays, and nothing says where.
    if (!there && kind === 'an element behind it') continue;
    // The very text that somebody wrote anew, written anew by the design; and what somebody took out, changed by the design.
    if (there && /text/.test(kind) && said(base, element) !== said(ours, there)) expected = null;
    if (there && kind === 'a class more' && !there.className?.said.startsWith('{styles.')) expected = null;
    // What somebody took out and the design changed: asking is as right.
    const mayAsk = kind === 'taken out' && !!there && flat(base, element) !== flat(ours, there);
    const places = !there
      ? []
      : kind === 'an element behind it'
        ? placesBehind(key, ours.text, before, after)
        : kind === 'an element in it'
          ? placesIn(key, before, after)
          : [];
    const or = places.flatMap((place) => edit(ours.text, place) ?? []);
    if (kind === 'an element behind it' && there) {
      // Where the design took it out of what it was in and left that empty: in there.
      const [parent] = around(before, element).at(0) ?? [];
      const left = parent !== undefined && parent !== around(after, there).at(0)?.[0] && after.get(parent);
      if (left && left.closes === null) or.push(holding(ours.text, left, NOTE));
    }
    edits.push({ kind, path, base: base.text, theirs, ours: ours.text, expected, or, mayAsk });
  }
  return edits;
}

type Elements = ReadonlyMap<string, Found>;

/** What is around an element, the nearest first. */
const around = (all: Elements, { start, end }: Pick<Found, 'start' | 'end'>): (readonly [string, Found])[] =>
  [...all]
    .filter(([, other]) => other.start <= start && other.end >= end && other.start !== start)
    .sort(([, a], [, b]) => a.end - b.end);

/** The elements that are right in one, in their order. */
const contentOf = (all: Elements, key: string): (readonly [string, Found])[] =>
  [...all]
    .filter(([, other]) => around(all, other).at(0)?.[0] === key)
    .sort(([, a], [, b]) => a.start - b.start);

/** Other places that are first in an element: behind what the design put in or moved before all that was there. */
function placesIn(key: string, before: Elements, after: Elements): Found[] {
  const known = new Set(contentOf(before, key).map(([other]) => other));
  const content = contentOf(after, key);
  const old = content.findIndex(([other]) => known.has(other));
  return content
    .slice(0, old < 0 ? content.length : old)
    .map(([, found]) => ({ ...found, opened: found.standsUntil, closes: found.standsUntil }));
}

/**
 * Other places that are right behind an element: behind what the design put around it, or moved or put behind it; and, where
 * the design took it away from there, all places in what it was in.
 */
function placesBehind(key: string, text: string, before: Elements, after: Elements): Found[] {
  const next = (all: Elements, { start, end }: Found): string | undefined => {
    const parent = around(all, { start, end }).at(0)?.[1];
    return [...all]
      .filter(([, other]) => other.start >= end && (!parent || other.end <= parent.end))
      .sort(([, a], [, b]) => a.start - b.start)
      .at(0)?.[0];
  };
  const places: Found[] = [];
  // A blank that is written out belongs to what it follows.
  const found = after.get(key)!;
  const blank = /^\{' '\}/.exec(text.slice(found.end));
  if (blank) places.push({ ...found, end: found.end + blank[0].length });
  const known = new Set(around(before, before.get(key)!).map(([other]) => other));
  for (const [other, wrapper] of around(after, found)) {
    if (known.has(other)) break;
    places.push({ ...wrapper, end: wrapper.standsUntil, isAlone: false });
  }
  const parent = around(before, before.get(key)!).at(0)?.[0];
  if (parent !== undefined && after.has(parent) && around(after, found).at(0)?.[0] !== parent) {
    const inside = after.get(parent)!;
    places.push(
      { ...inside, end: inside.opened },
      ...contentOf(after, parent).map(([, other]) => ({ ...other, end: other.standsUntil, isAlone: false })),
    );
  }
  const was = next(before, before.get(key)!);
  for (let at: string | undefined = key; places.length < 8;) {
    at = next(after, after.get(at)!);
    if (at === undefined || at === was) break;
    places.push(after.get(at)!);
  }
  return places;
}

const flat = ({ text }: Written, { start, end }: Found): string => text.slice(start, end).replace(/\s+/g, '');

interface FoundRule {
  readonly name: string;
  readonly key: string | null;
  readonly open: number;
  readonly close: number;
  readonly said: string;
}

function sheetEdits(
  path: string,
  base: Written,
  ours: Written,
  random: () => number,
): Omit<HandEdit, 'lines'>[] {
  const edits: Omit<HandEdit, 'lines'>[] = [];
  const rulesOf = ({ text, lines }: Written): FoundRule[] =>
    [...text.matchAll(/(?<!,\n)^\.([\w-]+) \{([^{}]*)\}/gm)].map(({ 0: all, 1: name, 2: said, index }) => ({
      name,
      key: lines[text.slice(0, index).split('\n').length - 1] ?? null,
      open: index + all.indexOf('{') + 1,
      close: index + all.length - 1,
      said,
    }));
  const [before, after] = [rulesOf(base), rulesOf(ours)];
  for (const rule of before) {
    if (random() > 0.35) continue;
    const kinds = Object.entries(RULES);
    const [kind, edit] = kinds[Math.floor(random() * kinds.length)];
    const theirs = edit(base.text, rule.open, rule.close);
    if (theirs === null) continue;
    // One of the same name that says the same, or one that is written for the same element alone.
    const there =
      after.find(({ name, said }) => name === rule.name && said === rule.said) ??
      (rule.key !== null && !path.includes('shared')
        ? after.find(({ key, name }) => key === rule.key && name === rule.name)
        : undefined);
    const expected = !there
      ? null
      : kind === 'another value'
        ? otherValue(rule.said, ours.text, there)
        : edit(ours.text, there.open, there.close);
    // A rule of another name by now may be the same rule, and one of this name another, but nothing here says so.
    const mayBe = after.some(({ key, name }) => name === rule.name || (key !== null && key === rule.key));
    if (!there && (kind === 'a rule behind it' || mayBe || after.length >= before.length)) continue;
    edits.push({ kind, path, base: base.text, theirs, ours: ours.text, expected });
  }
  return edits;
}

/** The first declaration of a rule with another value, wherever the rule says it now; null where it says it otherwise, or no more. */
function otherValue(said: string, ours: string, there: FoundRule): string | null {
  const [declaration, property] = /([a-z-]+): [^;]+;/.exec(said) ?? [];
  const at = declaration === undefined ? -1 : there.said.indexOf(`\n  ${declaration}`);
  if (at < 0) return null;
  const start = there.open + at + 3;
  return instead(ours, start, start + declaration!.length, `${property}: inherit;`);
}

/** The first element of each key, by the line that it begins on. */
function elementsOf({ text, lines }: Written): Map<string, Found> {
  const found = new Map<string, Found>();
  const starts = [0, ...[...text.matchAll(/\n/g)].map(({ index }) => index + 1)];
  const visit = (value: unknown, parent: Node | null, until?: number): void => {
    if (Array.isArray(value)) return value.forEach((one) => visit(one, parent, until));
    if (typeof value !== 'object' || value === null || !('type' in value)) return;
    const node = value as Node;
    if (node.type === 'JSXElement') {
      const line = starts.findLastIndex((start) => start <= node.start);
      const key = lines[line];
      const element = foundAt(node, text, parent, until ?? node.end);
      if (key && element && !found.has(key)) found.set(key, element);
    }
    const inside = /^JSX(Element|Fragment)$/.test(node.type)
      ? undefined
      : node.type === 'JSXExpressionContainer' && /^JSX(Element|Fragment)$/.test(parent?.type ?? '')
        ? node.end
        : until;
    for (const [field, inner] of Object.entries(node)) if (field !== 'loc') visit(inner, node, inside);
  };
  visit(parse(text, { sourceType: 'module', plugins: ['typescript', 'jsx'] }).program, null);
  return found;
}

function foundAt(node: Node, text: string, parent: Node | null, standsUntil: number): Found | null {
  const opening = node.openingElement as Node;
  const name = opening.name as Node;
  const closing = node.closingElement as Node | null;
  const children = (node.children as readonly Node[]).filter(
    (child) => child.type !== 'JSXText' || /\S/.test(text.slice(child.start, child.end)),
  );
  const only = children.length === 1 ? children[0] : null;
  const attribute = (opening.attributes as readonly Node[]).find(
    (one) => one.type === 'JSXAttribute' && (one.name as Node).name === 'className',
  );
  const value = attribute?.value as Node | undefined;
  return {
    start: node.start,
    end: node.end,
    named: name.end,
    opened: opening.end,
    closes: closing?.start ?? null,
    text: only?.type === 'JSXText' ? { start: only.start, end: only.end } : null,
    className: value
      ? { start: value.start, end: value.end, said: text.slice(value.start, value.end) }
      : null,
    isAlone: parent?.type !== 'JSXElement' && parent?.type !== 'JSXFragment',
    standsUntil,
  };
}

/** Properties of which one can say what another says, too. */
const familyOf = (declaration: string): string => {
  const [, word] = /^(-?[a-z]+)/.exec(declaration) ?? [];
  if (word === 'line') return 'font';
  return /^(top|right|bottom|left)$/.test(word ?? '') ? 'inset' : (word ?? '');
};

/** A rule in one line, with its declarations in one order as far as theirs says nothing. */
function flatLine(text: string): string {
  const line = text.replace(/\s+/g, ' ');
  const [, selector, body] = /^([^{]*)\{([^{}]*)\}$/.exec(line) ?? [];
  if (body === undefined) return line;
  const declarations = body.split(/;\s*/).flatMap((one) => one.trim() || []);
  const sorted = declarations.toSorted((a, b) => {
    const [x, y] = [familyOf(a), familyOf(b)];
    return x < y ? -1 : x > y ? 1 : 0;
  });
  return `${selector}{ ${sorted.join('; ')} }`;
}

const printed = new Map<string, Promise<string>>();

/** A text as the formatter writes it, with imports in one order: where they stand says nothing. */
export function settled(path: string, text: string): Promise<string> {
  const known = printed.get(path + text);
  if (known) return known;
  // The formatter leaves it to whoever wrote an object whether it is on one line, and where breaks beside a written blank are.
  const source = path.endsWith('.tsx')
    ? text.replace(/\{\s*\n\s*/g, '{ ').replace(/\s*\{' '\}\s*/g, "{' '}")
    : text;
  const made = format(source, { filepath: path, singleQuote: true, printWidth: 110 })
    .catch(() => text)
    .then((pretty) => {
      // A break beside a tag is none in JSX, and blanks are one, written out or not.
      const plain = path.endsWith('.tsx')
        ? pretty
            .replace(/\{' '\}/g, '\u00b7')
            .replace(/>\s*\n\s*/g, '>')
            .replace(/\s*\n\s*</g, '<')
            .replace(/\s*\u00b7\s*/g, ' ')
            .replace(/>([^<>{}]+)/g, (text) => text.replace(/\s+/g, ' '))
            .replace(/<(\w+)([^<>]*[^<>/])?><\/\1>/g, '<$1$2 />')
            .replace(/<(\w+)([^<>]*?) (onClick=\{track\}|data-tour="first")/g, '<$1 $3$2')
            .replace(/</g, '\n<')
        : pretty;
      // A rule is one line.
      const whole = path.endsWith('.css') ? plain.replace(/^\S[^]*?^\}/gm, flatLine) : plain;
      const lines = whole.split('\n').filter((line) => line.trim() !== '');
      const isImport = (line: string): boolean => line.startsWith('import ');
      return [...lines.filter(isImport).sort(), ...lines.filter((line) => !isImport(line))].join('\n');
    });
  printed.set(path + text, made);
  return made;
}

/** A text without the breaks between its words, which say nothing. */
const unbroken = (text: string): string => text.replace(/([\w,.;])\n\s*(?=\w)/g, '$1 ');

/**
 * Whether two texts say the same. Where both sides put something at one place, nothing says which comes first: lines of one side
 * may stand before or behind new lines of the other, while those of each side keep their order.
 */
export async function sameCode(
  path: string,
  merged: string,
  expected: string,
  versions: Versions,
): Promise<boolean> {
  const [a, b, base, theirs, ours] = (
    await Promise.all(
      [merged, expected, versions.base, versions.theirs, versions.ours].map((text) => settled(path, text)),
    )
  ).map((text) => unbroken(text).split('\n'));
  if (a.join('\n') === b.join('\n')) return true;
  const [was, there, here] = [base, theirs, ours].map((lines) => new Set(lines.map((line) => line.trim())));
  const without = (lines: readonly string[], added: ReadonlySet<string>): string =>
    lines
      .map((line) => line.trim())
      .filter((line) => was.has(line) || !added.has(line))
      .join('\n');
  return without(a, there) === without(b, there) && without(a, here) === without(b, here);
}
