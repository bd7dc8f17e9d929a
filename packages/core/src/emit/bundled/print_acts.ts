import { PRINT_WIDTH } from '../line_width.ts';
import { camelCase, uniqueCodeName } from '../../model/names.ts';
import {
  type EmittedAct,
  type EmittedArrival,
  type EmittedStep,
  type MarkupElement,
  noteDisclosed,
  type Spoken,
} from '../form/markup.ts';
import type { Expression } from '../../expression/expression.ts';
import { type ListStep, type RecordStep, ROW_ID } from '../form/live/controls.ts';
import { actId, actName } from '../form/act_names.ts';
import { isEvent, isHookedAct } from '../form/hooked.ts';
import type { ViewLogic } from './logic_files.ts';
import { DISCLOSURE } from './print_disclosures.ts';
import { takesValues } from '../form/live/forms.ts';
import { allNamed } from './wording.ts';
import type { RecordsMeant } from '../../records/deeds.ts';
import { printExpression } from '../print_expression.ts';
import {
  indented,
  joined,
  named,
  printed,
  propertyName,
  script,
  type Script,
  type Written,
} from '../script.ts';

/** What the functions that do something need, noted while they are written. */
export interface ActUse {
  /** Whether something goes somewhere, opens or closes, or sets a condition. */
  hook: boolean;
  overlays: boolean;
  setsVariable: boolean;
  /** Whether the type of variables is taken. */
  typesVariables: boolean;
  /** Variables that are looked at. */
  readonly variables: Set<string>;
  /** What else is taken from the navigation. */
  readonly helpers: Set<string>;
  /** Functions that do what elements do, by name. */
  readonly handlers: Map<string, { readonly lines: readonly Script[]; readonly key: string | null }>;
  /** Lists that are looked at or changed, by the constant that holds each, with the function that gives it. */
  readonly listings: Map<string, string>;
  /** Collections of which all records are looked at, and whether functions of expressions are called. */
  readonly all: Set<string>;
  callsFunctions: boolean;
  /** Single records that are looked at, by their names, each with its collection and what gives it. */
  readonly singles: Map<string, { readonly of: string; readonly hook: string }>;
  /** Records that are changed, by the constant that holds them. */
  readonly records: Set<string>;
  /** What all records of an API are called where they were asked for, by their collection. */
  readonly asked: Map<string, string>;
  /** Whether all records of an API are asked for. */
  asksForAll: boolean;
  /** Functions that ask an API, each with the file that it is in; and whether what goes wrong is told. */
  readonly calls: Map<string, string>;
  tells: boolean;
  /** Parts that are opened and closed, as `noteDisclosed` notes them. */
  disclosed: Spoken['disclosed'];
  readonly choices: Spoken['choices'];
  /** Whether something is done with what a form is filled in with. */
  takesValues: boolean;
  /** Calls of hooks, after the functions. */
  readonly hooks: Script[];
  /** How what was entered into an element of this tag is written where an event is at hand. */
  readonly entered: (tag: string) => string;
  /** How a condition is written. */
  readonly variableCode: (name: string) => string;
  /** How what a variable is at this moment is written, noted as used. */
  readonly variableNow: (name: string) => string;
  /** How the record of the screen at this moment is written; as it is called, where that is it. */
  readonly recordNow?: (name: string) => string;

  /** How people hook in around what is done; null where they do not. */
  readonly logic: ViewLogic | null;
  /** Whether people can hook in around anything in the file. */
  isHooked: boolean;
  /** And around a link. */
  isAround: boolean;
  /** The import that gives the address of a file, noted as used. */
  readonly fileOf: (hash: string) => string;
}

/** Nothing noted yet; how variables are written and what they can be, files and what was entered are written is said by each target. */
export const newActUse = (): Omit<
  ActUse,
  'entered' | 'variableCode' | 'variableNow' | 'fileOf' | 'logic'
> => ({
  hook: false,
  isHooked: false,
  isAround: false,
  overlays: false,
  setsVariable: false,
  typesVariables: false,
  variables: new Set(),
  helpers: new Set(),
  handlers: new Map(),
  hooks: [],
  listings: new Map(),
  all: new Set(),
  asked: new Map(),
  asksForAll: false,
  singles: new Map(),
  callsFunctions: false,
  records: new Set(),
  calls: new Map(),
  tells: false,
  disclosed: null,
  choices: new Map(),
  takesValues: false,
});

/** The path of an import that gives the address of a file, whatever it is. */
export const addressPath = (path: string): string =>
  /\.(png|jpe?g|webp|gif|svg|avif)$/.test(path) ? path : `${path}?url`;

/** An arrival as the fields of a literal; empty for none, which is the default. */
function arrivalFields(arrival: EmittedArrival): Script[] {
  if (arrival.kind === 'none') return [];
  const { ms, easing, delay } = arrival;
  return [
    script`kind: ${arrival.kind}`,
    ...('from' in arrival ? [script`from: ${arrival.from}`] : []),
    script`ms: ${ms}`,
    ...(easing && easing !== 'ease-out' ? [script`easing: ${easing}`] : []),
    ...(delay ? [script`delay: ${delay}`] : []),
    ...('names' in arrival ? [script`names: [${arrival.names}]`] : []),
  ];
}

/** An arrival as a literal; null for none, which is the default. */
export function arrivalLiteral(arrival: EmittedArrival): Script | null {
  const fields = arrivalFields(arrival);
  return fields.length ? script`{ ${fields} }` : null;
}

/** A call of a function: its arguments as they are written, and the fields of a literal that comes last. */
interface Call {
  readonly callee: Script;
  readonly args: readonly Written[];
  readonly fields?: readonly Script[];
  /** What is done with what it gives. */
  readonly after?: Script;
}

const printCall = ({ callee, args, fields = [], after = NOTHING }: Call): Script =>
  script`${callee}(${[...args, ...(fields.length ? [script`{ ${fields} }`] : [])]})${after}`;

const NOTHING = script``;

/** @param entered how what was entered is written, where a step takes that */
function stepCall(step: EmittedStep, used: ActUse, slot?: string, entered = 'text'): Call {
  const or = (value: string): Written => (slot === undefined ? value : printed(slot));
  const fields = 'arrival' in step ? arrivalFields(step.arrival) : [];
  switch (step.kind) {
    case 'go':
      used.hook = true;
      return { callee: script`go`, args: [or(step.to)], fields };
    case 'back':
      used.hook = true;
      return { callee: script`go.back`, args: [or(step.fallback)], fields };
    case 'external':
      return { callee: script`window.location.assign`, args: [or(step.href)] };
    case 'file':
      used.helpers.add('saveFile');
      return { callee: script`saveFile`, args: [named(used.fileOf(step.asset)), step.name] };
    case 'drawer':
      return { callee: script`document.getElementById`, args: [or(step.id)], after: script`?.showPopover()` };
    case 'open':
      used.overlays = true;
      return { callee: script`overlays.open`, args: [step.overlay], fields };
    case 'close':
      used.overlays = true;
      return { callee: script`overlays.close`, args: [] };
    case 'list':
      return listCall(step, used, printed(entered));
    case 'record':
      return recordCall(step, used, entered);
    case 'call':
      used.calls.set(step.name, step.api);
      if (!step.sends) {
        used.tells = true;
        return { callee: named(step.name), args: [], after: script`.catch(notices.tell)` };
      }
      return {
        callee: named(step.name),
        args: [],
        fields: step.sends.map(([name, field]) => script`${propertyName(name)}: values.${named(field)}`),
      };
    case 'disclose':
      noteDisclosed(used, step.choice);
      return methodCall(step.choice?.name ?? DISCLOSURE, step.choice ? 'open' : step.does, [or(step.id)]);
    case 'browser':
      if (step.does === 'tick') {
        used.helpers.add('tickAll');
        return { callee: script`tickAll`, args: [step.name] };
      }
      if (step.does === 'refetch') {
        used.helpers.add('askAnew');
        return { callee: script`askAnew`, args: [] };
      }
      if (step.does !== 'copy')
        return {
          callee: step.does === 'print' ? script`window.print` : script`window.location.reload`,
          args: [],
        };
      used.helpers.add('copyText');
      return { callee: script`copyText`, args: [step.text] };
    case 'turn': {
      const { name, first, all } = step.choice;
      noteDisclosed(used, { name, first, inOrder: all });
      return methodCall(name, 'turn', [step.by]);
    }
    case 'set':
      used.setsVariable = true;
      return setCall(step, used, entered);
    case 'say':
      used.tells = true;
      return {
        callee: script`notices.say`,
        args: [actExpression(step.to, used, entered, (name) => used.variableNow(name))],
      };
  }
}

/** Gives a variable a value: as it is, or worked out from what there is then. */
function setCall(
  { condition, to, isChosen }: Extract<EmittedStep, { readonly kind: 'set' }>,
  used: ActUse,
  entered: string,
): Call {
  let looksAtVariables = false;
  const code = actExpression(to, used, entered, (name) => {
    looksAtVariables = true;
    return `now.${name}`;
  });
  const value = isChosen ? chosen(code, condition, used) : code;
  const name = script`${condition}`;
  return { callee: script`setVariable`, args: [name, looksAtVariables ? script`(now) => ${value}` : value] };
}

/** An expression of an act, with what it calls noted as used. */
const actExpression = (
  expression: Expression,
  used: ActUse,
  entered: string,
  variable: (name: string) => string,
): Script =>
  printed(
    printExpression(expression, {
      ...NO_NAMES,
      prop: () => entered,
      variable,
      called: (name) => {
        used.callsFunctions = true;
        return `calc.${name}`;
      },
      records: (name) => {
        const asked = used.asked.get(name);
        if (asked !== undefined) return asked;
        used.records.add(name);
        return `${name}.all()`;
      },
      record: (name) => shownNow(name, used),
    }),
  );

/** What the record of the screen is called where it is known to be there. */
const shownNow = (name: string, { recordNow }: ActUse): string => (recordNow ? `${name}Now` : name);

/** What was entered, as one of the values that a variable can be. */
function chosen(code: Script, variable: string, used: ActUse): Script {
  used.typesVariables = true;
  return script`${code} as Variables[${variable}]`;
}

const methodCall = (object: string, method: string, args: readonly Written[]): Call => ({
  callee: script`${named(object)}.${named(method)}`,
  args,
});

/** What is done to a list, as a call of the constant that holds it. */
function listCall({ listing, deed }: ListStep, used: ActUse, entered: Script): Call {
  used.listings.set(listing.name, listing.hook);
  const call = (name: string, ...args: readonly Written[]): Call => methodCall(listing.name, name, args);
  switch (deed.kind) {
    case 'search':
      return call('searchFor', entered);
    case 'sort':
      return call('sortBy', deed.field);
    case 'filter':
      return call('filterBy', deed.field, ...(deed.value === undefined ? [] : [deed.value]));
    case 'choose':
      return call('filterBy', deed.field, entered);
    case 'page':
      return call('goTo', deed.to);
    case 'more':
      return call('showMore');
    case 'retry':
      return call('retry');
  }
}

/** What is done to records, as a call of the constant that holds them. */
function recordCall({ records, deed, shown }: RecordStep, used: ActUse, entered: string): Call {
  used.records.add(records);
  const call = (name: string, ...args: readonly Written[]): Call => methodCall(records, name, args);
  const said = (one: Expression): Script =>
    actExpression(one, used, entered, (name) => used.variableNow(name));
  const which = (of: RecordsMeant): Script => {
    if (of.kind === 'where') return script`(${named(of.each)}) => ${said(of.holds)}`;
    return of.kind === 'shown' && shown ? script`${named(shownNow(shown.name, used))}.id` : named(ROW_ID);
  };
  switch (deed.kind) {
    case 'add': {
      const fields = [
        ...deed.fields.map((field) => script`${named(field)}: values.${named(field)}`),
        ...deed.says.map(([field, says]) => script`${named(field)}: ${said(says)}`),
      ];
      return { ...call('add', ...(fields.length ? [] : [script`{}`])), fields };
    }
    case 'remove':
      return call('remove', which(deed.of));
    case 'set': {
      const to = deed.to.map(([field, says]) => script`${named(field)}: ${said(says)}`);
      return call('change', which(deed.of), script`{ ${to} }`);
    }
  }
}

/** What the steps of a way look at that may be gone: the record of the row and that of the screen. */
function lookedUp(steps: readonly EmittedStep[], used: ActUse): Script[] {
  const lines = new Map<string, Script>();
  for (const step of steps) {
    if (step.kind !== 'record' && step.kind !== 'set' && step.kind !== 'say') continue;
    const { row, shown } = step;
    if (row) {
      used.records.add(row.records);
      lines.set(row.name, script`const ${named(row.name)} = ${named(row.records)}.find(id);`);
    }
    if (shown) {
      used.singles.set(shown.name, { of: shown.of, hook: shown.hook });
      const now = shownNow(shown.name, used);
      lines.set(
        now,
        used.recordNow ? script`const ${named(now)} = ${printed(used.recordNow(shown.name))};` : NOTHING,
      );
    }
  }
  const gone = [...lines.keys()].map((name) => script`!${named(name)}`);
  return lines.size
    ? [...lines.values()].filter(({ length }) => length).concat(script`if (${joined(gone, ' || ')}) return;`)
    : [];
}

/** What is looked at by a step and has to come from an API first; what is not the same any more is asked for again. */
function askedFirst(step: EmittedStep, used: ActUse, taken: Set<string>): Script[] {
  const asks = 'asks' in step ? (step.asks ?? []) : [];
  return asks.flatMap((records) => {
    if (used.asked.has(records)) return [];
    const name = uniqueCodeName(allNamed(records), 'all', (one) => taken.has(one));
    taken.add(name);
    used.asked.set(records, name);
    used.records.add(records);
    used.asksForAll = true;
    return [
      script`const ${named(name)} = await allOf(${named(records)});`,
      script`if (!${named(name)}) return;`,
    ];
  });
}

const asksFirst = (step: EmittedStep): boolean => 'asks' in step && step.asks !== undefined;

const takesText = (step: EmittedStep): boolean =>
  step.kind === 'set' || step.kind === 'say'
    ? step.takesEntered
    : step.kind === 'list' && (step.deed.kind === 'search' || step.deed.kind === 'choose');

/** What the function of an act is given: what was entered into its element, what its form is filled in with, or nothing. */
function handedTo({ ways }: EmittedAct): keyof typeof PARAMETERS | null {
  const steps = ways.flatMap((way) => way.steps);
  return steps.some(takesText) ? 'text' : steps.some(takesValues) ? 'values' : null;
}

const PARAMETERS = { text: script`text: string`, values: script`values: Values` } as const;

/** One step as a call, noted as used; `slot` is the prop that says where it leads, if one does. */
export const callOf = (step: EmittedStep, used: ActUse, slot?: string): string =>
  printCall(stepCall(step, used, slot)).text;

interface Statement {
  /** Lines before it. */
  readonly first: readonly Script[];
  /** What stands before the call. */
  readonly head: Script;
  readonly call: Call;
}

/** Whether a step is over only when an API has answered, so that what follows has to wait. */
const isAwaited = (step: EmittedStep): boolean =>
  step.kind === 'call' || (step.kind === 'record' && step.isRemote === true && step.deed.kind === 'add');

/** Lines of a call that fits on one or has its last argument, a literal, taken apart. */
function statement(depth: number, head: Script, call: Call): Script[] {
  const line = indented(script`${head}${printCall(call)};`, depth);
  const { callee, args, fields = [], after = NOTHING } = call;
  if (line.length <= PRINT_WIDTH || !fields.length) return [line];
  return [
    indented(script`${head}${callee}(${joined(args.map((one) => script`${one}, `))}{`, depth),
    ...fields.map((field) => indented(script`${field},`, depth + 1)),
    indented(script`})${after};`, depth),
  ];
}

/** An expression of an act, with the variables that it looks at noted as used. */
const conditionOf = (when: Expression, used: ActUse): Script =>
  printed(
    printExpression(when, {
      ...NO_NAMES,
      variable: (name) => {
        used.variables.add(name);
        return used.variableCode(name);
      },
    }),
  );

const never = (): never => {
  throw new RangeError('what an element does depends on variables alone');
};
const NO_NAMES = { prop: never, parameter: never, listing: never, records: never, called: never, path: '' };

/** A name for what an element does that nothing else of the view has. */
function handlerName(node: MarkupElement, on: EmittedAct['on'], used: ActUse): string {
  const { handlers, logic } = used;
  const isTaken = (name: string): boolean => handlers.has(name) || logic?.acts.has(name) === true;
  const known = logic?.names.get(actId(node.key, on));
  return known !== undefined && !isTaken(known) ? known : actName(node, on, isTaken);
}

/** What stands around going where a link leads: what people hook in there, noted as used. */
export function aroundDeed(node: MarkupElement, used: ActUse): string {
  const name = handlerName(node, 'press', used);
  used.logic!.acts.set(name, null);
  used.isAround = true;
  return `around(logic.${name})`;
}

/** The name of the function that does an act, which is written before what the component returns. */
export function handlerOf(node: MarkupElement, act: EmittedAct, used: ActUse): string {
  const { logic } = used;
  const name = handlerName(node, act.on, used);
  const handed = handedTo(act);
  logic?.acts.set(name, handed);
  used.isHooked ||= logic !== null;
  if (handed === 'values') used.takesValues = true;
  const parameter = handed ? PARAMETERS[handed] : NOTHING;
  const waits = act.ways.some(({ steps }) => steps.some((step) => isAwaited(step) || asksFirst(step)));
  const around = logic ? script`hooked(logic.${named(name)}, ` : NOTHING;
  const lines = [
    script`const ${named(name)} = ${around}${waits ? script`async ` : NOTHING}(${parameter}) => {`,
  ];
  act.ways.forEach(({ when, steps }, i) => {
    const before = lookedUp(steps, used);
    const taken = new Set<string>();
    used.asked.clear();
    const calls = steps.map((step): Statement => {
      const first = askedFirst(step, used, taken);
      const call = stepCall(step, used);
      if (step.kind === 'record') used.asked.delete(step.records);
      const as = step.kind === 'record' && step.deed.kind === 'add' ? step.deed.as : undefined;
      return {
        first,
        head: as === undefined ? NOTHING : script`const ${named(as)} = `,
        call: isAwaited(step) ? { ...call, callee: script`await ${call.callee}` } : call,
      };
    });
    const inside = (depth: number): Script[] => [
      ...before.map((line) => indented(line, depth)),
      ...calls.flatMap(({ first, head, call }) => [
        ...first.map((line) => indented(line, depth)),
        ...statement(depth, head, call),
      ]),
    ];
    const test = when ? script`if (${conditionOf(when, used)}) ` : NOTHING;
    const head = script`${i ? script`else ` : NOTHING}${test}`;
    if (!head.length) lines.push(...inside(1));
    else if (calls.length === 1 && !before.length && !calls[0].first.length)
      lines.push(...statement(1, head, calls[0].call));
    else lines.push(script`  ${head}{`, ...inside(2), script`  }`);
  });
  used.asked.clear();
  lines.push(logic ? script`});` : script`};`);
  used.handlers.set(name, { lines, key: node.key });
  return name;
}

/** What something can be entered into. */
const FIELDS = new Set(['input', 'textarea', 'select']);

/** What an element does on an event of its own, as the name of the function that does it. */
export interface BoundAct {
  readonly on: 'press' | 'double-press' | 'hover' | 'change' | 'submit';
  /** Name of the function, or the call itself where that is all that is done. */
  readonly handler: string;
  readonly isCall: boolean;
  /** Whether the function is given what was entered. */
  readonly takesText: boolean;
}

/**
 * Writes the functions that do what an element does, with what they need noted as used.
 * @returns those for its own events, and for gestures the argument of `gestures`; keys and moments are calls of hooks
 */
export function boundActs(
  node: MarkupElement,
  used: ActUse,
): { readonly events: readonly BoundAct[]; readonly gestures: Script | null } {
  const events: BoundAct[] = [];
  const gestures: Script[] = [];
  for (const act of withoutUnreached(node.acts ?? [])) {
    const [way] = act.ways;
    const [step] = way.steps;
    const takesText = handedTo(act) === 'text';
    const isGiven = takesText && act.on === 'change' && FIELDS.has(node.tag);
    if (!isHookedAct(act) && isEvent(act.on)) {
      const call = printCall(stepCall(step, used, undefined, isGiven ? used.entered(node.tag) : "''"));
      events.push({ on: act.on, handler: call.text, isCall: true, takesText: isGiven });
      continue;
    }
    const name = handlerOf(node, act, used);
    // Where nothing can be entered, that is nothing.
    const bare = takesText && !isGiven;
    const handler = bare ? script`() => ${named(name)}('')` : named(name);
    switch (act.on) {
      case 'long-press':
        gestures.push(script`longPress: ${handler}`);
        break;
      case 'swipe':
        gestures.push(script`${named(camelCase(`swipe ${act.side ?? 'left'}`))}: ${handler}`);
        break;
      case 'key':
        used.helpers.add('useKey');
        used.hooks.push(script`useKey(${act.key ?? 'Enter'}, ${handler});`);
        break;
      case 'after':
      case 'load':
        used.helpers.add('useAfter');
        used.hooks.push(script`useAfter(${act.on === 'load' ? 0 : (act.ms ?? 0)}, ${handler});`);
        break;
      default:
        events.push({
          on: act.on,
          handler: bare ? `${name}('')` : name,
          isCall: bare,
          takesText: isGiven,
        });
    }
  }
  if (gestures.length) used.helpers.add('gestures');
  return { events, gestures: gestures.length ? script`{ ${gestures} }` : null };
}

/** Acts without the ways that come after one that is done in any case. */
const withoutUnreached = (acts: readonly EmittedAct[]): EmittedAct[] =>
  acts.map((act) => {
    const last = act.ways.findIndex((way) => !way.when);
    return last < 0 ? act : { ...act, ways: act.ways.slice(0, last + 1) };
  });
