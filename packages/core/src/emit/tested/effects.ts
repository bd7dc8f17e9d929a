import { eachPart, type Expression, type Value } from '../../expression/expression.ts';
import { ENTERED } from '../../expression/language.ts';
import { valueOf } from '../../expression/value_of.ts';
import { recordVariable } from '../../model/names.ts';
import type { LiveView } from '../form/live/live.ts';
import type { EmittedCollection } from '../form/live/records.ts';
import type { EmittedRecordDeed, EmittedStep, MarkupElement } from '../form/markup.ts';
import { isIn } from './lists.ts';

/** What is so once something was done, as `testing/effects.ts` of an app looks for it. */
export type Effect =
  | { readonly variable: string; readonly is: Value }
  /** So many records more, or fewer. */
  | { readonly records: string; readonly more: number }
  /** What a record says: the one of this id, else the one that has come. */
  | { readonly records: string; readonly id?: string; readonly says: Readonly<Record<string, string>> }
  /** What an address says of a list; null for what it does not. */
  | { readonly words: Readonly<Record<string, string | null>> }
  | { readonly told: string }
  | { readonly to: string }
  /** Whether the part of this id is open. */
  | { readonly part: string; readonly isOpen: boolean }
  /** What is open over the screen, the last one last. */
  | { readonly over: readonly string[] }
  | { readonly copied: string }
  | { readonly printed: number }
  /** So many boxes more are ticked, or fewer. */
  | { readonly ticked: number }
  /** An API has answered once more. */
  | { readonly answered: true };

/** What tests know of an app before anything is done in it. */
export interface Known {
  /** By the names of their constants. */
  readonly collections: ReadonlyMap<string, EmittedCollection>;
  /** Keys of elements that may say something else by then than they were drawn to say. */
  readonly unsure: ReadonlySet<string>;
  /** What variables are at first, by their names in code; without those that are worked out or that an address says. */
  readonly variables: Readonly<Record<string, Value>>;
  /** Whether an API takes what fields of a new record say, or that a record of it is changed or removed. */
  readonly takes: (
    collection: EmittedCollection,
    does: EmittedRecordDeed['kind'],
    says: Readonly<Record<string, Value>>,
  ) => boolean;
  /** Whether an API takes what it is asked with. */
  readonly answers: (
    step: Extract<EmittedStep, { readonly kind: 'call' }>,
    filled: Readonly<Record<string, string>>,
  ) => boolean;
}

/** Where something is done. */
export interface DoneHere {
  /** The record of the row that it stands in. */
  readonly row: RowHere | null;
  /** What variables were made before. */
  readonly given: Readonly<Record<string, Value>>;
  /** What the form is filled in with. */
  readonly filled: Readonly<Record<string, string>>;
  /** What is entered where it is done; not there where nothing is. */
  readonly entered?: string;
  /** The id of the record of a collection that the screen shows as one; undefined where it shows none. */
  readonly shown: (collection: EmittedCollection) => string | undefined;
  /** An address as it is from here; null where it cannot be told or nobody gets there. */
  readonly addressOf: (to: string, variables: Readonly<Record<string, Value>>) => string | null;
  /** What is open over the screen. */
  readonly over: readonly string[];
  readonly page: PageHere;
}

/** What is on the page where something is done. */
export interface PageHere {
  /** Whether the part of this id is open at first; null where that is not known. */
  readonly isOpen: (id: string) => boolean | null;
  /** How many boxes more are ticked by what is called so in `data-ticks`; null where that is not known. */
  readonly ticks: (name: string) => number | null;
}

/** What screens are tested with: what is the same for all that is done on them. */
export type OnScreen = Pick<DoneHere, 'addressOf' | 'shown' | 'over' | 'page'>;

/** A row of a list that shows records as they are. */
export interface RowHere {
  readonly records: string;
  readonly id: string;
  readonly view: LiveView;
  /** Whether it is the first of its list. */
  readonly isFirst: boolean;
}

type Row = Readonly<Record<string, Value>>;

/** What depends on the day or on how people of a country write is nothing that a test can know. */
const UNSTEADY = /^(today|format[A-Z])/;

/**
 * What is so after the steps of something that is done, as far as that can be told beforehand.
 * @returns null where one of the steps cannot be done
 */
export function effectsOf(steps: readonly EmittedStep[], known: Known, here: DoneHere): Effect[] | null {
  return new Doing(known, here).all(steps);
}

/** Does steps on what is known of an app. */
class Doing {
  readonly #known: Known;
  readonly #here: DoneHere;
  readonly #variables: Map<string, Value>;
  readonly #records: ReadonlyMap<string, RecordsThen>;
  readonly #items = new Map<string, Row>();
  readonly #set = new Map<string, Value>();
  readonly #parts = new Map<string, boolean>();
  /** Which of several parts is shown, by the one that is at first. */
  readonly #chosen = new Map<string, string>();
  readonly #over: string[];
  readonly #rest: Effect[] = [];

  constructor(known: Known, here: DoneHere) {
    this.#known = known;
    this.#here = here;
    this.#over = [...here.over];
    this.#variables = new Map(Object.entries({ ...known.variables, ...here.given }));
    this.#records = new Map([...known.collections].map(([name, one]) => [name, new RecordsThen(one)]));
    for (const collection of known.collections.values()) this.#isAtHand(collection, here.shown(collection));
    const { row } = here;
    if (row) this.#isAtHand(known.collections.get(row.records)!, row.id);
  }

  all(steps: readonly EmittedStep[]): Effect[] | null {
    for (const step of steps) if (!this.#does(step)) return null;
    const isLeft = steps.some(({ kind }) => kind === 'go' || kind === 'back' || kind === 'external');
    return [
      ...[...this.#set].map(([variable, is]): Effect => ({ variable, is })),
      ...[...this.#records.values()].flatMap((records) => records.effects()),
      ...(isLeft ? [] : this.#seen()),
      // What an address says of a list is not in that of another screen.
      ...this.#rest.filter((one) => !isLeft || !('words' in one)),
    ];
  }

  /** What opened and closed on the screen. */
  #seen(): Effect[] {
    const { over } = this.#here;
    const isSame = over.length === this.#over.length && over.every((name, i) => this.#over[i] === name);
    return [
      ...[...this.#parts].map(([part, isOpen]): Effect => ({ part, isOpen })),
      ...(isSame ? [] : [{ over: this.#over }]),
    ];
  }

  /** @returns whether it can be done */
  #does(step: EmittedStep): boolean {
    switch (step.kind) {
      case 'set':
        this.#sets(step);
        return true;
      case 'say': {
        const to = this.#value(step.to);
        if (typeof to === 'string' && to !== '') this.#rest.push({ told: to });
        return true;
      }
      case 'list':
        return this.#looks(step);
      case 'record':
        return this.#changes(step);
      case 'go': {
        const to = this.#here.addressOf(step.to, Object.fromEntries(this.#variables));
        if (to !== null) this.#rest.push({ to });
        return true;
      }
      case 'call':
        return this.#known.answers(step, this.#here.filled);
      case 'open':
        this.#over.push(step.overlay);
        return true;
      case 'close':
        this.#over.pop();
        return true;
      case 'disclose':
        this.#discloses(step);
        return true;
      case 'turn': {
        const { first, all } = step.choice;
        const at = all.indexOf(this.#chosen.get(first) ?? first) + step.by;
        this.#chooses(first, all[(at + all.length) % all.length]);
        return true;
      }
      case 'browser':
        this.#asksBrowser(step);
        return true;
      case 'back':
      case 'external':
      case 'file':
      case 'drawer':
        return true;
    }
  }

  #discloses({ id, does, choice }: Extract<EmittedStep, { readonly kind: 'disclose' }>): void {
    if (choice) return this.#chooses(choice.first, id);
    const wasOpen = this.#parts.get(id) ?? this.#here.page.isOpen(id);
    if (wasOpen !== null) this.#parts.set(id, does === 'toggle' ? !wasOpen : does === 'open');
  }

  #chooses(first: string, id: string): void {
    const before = this.#chosen.get(first) ?? first;
    this.#chosen.set(first, id);
    for (const [part, isOpen] of [[before, false] as const, [id, true] as const])
      if (this.#here.page.isOpen(part) !== null) this.#parts.set(part, isOpen);
  }

  #asksBrowser(step: Extract<EmittedStep, { readonly kind: 'browser' }>): void {
    switch (step.does) {
      case 'copy':
        this.#rest.push({ copied: step.text });
        break;
      case 'print':
        this.#rest.push({ printed: 1 });
        break;
      case 'tick': {
        const ticked = this.#here.page.ticks(step.name);
        if (ticked) this.#rest.push({ ticked });
        break;
      }
      case 'refetch':
        this.#rest.push({ answered: true });
        break;
      // Nothing of the page that is shown anew can be asked by who shows it.
      case 'reload':
    }
  }

  #sets({ condition, to }: Extract<EmittedStep, { readonly kind: 'set' }>): void {
    const isKnown = Object.hasOwn(this.#known.variables, condition);
    const value = isKnown ? this.#value(to) : undefined;
    if (value === undefined) {
      this.#variables.delete(condition);
      this.#set.delete(condition);
      return;
    }
    this.#variables.set(condition, value);
    this.#set.set(condition, value);
  }

  #looks({ listing, deed }: Extract<EmittedStep, { readonly kind: 'list' }>): boolean {
    const collection = this.#known.collections.get(listing.name);
    const view = collection && [...collection.lists].find(({ hook }) => hook === listing.hook);
    if (!collection || !view) return false;
    const { prefix } = collection.live;
    const words = (said: Readonly<Record<string, string | null>>): void =>
      void this.#rest.push({
        words: Object.fromEntries(Object.entries(said).map(([word, is]) => [prefix + word, is])),
      });
    if (deed.kind === 'sort') words({ sort: deed.field });
    else if (deed.kind === 'filter') words({ [deed.field]: deed.value || null });
    else if ((deed.kind === 'search' || deed.kind === 'choose') && this.#here.entered !== undefined)
      words({ [deed.kind === 'search' ? 'search' : deed.field]: this.#here.entered || null });
    else if (deed.kind === 'page' && (deed.to === 'next' || deed.to === 2)) {
      const { perPage = Infinity, of } = view.options;
      // What there is besides what is drawn may be shown elsewhere.
      if (!of && view.rows.size >= perPage && recordsIn(collection, view) > perPage) words({ page: '2' });
    }
    return true;
  }

  #changes(step: Extract<EmittedStep, { readonly kind: 'record' }>): boolean {
    const { deed, row } = step;
    const records = this.#records.get(step.records);
    if (!records) return false;
    const { collection } = records;
    const isOfRow = row !== undefined || (deed.kind !== 'add' && deed.of.kind === 'row');
    if (isOfRow && this.#here.row === null) return false;
    const says = this.#saidBy(deed);
    if (collection.live.isRemote && !this.#known.takes(collection, deed.kind, says ?? {})) return false;
    if (deed.kind === 'add') {
      const added = records.add(says ?? {});
      if (deed.as !== undefined) this.#items.set(deed.as, added);
      return true;
    }
    const ids = this.#meant(collection, deed.of);
    if (!ids || !says) records.forget();
    else if (deed.kind === 'remove') records.remove(ids);
    else records.change(ids, says);
    return true;
  }

  /** What a deed says of the fields of records, as far as that is known; null where something of it is not. */
  #saidBy(deed: EmittedRecordDeed): Row | null {
    if (deed.kind === 'remove') return {};
    const said: Record<string, Value> = {};
    if (deed.kind === 'add')
      for (const field of deed.fields) {
        const value = this.#here.filled[field];
        if (value !== undefined) said[field] = value;
      }
    for (const [field, expression] of deed.kind === 'add' ? deed.says : deed.to) {
      const value = this.#value(expression);
      if (value !== undefined) said[field] = value;
      // Of a new record the rest is known; one that is changed would be told wrongly.
      else if (deed.kind === 'set') return null;
    }
    return said;
  }

  #isAtHand({ live }: EmittedCollection, id: string | undefined): void {
    const record = live.isRemote
      ? undefined
      : this.#records.get(live.name)!.rows?.find((one) => one.id === id);
    if (record) this.#items.set(recordVariable(live.collection.name), record);
  }

  /** The ids of the records that are meant; null where they cannot be told. */
  #meant(
    collection: EmittedCollection,
    of: Exclude<EmittedRecordDeed, { readonly kind: 'add' }>['of'],
  ): readonly string[] | null {
    const records = collection.live.name;
    if (of.kind === 'row') return this.#here.row?.records === records ? [this.#here.row.id] : null;
    const id = this.#here.shown(collection);
    if (of.kind === 'shown') return id === undefined ? null : [id];
    const rows = this.#rowsOf(records);
    if (!rows || !this.#isSteady(of.holds, new Set([of.each]))) return null;
    return rows.flatMap((one) =>
      valueOf(of.holds, this.#scope(new Map([[of.each, one]]))) ? [String(one.id)] : [],
    );
  }

  /** The records of a collection by now, where they are known to the letter. */
  #rowsOf(name: string): readonly Row[] | null {
    const records = this.#records.get(name);
    return records && !records.collection.live.isRemote ? records.rows : null;
  }

  #value(expression: Expression): Value {
    return this.#isSteady(expression) ? valueOf(expression, this.#scope()) : undefined;
  }

  #scope(more: ReadonlyMap<string, Row> = new Map()): Parameters<typeof valueOf>[1] {
    const { entered } = this.#here;
    return {
      ...(entered === undefined ? {} : { props: { [ENTERED]: entered } }),
      variables: Object.fromEntries(this.#variables),
      records: Object.fromEntries(
        [...this.#records.keys()].flatMap((name) => {
          const rows = this.#rowsOf(name);
          return rows ? [[name, rows]] : [];
        }),
      ),
      items: Object.fromEntries([...this.#items, ['values', this.#here.filled], ...more]),
    };
  }

  /** Whether all that an expression looks at is known. */
  #isSteady(expression: Expression, inside: ReadonlySet<string> = new Set()): boolean {
    const own = new Set(inside);
    eachPart(expression, (part) => part.kind === 'each' && own.add(part.item));
    let isSteady = true;
    eachPart(expression, (part) => {
      if (part.kind === 'variable') isSteady &&= this.#variables.has(part.name);
      else if (part.kind === 'records') isSteady &&= this.#rowsOf(part.name) !== null;
      else if (part.kind === 'item' || part.kind === 'record')
        isSteady &&= own.has(part.name) || this.#items.has(part.name) || part.name === 'values';
      else if (part.kind === 'prop') isSteady &&= part.name === ENTERED && this.#here.entered !== undefined;
      else if (part.kind === 'call') isSteady &&= !UNSTEADY.test(part.name);
      else if (!STEADY.has(part.kind)) isSteady = false;
    });
    return isSteady;
  }
}

/** The records of a collection while something is done to them. */
class RecordsThen {
  readonly collection: EmittedCollection;
  /** As they are by now; null once something is done to them that nobody knows. */
  rows: readonly Row[] | null;
  /** The fields of which something was said, by the ids of the records. */
  readonly #said = new Map<string, Set<string>>();
  #added = 0;

  constructor(collection: EmittedCollection) {
    this.collection = collection;
    this.rows = collection.records as unknown as readonly Row[];
  }

  add(says: Row): Row {
    const id = `${NEW}${++this.#added}`;
    const added: Row = { ...(this.collection.like as unknown as Row), ...says, id };
    this.#said.set(id, new Set(Object.keys(says)));
    this.rows &&= [added, ...this.rows];
    return added;
  }

  remove(ids: readonly string[]): void {
    this.rows &&= this.rows.filter(({ id }) => !ids.includes(String(id)));
  }

  change(ids: readonly string[], says: Row): void {
    for (const id of ids) this.#said.set(id, new Set([...(this.#said.get(id) ?? []), ...Object.keys(says)]));
    this.rows &&= this.rows.map((one) => (ids.includes(String(one.id)) ? { ...one, ...says } : one));
  }

  forget(): void {
    this.rows = null;
  }

  effects(): Effect[] {
    const { rows, collection } = this;
    if (!rows) return [];
    const { name, isRemote, collection: of } = collection.live;
    const more = rows.length - collection.records.length;
    const isNew = ({ id }: Row): boolean => String(id).startsWith(NEW);
    // Of several that have come the newest is looked at.
    const newest = rows.find(isNew);
    return [
      ...(more ? [{ records: name, more }] : []),
      ...rows.flatMap((row): Effect[] => {
        const fields = this.#said.get(String(row.id));
        if (!fields || (isNew(row) && row !== newest)) return [];
        const says = [...fields].flatMap((field) => {
          const value = row[field];
          return typeof value === 'string' && (!isRemote || isKeptAs(of.behind?.fields, field))
            ? [[field, value] as const]
            : [];
        });
        if (!says.length) return [];
        return [
          { records: name, ...(isNew(row) ? {} : { id: String(row.id) }), says: Object.fromEntries(says) },
        ];
      }),
    ];
  }
}

/** What the ids of records begin with that were not there before. */
const NEW = 'new ';

/** Kinds of expressions that say no more than what they are made of. */
const STEADY: ReadonlySet<Expression['kind']> = new Set<Expression['kind']>([
  'literal',
  'not',
  'and',
  'or',
  'compare',
  'choice',
  'text',
  'arithmetic',
  'each',
  'field',
]);

/** Whether an API keeps what a field says, by itself. */
const isKeptAs = (fields: Readonly<Record<string, string>> | undefined, field: string): boolean =>
  fields !== undefined && Object.hasOwn(fields, field) && !fields[field].includes('.');

/** How many records a list has, on all its pages. */
export const recordsIn = ({ records }: EmittedCollection, { options: { where } }: LiveView): number =>
  records.filter((record) => isIn(record, where)).length;

/** The row of a list with records as they are that something stands in. */
export function rowAround(
  within: readonly MarkupElement[],
  collections: ReadonlyMap<string, EmittedCollection>,
): RowHere | null {
  for (const { key } of within.toReversed())
    for (const [records, { lists }] of collections)
      for (const view of lists) {
        const id = key === null ? undefined : view.rows.get(key);
        if (id !== undefined)
          return { records, id, view, isFirst: [...view.rows.values()].indexOf(id) === 0 };
      }
  return null;
}
