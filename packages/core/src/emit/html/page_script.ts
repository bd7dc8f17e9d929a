import { type Expression, mentions } from '../../expression/expression.ts';
import { ENTERED } from '../../expression/language.ts';
import { camelCase, kebabCase, uniqueName } from '../../model/names.ts';
import {
  type EmittedAct,
  type EmittedArrival,
  type EmittedStep,
  type MarkupElement,
  textIn,
} from '../form/markup.ts';
import { printExpression } from '../print_expression.ts';
import { joined, linesOf, named, onLines, printed, script, type Script, type Written } from '../script.ts';
import type { PageContext } from './print_page.ts';

/** An arrival as the runtime takes it; null for none. */
export function arrivalOf(arrival: EmittedArrival): Readonly<Record<string, Written>> | null {
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
  copyText: 'acts.js',
  tickAll: 'acts.js',
  go: 'go.js',
  back: 'go.js',
  open: 'overlays.js',
  close: 'overlays.js',
  hooked: 'logic.js',
  disclose: 'disclosures.js',
  turn: 'disclosures.js',
  say: 'notices.js',
  set: 'state.js',
  now: 'state.js',
  says: 'state.js',
  shown: 'state.js',
  enabled: 'state.js',
};

const CALC = 'calc.js';

/** What a page does besides links: the module that is written for it while its markup is printed. */
export class PageScript {
  readonly #names = new Set<string>();
  readonly #uses = new Set<string>();
  readonly #statements: { readonly code: Script; readonly key: string | null }[] = [];
  /** Names of the overlays that it opens. */
  readonly opens = new Set<string>();
  /** Whether functions of expressions are called. */
  callsFunctions = false;
  /** Names of what people can hook in around. */
  readonly hooks: string[] = [];
  readonly #isHooked: boolean;

  /** @param isHooked whether people can hook in around what is done, in a file of theirs */
  constructor(isHooked: boolean) {
    this.#isHooked = isHooked;
  }

  /** Parts of the runtime that it takes. */
  get modules(): readonly string[] {
    return [
      ...new Set([...[...this.#uses].map((name) => MODULES[name]), ...(this.callsFunctions ? [CALC] : [])]),
    ].sort();
  }

  get isEmpty(): boolean {
    return this.#statements.length === 0;
  }

  /** Lets an element do something; gives its name, or null where nothing is done with the element itself. */
  act(node: MarkupElement, acts: readonly EmittedAct[], context: PageContext): string | null {
    const gestures: Script[] = [];
    const words = (textIn(node) || String(node.attributes['aria-label'] ?? '')).split(/\s+/).slice(0, 3);
    const name = uniqueName(kebabCase(words.join(' ')).slice(0, 30) || node.tag, (one) =>
      this.#names.has(one),
    );
    const hook = camelCase(name);
    for (const act of acts) {
      const written = this.#function(act, context);
      const code =
        this.#isHooked && act.on !== 'key' && act.on !== 'after' && act.on !== 'load'
          ? script`hooked(logic.${named(hook)}, ${written})`
          : written;
      switch (act.on) {
        case 'key':
          this.#say(script`onKey(${act.key ?? 'Enter'}, ${code});`, node.key, 'onKey');
          break;
        case 'after':
        case 'load':
          this.#say(script`after(${act.on === 'load' ? 0 : (act.ms ?? 0)}, ${code});`, node.key, 'after');
          break;
        case 'swipe':
          gestures.push(script`${named(camelCase(`swipe ${act.side ?? 'left'}`))}: ${code}`);
          break;
        default:
          gestures.push(script`${named(camelCase(act.on))}: ${code}`);
      }
    }
    if (!gestures.length) return null;
    this.#names.add(name);
    if (this.#isHooked) {
      this.hooks.push(hook);
      this.#uses.add('hooked');
    }
    this.#say(script`act(${name}, { ${gestures} });`, node.key, 'act');
    return name;
  }

  /** Lets a text follow what is worked out; gives its name. */
  says(of: Expression, key: string | null): string {
    return this.#following('says', 'text', of, key);
  }

  /** Lets an element be there while something holds; gives its name. */
  shows(when: Expression, key: string | null): string {
    return this.#following('shown', 'part', when, key);
  }

  /** Lets a control be used while something holds; gives its name. */
  enables(when: Expression, key: string | null): string {
    return this.#following('enabled', 'control', when, key);
  }

  #following(call: 'says' | 'shown' | 'enabled', word: string, of: Expression, key: string | null): string {
    const name = uniqueName(word, (one) => this.#names.has(`${call} ${one}`));
    this.#names.add(`${call} ${name}`);
    this.#say(script`${named(call)}(${name}, (now) => ${this.#overVariables(of)});`, key, call);
    return name;
  }

  /**
   * @param app from the page to the folder of the runtime
   * @param logic the file in which people hook in
   */
  print(app: string, logic: string): { readonly text: string; readonly lines: readonly (string | null)[] } {
    const byModule = new Map<string, string[]>();
    for (const name of [...this.#uses].sort())
      byModule.set(MODULES[name], [...(byModule.get(MODULES[name]) ?? []), name]);
    const head = [...byModule]
      .sort()
      .map(([file, names]) => script`import { ${names.map(named)} } from ${app + file};`);
    if (this.callsFunctions) head.push(script`import * as calc from ${app + CALC};`);
    if (this.hooks.length) head.push(script`import { logic } from ${logic};`);
    const lines: (string | null)[] = [...head.map(() => null), null];
    for (const { code, key } of this.#statements) for (const _ of linesOf(code)) lines.push(key);
    return {
      text: `${onLines([...head, script``, ...this.#statements.map(({ code }) => code)]).text}\n`,
      lines,
    };
  }

  #say(code: Script, key: string | null, use: string): void {
    this.#uses.add(use);
    this.#statements.push({ code, key });
  }

  #function({ ways }: EmittedAct, context: PageContext): Script {
    const last = ways.findIndex((way) => !way.when);
    const reached = last < 0 ? ways : ways.slice(0, last + 1);
    const [only] = reached;
    const takes = reached.some(({ steps }) =>
      steps.some((step) => (step.kind === 'set' || step.kind === 'say') && step.takesEntered),
    );
    const given = takes ? named(ENTERED) : script``;
    if (reached.length === 1 && !only.when && only.steps.length === 1)
      return script`(${given}) => ${this.#call(only.steps[0], context)}`;
    const body = reached.map(({ when, steps }, i) => {
      const calls = joined(
        steps.map((step) => script`${this.#call(step, context)};`),
        ' ',
      );
      const test = when ? script`if (${this.#condition(when)}) ` : script``;
      return script`${i ? script`else ` : script``}${test}${when || i ? script`{ ${calls} }` : calls}`;
    });
    return script`(${given}) => {\n  ${joined(body, '\n  ')}\n}`;
  }

  #condition(when: Expression): Script {
    return printed(
      printExpression(when, {
        prop: (name) => name,
        variable: (name) => {
          this.#uses.add('now');
          return script`now().${named(name)}`.text;
        },
        parameter: (_where, name) => script`new URLSearchParams(location.search).get(${name})`.text,
        listing: never,
        records: never,
        called: never,
        path: 'location.pathname',
      }),
    );
  }

  /** A value as it is, or what works it out from the variables. */
  #worked(to: Expression): Script {
    const code = this.#overVariables(to);
    return mentions(to, ({ kind }) => kind === 'variable') ? script`(now) => ${code}` : code;
  }

  /** What is said, from what the variables are at that moment. */
  #saying(to: Expression): Script {
    if (!mentions(to, ({ kind }) => kind === 'variable')) return this.#overVariables(to);
    this.#uses.add('now');
    return this.#overVariables(to, 'now()');
  }

  #overVariables(expression: Expression, of = 'now'): Script {
    return printed(
      printExpression(expression, {
        prop: (name) => name,
        variable: (name) => `${of}.${name}`,
        parameter: never,
        listing: never,
        records: never,
        called: (name) => {
          this.callsFunctions = true;
          return `calc.${name}`;
        },
        path: 'location.pathname',
      }),
    );
  }

  #call(step: EmittedStep, context: PageContext): Script {
    const arrival = 'arrival' in step ? arrivalOf(step.arrival) : null;
    const literal = arrival && literalOf(arrival);
    const use = (name: string): Script => {
      this.#uses.add(name);
      return named(name);
    };
    const or = (argument: Script | null): Script => (argument ? script`, ${argument}` : script``);
    switch (step.kind) {
      case 'go': {
        const { href, keeps } = context.linkTo(step.to);
        const how = [
          ...(literal ? [script`arrival: ${literal}`] : []),
          ...(keeps.length ? [script`keeps: [${keeps}]`] : []),
        ];
        return script`${use('go')}(${href}${or(how.length ? script`{ ${how} }` : null)})`;
      }
      case 'back':
        return script`${use('back')}(${context.linkTo(step.fallback).href}${or(literal && script`{ arrival: ${literal} }`)})`;
      case 'external':
        return script`location.assign(${step.href})`;
      case 'file':
        return script`${use('saveFile')}(new URL(${context.assetUrl(step.asset)}, location.href).href, ${step.name})`;
      case 'drawer':
        return script`document.getElementById(${step.id})?.showPopover()`;
      case 'open':
        this.opens.add(step.overlay);
        return script`${use('open')}(${step.overlay}${or(literal)})`;
      case 'close':
        return script`${use('close')}()`;
      case 'browser':
        if (step.does === 'tick') return script`${use('tickAll')}(${step.name})`;
        if (step.does === 'copy') return script`${use('copyText')}(${step.text})`;
        return step.does === 'print' ? script`window.print()` : script`location.reload()`;
      case 'disclose':
        return script`${use('disclose')}(${step.id}, ${step.does})`;
      case 'turn':
        return script`${use('turn')}(${step.choice.name}, ${step.by})`;
      case 'list':
      case 'record':
      case 'call':
        return never();
      case 'say':
        return script`${use('say')}(${this.#saying(step.to)})`;
      case 'set':
        return script`${use('set')}(${step.condition}, ${this.#worked(step.to)})`;
    }
  }
}

const never = (): never => {
  throw new RangeError('lists of plain pages stay as they were drawn');
};

/** A flat record as a literal. */
const literalOf = (record: Readonly<Record<string, Written>>): Script =>
  script`{ ${Object.entries(record).map(
    ([name, value]) => script`${named(name)}: ${Array.isArray(value) ? script`[${value}]` : value}`,
  )} }`;
