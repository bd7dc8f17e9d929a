import { camelCase, capital, uncapital, uniqueCodeName } from '../../../model/names.ts';
import type { Expression } from '../../../expression/expression.ts';
import {
  isElement,
  isText,
  type MarkupElement,
  type MarkupNode,
  type StyleRule,
  type Variant,
} from '../markup.ts';
import { lookText } from '../styles/look_text.ts';
import { partOfRule } from '../styles/units.ts';
import { givenAll, placedLook, type RowPlace } from './row_places.ts';
import { parseClassRef, type Place, type Prop, type Template } from './template.ts';

/**
 * A component's own rules. The same class name means another on another screen, so that they get names of its own
 * (docs/NAMING.md): the outermost element is called as the component is, what stands in it after that, a text that a prop gives
 * after the prop, and a look that a prop decides after what the prop says.
 * @param rows where each place stands among its siblings, of a list
 */
export function withOwnRules(
  template: Template,
  places: readonly Place[],
  component: string,
  rows: readonly RowPlace[] | null = null,
): { root: MarkupElement; props: readonly Prop[]; rules: StyleRule[] } {
  const rules = new OwnRules(places, template, camelCase(component), rows);
  return { root: rules.visit(template.root, true), props: template.props, rules: rules.all() };
}

/** A name without the number that tells it from others of its kind. */
const plainOf = (name: string): string => name.replace(/\d+$/, '') || name;

/** Words for elements of which nothing is known but that they are a text. */
const OF_TEXT = /(Label|Text|Note|Link|Strong|Emphasis)$/;

class OwnRules {
  readonly #places: readonly Place[];
  readonly #name: string;
  /** What parts within were called after, before they were of a component. */
  readonly #within: string;
  readonly #rules = new Map<string, StyleRule>();
  readonly #byLook = new Map<string, string>();
  readonly #template: Template;
  readonly #rows: readonly RowPlace[] | null;

  constructor(places: readonly Place[], template: Template, name: string, rows: readonly RowPlace[] | null) {
    const { root } = template;
    this.#places = places;
    this.#template = template;
    this.#name = name;
    this.#rows = rows;
    const ref = root.className ?? Object.values(root.variant?.classes ?? {}).find((one) => one !== null);
    this.#within = ref ? plainOf(parseClassRef(ref).className) : '';
  }

  all(): StyleRule[] {
    return [...this.#rules.values()];
  }

  /** @param row the tag of the row that it stands right within */
  visit(node: MarkupElement, isRoot = false, row: string | null = null): MarkupElement {
    const { className, variant, aspects } = node;
    const children = (): MarkupNode[] =>
      node.children.map((child) =>
        isElement(child) ? this.visit(child, false, isRoot ? node.tag : null) : child,
      );
    if (!variant) {
      const own = this.#take(className, node, isRoot);
      return {
        ...node,
        className: own,
        ...(aspects ? { aspects: aspects.map((one) => this.#aspect(one, node, isRoot)) } : {}),
        children: children(),
      };
    }
    const placed = isRoot || row !== null ? this.#placed(variant, row) : null;
    if (placed) {
      const { variant: _variant, ...plain } = node;
      return { ...plain, className: this.#add(placed, node, isRoot), children: children() };
    }
    const word = wordOf(variant.by);
    // What it is without more comes first; the others are laid over it.
    const usual = variant.classes.false ?? variant.classes.plain ?? null;
    const under = this.#take(usual, node, isRoot);
    const classes = Object.fromEntries(
      Object.entries(variant.classes).map(([value, ref]) => {
        const said = value === 'true' ? word : value;
        return [value, ref === usual ? under : this.#take(ref, node, isRoot, { under, said })];
      }),
    );
    return { ...node, className: null, variant: { ...variant, classes }, children: children() };
  }

  #aspect({ by, classes }: Variant, node: MarkupElement, isRoot: boolean): Variant {
    const word = wordOf(by);
    return {
      by,
      classes: Object.fromEntries(
        Object.entries(classes).map(([value, ref]) => {
          const said = value === 'true' ? word : value === 'false' ? '' : value;
          return [value, this.#take(ref, node, isRoot, { under: null, said })];
        }),
      ),
    };
  }

  /** @param over what it may be laid over, and the word for what it is more than that */
  #take(
    ref: string | null,
    node: MarkupElement,
    isRoot: boolean,
    over?: { readonly under: string | null; readonly said: string },
  ): string | null {
    if (ref === null) return null;
    const rule = this.#ruleAt(ref);
    return rule ? this.#add(rule, node, isRoot, over) : null;
  }

  #ruleAt(ref: string): StyleRule | undefined {
    const { place, className, kins } = parseClassRef(ref);
    const rule = this.#places[place].rules.get(className);
    return rule && kins ? partOfRule(rule, kins) : rule;
  }

  /** The look that is told by where a row stands; null where a variant is told by something else. */
  #placed({ by, classes }: NonNullable<MarkupElement['variant']>, row: string | null): StyleRule | null {
    if (!this.#rows || by.kind !== 'prop') return null;
    const given = givenAll(this.#template, by.name);
    const named = Object.values(classes).find((ref) => ref !== null);
    if (!given || !named) return null;
    const bare: StyleRule = { ...this.#ruleAt(named)!, base: {}, at: {}, from: {}, states: {} };
    const looks = given.map((value) => (classes[value] ? this.#ruleAt(classes[value])! : bare));
    return placedLook(looks, this.#rows, row);
  }

  #add(
    rule: StyleRule,
    node: MarkupElement,
    isRoot: boolean,
    over?: { readonly under: string | null; readonly said: string },
  ): string {
    const look = lookText(rule);
    const known = this.#byLook.get(look);
    if (known) return known;
    const wanted = this.#nameFor(plainOf(rule.className), node, isRoot);
    const name = uniqueCodeName(wanted, 'part', (candidate) => this.#rules.has(candidate));
    this.#rules.set(name, {
      ...rule,
      className: name,
      ...(over?.said ? { ownName: `${wanted}${capital(over.said)}` } : {}),
      ...(over?.under ? { over: over.under } : {}),
    });
    this.#byLook.set(look, name);
    return name;
  }

  #nameFor(drawn: string, node: MarkupElement, isRoot: boolean): string {
    if (isRoot) return this.#name;
    const within = this.#within;
    const rest = within !== '' && drawn.startsWith(within) ? drawn.slice(within.length) : null;
    const name =
      rest !== null && /^[A-Z]/.test(rest)
        ? rest.toLowerCase() === this.#name.toLowerCase()
          ? drawn
          : `${this.#name}${rest}`
        : drawn;
    const [only] = node.children;
    if (node.children.length !== 1 || !isText(only) || only.given?.kind !== 'prop') return name;
    const prop = only.given.name;
    if (OF_TEXT.test(name)) return name.replace(OF_TEXT, capital(prop));
    return OF_TEXT.test(capital(name)) ? prop : name;
  }
}

/** What a flag says of what it is set for: `active` of `isActive`. */
const wordOf = (by: Expression): string => {
  if (by.kind === 'at') return 'active';
  if (by.kind !== 'prop') return '';
  const said = by.name.replace(/^(is|has)(?=[A-Z])/, '');
  return uncapital(said);
};
