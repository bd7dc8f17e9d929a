import {
  STYLED_PARTS,
  type HiddenElement,
  isIconFamily,
  PATH_ATTRIBUTE,
  type PageReading,
  type ReadElement,
  type ReadingPlan,
  reset,
} from '@tovel/core';
import { showAwaited } from '@tovel/renderer/awaited';
import { drawCurtains } from '@tovel/renderer/curtains';
import { plainValue } from '@tovel/renderer/plain_values';
import { hideWindowBars } from '@tovel/renderer/window_bars';
import { settle, withoutTransitions } from '@tovel/renderer/stillness';
import {
  BareLook,
  BROWSER_LOOK,
  computedValue,
  INHERITED,
  isInherited,
  POPOVER_LOOK,
  readNames,
  writtenAs,
} from './computed.ts';
import { isBounded, lengthAt, type Measures } from './bounded_lengths.ts';
import { HiddenParts } from './hidden_parts.ts';
import { type Aspect, collectRules, type PageRule, USUAL_WIDTHS } from './style_rules.ts';
import { sayWindowHeights } from './window_heights.ts';
import { marginsByAlignment, saidByAttributes } from './attribute_looks.ts';
import { quirksOf } from './quirks.ts';

type Css = Record<string, string>;

/** Resizes the window that a page is laid out in. */
export type Resize = (width: number, height: number) => void;

const SIZES = /^(width|height|min-|max-|flex-basis)/;
/** Colours that are that of the text where nobody says them. */
const FOLLOWS_TEXT = /^(border-\w+|outline|text-decoration|column-rule|caret)-color$/;
const FLOW: ReadonlySet<string> = new Set(['position', 'float', 'display']);
const LENGTHS =
  /^(width|height|(min|max)-(width|height)|flex-basis|font-size|top|left|right|bottom|margin-|padding-|row-gap|column-gap)/;
/** Which elements have what only some have. */
const OWNERS: ReadonlyMap<string, string> = new Map([...STYLED_PARTS, ['placeholder', 'input, textarea']]);
/** Narrower than this, in px, pages are not read. */
const NARROWEST = 240;
/** By how much the window is made larger to see what follows it. */
const PROBE = 100;

/** All that is known of one element until the reading is put together. */
interface Gathered {
  readonly element: Element;
  /** Properties to ask for. */
  readonly names: Set<string>;
  /** Those that may change with the window. */
  readonly conditional: Set<string>;
  /** What is said of lengths that follow the window within bounds, as it is written, what wins last. */
  readonly bounded: Map<string, readonly string[]>;
  readonly aspects: Map<Exclude<Aspect, 'base'>, Css>;
  /** Rules for what is drawn before and after it, where some of them depend on the window. */
  readonly drawn: Map<'before' | 'after', PageRule[]>;
  /** What is drawn before and after it at the narrowest width that was looked at so far. */
  readonly drawnAt: Map<'before' | 'after', Css>;
  /** Rules for states of it, as they win over each other. */
  readonly states: Map<'hover' | 'focus', PageRule[]>;
  /** What of them is said to be important, by aspect. */
  readonly important: Partial<Record<Aspect, Set<string>>>;
  readonly base: Css;
  readonly at: Record<string, Css>;
  isShown: boolean;
  /** How it is laid out where a window hides it and something opens it all the same. */
  open?: string;
}

/**
 * Reads a page from its live layout. Declarations are computed values of what rules, attributes and tags can have
 * set, less what an emitted page gives anyway; widths at which they change come from the page's own media rules.
 */
export class PageReader {
  readonly #document: Document;
  readonly #resize: Resize;
  readonly #bare: BareLook;
  readonly #plan: ReadingPlan;
  readonly #rules: readonly PageRule[];
  /** Widths at which something of this page changes. */
  readonly #boundaries = new Set<number>();
  readonly #gathered = new Map<Element, Gathered>();
  /** What takes its place but is not seen until something opens it. */
  readonly #closed = new Set<Element>();
  readonly #hiddenParts: HiddenParts;
  /** What covered the page, and was taken away. */
  readonly #curtains: ReadonlySet<Element>;
  /** What its scripts would have shown once they ran, and is shown. */
  readonly #awaited: ReadonlySet<Element>;
  #usesHeight = false;
  #usesWidth = false;

  constructor(document: Document, bare: BareLook, plan: ReadingPlan, resize: Resize) {
    this.#document = document;
    this.#bare = bare;
    this.#plan = plan;
    this.#resize = (width, height) => {
      resize(width, height);
      settle(document);
    };
    hideWindowBars(document);
    settle(document);
    this.#curtains = new Set(drawCurtains(document));
    // Rules are read for the classes that there are by then.
    this.#awaited = new Set(showAwaited(document));
    const isOwn = (sheet: CSSStyleSheet): boolean =>
      sheet.ownerNode instanceof document.defaultView!.Element &&
      sheet.ownerNode.hasAttribute('data-tovel-own');
    this.#rules = collectRules(document, isOwn);
    this.#hiddenParts = new HiddenParts(document, isOwn);
  }

  read(): PageReading {
    const width = this.#plan.widths[0];
    const { body, documentElement } = this.#document;
    for (const element of [documentElement, body, ...body.querySelectorAll('*')]) this.#gather(element);
    this.#spreadRules();
    for (const g of this.#gathered.values()) this.#readBase(g);
    for (const [element, css] of quirksOf(this.#document))
      Object.assign(this.#gathered.get(element)?.base ?? {}, css);
    for (const g of this.#gathered.values()) this.#readStates(g);
    const boxes = new Map(
      [...this.#gathered.keys()].map((element) => [element, element.getBoundingClientRect()]),
    );
    if (scrollsBody(this.#document)) {
      // In the app it is as high as what it holds.
      const { x, y, width: across } = boxes.get(body)!;
      boxes.set(body, new DOMRect(x, y, across, body.scrollHeight));
    }
    const height = Math.max(documentElement.scrollHeight, Math.ceil(boxes.get(body)!.bottom));
    this.#readWindowUnits(width);
    for (const boundary of [...this.#boundaries].sort((a, b) => b - a))
      if (boundary < width && boundary >= NARROWEST) this.#readAt(boundary);
    sayWindowHeights(body, (element) => this.#gathered.get(element));
    this.#resize(width, this.#plan.height);
    const undo = withoutTransitions(this.#document);
    this.#readHidden(body, boxes);
    undo();
    const hidden: HiddenElement[] = [];
    const read = this.#put(body, boxes, hidden);
    return { width, height, body: read!, canvas: this.#canvas(documentElement), hidden };
  }

  #gather(element: Element): void {
    const names = new Set(Object.keys(reset[element.localName] ?? {}));
    names.add('display').add('box-sizing');
    if (SPACED.has(element.localName)) names.add('font-size');
    if (element.localName === 'body' || element.localName === 'html') {
      for (const name of INHERITED) names.add(name);
      for (const name of ['background-color', 'background-image']) names.add(name);
    }
    if (writtenAs(element) !== element.localName) for (const name of BROWSER_LOOK) names.add(name);
    if (element.hasAttribute('popover')) for (const name of POPOVER_LOOK) names.add(name);
    const inline = (element as HTMLElement).style;
    for (const name of inline ?? []) for (const readName of readNames(name)) names.add(readName);
    for (const name of saidByAttributes(element)) names.add(name);
    if (element.localName === 'canvas') names.add('width').add('aspect-ratio');
    this.#gathered.set(element, {
      element,
      names,
      conditional: new Set(),
      bounded: new Map(),
      aspects: new Map(),
      states: new Map(),
      drawn: new Map(),
      drawnAt: new Map(),
      important: {},
      base: {},
      at: {},
      isShown: false,
    });
  }

  #spreadRules(): void {
    const changed = new Set<Element>();
    let isLookedFor = false;
    const areInVariables = this.#rules.some(({ declarations }) =>
      declarations.some(([name, value]) => name.startsWith('--') && isBounded(value)),
    );
    /** What elements take over from what they stand in though it is not handed down by itself. */
    const takenOver = new Map<Gathered, readonly string[]>();
    for (const rule of this.#rules) {
      let matched: Iterable<Element>;
      try {
        matched = this.#document.querySelectorAll(rule.selector);
      } catch {
        continue;
      }
      // A rule for parts of controls may be about all elements.
      const owners = OWNERS.get(rule.aspect);
      const base = rule.aspect === 'base' ? rule.declarations : [];
      const names = base.flatMap(([name]) => readNames(name));
      const takes = base.flatMap(([name, value]) => (value === 'inherit' ? readNames(name) : []));
      const mayBeBounded = base.some(
        ([, value]) => isBounded(value) || (areInVariables && (value === '' || value.includes('var('))),
      );
      for (const element of matched) {
        const g = this.#gathered.get(element);
        if (!g || (owners !== undefined && !element.matches(owners))) continue;
        for (const boundary of rule.boundaries) this.#boundaries.add(boundary);
        if (rule.changesUnits) changed.add(element);
        if (mayBeBounded) isLookedFor = this.#readBounds(g, rule) || isLookedFor;
        if (takes.length) takenOver.set(g, [...(takenOver.get(g) ?? []), ...takes]);
        for (const name of names) {
          g.names.add(name);
          if (!rule.isConditional) continue;
          g.conditional.add(name);
          // How an element takes part in the flow says what its own box is, and that of what stands in it.
          if (FLOW.has(name)) g.conditional.add('display');
          if (name === 'display')
            for (const child of element.children) this.#gathered.get(child)?.conditional.add('display');
        }
        if (rule.aspect === 'before' || rule.aspect === 'after')
          g.drawn.set(rule.aspect, [...(g.drawn.get(rule.aspect) ?? []), rule]);
        if (rule.aspect === 'hover' || rule.aspect === 'focus') {
          if (rule.holds) g.states.set(rule.aspect, [...(g.states.get(rule.aspect) ?? []), rule]);
        } else if (rule.aspect !== 'base' && rule.holds)
          this.#addAspect(
            g,
            rule.aspect,
            rule.pending ? this.#expand(element, rule.pending) : rule.declarations,
            rule.important,
          );
      }
    }
    if (isLookedFor && !this.#boundaries.size) for (const width of USUAL_WIDTHS) this.#boundaries.add(width);
    // In the order of the document, so that what is taken over is taken over from there, too.
    for (const g of this.#gathered.values()) {
      const outer = g.element.parentElement && this.#gathered.get(g.element.parentElement);
      for (const name of takenOver.get(g) ?? []) if (outer?.conditional.has(name)) g.conditional.add(name);
    }
    for (const root of changed)
      for (const element of [root, ...root.querySelectorAll('*')]) {
        const g = this.#gathered.get(element);
        for (const name of g?.names ?? []) g!.conditional.add(name);
      }
  }

  /** What a rule says of lengths within bounds. @returns whether some of it can only be seen at several widths */
  #readBounds(g: Gathered, rule: PageRule): boolean {
    const said = rule.pending ? this.#expand(g.element, rule.pending) : rule.declarations;
    let isLookedFor = false;
    for (const [name, declared] of said) {
      const text = declared.includes('var(') ? this.#resolve(g.element, null, name, declared) : declared;
      if (!isBounded(text)) continue;
      const inPixels = this.#inPixels(text);
      if (lengthAt(inPixels, inWindow(0, 0)) === null) isLookedFor = true;
      for (const read of readNames(name)) {
        g.bounded.set(read, [...(g.bounded.get(read) ?? []), inPixels]);
        // What grows with the window within bounds is another thing beyond them.
        g.conditional.add(read);
      }
    }
    return isLookedFor;
  }

  #addAspect(
    g: Gathered,
    aspect: Exclude<Aspect, 'base'>,
    declarations: readonly (readonly [string, string])[],
    important: ReadonlySet<string>,
  ): void {
    const css = g.aspects.get(aspect) ?? {};
    const won = (g.important[aspect] ??= new Set());
    const [, drawn] = /^(?:::)?(before|after|placeholder)(?:@|$)/.exec(aspect) ?? [];
    const pseudo = drawn === undefined ? null : `::${drawn}`;
    for (const [name, declared] of declarations) {
      if (won.has(name) && !important.has(name)) continue;
      if (important.has(name)) won.add(name);
      for (const property of readNames(name)) {
        const value =
          declared && !declared.includes('var(')
            ? declared
            : this.#resolve(g.element, pseudo, property, declared);
        if (value)
          css[property] = property === 'content' ? value : plainValue(property, this.#inPixels(value));
      }
    }
    g.aspects.set(aspect, css);
  }

  /** What an element looks like in its states. Where variables have a say, the browser puts them in: as they are in that state. */
  #readStates(g: Gathered): void {
    for (const [state, rules] of g.states) {
      const isPlain = rules.every(({ declarations }) =>
        declarations.every(([name, value]) => value && !name.startsWith('--') && !value.includes('var(')),
      );
      if (isPlain)
        for (const { declarations, important } of rules) this.#addAspect(g, state, declarations, important);
      else {
        const css = this.#inState(g.element, state, rules);
        if (Object.keys(css).length) g.aspects.set(state, css);
      }
    }
  }

  /** What is otherwise about an element while rules hold. */
  #inState(element: Element, state: 'hover' | 'focus', rules: readonly PageRule[]): Css {
    const names = new Set(
      rules.flatMap(({ declarations }) => declarations.flatMap(([name]) => readNames(name))),
    );
    const read = (): Css => {
      const map = element.computedStyleMap();
      return Object.fromEntries(
        [...names].flatMap((name) => {
          const value = computedValue(map, name);
          return value === null ? [] : [[name, value]];
        }),
      );
    };
    const resting = read();
    const given = element.getAttribute('style');
    const { style } = element as HTMLElement;
    const said = rules.flatMap(({ pending, declarations, important }) =>
      pending === null
        ? declarations.map(([name, value]) => `${name}: ${value}${important.has(name) ? ' !important' : ''}`)
        : [pending],
    );
    style.cssText += `; ${said.join('; ')}`;
    const now = read();
    if (given === null) element.removeAttribute('style');
    else element.setAttribute('style', given);
    // Browsers draw an outline of their own around what has the focus.
    const isTold = (name: string): boolean => state === 'focus' && name.startsWith('outline-');
    return Object.fromEntries(
      Object.entries(now).filter(([name, value]) => value !== resting[name] || isTold(name)),
    );
  }

  /** Lengths by the size of type of a page are other ones where that has another size, as it has in what is emitted. */
  #inPixels(value: string): string {
    if (!value.includes('rem')) return value;
    const root = parseFloat(
      this.#document.defaultView!.getComputedStyle(this.#document.documentElement).fontSize,
    );
    return root === USUAL_SIZE
      ? value
      : value.replace(REM, (_, length: string) => `${round(Number(length) * root)}px`);
  }

  /** The longhands of a rule whose shorthands hold variables, as the element sees these. */
  #expand(element: Element, css: string): (readonly [string, string])[] {
    const holder = this.#document.createElement('i');
    holder.style.cssText = this.#resolve(element, null, '', css);
    return Array.from(holder.style, (name) => [name, holder.style.getPropertyValue(name)] as const);
  }

  /** A declared value with its variables put in; where more than these is to be worked out, the browser says it for pseudo-elements. */
  #resolve(element: Element, pseudo: string | null, property: string, declared: string): string {
    const style = this.#document.defaultView!.getComputedStyle(element, pseudo);
    const said = declared.replace(
      /var\(\s*(--[\w-]+)\s*(?:,([^()]*))?\)/g,
      (_, name: string, fallback?: string) => style.getPropertyValue(name).trim() || (fallback ?? '').trim(),
    );
    // A part of something is no length yet, as the browser says that it is.
    return pseudo && !/^[\d.]+%$/.test(said) ? style.getPropertyValue(property) : said;
  }

  #readBase(g: Gathered): void {
    const map = g.element.computedStyleMap();
    const parent = g.element.parentElement?.computedStyleMap();
    for (const name of g.names) {
      const value = computedValue(map, name);
      if (value !== null && !this.#isGiven(g, name, value, parent)) g.base[name] = value;
    }
    Object.assign(g.base, marginsByAlignment(g.element));
    complete(g.base, map);
    if (computedValue(map, 'display') !== 'none') g.isShown = true;
    // A slider of which nothing else is drawn has the browser's own track and thumb; without these there would be none.
    if (g.element.matches('input[type=range]') && !g.aspects.has('::-webkit-slider-thumb'))
      delete g.base.appearance;
    // What says how high it is has no need of proportions.
    if (g.element.localName === 'canvas' && g.base.height) delete g.base['aspect-ratio'];
    if (g.base['box-sizing'] && !Object.keys(g.base).some((name) => SIZES.test(name)))
      delete g.base['box-sizing'];
  }

  /** Whether an emitted page would give the element this value without being told. */
  #isGiven(g: Gathered, name: string, value: string, parent: StylePropertyMapReadOnly | undefined): boolean {
    const { element } = g;
    const bare = this.#bareValue(element, name);
    if (isInherited(name) && element.localName !== 'body' && element.localName !== 'html' && parent) {
      const usual = this.#bare.value(this.#document.body, name);
      if (name === 'font-size' && SPACED.has(element.localName)) {
        const around = computedValue(parent, name);
        // Smaller than others are such letters only where nobody says a size or a font.
        const isSmaller = around === usual && this.#hasBare(element, 'font-family');
        return value === (isSmaller ? bare : around);
      }
      if (name === 'font-weight' && BOLDER.has(element.localName))
        return value === bolderThan(Number(computedValue(parent, name)));
      const isOwn = name === 'color' && COLORED.has(element.localName);
      const isPassedOn = !isOwn && bare === usual;
      return isPassedOn ? value === computedValue(parent, name) : value === bare;
    }
    if (value !== bare) return false;
    // What takes the colour of the text by itself is told of another, though that may be the usual one of texts.
    const follows = FOLLOWS_TEXT.test(name) && bare === this.#bare.value(element, 'color');
    return !follows || value === computedValue(element.computedStyleMap(), 'color');
  }

  #hasBare(element: Element, name: string): boolean {
    return computedValue(element.computedStyleMap(), name) === this.#bare.value(element, name);
  }

  /** What an element looks like before anything is said about it; the margins of browsers are as large as its letters say. */
  #bareValue(element: Element, name: string): string | null {
    const bare = this.#bare.value(element, name);
    if (!bare || !/^margin-(top|bottom)$/.test(name) || !(parseFloat(bare) > 0)) return bare;
    const usual = parseFloat(this.#bare.value(element, 'font-size') ?? '');
    const own = parseFloat(computedValue(element.computedStyleMap(), 'font-size') ?? '');
    return usual && own && usual !== own ? `${round((parseFloat(bare) / usual) * own)}px` : bare;
  }

  /** Lengths that grow with the window are written in units of the window. */
  #readWindowUnits(width: number): void {
    const css = this.#rules.flatMap((rule) => rule.declarations.map(([, value]) => value)).join(' ');
    const inline = [...this.#gathered.keys()].map((element) => element.getAttribute('style') ?? '').join(' ');
    const text = css + inline + (/var\(|^,|, ,/.test(css) ? this.#pendingText() : '');
    this.#usesHeight = /\d[dsl]?vh|\d[dsl]?vb|\dv(min|max)/.test(text);
    this.#usesWidth = /\dvw|\dvi|\dv(min|max)|\dcq(w|i|min|max)/.test(text);
    const all = [...this.#gathered.values()].map((g) => ({ g, css: g.base }));
    this.#probe(all, width);
  }

  /** The text of rules whose shorthands hold variables, where the units stand that their values do not show. */
  #pendingText(): string {
    return this.#rules.map((rule) => rule.pending ?? '').join(' ');
  }

  /** Looks at lengths again in windows that are a little lower and a little narrower, but within the same band. */
  #probe(read: readonly { readonly g: Gathered; readonly css: Css }[], width: number): void {
    const { height } = this.#plan;
    const below = Math.max(NARROWEST, ...[...this.#boundaries].filter((boundary) => boundary < width));
    const narrower = Math.min(PROBE, Math.floor((width - below) / 2));
    const probes: [isUsed: boolean, unit: 'vh' | 'vw', by: number, width: number, height: number][] = [
      [this.#usesHeight, 'vh', PROBE, width, height - PROBE],
      [this.#usesWidth && narrower >= 8, 'vw', narrower, width - narrower, height],
    ];
    const sizes = read.map(({ css }) => css['font-size']);
    for (const [isUsed, unit, by, w, h] of probes) {
      if (!isUsed) continue;
      this.#resize(w, h);
      const whole = unit === 'vh' ? height : width;
      for (const { g, css } of read) {
        const lengths = Object.entries(css).flatMap(([name, value]) => {
          const length = LENGTHS.test(name) ? lengthIn(value) : null;
          return length ? [{ name, value, length }] : [];
        });
        if (!lengths.length) continue;
        const map = g.element.computedStyleMap();
        for (const { name, value, length } of lengths) {
          const now = computedValue(map, name);
          const bounded = g.bounded
            .get(name)
            ?.findLast(
              (text) =>
                isNear(lengthAt(text, inWindow(width, height)), value) &&
                isNear(lengthAt(text, inWindow(w, h)), now),
            );
          if (bounded) css[name] = bounded;
          const after = bounded || now === null || now === value ? null : lengthIn(now);
          if (!after || after.part !== length.part) continue;
          const share = ((length.px - after.px) / by) * 100;
          const rest = length.px - (share * whole) / 100;
          css[name] = sumOf([
            ...(length.part ? [length.part] : []),
            `${round(share)}${unit}`,
            ...(Math.abs(rest) < 0.1 ? [] : [`${round(rest)}px`]),
          ]);
        }
      }
    }
    // What is between letters that grow grows with them.
    read.forEach(({ css }, i) => {
      const [size, between] = [sizes[i], css['letter-spacing']];
      if (!size || size === css['font-size'] || !between || !PX.test(size) || !PX.test(between)) return;
      css['letter-spacing'] = `${round((parseFloat(between) / parseFloat(size)) * 1000) / 1000}em`;
    });
    this.#resize(width, height);
  }

  /** What is different at a width, against what holds at the next wider one. */
  #readAt(width: number): void {
    this.#resize(width, this.#plan.height);
    const read: { g: Gathered; css: Css }[] = [];
    for (const g of this.#gathered.values()) {
      for (const [part, rules] of g.drawn)
        if (rules.some((rule) => rule.isConditional)) this.#readDrawn(g, part, rules, width);
      const names = g.conditional;
      if (!names.size) continue;
      const map = g.element.computedStyleMap();
      const parent = g.element.parentElement?.computedStyleMap();
      const css: Css = {};
      for (const name of names) {
        const value = computedValue(map, name);
        if (value === null) continue;
        const known = this.#wider(g, name, width);
        const isNew =
          known === undefined
            ? !this.#isGiven(g, name, value, parent)
            : value !== known && !isSameLength(value, known, width, this.#plan.height);
        if (isNew) css[name] = value;
      }
      complete(css, map);
      if (computedValue(map, 'display') !== 'none') g.isShown = true;
      if (!Object.keys(css).length) continue;
      // What controls can name may be opened in a window that hides it.
      if (css.display === 'none' && g.element.id && !g.open) {
        const { undo } = this.#hiddenParts.show(g.element);
        g.open = computedValue(g.element.computedStyleMap(), 'display') ?? undefined;
        undo();
      }
      g.at[width] = css;
      read.push({ g, css });
    }
    if (this.#usesWidth || this.#usesHeight) this.#probe(read, width);
  }

  /** What is drawn before or after an element at a width, as far as that is otherwise than at the next wider one. */
  #readDrawn(g: Gathered, part: 'before' | 'after', rules: readonly PageRule[], width: number): void {
    const view = this.#document.defaultView!;
    const aspect = `::${part}@${width}` as const;
    for (const rule of rules)
      if (rule.conditions?.every((condition) => view.matchMedia(condition).matches))
        this.#addAspect(
          g,
          aspect,
          rule.pending ? this.#expand(g.element, rule.pending) : rule.declarations,
          rule.important,
        );
    const isThere = (css: Css | undefined): boolean =>
      css?.content !== undefined && css.content !== 'none' && css.content !== 'normal';
    const now = g.aspects.get(aspect) ?? {};
    g.aspects.delete(aspect);
    const at = g.drawnAt.get(part) ?? g.aspects.get(part) ?? {};
    const wider = isThere(at) ? at : {};
    g.drawnAt.set(part, now);
    if (!isThere(now)) {
      if (isThere(wider)) g.aspects.set(aspect, { content: 'none' });
      return;
    }
    const style = view.getComputedStyle(g.element, `::${part}`);
    const names = new Set([...Object.keys(now), ...Object.keys(wider)]);
    const differs = [...names].flatMap((name): [string, string][] => {
      const value = now[name] ?? style.getPropertyValue(name);
      return value && value !== wider[name] ? [[name, value]] : [];
    });
    if (differs.length) g.aspects.set(aspect, Object.fromEntries(differs));
  }

  #wider(g: Gathered, name: string, width: number): string | undefined {
    const widths = Object.keys(g.at)
      .map(Number)
      .filter((w) => w > width)
      .sort((a, b) => a - b);
    for (const w of widths) if (g.at[w][name] !== undefined) return g.at[w][name];
    return g.base[name];
  }

  /** Reads what is hidden as it looks when it is shown, each part by itself. */
  #readHidden(element: Element, boxes: Map<Element, DOMRect>): void {
    for (const child of element.children) {
      const g = this.#gathered.get(child);
      if (!g || child.namespaceURI !== 'http://www.w3.org/1999/xhtml') continue;
      const isGone = this.#isNeverShown(g);
      const isClosed =
        !isGone &&
        child.childElementCount > 0 &&
        MAY_CLOSE.some((name) => UNSEEN.test(g.base[name] ?? '')) &&
        this.#hiddenParts.isClosed(child);
      // What has its place in the flow keeps it, and is seen when it is pointed at.
      if (isClosed && this.#hiddenParts.isFaintInFlow(child)) {
        g.aspects.set('hover', { ...g.aspects.get('hover'), opacity: '1' });
        this.#readHidden(child, boxes);
        continue;
      }
      if (isClosed) this.#closed.add(child);
      if (!isGone && !isClosed) {
        this.#readHidden(child, boxes);
        continue;
      }
      const { undo, said } = this.#hiddenParts.show(child);
      for (const inner of [child, ...child.querySelectorAll('*')]) {
        const known = this.#gathered.get(inner);
        if (!known) continue;
        for (const name of Object.keys(known.base)) delete known.base[name];
        for (const name of said(inner)) for (const read of readNames(name)) known.names.add(read);
        this.#readBase(known);
        boxes.set(inner, inner.getBoundingClientRect());
      }
      // Where it is hidden at some widths only because it is closed, it is not hidden there.
      for (const css of Object.values(g.at))
        for (const name of HIDING) if (css[name] !== undefined) delete css[name];
      if (isGone) g.isShown = false;
      this.#readHidden(child, boxes);
      undo();
    }
  }

  /** Whether an element of a page is shown at no width. */
  #isNeverShown({ element, isShown }: Gathered): boolean {
    return !isShown && !['datalist', 'option', 'optgroup', 'source', ...UNREAD].includes(element.localName);
  }

  #canvas(root: Element): Css {
    const base = this.#gathered.get(root)!.base;
    return Object.fromEntries(
      Object.entries(base).filter(
        ([name, value]) =>
          name.startsWith('background-') &&
          value !== 'none' &&
          value !== 'rgba(0, 0, 0, 0)' &&
          value !== 'transparent',
      ),
    );
  }

  /** The id of what a label opens by the box that it ticks; null where that has none, or none is opened. */
  #openedBy(element: Element): string | null {
    const box = element.localName === 'label' ? (element as HTMLLabelElement).control : null;
    return (box && this.#hiddenParts.openedBy(box as HTMLInputElement)?.id) || null;
  }

  #put(
    element: Element,
    boxes: ReadonlyMap<Element, DOMRect>,
    hidden: HiddenElement[],
    isWithinHidden = false,
  ): ReadElement | null {
    const g = this.#gathered.get(element);
    if (!g || UNREAD.includes(element.localName)) return null;
    const path = element.getAttribute(PATH_ATTRIBUTE) ?? '';
    const isHidden =
      (this.#isNeverShown(g) && element.namespaceURI === 'http://www.w3.org/1999/xhtml') ||
      this.#closed.has(element);
    const isAwaited = this.#awaited.has(element);
    if ((isHidden && !isWithinHidden) || isAwaited) {
      const label = (element.id || (element.textContent ?? '').replace(/\s+/g, ' ').trim()).slice(0, 40);
      const covered = this.#curtains.has(element);
      hidden.push({
        path,
        tag: element.localName,
        label,
        ...(covered ? { covered } : {}),
        ...(isAwaited ? { isAwaited } : {}),
      });
    }
    const box = boxes.get(element)!;
    const children: (ReadElement | string)[] = [];
    for (const node of element.childNodes) {
      if (node.nodeType === 1) {
        const child = this.#put(node as Element, boxes, hidden, isWithinHidden || isHidden);
        if (child) children.push(child);
      } else if (node.nodeType === 3) {
        const text = this.#text(node as Text, element, isWithinHidden || isHidden);
        if (text) children.push(text);
      }
    }
    const attributes: Css = {};
    for (const { name, value } of element.attributes)
      if (name !== 'style' && name !== PATH_ATTRIBUTE) attributes[name] = value;
    const opened = this.#openedBy(element);
    if (opened) attributes['aria-controls'] = opened;
    const titled = element.localName === 'svg' ? titleOf(element) : '';
    if (titled && !attributes.title) attributes.title = titled;
    const { hover, focus, before, after, placeholder } = Object.fromEntries(g.aspects);
    const drawn = (css: Css | undefined): Css | undefined =>
      css?.content && css.content !== 'none' && css.content !== 'normal'
        ? { ...css, content: said(css.content, element) }
        : undefined;
    const [shownBefore, shownAfter] = [drawn(before), drawn(after)];
    const iconFont = this.#iconFont(element, before);
    const parts = Object.fromEntries(
      [...g.aspects].flatMap(([aspect, css]) =>
        aspect.startsWith('::')
          ? [[aspect, css.content ? { ...css, content: said(css.content, element) } : css]]
          : [],
      ),
    );
    return {
      path,
      ...(isHidden ? { isHidden } : {}),
      ...(iconFont ? { iconFont } : {}),
      tag: writtenAs(element),
      ...(writtenAs(element) === element.localName ? {} : { was: element.localName }),
      attributes,
      box: { x: round(box.x), y: round(box.y), width: round(box.width), height: round(box.height) },
      base: g.base,
      ...(Object.keys(g.at).length ? { at: g.at } : {}),
      ...(hover ? { hover } : {}),
      ...(focus ? { focus } : {}),
      ...(shownBefore ? { before: shownBefore } : {}),
      ...(shownAfter ? { after: shownAfter } : {}),
      ...(placeholder ? { placeholder } : {}),
      ...(Object.keys(parts).length ? { parts } : {}),
      ...(g.open && g.open !== 'none' ? { open: { display: g.open } } : {}),
      children,
    };
  }

  /** What is set in a font of icons: the content before the element, or a text of its own. */
  #iconFont(element: Element, before: Css | undefined): ReadElement['iconFont'] {
    const view = this.#document.defaultView!;
    if (before?.content) {
      const content = /^"(.+)"$/.exec(before.content)?.[1];
      if (!content) return undefined;
      const { fontFamily: family, fontWeight: weight } = view.getComputedStyle(element, '::before');
      return isPrivateText(content) || isIconFamily(family.split(',')[0])
        ? { family, weight, content }
        : undefined;
    }
    if (element.childNodes.length !== 1 || element.firstChild!.nodeType !== 3) return undefined;
    const { fontFamily: family, fontWeight: weight } = view.getComputedStyle(element);
    const text = element.textContent!.trim();
    return isPrivateText(text) || isIconFamily(family.split(',')[0])
      ? { family, weight, content: null }
      : undefined;
  }

  /** Text as it shows: white space folded, and none where a line begins or ends. */
  #text(node: Text, parent: Element, isHidden: boolean): string {
    const collapse = computedValue(parent.computedStyleMap(), 'white-space-collapse');
    if (collapse && collapse !== 'collapse') return node.data;
    const text = node.data.replace(/[ \t\n\r\f]+/g, ' ');
    if (text === ' ') {
      // Where a line breaks a space has no box, as none has that is hidden: it parts what stands in a line all the same.
      const isLine = !/flex|grid/.test(displayOf(parent)) && parent.localName !== 'picture';
      if (isLine && isInLine(node.previousSibling) && isInLine(node.nextSibling)) return ' ';
      if (isHidden) return '';
      const range = this.#document.createRange();
      range.selectNode(node);
      return range.getClientRects().length ? ' ' : '';
    }
    const isFlow = ['inline', 'inline-block'].includes(displayOf(parent)) && parent.localName !== 'button';
    const isEdge = (sibling: Node | null): boolean => {
      if (!sibling) return !isFlow;
      if (sibling.nodeType !== 1) return false;
      return (sibling as Element).localName === 'br' || !displayOf(sibling as Element).startsWith('inline');
    };
    // Spaces that do not break stay wherever they stand.
    let shown = text;
    if (isEdge(node.previousSibling)) shown = shown.replace(/^ /, '');
    if (isEdge(node.nextSibling)) shown = shown.replace(/ $/, '');
    return shown;
  }
}

const displayOf = (element: Element): string => computedValue(element.computedStyleMap(), 'display') ?? '';

const isInLine = (node: Node | null): boolean =>
  node?.nodeType === 3 ||
  (node?.nodeType === 1 &&
    (node as Element).localName !== 'br' &&
    displayOf(node as Element).startsWith('inline'));

/** What a drawing says that it shows, in the title that is its own. */
const titleOf = (drawing: Element): string =>
  [...drawing.children].find(({ localName }) => localName === 'title')?.textContent?.trim() ?? '';

/** What is in a page and shows nothing. */
const UNREAD = ['style', 'link', 'meta', 'title', 'script'];

/** What is shown before or after an element, with what it takes from attributes of that, which may not stay there. */
const said = (content: string, element: Element): string =>
  content.replace(
    /\battr\(\s*([\w-]+)[^()]*\)/g,
    (_, name: string) =>
      `"${(element.getAttribute(name) ?? '').replace(/["\\]/g, '\\$&').replace(/\s+/g, ' ')}"`,
  );

/** The size of type that a browser gives a page, in px. */
const USUAL_SIZE = 16;
const REM = /(?<![\w.-])(-?(?:\d*\.)?\d+)rem\b/g;

/** Properties, and values of them, by which something that takes its place can be unseen. */
const MAY_CLOSE = ['opacity', 'visibility', 'overflow-y', 'grid-template-rows'];
const UNSEEN = /^(0|0\.0\d*|hidden|collapse|0fr)$/;
const HIDING = ['display', 'visibility', 'opacity'];

/** Elements whose letters are all as wide, and smaller than others by themselves. */
const SPACED: ReadonlySet<string> = new Set(['pre', 'code', 'kbd', 'samp']);
/** Elements whose letters are bolder by themselves than those around them. */
const BOLDER: ReadonlySet<string> = new Set(['b', 'strong']);
/** The weight of letters that are bolder than others (CSS Fonts 4, 2.2.1). */
const bolderThan = (weight: number): string => (weight < 350 ? '400' : weight < 550 ? '700' : '900');
/** Elements to which browsers give the colour of text, whatever they stand in. */
const COLORED: ReadonlySet<string> = new Set(['mark', 'dialog']);

/** Whether the body of a page scrolls in the window, and the window does not. */
function scrollsBody({ body, documentElement, defaultView }: Document): boolean {
  const overflow = (element: Element): string => defaultView!.getComputedStyle(element).overflowY;
  // What the outermost element leaves visible, the window takes over from the body.
  return /auto|scroll/.test(overflow(body)) && overflow(documentElement) !== 'visible';
}

/** Fonts of icons keep them where no letters are. */
const isPrivateText = (text: string): boolean => /^[\uE000-\uF8FF]+$/.test(text);

const PX = /^-?[\d.]+px$/;
/** What is a part of something else, and so many px besides. */
const PART_AND_PX = /^calc\((-?[\d.]+%) ([+-]) ([\d.]+)px\)$/;

/** The part of a length that is none of the window, and its px; null where it is no sum of those. */
function lengthIn(value: string): { readonly part: string | null; readonly px: number } | null {
  if (PX.test(value)) return { part: null, px: parseFloat(value) };
  const [, part, sign, px] = PART_AND_PX.exec(value) ?? [];
  return part ? { part, px: Number(px) * (sign === '-' ? -1 : 1) } : null;
}

/** A sum of lengths, as a length. */
function sumOf([first, ...others]: readonly string[]): string {
  const signed = others.map((term) => (term.startsWith('-') ? ` - ${term.slice(1)}` : ` + ${term}`));
  return others.length ? `calc(${first}${signed.join('')})` : first;
}

/** What lengths are measured by in a window, once those of the page's own size of type are in px. */
const inWindow = (width: number, height: number): Measures => ({ width, height, rem: USUAL_SIZE });

/** Whether a length of so many px is what a browser says, which rounds. */
const isNear = (length: number | null, px: string | null): boolean =>
  length !== null && px !== null && PX.test(px) && Math.abs(length - parseFloat(px)) < 0.2;

/** Whether a length is what units of the window, as this reader writes them, come to in a window of this size. */
function isSameLength(px: string, known: string, width: number, height: number): boolean {
  if (isBounded(known)) return isNear(lengthAt(known, inWindow(width, height)), px);
  const units = /^(?:calc\()?(?:(-?[\d.]+%) ([+-]) )?(-?[\d.]+)v([wh])(?: ([+-]) ([\d.]+)px)?\)?$/.exec(
    known,
  );
  const length = lengthIn(px);
  if (!units || !length) return false;
  const [, part, partSign, share, axis, sign, rest] = units;
  if ((part ?? null) !== length.part) return false;
  const ofWindow = (Number(share) * (axis === 'w' ? width : height)) / 100;
  const sum = (partSign === '-' ? -1 : 1) * ofWindow + (sign === '-' ? -1 : 1) * Number(rest ?? 0);
  return Math.abs(sum - length.px) < 0.2;
}

const round = (n: number): number => Math.round(n * 100) / 100;

/** Longhands of which all are said where these are, since people write them in one. */
const WRITTEN_IN_ONE: readonly (readonly [first: readonly string[], all: readonly string[]])[] = [
  [['text-wrap-mode'], ['white-space-collapse', 'text-wrap-mode']],
  [
    ['flex-grow', 'flex-basis'],
    ['flex-grow', 'flex-shrink', 'flex-basis'],
  ],
];

function complete(css: Css, map: StylePropertyMapReadOnly): void {
  for (const [first, all] of WRITTEN_IN_ONE) {
    if (!first.every((name) => name in css)) continue;
    for (const name of all) {
      const value = css[name] ?? computedValue(map, name);
      if (value !== null) css[name] = value;
    }
  }
}
