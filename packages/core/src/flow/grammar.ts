/** The language of flow sheets, each form of it said once: docs/FLOW_SHEET.md explains it. */

import { EASINGS, GESTURES, SIDES } from '../model/interaction.ts';
import {
  OVERLAY_KINDS,
  type Arrival,
  type Given,
  type Guard,
  type Interaction,
  type JourneyStep,
  type ListDeed,
  type Overlay,
  type RecordDeed,
  type Step,
  type Target,
  type Variable,
  VARIABLE_TYPES,
  type VariableType,
  type When,
  KEEPINGS,
  type Keeping,
} from '../model/app.ts';
import {
  as,
  byName,
  field,
  flag,
  kind,
  listOf,
  maybe,
  named,
  oneOf,
  oneWord,
  onScreen,
  path,
  phrase,
  type Term,
  text,
  whole,
  words,
} from './terms.ts';
import type { LineReader } from './line_reader.ts';

const screen = named('screen', (known) => known.screens);
const condition = named('condition', (known) => known.variables);
const collection = named('collection', (known) => known.collections);
const api = named('API', (known) => known.apis);
const file = named('file', (known) => known.files);
const element = onScreen('element', screen);
const part = onScreen('part', screen);
const yesNo = words({ yes: true, no: false });
const ms = whole('ms');
const side = oneWord(...SIDES);

/** Either of two kinds of value, of which the first is told by how it begins. */
const eitherOf = <A, B>(isA: (value: A | B) => value is A, a: Term<A>, b: Term<B>): Term<A | B> => ({
  print: (value, place) => (isA(value) ? a.print(value, place) : b.print(value, place)),
  begins: (reader, place) => [a.begins(reader, place), b.begins(reader, place)].includes(true),
  read: (reader, place) => (a.begins(reader, place) ? a.read(reader, place) : b.read(reader, place)),
});

const isFlag = (value: unknown): value is boolean => typeof value === 'boolean';
const isText = (value: unknown): value is string => typeof value === 'string';
const isNumber = (value: unknown): value is number => typeof value === 'number';

const given: Term<Given> = eitherOf(
  isText,
  text,
  phrase<Exclude<Given, string>>('of', field('field', element)),
);

/** `yes`, or `to "count + 1"`. */
const setTo = eitherOf<boolean, string>(
  isFlag,
  yesNo,
  as(
    phrase<{ says: string }>('to', field('says', text)),
    (says) => ({ says }),
    ({ says }) => says,
  ),
);

/** `"Signed in"`, or `not "Signed in"`. */
const whether: Term<When> = {
  print: ({ condition: id, is }, place) => `${is ? '' : 'not '}${condition.print(id, place)}`,
  begins: (reader, place) => [reader.sees('not'), condition.begins(reader, place)].includes(true),
  read: (reader, place) => {
    const is = !reader.takes('not');
    return { condition: condition.read(reader, place), is };
  },
};

const listDeed = oneOf<ListDeed>('kind', {
  search: kind('search'),
  sort: kind('sort', 'by', field('field', text)),
  filter: kind('filter', field('field', text), maybe('is', field('value', text)), flag('part', 'within')),
  choose: kind('choose', field('field', text), maybe('any', field('all', orNone(listOf(text, 'or'))))),
  page: kind('page', field('to', eitherOf(isNumber, whole(), oneWord('next', 'previous', 'first', 'last')))),
  more: kind('more'),
});
const recordDeed = oneOf<RecordDeed>('kind', {
  add: kind('add', maybe(field('form', element)), maybe('saying', field('says', byName(text)))),
  remove: kind('remove', maybe('where', field('where', text))),
  set: kind(
    'set',
    field('field', text),
    maybe('to', field('value', text)),
    maybe('saying', field('says', text)),
    maybe('where', field('where', text)),
  ),
});

/** A list that may hold nothing: `none`. */
function orNone<T>(term: Term<readonly T[]>): Term<readonly T[]> {
  return {
    print: (value, place) => (value.length ? term.print(value, place) : 'none'),
    begins: (reader, place) => [reader.sees('none'), term.begins(reader, place)].includes(true),
    read: (reader, place) => (reader.takes('none') ? [] : term.read(reader, place)),
  };
}

const shared = {
  open: kind('open', field('overlay', screen)),
  close: kind('close'),
  set: kind('set', field('condition', condition), field('value', setTo)),
  disclose: kind(field('does', oneWord('toggle', 'show', 'hide')), field('part', part)),
  say: kind('say', field('text', text)),
  turn: kind('turn', field('among', text), field('to', oneWord('next', 'previous'))),
  browser: kind(field('does', oneWord('print', 'reload', 'copy', 'tick')), maybe(field('of', element))),
  record: kind('record', field('collection', collection), field('deed', recordDeed)),
  call: kind(
    'ask',
    field('api', api),
    field('operation', text),
    maybe('filled', 'in', field('form', element)),
  ),
};

/** What a part that opens is told to do has words of its own here: `open` and `close` are about overlays. */
const DOES = { toggle: 'toggle', open: 'show', close: 'hide' } as const;
type SaidDoes = (typeof DOES)[keyof typeof DOES];
const saidOf = <T extends Step | Target>(value: T): T =>
  value.kind === 'disclose' ? ({ ...value, does: DOES[value.does] } as unknown as T) : value;
const meantBy = <T extends Step | Target>(value: T): T => {
  if (value.kind !== 'disclose') return value;
  const does = Object.entries(DOES).find(([, said]) => said === (value.does as unknown as SaidDoes))![0];
  return { ...value, does };
};

const step: Term<Step> = as(oneOf<Step>('kind', shared), saidOf, meantBy);

const screenTarget = kind(
  field('screen', screen),
  maybe('with', field('params', byName(given))),
  maybe('query', field('query', byName(text))),
);
const target: Term<Target> = as(
  oneOf<Target>('kind', {
    back: kind('back', maybe('or', field('fallback', screen))),
    anchor: kind('into', field('screen', screen), 'at', field('element', element, 'screen')),
    external: kind('outside', field('href', text)),
    file: kind('save', field('asset', file), 'called', field('name', text)),
    drawer: kind('drawer', field('element', element)),
    list: kind('list', field('collection', collection), field('deed', listDeed)),
    ...shared,
    screen: screenTarget,
  }),
  saidOf,
  meantBy,
);

const timing = [
  field('ms', ms),
  maybe(field('easing', oneWord(...EASINGS))),
  maybe('after', field('delay', ms)),
] as const;
const pair = phrase<{ from: string; to: string }>(field('from', element), 'to', field('to', element));
const arrival = oneOf<Exclude<Arrival, { kind: 'none' }>>('kind', {
  fade: kind('fade', ...timing),
  slide: kind('slide', 'from', field('from', side), ...timing),
  push: kind('push', 'from', field('from', side), ...timing),
  scale: kind('scale', ...timing),
  shared: kind('shared', ...timing, 'moving', field('pairs', orNone(listOf(pair, 'and')))),
});

const BARE = GESTURES.filter((gesture) => !['key', 'swipe', 'after'].includes(gesture));
const gesture = oneOf<Pick<Interaction, 'on' | 'key' | 'side' | 'ms'>>('on', {
  ...Object.fromEntries(BARE.map((name) => [name, kind(name)])),
  key: kind('key', maybe(field('key', text))),
  swipe: kind('swipe', maybe(field('side', side))),
  after: kind('after', maybe(field('ms', ms))),
});

/** What an element, or the screen itself where none is named, does. */
export interface SaidLink {
  readonly element?: string;
  readonly interaction: Interaction;
}

const doer = phrase<Pick<Interaction, 'everywhere' | 'when'> & { element?: string }>(
  flag('everywhere'),
  maybe(field('element', element)),
  maybe('if', field('when', whether)),
);

/** `press "Sign in" if not "Signed in" -> set "Signed in" yes then "Home" by fade 200 ms` */
export const link: Term<SaidLink> = {
  print: ({ element: key, interaction }, place) => {
    const { before = [], arrival: arrives, target: leads, when, everywhere } = interaction;
    const does = { ...(key === undefined ? {} : { element: key }), when, everywhere };
    const steps = [...before.map((one) => step.print(one, place)), target.print(leads, place)].join(' then ');
    const arriving = arrives.kind === 'none' ? '' : `by ${arrival.print(arrives, place)}`;
    return [gesture.print(interaction, place), doer.print(does, place), '->', steps, arriving]
      .filter(Boolean)
      .join(' ');
  },
  begins: (reader, place) => gesture.begins(reader, place),
  read: (reader, place) => {
    const on = gesture.read(reader, place);
    const { element: key, ...how } = doer.read(reader, place);
    if (!reader.take('arrow', { word: '->' })) reader.fail();
    const leads = [target.read(reader, place)];
    while (reader.takes('then')) leads.push(target.read(reader, place));
    const last = leads.pop()!;
    const before = leads.map((one) => stepOf(one, reader));
    const arrives = reader.takes('by') ? arrival.read(reader, place) : ({ kind: 'none' } as const);
    return {
      ...(key === undefined ? {} : { element: key }),
      interaction: {
        ...on,
        ...how,
        ...(before.length ? { before } : {}),
        target: last,
        arrival: arrives,
      },
    };
  },
};

const STEPS: ReadonlySet<string> = new Set(Object.keys(shared));

/** What is done before something else stays on the screen. */
function stepOf(one: Target, reader: LineReader): Step {
  if (!STEPS.has(one.kind)) reader.fail();
  return one as Step;
}

export const still = phrase<{ element: string }>('still', field('element', element));
export const guard: Term<Guard> = {
  print: ({ otherwise, ...when }, place) =>
    `needs ${whether.print(when, place)} else ${screen.print(otherwise, place)}`,
  begins: (reader) => reader.sees('needs'),
  read: (reader, place) => {
    if (!reader.takes('needs')) reader.fail();
    const when = whether.read(reader, place);
    if (!reader.takes('else')) reader.fail();
    return { ...when, otherwise: screen.read(reader, place) };
  },
};
export const shownWith = phrase<{ params: Readonly<Record<string, string>> }>(
  'shown',
  'with',
  field('params', byName(text)),
);

export const overlay = phrase<Overlay>(
  'as',
  field('kind', oneWord(...OVERLAY_KINDS)),
  maybe('from', field('side', side)),
  flag('modal', 'modal', 'no'),
  flag('escape', 'escape', 'no'),
  flag('outside', 'outside', 'no'),
  flag('url', 'addressed'),
  maybe('for', field('ms', ms)),
  maybe('over', field('over', orNone(listOf(screen, 'and')))),
  maybe('panel', field('panel', element)),
);

export const title = phrase<{ name: string }>('flow', field('name', text));
export const start = phrase<{ screen: string }>('start', field('screen', screen));
/** A variable, with the form in which its kind is written. */
interface SaidVariable {
  readonly name: string;
  readonly form: SaidKind;
  readonly kept?: Keeping;
}
type SaidKind =
  | { readonly type: 'yes-no'; readonly initial: boolean }
  | { readonly type: 'number' | 'text' | 'date'; readonly initial: string }
  | { readonly type: 'one-of'; readonly choices: readonly string[]; readonly initial: string }
  | { readonly type: 'list'; readonly initial?: readonly string[] }
  | { readonly type: 'record'; readonly of: string }
  | {
      readonly type: 'worked-out';
      readonly is: VariableType;
      readonly says: string;
      readonly choices?: readonly string[];
      readonly of?: string;
    };

const saidKind = oneOf<SaidKind>('type', {
  'yes-no': kind(field('initial', yesNo)),
  number: kind('number', field('initial', text)),
  text: kind('text', field('initial', text)),
  date: kind('date', field('initial', text)),
  'one-of': kind('of', field('choices', listOf(text, 'or')), 'first', field('initial', text)),
  list: kind('list', maybe('holding', field('initial', listOf(text, 'and')))),
  record: kind('record', 'in', field('of', collection)),
  'worked-out': kind(
    'always',
    field('says', text),
    'as',
    field('is', oneWord(...VARIABLE_TYPES)),
    maybe('of', field('choices', listOf(text, 'or'))),
    maybe('in', field('of', collection)),
  ),
});

const variablePhrase = phrase<SaidVariable>(
  'variable',
  field('name', text),
  field('form', saidKind),
  maybe('kept', field('kept', oneWord(...KEEPINGS))),
);

/** `variable "Signed in" no`, `variable "Chosen" number "0" kept device`, `variable "Many" always "chosen > 3" as yes-no` */
export const variableLine: Term<Variable> = as(
  {
    ...variablePhrase,
    begins: (reader, place) =>
      [variablePhrase.begins(reader, place), reader.sees('condition')].includes(true),
    read: (reader, place) =>
      reader.sees('condition') ? conditionPhrase.read(reader, place) : variablePhrase.read(reader, place),
  },
  (variable) => ({
    name: variable.name,
    form: saidForm(variable),
    ...(variable.kept ? { kept: variable.kept } : {}),
  }),
  ({ name, form, kept }) => ({ name, ...meantKind(form), ...(kept ? { kept } : {}) }),
);

/** Sheets of before call what is yes or no a condition. */
const conditionPhrase = phrase<SaidVariable>('condition', field('name', text), field('form', saidKind));

function saidForm({ type = 'yes-no', initial, choices, says, of }: Variable): SaidKind {
  if (says !== undefined)
    return { type: 'worked-out', is: type, says, ...(choices ? { choices } : {}), ...(of ? { of } : {}) };
  switch (type) {
    case 'yes-no':
      return { type, initial: initial === true };
    case 'one-of':
      return { type, choices: choices ?? [], initial: String(initial) };
    case 'list':
      return { type, ...(Array.isArray(initial) && initial.length ? { initial: initial as string[] } : {}) };
    case 'record':
      return { type, of: of ?? '' };
    default:
      return { type, initial: String(initial) };
  }
}

const FIRST: Readonly<Partial<Record<VariableType, Variable['initial']>>> = {
  'yes-no': false,
  number: 0,
  list: [],
};

function meantKind(form: SaidKind): Pick<Variable, 'type' | 'initial' | 'choices' | 'says' | 'of'> {
  switch (form.type) {
    case 'yes-no':
      return { initial: form.initial };
    case 'number':
      return { type: 'number', initial: Number(form.initial) || 0 };
    case 'text':
    case 'date':
      return { type: form.type, initial: form.initial };
    case 'one-of':
      return { type: 'one-of', choices: form.choices, initial: form.initial };
    case 'list':
      return { type: 'list', initial: form.initial ?? [] };
    case 'record':
      return { type: 'record', of: form.of, initial: '' };
    case 'worked-out': {
      const { is, says, choices, of } = form;
      return {
        ...(is === 'yes-no' ? {} : { type: is }),
        initial: FIRST[is] ?? choices?.[0] ?? '',
        says,
        ...(choices ? { choices } : {}),
        ...(of ? { of } : {}),
      };
    }
  }
}
export const redirect = phrase<{ from: string; to: string }>(
  'redirect',
  field('from', path),
  'to',
  field('to', screen),
);
export interface SaidScreen {
  readonly use: 'screen' | 'planned' | 'overlay';
  readonly name: string;
  readonly route?: string;
}
export const screenLine: Term<SaidScreen> = oneOf<SaidScreen>('use', {
  screen: kind('screen', field('name', text), 'at', field('route', path)),
  planned: kind('planned', field('name', text), 'at', field('route', path)),
  overlay: kind('overlay', field('name', text)),
});
export const journeyLine = phrase<{ name: string; start: string }>(
  'journey',
  field('name', text),
  'from',
  field('start', screen),
);

/** A step of a journey; an interaction is meant by its element and, where that has several, its number. */
export type SaidStep =
  | { readonly kind: 'do'; readonly element?: string; readonly number?: number; readonly to: string }
  | Extract<JourneyStep, { kind: 'enter' }>;
export const journeyStep = oneOf<SaidStep>('kind', {
  do: kind(
    'use',
    maybe(field('element', element)),
    maybe('way', field('number', whole())),
    'to',
    field('to', screen),
  ),
  enter: kind('enter', field('text', text), 'into', field('element', element)),
});

export { condition as conditionName, screen as screenName };
