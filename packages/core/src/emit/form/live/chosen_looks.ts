import { type Expression, literal } from '../../../expression/expression.ts';
import { grouped } from '../../../json/grouped.ts';
import { uniqueCodeName } from '../../../model/names.ts';
import { type Look, lookText } from '../styles/look_text.ts';
import {
  type EmittedScreen,
  findMarkup,
  isElement,
  mapChildren,
  type MarkupElement,
  type MarkupNode,
  type StyleRule,
} from '../markup.ts';

/** Among which controls an element is one that can be chosen, and what says that it is; null for any other. */
export type ChoiceOf = (node: MarkupElement) => Choice | null;

interface Choice {
  readonly group: string;
  readonly by: Expression;
  /** Whether all up to the chosen one look chosen. */
  readonly isScale?: boolean;
}

/** A screen on which, of controls of which one is chosen, the look of the chosen one goes where the choice goes. */
export function withChosenLooks(screen: EmittedScreen, choiceOf: ChoiceOf): EmittedScreen {
  const looks = new ChosenLooks(screen, choiceOf);
  return { root: looks.apply(screen.root), rules: looks.rules() };
}

/** What chooses among parts of which one is shown looks as the one that was drawn chosen where its part is shown. */
export const withChosenParts = (screen: EmittedScreen): EmittedScreen =>
  withChosenLooks(screen, ({ link }) =>
    link?.kind === 'disclose' && link.choice
      ? {
          group: link.choice.name,
          by: {
            kind: 'disclosed',
            of: link.choice.name,
            first: link.choice.first,
            id: literal(link.id),
          },
        }
      : null,
  );

/**
 * A screen on which elements look like others while something holds.
 * @param markedBy when an element does, and the key of the one that it looks like then
 */
export function withMarked(
  screen: EmittedScreen,
  markedBy: (key: string) => { readonly by: Expression; readonly like: string } | null,
): EmittedScreen {
  const looks = new ChosenLooks(screen, () => null);
  const root = looks.marking(screen.root, screen.root, markedBy);
  return root === screen.root ? screen : { root, rules: looks.rules() };
}

/** What tells a chosen control from the others; the rest is its own. */
const PAINT =
  /^(color|background(-.*)?|border-(top|right|bottom|left)-(color|style)|font-weight|text-decoration.*|box-shadow|outline.*|opacity|fill|stroke)$/;

const NO_LOOK: Look = { base: {}, at: {}, from: {}, states: {} };

/** Of controls of which one is chosen, the look of the chosen one goes where the choice goes. */
class ChosenLooks {
  readonly #rules: Map<string, StyleRule>;
  readonly #choiceOf: ChoiceOf;

  constructor({ rules }: EmittedScreen, choiceOf: ChoiceOf) {
    this.#choiceOf = choiceOf;
    this.#rules = new Map(rules.map((rule) => [rule.className, rule]));
  }

  rules(): readonly StyleRule[] {
    return [...this.#rules.values()];
  }

  marking(
    node: MarkupElement,
    root: MarkupElement,
    markedBy: Parameters<typeof withMarked>[1],
  ): MarkupElement {
    const made = mapChildren(node, (child) =>
      isElement(child) ? this.marking(child, root, markedBy) : child,
    );
    const marked = node.key === null ? null : markedBy(node.key);
    const like = marked && findMarkup(root, ({ key }) => key === marked.like);
    return marked && like && like !== node ? this.#shown(made, like, made, marked.by) : made;
  }

  apply(root: MarkupElement): MarkupElement {
    const made = new Map<MarkupElement, MarkupElement>();
    for (const group of this.#groups(root).values()) {
      if (group.length < 2) continue;
      const [marked, other] = this.#marked(
        group.map(({ node }) => node),
        group[0].isScale ?? false,
      );
      if (!marked || !other) continue;
      for (const { node, by } of group) made.set(node, this.#shown(node, marked, other, by));
    }
    const replaced = (node: MarkupElement): MarkupElement =>
      made.get(node) ?? mapChildren(node, (child) => (isElement(child) ? replaced(child) : child));
    return replaced(root);
  }

  /** Controls of which one is chosen. */
  #groups(root: MarkupElement): ReadonlyMap<string, (Choice & { node: MarkupElement })[]> {
    const found: (Choice & { node: MarkupElement })[] = [];
    const visit = (node: MarkupElement): void => {
      const choice = this.#choiceOf(node);
      if (choice) found.push({ node, ...choice });
      for (const child of node.children) if (isElement(child)) visit(child);
    };
    visit(root);
    return grouped(found, ({ group }) => group);
  }

  /**
   * The one that is drawn otherwise than all the others, and one of these; of a scale that is neither empty nor full the
   * first and the last.
   */
  #marked(nodes: readonly MarkupElement[], isScale: boolean): [MarkupElement?, MarkupElement?] {
    const paints = nodes.map((node) => this.#paintOf(node));
    if (isScale) return paints[0] === paints.at(-1) ? [] : [nodes[0], nodes.at(-1)];
    const counts = new Map<string, number>();
    for (const paint of paints) counts.set(paint, (counts.get(paint) ?? 0) + 1);
    if (counts.size !== 2) return [];
    const at = paints.findIndex((paint) => counts.get(paint) === 1);
    return at < 0 ? [] : [nodes[at], nodes.find((_, i) => i !== at)];
  }

  #paintOf(node: MarkupElement): string {
    const own = Object.entries(this.#lookOf(node).base).filter(([property]) => PAINT.test(property));
    const inner = node.children.map((child) => (isElement(child) ? this.#paintOf(child) : ''));
    return JSON.stringify([node.tag, own.sort(), inner]);
  }

  #lookOf({ className }: MarkupElement): Look {
    return (className === null ? undefined : this.#rules.get(className)) ?? NO_LOOK;
  }

  /** A control that looks like the marked one where it is chosen, and like the others where it is not. */
  #shown(node: MarkupElement, marked: MarkupElement, other: MarkupElement, by: Expression): MarkupElement {
    const own = this.#lookOf(node);
    const [on, off] = [marked, other].map((one) => this.#lookOf(one));
    const differing = [...new Set([...Object.keys(on.base), ...Object.keys(off.base)])].filter(
      (property) => PAINT.test(property) && on.base[property] !== off.base[property],
    );
    const painted = (as: Look): string | null => {
      const base: Record<string, string> = { ...own.base };
      for (const property of differing)
        if (as.base[property] === undefined) delete base[property];
        else base[property] = as.base[property];
      return this.#classFor({ ...own, base }, node);
    };
    const classes = differing.length ? { true: painted(on), false: painted(off) } : null;
    const children = node.children.map((child, i): MarkupNode => {
      const [a, b] = [marked.children[i], other.children[i]];
      return isElement(child) && a && b && isElement(a) && isElement(b)
        ? this.#shown(child, a, b, by)
        : child;
    });
    return { ...node, ...(classes ? { variant: { by, classes } } : {}), children };
  }

  #classFor(look: Look, { className, key }: MarkupElement): string | null {
    const signature = lookText(look);
    for (const [name, rule] of this.#rules) if (lookText(rule) === signature) return name;
    if (Object.values(look).every((part) => !Object.keys(part).length)) return null;
    const name = uniqueCodeName(className ?? 'part', 'part', (one) => this.#rules.has(one));
    this.#rules.set(name, {
      className: name,
      key,
      base: look.base,
      at: look.at,
      from: look.from,
      states: look.states,
    });
    return name;
  }
}
