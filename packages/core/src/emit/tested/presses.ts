import { type Expression, variablesOf } from '../../expression/expression.ts';
import { valueOf } from '../../expression/value_of.ts';
import {
  type EmittedAct,
  type EmittedStep,
  isCounted,
  isElement,
  isText,
  type MarkupElement,
  type MarkupNode,
} from '../form/markup.ts';
import { eachWithin } from './within.ts';

/** What is pressed in a test, as a person looks for it. */
export interface Pressed {
  readonly role: string;
  /** Its accessible name, or how that begins. */
  readonly name: string;
  /** Which of several of that role and name, from 0; not there for the first. */
  readonly at?: number;
}

/** What is pressed so that something opens over a screen. */
export interface Opens extends Pressed {
  readonly overlay: string;
}

/** An element of a screen that can be pressed. */
export interface Press {
  readonly node: MarkupElement;
  readonly pressed: Pressed;
  /** What it stands in, from the outermost on. */
  readonly within: readonly MarkupElement[];
}

/**
 * All that can be pressed on a screen, in order.
 * @param unsure keys of elements that may say something else by then than they were drawn to say: names end before them
 */
export function pressesIn(root: MarkupElement, unsure: ReadonlySet<string> = NONE): Press[] {
  const presses: Press[] = [];
  const names = new FoundNames(unsure);
  eachWithin(root, (node, within) => {
    if (isCounted(node)) {
      const role = roleOf(node);
      const called = names.next(role, node);
      if (called) presses.push({ node, within, pressed: { role, ...called } });
    }
  });
  return presses;
}

/** What elements of a screen are called in tests, in order: by how their names begin, and which of several that begin so. */
export class FoundNames {
  readonly #unsure: ReadonlySet<string>;
  /** Whole names of what came before, without spaces, by what else it is found by. */
  readonly #seen = new Map<string, string[]>();

  /** @param unsure keys of elements that may say something else by then than they were drawn to say: names end before them */
  constructor(unsure: ReadonlySet<string>) {
    this.#unsure = unsure;
  }

  /**
   * @param kind what else it is found by
   * @returns null where nobody knows how its name begins
   */
  next(kind: string, node: MarkupElement): Pick<Pressed, 'name' | 'at'> | null {
    const { whole, isSure } = fullName(node, this.#unsure);
    const name = whole.slice(0, LONGEST_NAME).trim();
    if (!name && !isSure) return null;
    const seen = this.#seen.get(kind) ?? [];
    this.#seen.set(kind, seen);
    const beginning = plain(name);
    const before = seen.filter((other) => (beginning ? other.startsWith(beginning) : other === '')).length;
    seen.push(plain(whole));
    return { name, ...(before ? { at: before } : {}) };
  }
}

/** A name is told by so many letters. */
const LONGEST_NAME = 60;

const roleOf = ({ tag, form, attributes }: MarkupElement): string =>
  form === 'other' ? 'link' : String(attributes.role ?? (tag === 'button' ? 'button' : 'link'));

/** What an element is called, as far as that is sure: as it says itself, else its text and what its pictures say. */
function fullName(
  element: MarkupElement,
  unsure: ReadonlySet<string>,
): { readonly whole: string; readonly isSure: boolean } {
  const { 'aria-label': label } = element.attributes;
  if (typeof label === 'string') return { whole: label, isSure: true };
  const texts: string[] = [];
  /** @returns whether what comes after it is sure */
  const visit = (node: MarkupNode): boolean => {
    if (isText(node)) texts.push(node.text);
    else if (isElement(node)) {
      if (node.key !== null && unsure.has(node.key)) return false;
      if (node.tag === 'img') texts.push(String(node.attributes.alt ?? ''));
      else return node.children.every(visit);
    }
    return true;
  };
  const isSure = visit(element);
  return { whole: texts.join(' ').replace(/\s+/g, ' ').trim(), isSure };
}

const NONE: ReadonlySet<string> = new Set();

const plain = (text: string): string => text.replace(/\s+/g, '');

/** A way of an act, and what variables have to be so that it is the one that is done. */
export interface GivenWay {
  readonly given: Readonly<Record<string, boolean>>;
  readonly steps: readonly EmittedStep[];
}

/** More variables than this in one act are not gone through. */
const MOST_CONDITIONS = 8;

/** The ways of an act that come about by what variables are. */
export function waysOf({ ways }: EmittedAct): GivenWay[] {
  const found: GivenWay[] = [];
  const before: Expression[] = [];
  for (const { when, steps } of ways) {
    const given = settingWhere(before, when);
    if (given) found.push({ given, steps });
    if (!when) break;
    before.push(when);
  }
  return found;
}

/** What variables are where none of these hold and then one does; null where that cannot be. */
function settingWhere(
  none: readonly Expression[],
  one: Expression | undefined,
): Readonly<Record<string, boolean>> | null {
  const all = one ? [...none, one] : none;
  const names = [...new Set(all.flatMap((expression) => [...variablesOf(expression)]))];
  if (names.length > MOST_CONDITIONS) return null;
  for (let bits = 0; bits < 2 ** names.length; bits++) {
    const variables = Object.fromEntries(names.map((name, i) => [name, (bits & (1 << i)) > 0]));
    const holds = (expression: Expression): boolean => !!valueOf(expression, { variables });
    if (!none.some(holds) && (!one || holds(one))) return variables;
  }
  return null;
}
