import type { Expression } from '../../expression/expression.ts';
import { camelCase, kebabCase, uniqueName } from '../../model/names.ts';
import {
  type EmittedAct,
  type EmittedArrival,
  type EmittedStep,
  type MarkupElement,
  textIn,
} from '../form/markup.ts';
import { printExpression } from '../print_expression.ts';
import { quote } from '../quoting.ts';
import type { PageContext } from './print_page.ts';

/** An arrival as the runtime takes it; null for none. */
export function arrivalOf(arrival: EmittedArrival): Readonly<Record<string, unknown>> | null {
  if (arrival.kind === 'none') return null;
  const { kind, ms, easing, delay } = arrival;
  return {
    kind,
    ...('from' in arrival ? { from: arrival.from } : {}),
    ms,
    ...(easing && easing !== 'ease-out' ? { easing } : {}),
    ...(delay ? { delay } : {}),
    ...('names' in arrival ? { names: arrival.names } : {}),
  };
}

/** An arrival as an attribute says it: `slide right 240ms`; null for none. */
export function arrivalText(arrival: EmittedArrival): string | null {
  if (arrival.kind === 'none') return null;
  const { kind, ms, easing, delay } = arrival;
  return [
    kind,
    ...('from' in arrival ? [arrival.from] : []),
    `${ms}ms`,
    ...(easing && easing !== 'ease-out' ? [easing] : []),
    ...(delay ? [`after ${delay}ms`] : []),
    ...('names' in arrival ? [`moving ${arrival.names.join(' ')}`] : []),
  ].join(' ');
}

/** The parts of the runtime that a page can take, by the function that it takes. */
const MODULES: Readonly<Record<string, string>> = {
  act: 'acts.js',
  after: 'acts.js',
  onKey: 'acts.js',
  saveFile: 'acts.js',
  go: 'go.js',
  back: 'go.js',
  open: 'overlays.js',
  close: 'overlays.js',
  set: 'state.js',
  holds: 'state.js',
};

/** What a page does besides links: the module that is written for it while its markup is printed. */
export class PageScript {
  readonly #names = new Set<string>();
  readonly #uses = new Set<string>();
  readonly #statements: { readonly code: string; readonly key: string | null }[] = [];
  /** Names of the overlays that it opens. */
  readonly opens = new Set<string>();

  /** Parts of the runtime that it takes. */
  get modules(): readonly string[] {
    return [...new Set([...this.#uses].map((name) => MODULES[name]))].sort();
  }

  get isEmpty(): boolean {
    return this.#statements.length === 0;
  }

  /** Lets an element do something; gives its name, or null where nothing is done with the element itself. */
  act(node: MarkupElement, acts: readonly EmittedAct[], context: PageContext): string | null {
    const gestures: string[] = [];
    for (const act of acts) {
      const code = this.#function(act, context);
      switch (act.on) {
        case 'key':
          this.#say(`onKey(${quote(act.key ?? 'Enter')}, ${code});`, node.key, 'onKey');
          break;
        case 'after':
        case 'load':
          this.#say(`after(${act.on === 'load' ? 0 : (act.ms ?? 0)}, ${code});`, node.key, 'after');
          break;
        case 'swipe':
          gestures.push(`${camelCase(`swipe ${act.side ?? 'left'}`)}: ${code}`);
          break;
        default:
          gestures.push(`${camelCase(act.on)}: ${code}`);
      }
    }
    if (!gestures.length) return null;
    const words = (textIn(node) || String(node.attributes['aria-label'] ?? '')).split(/\s+/).slice(0, 3);
    const name = uniqueName(kebabCase(words.join(' ')).slice(0, 30) || node.tag, (one) =>
      this.#names.has(one),
    );
    this.#names.add(name);
    this.#say(`act(${quote(name)}, { ${gestures.join(', ')} });`, node.key, 'act');
    return name;
  }

  /** @param app from the page to the folder of the runtime */
  print(app: string): { readonly text: string; readonly lines: readonly (string | null)[] } {
    const byModule = new Map<string, string[]>();
    for (const name of [...this.#uses].sort())
      byModule.set(MODULES[name], [...(byModule.get(MODULES[name]) ?? []), name]);
    const head = [...byModule]
      .sort()
      .map(([file, names]) => `import { ${names.join(', ')} } from '${app}${file}';`);
    const lines: (string | null)[] = [...head.map(() => null), null];
    for (const { code, key } of this.#statements) for (const _ of code.split('\n')) lines.push(key);
    return { text: `${[...head, '', ...this.#statements.map(({ code }) => code)].join('\n')}\n`, lines };
  }

  #say(code: string, key: string | null, use: string): void {
    this.#uses.add(use);
    this.#statements.push({ code, key });
  }

  #function({ ways }: EmittedAct, context: PageContext): string {
    const last = ways.findIndex((way) => !way.when);
    const reached = last < 0 ? ways : ways.slice(0, last + 1);
    const [only] = reached;
    if (reached.length === 1 && !only.when && only.steps.length === 1)
      return `() => ${this.#call(only.steps[0], context)}`;
    const body = reached.map(({ when, steps }, i) => {
      const calls = steps.map((step) => `${this.#call(step, context)};`).join(' ');
      const test = when ? `if (${this.#condition(when)}) ` : '';
      return `${i ? 'else ' : ''}${test}${when || i ? `{ ${calls} }` : calls}`;
    });
    return `() => {\n  ${body.join('\n  ')}\n}`;
  }

  #condition(when: Expression): string {
    return printExpression(when, {
      prop: (name) => name,
      variable: (name) => {
        this.#uses.add('holds');
        return `holds(${quote(name)})`;
      },
      parameter: (_where, name) => `new URLSearchParams(location.search).get(${quote(name)})`,
      path: 'location.pathname',
    });
  }

  #call(step: EmittedStep, context: PageContext): string {
    const arrival = 'arrival' in step ? arrivalOf(step.arrival) : null;
    const literal = arrival && literalOf(arrival);
    const use = (name: string): string => {
      this.#uses.add(name);
      return name;
    };
    switch (step.kind) {
      case 'go': {
        const { href, keeps } = context.linkTo(step.to);
        const how = [
          ...(literal ? [`arrival: ${literal}`] : []),
          ...(keeps.length ? [`keeps: [${keeps.map(quote).join(', ')}]`] : []),
        ];
        return `${use('go')}(${quote(href)}${how.length ? `, { ${how.join(', ')} }` : ''})`;
      }
      case 'back':
        return `${use('back')}(${quote(context.linkTo(step.fallback).href)}${literal ? `, { arrival: ${literal} }` : ''})`;
      case 'external':
        return `location.assign(${quote(step.href)})`;
      case 'file':
        return `${use('saveFile')}(new URL(${quote(context.assetUrl(step.asset))}, location.href).href, ${quote(step.name)})`;
      case 'drawer':
        return `document.getElementById(${quote(step.id)})?.showPopover()`;
      case 'open':
        this.opens.add(step.overlay);
        return `${use('open')}(${quote(step.overlay)}${literal ? `, ${literal}` : ''})`;
      case 'close':
        return `${use('close')}()`;
      case 'set':
        return `${use('set')}(${quote(step.condition)}, ${step.value})`;
    }
  }
}

/** A flat record as a literal. */
const literalOf = (record: Readonly<Record<string, unknown>>): string =>
  `{ ${Object.entries(record)
    .map(
      ([name, value]) =>
        `${name}: ${Array.isArray(value) ? `[${value.map((one) => quote(String(one))).join(', ')}]` : typeof value === 'string' ? quote(value) : String(value)}`,
    )
    .join(', ')} }`;
