import type { Interaction } from '../model/app.ts';
import type { Declarations, Element, Screen, VectorNode } from '../model/design.ts';
import { camelCase, uniqueName } from '../model/names.ts';
import { textOf } from '../model/project.ts';
import { roleOf } from '../roles/role.ts';
import type { EmittedLink, EmittedScreen, LinkForm, MarkupElement, MarkupNode, StyleRule } from './markup.ts';

/** What emission of one screen depends on besides the screen. */
export interface ScreenContext {
  /** Where an element leads, if its link can be followed. */
  readonly linkOf: (elementKey: string) => EmittedLink | null;
  /** The id of an element that some link leads to. */
  readonly anchorOf: (elementKey: string) => string | null;
}

const TABLE_PARTS = new Set([
  'tr',
  'td',
  'th',
  'li',
  'tbody',
  'thead',
  'caption',
  'option',
  'dt',
  'dd',
  'label',
  'summary',
  'input',
]);
const BLOCKS = new Set([
  'div',
  'p',
  'h1',
  'h2',
  'h3',
  'h4',
  'h5',
  'h6',
  'section',
  'article',
  'ul',
  'li',
  'header',
  'footer',
  'main',
  'nav',
]);

/** Writes a screen as elements and style rules: what a person would have written for it. */
export function emitScreen(screen: Screen, context: ScreenContext): EmittedScreen {
  const writer = new ScreenWriter(context);
  return {
    root: writer.element(screen.root, { isPhrasing: false, isRoot: true, isLinked: false }),
    rules: writer.rules(),
  };
}

interface Surroundings {
  /** Within a button or a paragraph, where only phrasing may stand. */
  readonly isPhrasing: boolean;
  readonly isRoot: boolean;
  /** Within a link, where no other may stand. */
  readonly isLinked: boolean;
}

class ScreenWriter {
  readonly #context: ScreenContext;
  readonly #rules = new Map<string, StyleRule>();
  readonly #names = new Set<string>();

  constructor(context: ScreenContext) {
    this.#context = context;
  }

  rules(): StyleRule[] {
    return [...this.#rules.values()];
  }

  element(element: Element, around: Surroundings): MarkupElement {
    const link = around.isLinked ? null : this.#context.linkOf(element.key);
    const form = link ? this.#formOf(element, link) : null;
    const tag = this.#tagOf(element, around, form);
    const isPicture = element.kind === 'image' || element.kind === 'vector';
    if (link && isPicture && form !== 'other') return this.#linkedPicture(element, link, form!, tag);
    const inside: Surroundings = {
      isPhrasing: around.isPhrasing || tag === 'button' || tag === 'p' || /^h\d$/.test(tag),
      isRoot: false,
      isLinked: around.isLinked || form === 'anchor' || form === 'button',
    };
    const needsBlock = tag === 'span' && element.tag !== 'span' && !('display' in element.style.base);
    const extra: Declarations = {
      ...(needsBlock ? { display: 'block' } : {}),
      ...(form === 'anchor' && element.tag !== 'a' && !('display' in element.style.base)
        ? { display: 'block' }
        : {}),
      ...(form === 'other' ? { cursor: 'pointer' } : {}),
    };
    const made: MarkupElement = {
      tag,
      key: element.key,
      className: this.#classOf(element, extra),
      attributes: this.#attributesOf(element, tag, link !== null),
      ...(element.asset ? { asset: element.asset } : {}),
      ...(link ? { link, form: form! } : {}),
      children: element.vector
        ? element.vector.children.map(vectorMarkup)
        : this.#childrenOf(element, inside),
    };
    return element.vector
      ? { ...made, attributes: { ...made.attributes, ...this.#vectorAttributes(element) } }
      : made;
  }

  #childrenOf(element: Element, inside: Surroundings): MarkupNode[] {
    if (element.tag === 'textarea') return [];
    // Between options there is nothing but options.
    if (element.tag === 'select' || element.tag === 'optgroup')
      return element.children
        .filter((child) => child.tag !== undefined)
        .map((child) => this.element(child, inside));
    const own = element.text !== undefined ? [{ text: element.text }] : [];
    return [
      ...own,
      ...element.children.map((child): MarkupNode =>
        child.tag === undefined ? { text: child.text ?? '' } : this.element(child, inside),
      ),
    ];
  }

  /** A picture that leads somewhere stands in its link, which takes its place and size. */
  #linkedPicture(element: Element, link: EmittedLink, form: LinkForm, tag: string): MarkupElement {
    const fill: Declarations = {
      display: 'block',
      width: '100%',
      height: '100%',
      ...(element.style.base['object-fit'] ? { 'object-fit': element.style.base['object-fit'] } : {}),
    };
    const picture: MarkupElement = {
      tag: element.kind === 'image' ? 'img' : 'svg',
      key: element.key,
      className: this.#ruleFor('picture', null, { base: fill, at: {}, states: {} }),
      attributes: element.vector
        ? { ...this.#vectorAttributes(element), 'aria-hidden': 'true' }
        : { alt: element.attributes?.alt ?? '' },
      ...(element.asset ? { asset: element.asset } : {}),
      children: element.vector ? element.vector.children.map(vectorMarkup) : [],
    };
    const id = this.#context.anchorOf(element.key);
    return {
      tag,
      key: element.key,
      className: this.#classOf(element, { display: 'block' }),
      attributes: { 'aria-label': element.attributes?.alt || element.name, ...(id ? { id } : {}) },
      link,
      form,
      children: [picture],
    };
  }

  #formOf(element: Element, link: EmittedLink): LinkForm {
    if (element.tag && TABLE_PARTS.has(element.tag)) return 'other';
    if (element.children.some((child) => this.#holdsInteractive(child))) return 'other';
    if (link.kind === 'external') return 'anchor';
    return element.tag === 'button' || link.kind === 'back' ? 'button' : 'anchor';
  }

  #holdsInteractive(element: Element): boolean {
    if (this.#context.linkOf(element.key)) return true;
    if (['button', 'a', 'input', 'select', 'textarea'].includes(element.tag ?? '')) return true;
    return element.children.some((child) => this.#holdsInteractive(child));
  }

  #tagOf(element: Element, around: Surroundings, form: LinkForm | null): string {
    if (form === 'anchor') return 'a';
    if (form === 'button') return 'button';
    const tag = element.tag ?? 'span';
    if (around.isRoot) return 'main';
    if (tag === 'main') return 'div';
    if (around.isPhrasing && BLOCKS.has(tag)) return 'span';
    if (tag === 'div' && !around.isLinked) {
      const role = roleOf(element);
      if (role === 'navigation') return 'nav';
      if (role === 'button' && !element.children.some((child) => this.#holdsInteractive(child)))
        return 'button';
    }
    return tag;
  }

  #attributesOf(element: Element, tag: string, isLinked: boolean): Record<string, string | true> {
    const attributes: Record<string, string | true> = {};
    for (const [name, value] of Object.entries(element.attributes ?? {})) {
      if (
        name === 'href' ||
        (name === 'role' && element.tag === 'svg') ||
        (name === 'id' && element.tag === 'svg')
      )
        continue;
      if (name === 'type' && tag !== element.tag) continue;
      attributes[name] = value === '' && BOOLEANS.has(name) ? true : value;
    }
    if (tag === 'img' && attributes.alt === undefined) attributes.alt = '';
    if (tag === 'button' && (isLinked || element.tag !== 'button')) attributes.type = 'button';
    if (
      (tag === 'button' || tag === 'a') &&
      !attributes['aria-label'] &&
      !textOf(element) &&
      !hasPictureText(element)
    )
      attributes['aria-label'] = element.name;
    if (element.tag === 'textarea' && element.text) attributes.value = element.text;
    if (element.tag === 'select') {
      const chosen = findSelected(element);
      if (chosen) attributes.value = chosen.attributes?.value ?? textOf(chosen);
    }
    const id = this.#context.anchorOf(element.key);
    if (id) attributes.id = id;
    return attributes;
  }

  #vectorAttributes(element: Element): Record<string, string> {
    const { xmlns: _xmlns, width, height, ...attributes } = element.vector!.attributes;
    const base = element.style.base;
    return {
      ...attributes,
      ...(base.width || !width ? {} : { width }),
      ...(base.height || !height ? {} : { height }),
    };
  }

  #classOf(element: Element, extra: Declarations): string | null {
    const { base, at = {}, hover, focus, before, after, placeholder } = element.style;
    const states: Record<string, Declarations> = {};
    if (hover) states[':hover'] = hover;
    if (focus) states[':focus-visible'] = focus;
    if (before) states['::before'] = before;
    if (after) states['::after'] = after;
    if (placeholder) states['::placeholder'] = placeholder;
    return this.#ruleFor(classNameFor(element), element.key, { base: { ...base, ...extra }, at, states });
  }

  /** Elements that look exactly alike share one class, named after the first of them. */
  #ruleFor(
    wanted: string,
    key: string | null,
    rule: Pick<StyleRule, 'base' | 'at' | 'states'>,
  ): string | null {
    if (!Object.keys(rule.base).length && !Object.keys(rule.at).length && !Object.keys(rule.states).length)
      return null;
    const signature = JSON.stringify([rule.base, rule.at, rule.states]);
    const known = this.#rules.get(signature);
    if (known) return known.className;
    const className = uniqueName(wanted, (candidate) => this.#names.has(candidate), '');
    this.#names.add(className);
    this.#rules.set(signature, { className, key, ...rule });
    return className;
  }
}

const hasPictureText = (element: Element): boolean =>
  element.children.some((child) => !!child.attributes?.alt || hasPictureText(child));

function findSelected(select: Element): Element | null {
  for (const child of select.children) {
    if (child.attributes?.selected !== undefined) return child;
    const inner = findSelected(child);
    if (inner) return inner;
  }
  return null;
}

const BOOLEANS = new Set([
  'checked',
  'disabled',
  'selected',
  'multiple',
  'required',
  'readonly',
  'open',
  'reversed',
]);

/** A class name from what people call the element: at most three words of it. */
function classNameFor(element: Element): string {
  const words = (element.name || element.tag || element.kind).split(/\s+/).slice(0, 3).join(' ');
  const name = camelCase(words).slice(0, 32);
  const kind = element.kind === 'text' && element.tag === 'p' ? 'text' : (element.tag ?? element.kind);
  return name && !/^n\d/.test(name) ? name : camelCase(kind) || 'box';
}

function vectorMarkup(node: VectorNode): MarkupNode {
  return {
    tag: node.tag,
    key: null,
    className: null,
    attributes: node.attributes,
    children: [...(node.text ? [{ text: node.text }] : []), ...node.children.map(vectorMarkup)],
  };
}

/** How an interaction is written, given the routes of the screens; null when it cannot be followed. */
export function emittedLink(
  interaction: Interaction,
  routeOf: (screenKey: string) => string | null,
  anchorOf: (elementKey: string) => string | null,
  start: string,
): EmittedLink | null {
  const { target, arrival } = interaction;
  switch (target.kind) {
    case 'screen': {
      const to = routeOf(target.screen);
      return to === null ? null : { kind: 'go', to, arrival };
    }
    case 'anchor': {
      const to = routeOf(target.screen);
      const id = anchorOf(target.element);
      return to === null || id === null ? null : { kind: 'go', to: `${to}#${id}`, arrival };
    }
    case 'back':
      return { kind: 'back', fallback: (target.fallback && routeOf(target.fallback)) || start, arrival };
    case 'external':
      return { kind: 'external', href: target.href };
  }
}
