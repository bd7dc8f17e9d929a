import * as csstree from 'css-tree';
import { parseCss } from '../../css/parse_css.ts';
import { limits } from '../limits.ts';
import type { XmlElement } from './xml.ts';

export type SvgStyle = Readonly<Record<string, string>>;

/** Properties that children take over from their parents. */
const INHERITED = new Set([
  'color',
  'fill',
  'fill-opacity',
  'fill-rule',
  'stroke',
  'stroke-width',
  'stroke-opacity',
  'stroke-linecap',
  'stroke-linejoin',
  'stroke-dasharray',
  'stroke-dashoffset',
  'stroke-miterlimit',
  'font-family',
  'font-size',
  'font-weight',
  'font-style',
  'letter-spacing',
  'text-anchor',
  'visibility',
  'word-spacing',
  'clip-rule',
]);
const OWN = new Set([
  'display',
  'opacity',
  'transform',
  'clip-path',
  'mask',
  'filter',
  'stop-color',
  'stop-opacity',
  'text-decoration',
  'mix-blend-mode',
  'font',
]);

interface Part {
  readonly test: (element: XmlElement) => boolean;
  /** How the part before this one relates: anywhere above, or the parent. */
  readonly above: 'ancestor' | 'parent' | null;
}

interface Rule {
  readonly parts: readonly Part[];
  readonly specificity: number;
  readonly order: number;
  /** Its place among all rules, the weakest first. */
  readonly place: number;
  /** What an element must have for the last part: an id, a class, a name, or anything. */
  readonly trait: string;
  readonly declarations: readonly (readonly [string, string])[];
}

/** The rules of a drawing's own style sheets; selectors of types, classes, ids and their descendants and children. */
export class SvgStyleSheet {
  readonly #rules: Rule[] = [];

  readonly #byTrait = new Map<string, Rule[]>();
  readonly #say: (message: string) => void;
  #lookups = 0;

  /** @param say hears of it when rules are not looked up any more, since that would take too long. */
  constructor(css: string, say: (message: string) => void) {
    this.#say = say;
    if (css) this.#add(css);
    this.#rules.sort((a, b) => a.specificity - b.specificity || a.order - b.order);
    this.#rules.forEach((rule, place) => {
      const placed = { ...rule, place };
      const { trait } = rule;
      const alike = this.#byTrait.get(trait);
      if (alike) alike.push(placed);
      else this.#byTrait.set(trait, [placed]);
    });
  }

  #add(css: string): void {
    const sheet = parseCss(css, { parseValue: false });
    csstree.walk(sheet, {
      visit: 'Rule',
      enter: (rule) => {
        if (rule.prelude.type !== 'SelectorList') return;
        const declarations = readDeclarations(rule.block);
        rule.prelude.children.forEach((selector) => {
          const compiled = selector.type === 'Selector' ? compileSelector(selector) : null;
          if (compiled) this.#rules.push({ ...compiled, order: this.#rules.length, place: 0, declarations });
        });
      },
    });
  }

  /** Declarations for an element, weakest first; `parents` from the root down. */
  match(element: XmlElement, parents: readonly XmlElement[]): (readonly [string, string])[] {
    if (!this.#rules.length || this.#lookups > limits.styleLookups) return [];
    const { id, class: classes } = element.attributes;
    const traits = [
      '*',
      element.name,
      ...(id ? [`#${id}`] : []),
      ...classesIn(classes).map((name) => `.${name}`),
    ];
    const found: Rule[] = [];
    for (const trait of new Set(traits))
      for (const rule of this.#byTrait.get(trait) ?? []) {
        if (++this.#lookups > limits.styleLookups) {
          this.#say(
            'The style sheet of the drawing has too many rules for its elements; some of them look as they would without it.',
          );
          return [];
        }
        if (matches(rule.parts, element, parents)) found.push(rule);
      }
    return found.sort((a, b) => a.place - b.place).flatMap((rule) => rule.declarations);
  }
}

const classesIn = (list: string | undefined): string[] => (list ? list.split(/\s+/).filter(Boolean) : []);

function readDeclarations(block: csstree.Block): (readonly [string, string])[] {
  const found: (readonly [string, string])[] = [];
  block.children.forEach((node) => {
    if (node.type === 'Declaration') found.push([node.property.toLowerCase(), csstree.generate(node.value)]);
  });
  return found;
}

function compileSelector(
  selector: csstree.Selector,
): { parts: Part[]; specificity: number; trait: string } | null {
  const parts: Part[] = [];
  let tests: ((element: XmlElement) => boolean)[] = [];
  let above: Part['above'] = null;
  let specificity = 0;
  let supported = true;
  let trait = '*';
  const close = (): void => {
    const all = tests;
    parts.push({ test: (element) => all.every((test) => test(element)), above });
    tests = [];
    trait = '*';
  };
  selector.children.forEach((node) => {
    switch (node.type) {
      case 'TypeSelector':
        if (node.name !== '*') {
          specificity += 1;
          if (trait === '*') trait = node.name;
          tests.push((e) => e.name === node.name);
        }
        break;
      case 'ClassSelector':
        specificity += 100;
        if (!trait.startsWith('#')) trait = `.${node.name}`;
        tests.push((e) => classesIn(e.attributes.class).includes(node.name));
        break;
      case 'IdSelector':
        specificity += 10_000;
        trait = `#${node.name}`;
        tests.push((e) => e.attributes.id === node.name);
        break;
      case 'Combinator':
        close();
        above = node.name === '>' ? 'parent' : 'ancestor';
        if (node.name !== '>' && node.name !== ' ') supported = false;
        break;
      default:
        supported = false;
    }
  });
  const last = trait;
  close();
  return supported ? { parts, specificity, trait: last } : null;
}

function matches(
  parts: readonly Part[],
  element: XmlElement,
  parents: readonly XmlElement[],
  last = parts.length - 1,
): boolean {
  const part = parts[last];
  if (!part.test(element)) return false;
  if (last === 0) return true;
  for (let i = parents.length - 1; i >= 0; i--) {
    if (matches(parts, parents[i], parents.slice(0, i), last - 1)) return true;
    if (part.above === 'parent') return false;
  }
  return false;
}

/** The style of an element: inherited, then attributes, then rules, then its own `style`. */
export function styleOf(
  element: XmlElement,
  parents: readonly XmlElement[],
  inherited: SvgStyle,
  sheet: SvgStyleSheet,
): SvgStyle {
  const style: Record<string, string> = {};
  for (const [name, value] of Object.entries(inherited)) if (INHERITED.has(name)) style[name] = value;
  const put = (name: string, value: string): void => {
    const plain = value.replace(/\s*!important\s*$/, '').trim();
    if (!INHERITED.has(name) && !OWN.has(name)) return;
    if (plain === 'inherit') style[name] = inherited[name] ?? '';
    else style[name] = plain;
  };
  for (const [name, value] of Object.entries(element.attributes)) put(name, value);
  for (const [name, value] of sheet.match(element, parents)) put(name, value);
  for (const piece of (element.attributes.style ?? '').split(/;(?![^(]*\))/)) {
    const colon = piece.indexOf(':');
    if (colon > 0) put(piece.slice(0, colon).trim().toLowerCase(), piece.slice(colon + 1));
  }
  return style;
}
