import { PATH_ATTRIBUTE, type PageReading, type ReadElement, type ReadingPlan, reset } from '@tovel/core';
import { BareLook, computedValue, INHERITED, isInherited, readNames } from './computed.ts';
import { type Aspect, collectRules, type PageRules } from './style_rules.ts';

type Css = Record<string, string>;

/** Resizes the window that a page is laid out in. */
export type Resize = (width: number, height: number) => void;

const SIZES = /^(width|height|min-|max-|flex-basis)/;
const LENGTHS =
  /^(width|height|(min|max)-(width|height)|flex-basis|font-size|top|left|right|bottom|margin-|padding-|row-gap|column-gap)/;
/** By how much the window is made larger to see what follows it. */
const PROBE = 100;

/** All that is known of one element until the reading is put together. */
interface Gathered {
  readonly element: Element;
  /** Properties to ask for. */
  readonly names: Set<string>;
  /** Those that may change with the window. */
  readonly conditional: Set<string>;
  readonly aspects: Map<Exclude<Aspect, 'base'>, Css>;
  readonly base: Css;
  readonly at: Record<string, Css>;
  isShown: boolean;
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
  readonly #rules: PageRules;
  readonly #gathered = new Map<Element, Gathered>();

  constructor(document: Document, bare: BareLook, plan: ReadingPlan, resize: Resize) {
    this.#document = document;
    this.#bare = bare;
    this.#plan = plan;
    this.#resize = resize;
    this.#rules = collectRules(
      document,
      (sheet) =>
        sheet.ownerNode instanceof document.defaultView!.Element &&
        sheet.ownerNode.hasAttribute('data-tovel-own'),
    );
  }

  read(): PageReading {
    const width = this.#plan.widths[0];
    const { body, documentElement } = this.#document;
    for (const element of [documentElement, body, ...body.querySelectorAll('*')]) this.#gather(element);
    this.#spreadRules();
    for (const g of this.#gathered.values()) this.#readBase(g);
    const boxes = new Map(
      [...this.#gathered.keys()].map((element) => [element, element.getBoundingClientRect()]),
    );
    const height = Math.max(documentElement.scrollHeight, Math.ceil(body.getBoundingClientRect().bottom));
    this.#readWindowUnits(width);
    for (const boundary of this.#rules.boundaries)
      if (boundary < width && boundary >= 240) this.#readAt(boundary);
    this.#resize(width, this.#plan.height);
    const hidden: { path: string; tag: string; label: string }[] = [];
    const read = this.#put(body, boxes, hidden);
    return { width, height, body: read!, canvas: this.#canvas(documentElement), hidden };
  }

  #gather(element: Element): void {
    const names = new Set(Object.keys(reset[element.localName] ?? {}));
    names.add('display').add('box-sizing');
    if (element.localName === 'body' || element.localName === 'html') {
      for (const name of INHERITED) names.add(name);
      for (const name of ['background-color', 'background-image']) names.add(name);
    }
    const inline = (element as HTMLElement).style;
    for (const name of inline ?? []) for (const readName of readNames(name)) names.add(readName);
    for (const name of ['width', 'height'])
      if (element.hasAttribute(name) && element.namespaceURI === 'http://www.w3.org/1999/xhtml')
        names.add(name);
    this.#gathered.set(element, {
      element,
      names,
      conditional: new Set(),
      aspects: new Map(),
      base: {},
      at: {},
      isShown: false,
    });
  }

  #spreadRules(): void {
    for (const rule of this.#rules.rules) {
      let matched: Iterable<Element>;
      try {
        matched = this.#document.querySelectorAll(rule.selector);
      } catch {
        continue;
      }
      const names = rule.aspect === 'base' ? rule.declarations.flatMap(([name]) => readNames(name)) : [];
      for (const element of matched) {
        const g = this.#gathered.get(element);
        if (!g) continue;
        for (const name of names) {
          g.names.add(name);
          if (rule.isConditional) g.conditional.add(name);
        }
        if (rule.aspect !== 'base' && !rule.isConditional)
          this.#addAspect(
            g,
            rule.aspect,
            rule.pending ? this.#expand(element, rule.pending) : rule.declarations,
          );
      }
    }
  }

  #addAspect(
    g: Gathered,
    aspect: Exclude<Aspect, 'base'>,
    declarations: readonly (readonly [string, string])[],
  ): void {
    const css = g.aspects.get(aspect) ?? {};
    const pseudo =
      aspect === 'before' || aspect === 'after' || aspect === 'placeholder' ? `::${aspect}` : null;
    for (const [name, declared] of declarations) {
      for (const property of readNames(name)) {
        const value =
          declared && !declared.includes('var(')
            ? declared
            : this.#resolve(g.element, pseudo, property, declared);
        if (value) css[property] = value;
      }
    }
    g.aspects.set(aspect, css);
  }

  /** The longhands of a rule whose shorthands hold variables, as the element sees these. */
  #expand(element: Element, css: string): (readonly [string, string])[] {
    const holder = this.#document.createElement('i');
    holder.style.cssText = this.#resolve(element, null, '', css);
    return Array.from(holder.style, (name) => [name, holder.style.getPropertyValue(name)] as const);
  }

  /** A declared value with its variables put in; for pseudo-elements the browser says it. */
  #resolve(element: Element, pseudo: string | null, property: string, declared: string): string {
    const style = this.#document.defaultView!.getComputedStyle(element, pseudo);
    if (pseudo) return style.getPropertyValue(property);
    return declared.replace(
      /var\(\s*(--[\w-]+)\s*(?:,([^()]*))?\)/g,
      (_, name: string, fallback?: string) => style.getPropertyValue(name).trim() || (fallback ?? '').trim(),
    );
  }

  #readBase(g: Gathered): void {
    const map = g.element.computedStyleMap();
    const parent = g.element.parentElement?.computedStyleMap();
    for (const name of g.names) {
      const value = computedValue(map, name);
      if (value !== null && !this.#isGiven(g, name, value, parent)) g.base[name] = value;
    }
    if (computedValue(map, 'display') !== 'none') g.isShown = true;
    if (g.base['box-sizing'] && !Object.keys(g.base).some((name) => SIZES.test(name)))
      delete g.base['box-sizing'];
  }

  /** Whether an emitted page would give the element this value without being told. */
  #isGiven(g: Gathered, name: string, value: string, parent: StylePropertyMapReadOnly | undefined): boolean {
    const { element } = g;
    const bare = this.#bare.value(element, name);
    if (isInherited(name) && element.localName !== 'body' && element.localName !== 'html' && parent) {
      const isPassedOn = bare === this.#bare.value(this.#document.body, name);
      return isPassedOn ? value === computedValue(parent, name) : value === bare;
    }
    // A colour that the text has is what a border or outline has by itself.
    return value === bare;
  }

  /** Lengths that grow with the window are written in units of the window. */
  #readWindowUnits(width: number): void {
    const css = this.#rules.rules.flatMap((rule) => rule.declarations.map(([, value]) => value)).join(' ');
    const inline = [...this.#gathered.keys()].map((element) => element.getAttribute('style') ?? '').join(' ');
    const { height } = this.#plan;
    const text = css + inline;
    const probes: [test: RegExp, unit: 'vh' | 'vw', width: number, height: number][] = [
      [/\d[dsl]?vh|\d[dsl]?vb|var\(/, 'vh', width, height + PROBE],
      [/\dvw|\dvi|var\(/, 'vw', width + PROBE, height],
    ];
    for (const [test, unit, w, h] of probes) {
      if (!test.test(text)) continue;
      this.#resize(w, h);
      const whole = unit === 'vh' ? height : width;
      for (const g of this.#gathered.values()) {
        const lengths = Object.entries(g.base).filter(
          ([name, value]) => LENGTHS.test(name) && /^-?[\d.]+px$/.test(value),
        );
        if (!lengths.length) continue;
        const map = g.element.computedStyleMap();
        for (const [name, value] of lengths) {
          const now = computedValue(map, name);
          if (now === null || now === value || !/^-?[\d.]+px$/.test(now)) continue;
          const [before, after] = [parseFloat(value), parseFloat(now)];
          const share = ((after - before) / PROBE) * 100;
          const rest = before - (share * whole) / 100;
          const units = `${round(share)}${unit}`;
          g.base[name] =
            Math.abs(rest) < 0.6
              ? units
              : `calc(${units} ${rest < 0 ? '-' : '+'} ${round(Math.abs(rest))}px)`;
        }
      }
    }
    this.#resize(width, height);
  }

  /** What is different at a width, against what holds at the next wider one. */
  #readAt(width: number): void {
    this.#resize(width, this.#plan.height);
    const everything = this.#rules.changesUnits;
    for (const g of this.#gathered.values()) {
      const names = everything ? g.names : g.conditional;
      if (!names.size) continue;
      const map = g.element.computedStyleMap();
      const parent = g.element.parentElement?.computedStyleMap();
      const css: Css = {};
      for (const name of names) {
        const value = computedValue(map, name);
        if (value === null) continue;
        const known = this.#wider(g, name, width);
        if (known !== undefined && /v[hw]/.test(known)) continue;
        if (known === undefined ? !this.#isGiven(g, name, value, parent) : value !== known) css[name] = value;
      }
      if (computedValue(map, 'display') !== 'none') g.isShown = true;
      if (Object.keys(css).length) g.at[width] = css;
    }
  }

  #wider(g: Gathered, name: string, width: number): string | undefined {
    const widths = Object.keys(g.at)
      .map(Number)
      .filter((w) => w > width)
      .sort((a, b) => a - b);
    for (const w of widths) if (g.at[w][name] !== undefined) return g.at[w][name];
    return g.base[name];
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

  #put(
    element: Element,
    boxes: ReadonlyMap<Element, DOMRect>,
    hidden: { path: string; tag: string; label: string }[],
  ): ReadElement | null {
    const g = this.#gathered.get(element);
    if (!g || ['style', 'link', 'meta', 'title', 'script'].includes(element.localName)) return null;
    const path = element.getAttribute(PATH_ATTRIBUTE) ?? '';
    if (
      !g.isShown &&
      element.namespaceURI === 'http://www.w3.org/1999/xhtml' &&
      element.localName !== 'option' &&
      element.localName !== 'optgroup'
    ) {
      const label = (element.id || (element.textContent ?? '').replace(/\s+/g, ' ').trim()).slice(0, 40);
      hidden.push({ path, tag: element.localName, label });
      return null;
    }
    const box = boxes.get(element)!;
    const children: (ReadElement | string)[] = [];
    for (const node of element.childNodes) {
      if (node.nodeType === 1) {
        const child = this.#put(node as Element, boxes, hidden);
        if (child) children.push(child);
      } else if (node.nodeType === 3) {
        const text = this.#text(node as Text, element);
        if (text) children.push(text);
      }
    }
    const attributes: Css = {};
    for (const { name, value } of element.attributes)
      if (name !== 'class' && name !== 'style' && name !== PATH_ATTRIBUTE) attributes[name] = value;
    const { hover, focus, before, after, placeholder } = Object.fromEntries(g.aspects);
    const drawn = (css: Css | undefined): Css | undefined =>
      css?.content && css.content !== 'none' && css.content !== 'normal' ? css : undefined;
    return {
      path,
      tag: element.localName,
      attributes,
      box: { x: round(box.x), y: round(box.y), width: round(box.width), height: round(box.height) },
      base: g.base,
      ...(Object.keys(g.at).length ? { at: g.at } : {}),
      ...(hover ? { hover } : {}),
      ...(focus ? { focus } : {}),
      ...(drawn(before) ? { before } : {}),
      ...(drawn(after) ? { after } : {}),
      ...(placeholder ? { placeholder } : {}),
      children,
    };
  }

  /** Text as it shows: white space folded, and none where a line begins or ends. */
  #text(node: Text, parent: Element): string {
    const collapse = computedValue(parent.computedStyleMap(), 'white-space-collapse');
    if (collapse && collapse !== 'collapse') return node.data;
    const text = node.data.replace(/[ \t\n\r\f]+/g, ' ');
    if (text === ' ') {
      const range = this.#document.createRange();
      range.selectNode(node);
      return range.getClientRects().length ? ' ' : '';
    }
    const isFlow =
      ['inline', 'inline-block'].includes(computedValue(parent.computedStyleMap(), 'display') ?? '') &&
      parent.localName !== 'button';
    const isEdge = (sibling: Node | null): boolean => {
      if (!sibling) return !isFlow;
      if (sibling.nodeType !== 1) return false;
      const display = computedValue((sibling as Element).computedStyleMap(), 'display') ?? '';
      return (sibling as Element).localName === 'br' || !display.startsWith('inline');
    };
    let shown = text;
    if (isEdge(node.previousSibling)) shown = shown.trimStart();
    if (isEdge(node.nextSibling)) shown = shown.trimEnd();
    return shown;
  }
}

const round = (n: number): number => Math.round(n * 100) / 100;
