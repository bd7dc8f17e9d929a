import type { Drawer } from '../../model/app.ts';
import { type Declarations, type Element, type ElementStyle, type Screen } from '../../model/design.ts';
import { camelCase, uniqueCodeName } from '../../model/names.ts';
import { textOf, walkElements } from '../../model/project.ts';
import { saysButton } from '../../roles/called.ts';
import { roleOf } from '../../roles/role.ts';
import { attributeRule, isFlag } from '../../vocabulary/attributes.ts';
import { SAME_PARTS } from '../../vocabulary/styled_parts.ts';
import { OPEN_STATE } from '../../vocabulary/style_values.ts';
import { VOID_TAGS } from '../../vocabulary/tags.ts';
import type { TokenLookup } from '../../tokens/values.ts';
import { drawnMarkup, drawnReferences } from './vector_markup.ts';
import { fieldLabels, isField, tiedLabels, type Ties } from './field_labels.ts';
import { isNameless, namelessLabel } from '../../links/nameless.ts';
import { idsReferredTo, isMadeId, truthful } from './truthful.ts';
import { classNameOf, drawingOf, qualified } from './styles/class_naming.ts';
import { mainOf } from './main_part.ts';
import { withoutIdle } from './styles/idle.ts';
import { withOwnBorders } from './styles/own_borders.ts';
import type { EmittedPart } from './emitted_parts.ts';
import { drawerId, type EmittedWiring } from './emitted_wiring.ts';
import {
  type EmittedLink,
  type EmittedScreen,
  isElement,
  isText,
  type LinkForm,
  type MarkupElement,
  type MarkupNode,
  type MarkupText,
  type StyleRule,
} from './markup.ts';

/** What emission of one screen depends on besides the screen. */
export interface ScreenContext {
  /** What an element does, if that can be done. */
  readonly wiringOf: (elementKey: string) => EmittedWiring;
  /** Whether it opens over another screen, so that it is not the main part of the page. */
  readonly isOverlay?: boolean;
  /** The id of an element that some link leads to. */
  readonly anchorOf: (elementKey: string) => string | null;
  /** The names by which an element moves from screen to screen: as the one that leaves, as the one that arrives. */
  readonly sharedOf?: (elementKey: string) => { readonly leaves?: string; readonly arrives?: string } | null;
  /** What a part of the screen is on narrow windows, if it is a drawer there. */
  readonly drawerOf?: (elementKey: string) => Drawer | null;
  /** How a part of the screen opens and closes, if it does. */
  readonly partOf?: (elementKey: string) => EmittedPart | null;
  /** The token that stands for a value of a property. */
  readonly tokenOf?: TokenLookup;
  /** Whether what an element says depends on something, by its key. */
  readonly isSpokenOf?: (elementKey: string) => boolean;
}

const NOTHING: EmittedWiring = {};

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
  const writer = new ScreenWriter(screen.root, context, /\.html?$/i.test(screen.source.file));
  const root = writer.element(screen.root, {
    isPhrasing: false,
    isRoot: true,
    isItem: false,
    isLinked: false,
    isInDrawer: false,
    isVerbatim: false,
    within: '',
  });
  const drawers = writer.drawers();
  return {
    root: drawers.length ? { ...root, children: [...root.children, ...drawers] } : root,
    rules: writer.rules(),
  };
}

interface Surroundings {
  /** Within a button or a paragraph, where only phrasing may stand. */
  readonly isPhrasing: boolean;
  readonly isRoot: boolean;
  /** Laid out as an item of a row, a column or a grid. */
  readonly isItem: boolean;
  /** Within a link, where no other may stand. */
  readonly isLinked: boolean;
  /** Written a second time, as the contents of a drawer. */
  readonly isInDrawer: boolean;
  /** Within a listing of code, where texts stand as they are. */
  readonly isVerbatim: boolean;
  /** What the part is called that it stands in. */
  readonly within: string;
}

class ScreenWriter {
  /** The main part of the page, where that is not the page. */
  readonly #main: Element | null;
  readonly #context: ScreenContext;
  readonly #fieldLabels: ReadonlyMap<string, string>;
  readonly #ties: Ties;
  /** Ids that stand on the page. */
  readonly #ids: ReadonlySet<string>;
  readonly #referredTo: ReadonlySet<string>;
  /** Names that its drawings refer to. */
  readonly #drawn: ReadonlySet<string>;
  /** Written as a page, with classes, and not drawn. */
  readonly #isPage: boolean;
  readonly #rules = new Map<string, StyleRule>();
  readonly #names = new Set<string>();
  readonly #drawers: { readonly element: Element; readonly drawer: Drawer }[] = [];

  constructor(root: Element, context: ScreenContext, isPage: boolean) {
    this.#isPage = isPage;
    this.#main = mainOf(root);
    this.#context = context;
    this.#fieldLabels = fieldLabels(root);
    const ids = new Set<string>();
    walkElements(root, ({ attributes }) => {
      if (attributes?.id) ids.add(attributes.id);
    });
    this.#ids = ids;
    this.#referredTo = idsReferredTo(root);
    this.#ties = tiedLabels(root, ids, context.isOverlay ? root.key.replace(/:.*/, '') : '');
    this.#drawn = drawnReferences(root);
  }

  rules(): StyleRule[] {
    return [...this.#rules.values()];
  }

  /** The drawers of the screen, each with the same contents as the part that it stands for. */
  drawers(): MarkupElement[] {
    return this.#drawers.map(({ element, drawer }) => {
      const inner = { ...element, style: inDrawer(element.style) };
      const content = this.element(inner, {
        isPhrasing: false,
        isRoot: false,
        isItem: false,
        isLinked: false,
        isInDrawer: true,
        isVerbatim: false,
        within: camelCase(drawer.name),
      });
      return {
        tag: 'div',
        key: null,
        className: this.#ruleFor(`${camelCase(drawer.name)}Drawer`, null, drawerRule(element, drawer)),
        attributes: { id: drawerId(element.key), popover: 'auto', role: 'dialog', 'aria-label': drawer.name },
        children: [content],
      };
    });
  }

  element(drawn: Element, around: Surroundings): MarkupElement {
    const drawer = around.isInDrawer ? null : (this.#context.drawerOf?.(drawn.key) ?? null);
    if (drawer) this.#drawers.push({ element: drawn, drawer });
    const element = drawer ? hiddenUpTo(drawn, drawer.below) : drawn;
    const { link, acts } = around.isLinked ? NOTHING : this.#context.wiringOf(element.key);
    const isPressed = acts?.some((act) => act.on === 'press') ?? false;
    const form = link || isPressed ? (around.isRoot ? 'other' : this.#formOf(element, link)) : null;
    const tag = this.#tagOf(element, around, form);
    const name = classNameOf(element, tag, this.#isPage, around.isRoot);
    const className = name.isOwn ? name.name : qualified(around.within, name.name);
    const isPicture = element.kind === 'image' || element.kind === 'vector';
    if (form && isPicture && form !== 'other')
      return this.#linkedPicture(element, { link, acts }, form, tag, className);
    const part = around.isInDrawer ? null : (this.#context.partOf?.(element.key) ?? null);
    const inside: Surroundings = {
      isPhrasing: around.isPhrasing || tag === 'button' || tag === 'p' || /^h\d$/.test(tag),
      isRoot: false,
      isItem: /flex|grid/.test(element.style.base.display ?? ''),
      isInDrawer: around.isInDrawer,
      isVerbatim: around.isVerbatim || tag === 'pre' || tag === 'code',
      within: name.isOwn ? name.name : around.within,
      isLinked: around.isLinked || form === 'anchor' || form === 'button',
    };
    const lineWidth = tag === 'button' && !around.isItem ? widthOfLine(element) : null;
    const extra: Declarations = {
      ...(tag === 'span' || form === 'anchor' ? asBefore(element, tag) : {}),
      ...(lineWidth === null ? {} : { width: lineWidth }),
      ...(tag === 'button' && !around.isItem ? withoutRoom(element) : {}),
      ...(form === 'other' ? { cursor: 'pointer' } : {}),
      ...(part?.kind === 'dialog' ? shade(element) : {}),
    };
    const made: MarkupElement = {
      tag,
      key: element.key,
      className: this.#classOf(
        opening(element, !!part?.isNarrow),
        extra,
        tag,
        className,
        form !== null || part !== null,
      ),
      attributes: {
        ...this.#attributesOf(element, tag, form !== null, around.isInDrawer),
        ...this.#sharedAttributes(element),
        ...(link?.kind === 'drawer' && form === 'button' ? { popovertarget: link.id } : {}),
        ...(part ? partAttributes(part) : {}),
      },
      ...(element.asset ? { asset: element.asset } : {}),
      ...(link ? { link } : {}),
      ...(form ? { form } : {}),
      ...(element.drawnText !== undefined && (link || acts) ? { drawnText: element.drawnText } : {}),
      ...(form === 'anchor' && link?.kind === 'go' && isDeed(element) ? { isDeed: true as const } : {}),
      ...(part
        ? {
            part: {
              kind: part.kind,
              isOpen: part.isOpen,
              ...(part.isNarrow ? { isNarrow: true as const } : {}),
              ...(part.choice ? { choice: part.choice } : {}),
            },
          }
        : {}),
      ...(acts ? { acts } : {}),
      children: element.vector
        ? drawnMarkup(element.vector, this.#drawn)
        : VOID_TAGS.has(tag)
          ? []
          : this.#childrenOf(element, inside),
    };
    return element.vector
      ? {
          ...made,
          attributes: { ...made.attributes, ...this.#vectorAttributes(element) },
          drawing: drawingOf(element, around.within),
        }
      : made;
  }

  #childrenOf(element: Element, inside: Surroundings): MarkupNode[] {
    if (element.tag === 'textarea') return [];
    // Between options there is nothing but options.
    if (/^(select|optgroup|datalist)$/.test(element.tag ?? ''))
      return element.children
        .filter((child) => child.tag !== undefined)
        .map((child) => this.element(child, inside));
    const own = element.text !== undefined ? [{ text: element.text }] : [];
    const all = [
      ...own,
      ...element.children.map((child): MarkupNode =>
        child.tag === undefined ? { text: child.text ?? '' } : this.element(child, inside),
      ),
    ];
    if (inside.isItem) return all;
    if (inside.isVerbatim) return this.#withoutBare(all);
    const isKept = (node: MarkupNode): boolean =>
      !isElement(node) || !isNothing(node) || !!this.#context.isSpokenOf?.(node.key ?? '');
    // Between texts an empty box ends a line, and what stands in the line keeps them apart.
    const isBreak = (node: MarkupNode, at: number): boolean =>
      isElement(node) && node.tag === 'div'
        ? own.length > 0 ||
          isBetweenLines(element.children, at - own.length, (i) => isKept(all[i + own.length]))
        : [all[at - 1], all[at + 1]].every((other) => other && isText(other));
    return all.every(isKept) ? all : all.filter((node, at) => isKept(node) || isBreak(node, at));
  }

  /** Without elements that say nothing but their text, as those that a highlighter put around each word; one text for those beside each other. */
  #withoutBare(nodes: readonly MarkupNode[]): MarkupNode[] {
    const texts = nodes.flatMap((node) =>
      isElement(node) && isBare(node) && !this.#context.isSpokenOf?.(node.key ?? '') ? node.children : [node],
    );
    const joined: MarkupNode[] = [];
    for (const node of texts) {
      const last = joined.at(-1);
      if (last && isPlainText(last) && isPlainText(node))
        joined[joined.length - 1] = { text: last.text + node.text };
      else joined.push(node);
    }
    return joined;
  }

  /** A picture that leads somewhere stands in its link, which takes its place and size. */
  #linkedPicture(
    element: Element,
    { link, acts }: EmittedWiring,
    form: LinkForm,
    tag: string,
    className: string,
  ): MarkupElement {
    const fill: Declarations = {
      display: 'block',
      width: '100%',
      height: '100%',
      ...(element.style.base['object-fit'] ? { 'object-fit': element.style.base['object-fit'] } : {}),
    };
    const picture: MarkupElement = {
      tag: element.kind === 'image' ? 'img' : 'svg',
      key: element.key,
      className: this.#ruleFor('picture', null, { base: fill, at: {}, from: {}, states: {} }),
      attributes: element.vector
        ? { ...this.#vectorAttributes(element), 'aria-hidden': 'true' }
        : { alt: spokenAlt(element.attributes?.alt) },
      ...(element.asset ? { asset: element.asset } : {}),
      ...(element.vector ? { drawing: drawingOf(element, className) } : {}),
      children: element.vector ? drawnMarkup(element.vector, this.#drawn) : [],
    };
    const id = this.#context.anchorOf(element.key);
    return {
      tag,
      key: element.key,
      className: this.#classOf(element, { display: 'block' }, tag, className, true),
      attributes: {
        'aria-label': element.attributes?.alt || spokenName(element),
        ...(id ? { id } : {}),
        ...(link?.kind === 'drawer' && form === 'button' ? { popovertarget: link.id } : {}),
        ...this.#sharedAttributes(element),
      },
      ...(link ? { link } : {}),
      ...(acts ? { acts } : {}),
      form,
      children: [picture],
    };
  }

  #sharedAttributes(element: Element): Record<string, string> {
    const shared = this.#context.sharedOf?.(element.key);
    return {
      ...(shared?.leaves ? { 'data-leaves': shared.leaves } : {}),
      ...(shared?.arrives ? { 'data-arrives': shared.arrives } : {}),
    };
  }

  #formOf(element: Element, link: EmittedLink | undefined): LinkForm {
    if (element.tag && TABLE_PARTS.has(element.tag) && !this.#isLabelOfNone(element)) return 'other';
    if (element.children.some((child) => this.#holdsInteractive(child))) return 'other';
    if (!link) return 'button';
    if (link.kind === 'external' || link.kind === 'file') return 'anchor';
    return element.tag === 'button' ||
      link.kind === 'back' ||
      link.kind === 'drawer' ||
      link.kind === 'disclose'
      ? 'button'
      : 'anchor';
  }

  #holdsInteractive(element: Element): boolean {
    const { link, acts } = this.#context.wiringOf(element.key);
    if (link || acts?.some((act) => act.on === 'press')) return true;
    if (['button', 'a', 'input', 'select', 'textarea'].includes(element.tag ?? '')) return true;
    return element.children.some((child) => this.#holdsInteractive(child));
  }

  /** Whether an element is the label of a field that is not there: what it does is all that it is for. */
  #isLabelOfNone({ tag, attributes, children }: Element): boolean {
    const named = attributes?.for;
    return tag === 'label' && named !== undefined && !this.#ids.has(named) && !children.some(isField);
  }

  /** Whether a label is that of a field: it names one, or holds one. */
  #isTied(label: Element): boolean {
    if (label.attributes?.for !== undefined || this.#ties.forOf.has(label.key)) return true;
    return label.children.some((child) => isField(child) || this.#isTied(child));
  }

  #tagOf(element: Element, around: Surroundings, form: LinkForm | null): string {
    if (form === 'anchor') return 'a';
    if (form === 'button') return 'button';
    const tag = element.tag ?? 'span';
    if (around.isRoot) return this.#context.isOverlay || this.#main ? 'div' : 'main';
    if (element.key === this.#main?.key && !around.isPhrasing)
      return this.#context.isOverlay ? 'div' : 'main';
    if (tag === 'main') return 'div';
    // What leads nowhere is no link yet.
    if (tag === 'a') return 'span';
    // A label of nothing is plain text.
    if (tag === 'label' && !this.#isTied(element)) return 'span';
    if (around.isPhrasing && BLOCKS.has(tag)) return 'span';
    if (tag === 'div' && !around.isLinked) {
      const role = roleOf(element);
      if (role === 'navigation') return 'nav';
      if (role === 'button' && !element.children.some((child) => this.#holdsInteractive(child)))
        return 'button';
    }
    return tag;
  }

  #attributesOf(
    element: Element,
    tag: string,
    isLinked: boolean,
    isInDrawer: boolean,
  ): Record<string, string | true> {
    const opens = this.#context.wiringOf(element.key).link?.kind === 'disclose';
    const isPart = !isInDrawer && !!this.#context.partOf?.(element.key);
    const attributes: Record<string, string | true> = {};
    for (const [name, value] of Object.entries(element.attributes ?? {})) {
      if (
        name === 'href' ||
        (name === 'role' && (element.tag === 'svg' || value === 'main')) ||
        // A number that nothing refers to is nothing to anybody.
        (name === 'id' && (element.tag === 'svg' || (isMadeId(value) && !this.#referredTo.has(value))))
      )
        continue;
      if (name === 'type' && tag !== element.tag) continue;
      // What opens something says by itself whether that is open.
      if (opens && SAYS_OPEN.has(name)) continue;
      // Hidden from who is read to while it is closed; open, it is read.
      if (isPart && name === 'aria-hidden') continue;
      // Written as another element, it may not have what it had.
      if (!attributeRule(tag, name)) continue;
      attributes[name] = isFlag(element.tag ?? tag, name) ? true : value;
    }
    const [isFor, tied] = [this.#ties.forOf.get(element.key), this.#ties.idOf.get(element.key)];
    if (isFor !== undefined && tag === 'label') attributes.for = isFor;
    if (tied !== undefined) attributes.id = tied;
    const label = this.#fieldLabels.get(element.key);
    if (label !== undefined && tied === undefined) attributes['aria-label'] = label;
    if (tag === 'img') attributes.alt = spokenAlt(attributes.alt);
    if (tag === 'button' && (isLinked || element.tag !== 'button')) attributes.type = 'button';
    if (
      (tag === 'button' || tag === 'a') &&
      !attributes['aria-label'] &&
      !textOf(element) &&
      !hasPictureText(element)
    )
      attributes['aria-label'] = spokenName(element);
    if (element.tag === 'textarea' && element.text) attributes.value = element.text;
    if (element.tag === 'select') {
      const chosen = findSelected(element);
      if (chosen) attributes.value = chosen.attributes?.value ?? textOf(chosen);
    }
    const id = this.#context.anchorOf(element.key);
    if (id) attributes.id = id;
    const said = truthful(attributes, tag, element.tag === 'a' && tag === 'span', this.#ids);
    // What stands twice on a page must not have one id twice.
    if (isInDrawer)
      for (const name of ['id', 'for'])
        if (typeof said[name] === 'string') said[name] = `${said[name]}-drawer`;
    return said;
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

  #classOf(
    element: Element,
    extra: Declarations,
    tag: string,
    className: string,
    isPressed: boolean,
  ): string | null {
    const { tabindex, contenteditable } = element.attributes ?? {};
    const canFocus = isPressed || tabindex !== undefined || contenteditable !== undefined;
    const written = `${tag} ${canFocus} ${JSON.stringify(extra)}`;
    let known = looks.get(element);
    if (known?.written !== written)
      looks.set(element, (known = { written, look: lookOf(element, extra, tag, canFocus) }));
    return this.#ruleFor(className, element.key, known.look);
  }

  /** A rule with the tokens that stand for its values. */
  #withTokens(rule: Look): typeof rule {
    const { tokenOf } = this.#context;
    if (!tokenOf) return rule;
    const named = (css: Declarations): Declarations => {
      let made: Record<string, string> | null = null;
      for (const [property, value] of Object.entries(css)) {
        const token = tokenOf(property, value);
        if (token) (made ??= { ...css })[property] = `var(--${token})`;
      }
      return made ?? css;
    };
    const all = (table: Readonly<Record<string, Declarations>>) =>
      Object.fromEntries(Object.entries(table).map(([key, css]) => [key, named(css)]));
    return { base: named(rule.base), at: all(rule.at), from: all(rule.from), states: all(rule.states) };
  }

  /** Elements that look exactly alike share one class, named after the first of them. */
  #ruleFor(wanted: string, key: string | null, said: Look): string | null {
    const rule = this.#withTokens(said);
    const parts = [rule.base, rule.at, rule.states, rule.from];
    if (parts.every((part) => !Object.keys(part).length)) return null;
    const signature = JSON.stringify(parts);
    const known = this.#rules.get(signature);
    if (known) return known.className;
    const className = uniqueCodeName(wanted, 'part', (candidate) => this.#names.has(candidate));
    this.#names.add(className);
    this.#rules.set(signature, { className, key, ...rule });
    return className;
  }
}

type Look = Pick<StyleRule, 'base' | 'at' | 'from' | 'states'>;

/** How elements look as they were written last. */
const looks = new WeakMap<Element, { readonly written: string; readonly look: Look }>();

/** How an element looks that is written with a tag: all that is said of it but what changes nothing. */
function lookOf(element: Element, extra: Declarations, tag: string, canFocus: boolean): Look {
  const { base, at = {}, from = {}, hover, focus, disabled, before, after, placeholder } = element.style;
  const states: Record<string, Declarations> = {};
  if (hover) states[':hover'] = hover;
  if (focus) states[':focus-visible'] = focus;
  if (disabled) states[':disabled'] = disabled;
  if (before) states['::before'] = before;
  if (after) states['::after'] = after;
  if (placeholder) states['::placeholder'] = placeholder;
  for (const [state, css] of Object.entries(element.style.states ?? {})) {
    states[state] = css;
    const same = SAME_PARTS.get(state);
    if (same) states[same] = css;
  }
  const drawn = { base: { ...base, ...extra }, at, from, states };
  const isNowButton = tag === 'button' && element.tag !== 'button';
  return withoutIdle(isNowButton ? withOwnBorders(drawn) : drawn, tag, canFocus);
}

/** Tags that are laid out in a line by themselves. */
const IN_LINE =
  /^(a|abbr|b|bdi|bdo|cite|code|data|dfn|em|i|kbd|label|mark|q|s|samp|small|span|strong|sub|sup|time|u|var)$/;

/** What lays an element out as the tag that it had did by itself, where it is written as one that is laid out in a line. */
function asBefore({ tag = 'div', style: { base } }: Element, written: string): Declarations {
  if (tag === written || IN_LINE.test(tag)) return {};
  const isButton = tag === 'button';
  const hasHeight = base.height !== undefined || base['min-height'] !== undefined;
  return {
    ...('display' in base ? {} : { display: isButton ? 'inline-block' : 'block' }),
    // What stands in a button does so in the middle of it.
    ...(isButton && hasHeight && !/flex|grid/.test(base.display ?? '') ? { 'align-content': 'center' } : {}),
  };
}

/** The width of something that fills its line but for its margins, which a button does not by itself; null for what does not. */
function widthOfLine({ tag = 'div', style: { base, at = {} } }: Element): string | null {
  const { display = IN_LINE.test(tag) ? 'inline' : 'block', position = 'static', float = 'none' } = base;
  const isFree = position === 'absolute' || position === 'fixed' || float !== 'none';
  const isLine = /^(block|flex|grid|flow-root|list-item)$/.test(display) && base.width === undefined;
  if (tag === 'button' || isFree || !isLine) return null;
  const margins = MARGINS.flatMap((name) => base[name] ?? []);
  if (!margins.length) return '100%';
  const differs = Object.values(at).some((css) => MARGINS.some((name) => css[name] !== undefined));
  if (differs || !margins.every((margin) => /^-?[\d.]+px$/.test(margin))) return null;
  const all = margins.reduce((sum, margin) => sum + parseFloat(margin), 0);
  return all === 0 ? '100%' : `calc(100% ${all < 0 ? '+' : '-'} ${Math.abs(all)}px)`;
}
const MARGINS = ['margin-left', 'margin-right'];

/** What takes back the room above and below that a button needs for its padding, and words in a line do not. */
function withoutRoom({ tag = 'div', style: { base, at = {}, from = {} } }: Element): Declarations {
  const isInLine = IN_LINE.test(tag) && (base.display ?? 'inline') === 'inline';
  const isFree = /^(absolute|fixed)$/.test(base.position ?? '') || (base.float ?? 'none') !== 'none';
  const isBoxAt = [...Object.values(at), ...Object.values(from)].some(({ display }) => display !== undefined);
  if (!isInLine || isFree || isBoxAt) return {};
  const made: Record<string, string> = {};
  for (const side of ['top', 'bottom']) {
    const hasBorder = /^(?!none|hidden)/.test(base[`border-${side}-style`] ?? 'none');
    const lengths = [base[`padding-${side}`], hasBorder ? base[`border-${side}-width`] : undefined].filter(
      (length) => length !== undefined && parseFloat(length) > 0,
    );
    if (lengths.length) made[`margin-${side}`] = negated(lengths as string[]);
    else if (parseFloat(base[`margin-${side}`] ?? '0')) made[`margin-${side}`] = '0';
  }
  return made;
}

/** Less all of these lengths. */
function negated(lengths: readonly string[]): string {
  const [unit, ...others] = new Set(lengths.map((length) => length.replace(/^[\d.]+/, '')));
  if (others.length || !/^[a-z]+$/.test(unit)) return `calc(-1 * (${lengths.join(' + ')}))`;
  const sum = lengths.reduce((all, length) => all + parseFloat(length), 0);
  return `-${Math.round(sum * 1000) / 1000}${unit}`;
}

const SAYS_OPEN: ReadonlySet<string> = new Set([
  'aria-expanded',
  'aria-controls',
  'aria-selected',
  'aria-current',
]);

/** What a part is known by and, as a dialog, what it is and how it is called. */
const partAttributes = ({ id, name, kind }: EmittedPart): Record<string, string> => ({
  id,
  ...(kind === 'dialog' ? { role: 'dialog', 'aria-modal': 'true', 'aria-label': name } : {}),
});

/** What narrow windows hide shows there, too, where it is a part that is opened; else nothing is said of that. */
function opening(element: Element, isPart: boolean): Element {
  const { states = {}, base } = element.style;
  const { [OPEN_STATE]: open = { display: base.display ?? 'block' }, ...others } = states;
  if (!isPart && !(OPEN_STATE in states)) return element;
  return {
    ...element,
    style: { ...element.style, states: isPart ? { ...others, [OPEN_STATE]: open } : others },
  };
}

/** What lies behind a dialog that takes the whole window is dimmed where the page leaves that to a script. */
const shade = ({ style: { base } }: Element): Declarations =>
  base.position === 'fixed' && !base['background-color'] ? { 'background-color': 'rgb(0 0 0 / 0.5)' } : {};

const hiddenUpTo = (element: Element, width: number): Element => ({
  ...element,
  style: {
    ...element.style,
    at: { ...element.style.at, [width]: { ...element.style.at?.[width], display: 'none' } },
  },
});

/** What a part keeps of its style within its drawer: its look, not its place. */
function inDrawer({ at: _at, from: _from, ...style }: ElementStyle): ElementStyle {
  const base: Record<string, string> = {};
  for (const [name, value] of Object.entries(style.base))
    if (!PLACE.test(name) && !(name === 'display' && value === 'none')) base[name] = value;
  return { ...style, base: { ...base, 'min-height': '100%' } };
}

const PLACE =
  /^(position|top|right|bottom|left|z-index|transform|margin-|(min-|max-)?(width|height)$|flex-(grow|shrink|basis)|align-self|order|grid-(column|row))/;

/** Whether a link looks like a button, by its role or its author's word. */
const isDeed = (element: Element): boolean =>
  textOf(element) !== '' && (roleOf(element) === 'button' || saysButton(element.classes));

/** What an element without text is called where it is read out: never by its tag. */
const spokenName = (element: Element): string =>
  isNameless(element) ? namelessLabel(element) : element.name.replace(ROLE_WORDS, '');

/** What a reader says by itself: what is called “Back button” is read as “Back, button”. */
const ROLE_WORDS = /(?<=\S)(?:[\s_-]+(?:button|btn|link|icon|image|img))+$/i;

/** The drawer itself: at one side of the window, as high as it, above a shade; only where the part is hidden. */
function drawerRule(element: Element, { side, below }: Drawer): Omit<StyleRule, 'className' | 'key'> {
  const other = side === 'left' ? 'right' : 'left';
  return {
    base: {
      position: 'fixed',
      top: '0px',
      bottom: '0px',
      [side]: '0px',
      [other]: 'auto',
      width: `${Math.round(Math.min(Math.max(element.box.width, 220), 360))}px`,
      'max-width': '85vw',
      height: '100dvh',
      'max-height': 'none',
      'margin-top': '0px',
      'margin-right': '0px',
      'margin-bottom': '0px',
      'margin-left': '0px',
      'padding-top': '0px',
      'padding-right': '0px',
      'padding-bottom': '0px',
      'padding-left': '0px',
      'border-top-width': '0px',
      'border-right-width': '0px',
      'border-bottom-width': '0px',
      'border-left-width': '0px',
      'border-top-style': 'none',
      'border-right-style': 'none',
      'border-bottom-style': 'none',
      'border-left-style': 'none',
      'overflow-x': 'hidden',
      'overflow-y': 'auto',
      'background-color': element.style.base['background-color'] ?? 'Canvas',
    },
    at: {},
    from: { [below + 1]: { display: 'none' } },
    states: { '::backdrop': { 'background-color': 'rgb(0 0 0 / 0.4)' } },
  };
}

/** What is said in place of a picture: that it is one is said anyway. */
function spokenAlt(alt: string | true | undefined): string {
  if (typeof alt !== 'string') return '';
  const said = alt
    .replace(/\b(images?|photos?|pictures?)\b( of)?/gi, ' ')
    .replace(/\s+/g, ' ')
    .trim();
  return /[\p{L}\p{N}]/u.test(said) ? said : '';
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

/** Whether a node is a text that nothing gives. */
const isPlainText = (node: MarkupNode): node is MarkupText => isText(node) && node.given === undefined;

/** Whether an element is empty and looks like nothing: no box, and no sign. */
const isNothing = ({ tag, key: _key, className, attributes, children, ...more }: MarkupElement): boolean =>
  /^(div|span|i|b|em)$/.test(tag) &&
  className === null &&
  !children.length &&
  !Object.keys(attributes).length &&
  !Object.keys(more).length;

/** Whether something in a line stands before or behind a child, of what stays there and has a place among the others. */
function isBetweenLines(children: readonly Element[], at: number, isKept: (at: number) => boolean): boolean {
  return [-1, 1].some((step) => {
    let i = at + step;
    while (children[i] && (!isKept(i) || isApart(children[i]))) i += step;
    return children[i] !== undefined && !isBlock(children[i]);
  });
}

const isApart = ({ style: { base } }: Element): boolean =>
  /^(absolute|fixed)$/.test(base.position ?? '') || /^(left|right)$/.test(base.float ?? '');

/** Whether an element stands on lines of its own, in windows of all widths. */
const isBlock = ({ tag, style: { base, at, from } }: Element): boolean =>
  tag !== undefined &&
  [base, ...Object.values(at ?? {}), ...Object.values(from ?? {})].every(({ display }, i) =>
    display === undefined
      ? i > 0 || BLOCKS.has(tag)
      : /^(block|flex|grid|table|flow-root|list-item|none)$/.test(display),
  );

/** Whether an element says nothing but its text: it looks as what it stands in, and does nothing. */
const isBare = ({ tag, key: _key, className, attributes, children, ...more }: MarkupElement): boolean =>
  tag === 'span' &&
  className === null &&
  !Object.keys(attributes).length &&
  !Object.keys(more).length &&
  children.every(isPlainText);
