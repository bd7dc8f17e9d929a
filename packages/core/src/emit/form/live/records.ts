import { camelCase, pascalCase } from '../../../model/names.ts';
import type { EmittedComponent, Extraction } from '../components/extract.ts';
import type { EmittedList } from '../components/lists.ts';
import type { Prop } from '../components/template.ts';
import { isElement, type LiveUse, mapChildren, type MarkupElement, type PropValue } from '../markup.ts';
import type { LiveCollection, LiveView } from './live.ts';
import { holdsRowDeed, ROW_ID, withoutRowDeeds } from './controls.ts';
import { besideRows } from './none_found.ts';

/** What a record says under one name. */
export interface Property {
  readonly name: string;
  readonly kind: Exclude<Prop['kind'], 'drawing'>;
  readonly choices?: readonly string[];
  readonly isOptional: boolean;
}

/** The records of a collection as they are written, once for all lists that show them. */
export interface EmittedCollection {
  readonly live: LiveCollection;
  readonly properties: readonly Property[];
  readonly records: readonly (Readonly<Record<string, PropValue>> & { readonly id: string })[];
  /** What a new record is where nobody says. */
  readonly like: Readonly<Record<string, PropValue>>;
  /** Views whose lists are written so that they show the records as they are. */
  readonly lists: ReadonlySet<LiveView>;
}

/** A drawn list that shows records as they are. */
interface Shown {
  readonly view: LiveView;
  readonly list: EmittedList;
  readonly component: EmittedComponent;
  readonly given: LiveUse['given'];
}

const made = new WeakMap<
  Extraction,
  {
    readonly says: string;
    readonly extraction: Extraction;
    readonly collections: readonly EmittedCollection[];
  }
>();

/**
 * The extraction with lists that show the records of live collections, and those records; kept until one of them changes.
 * A list whose rows are given drawings stays as it was drawn: a drawing is no value that is kept.
 */
export function withRecords(
  extraction: Extraction,
  live: ReadonlyMap<string, LiveCollection>,
): { readonly extraction: Extraction; readonly collections: readonly EmittedCollection[] } {
  if (!live.size) return { extraction, collections: [] };
  const says = JSON.stringify(
    [...live.values()].map(({ records, views, ...rest }) => [
      rest,
      [...records],
      views.map((view) => ({ ...view, rows: [...view.rows] })),
    ]),
  );
  const known = made.get(extraction);
  if (known?.says === says) return known;
  const uses = new Map<string, LiveUse>();
  const collections = [...live.values()].map((one) => {
    const [shown, builder] = [shownBy(one, extraction), new RecordsBuilder(one)];
    const lists = shown.map((each) => ({ ...each, given: builder.take(each) }));
    for (const { list, view, given } of lists)
      uses.set(list.rows[0], {
        listing: { name: one.name, hook: view.hook },
        given,
        ...(one.isRemote ? { isRemote: true } : {}),
      });
    return { ...builder.made(), lists: new Set(lists.map(({ view }) => view)) };
  });
  const isLive = (list: EmittedList): boolean => uses.has(list.rows[0]);
  const rows = new Set(
    [...extraction.lists.values()].flat().flatMap((list) => (isLive(list) ? [list.component] : [])),
  );
  const speaking = new Set(
    extraction.components.flatMap(({ name, root }) => (rows.has(name) && holdsRowDeed(root) ? [name] : [])),
  );
  for (const list of [...extraction.lists.values()].flat()) {
    const use = uses.get(list.rows[0]);
    if (use && speaking.has(list.component))
      uses.set(list.rows[0], { ...use, given: { id: { property: 'id' }, ...use.given } });
  }
  const names = new Set([...live.values()].map(({ name }) => name));
  const result = {
    says,
    collections,
    extraction: {
      ...extraction,
      components: extraction.components.map((component) =>
        speaking.has(component.name)
          ? { ...component, props: [ID, ...component.props] }
          : { ...component, root: withoutRowDeeds(component.root) },
      ),
      roots: new Map(
        [...extraction.roots].map(([key, root]) => [
          key,
          withLive(withoutRowDeeds(root), { uses, taken: names, speaking }),
        ]),
      ),
      lists: new Map(
        [...extraction.lists].map(([key, lists]) => [
          key,
          lists
            .filter((list) => !isLive(list))
            .map((list) => ({ ...list, data: stillNamed(list.data, names) })),
        ]),
      ),
    },
  };
  made.set(extraction, result);
  return result;
}

/** The written lists that show records of a collection. */
function shownBy(live: LiveCollection, extraction: Extraction): Omit<Shown, 'given'>[] {
  const byName = new Map(extraction.components.map((component) => [component.name, component]));
  return live.views.flatMap((view) =>
    (extraction.lists.get(view.screen) ?? []).flatMap((list) => {
      const component = byName.get(list.component);
      // A list that is written in pieces, or not whole, stays as it was drawn.
      const isWhole = list.rows.length === view.rows.size && list.rows.every((row) => view.rows.has(row));
      return component && isWhole && list.records.every((record) => Object.values(record).every(isKept))
        ? [{ view, list, component }]
        : [];
    }),
  );
}

/** Whether a value can be kept and read again: drawings and what is worked out cannot. */
const isKept = (value: PropValue): boolean => typeof value !== 'object' || 'asset' in value;

/** Brings together what the lists of a collection say of its records. */
class RecordsBuilder {
  readonly #live: LiveCollection;
  readonly #properties = new Map<
    string,
    /** `isSet`: of a flag that is set where a record says nothing of it. */
    { kind: Property['kind']; choices?: readonly string[]; isNeeded: boolean; isSet?: boolean }
  >();
  readonly #values = new Map<string, Map<string, PropValue>>();

  constructor(live: LiveCollection) {
    this.#live = live;
    for (const { name, type, required } of live.collection.fields) {
      const values = new Map<string, PropValue>();
      const isPicture = type === 'picture';
      for (const [id, record] of live.records) {
        const value = record.values[name];
        if (!isPicture && value) values.set(id, value.text);
        else if (value?.asset) values.set(id, { asset: value.asset });
      }
      if (isPicture && !values.size) continue;
      // What no row shows, new records alone may say.
      this.#properties.set(name, {
        kind: isPicture ? 'image' : 'text',
        isNeeded: values.size > 0 || required === true,
      });
      this.#values.set(name, values);
    }
  }

  /** Takes what the rows of a list are given; returns where in a record each prop is. */
  take({ view, list, component }: Omit<Shown, 'given'>): LiveUse['given'] {
    const ids = list.rows.map((row) => view.rows.get(row)!);
    return Object.fromEntries(
      component.props.map((prop) => {
        const values = list.records.map((record) => record[prop.name]);
        const position = positionOf(prop, values);
        if (position) return [prop.name, { is: position }];
        const address = prop.kind === 'link' ? addressAround(ids, values) : null;
        if (address) return [prop.name, address];
        const field = this.#given(view, prop);
        if (field !== null) return [prop.name, { property: field }];
        return [prop.name, { property: this.#propertyFor(prop, ids, values, list.component) }];
      }),
    );
  }

  /**
   * The field that an API gives and that a prop shows in these rows. Drawn texts may say it in other words on another screen;
   * what comes says it in one.
   */
  #given({ within }: LiveView, { kind, at }: Prop): string | null {
    const { behind, rows } = this.#live.collection;
    if (!this.#live.isRemote || !behind || (kind !== 'text' && kind !== 'image')) return null;
    const shows = rows.flatMap((row) => (row.within === within ? Object.entries(row.shows) : []));
    const field = shows.find(
      ([name, element]) => behind.fields[name] !== undefined && at.includes(element),
    )?.[0];
    return field !== undefined && this.#properties.get(field)?.kind === kind ? field : null;
  }

  #propertyFor(
    prop: Prop,
    ids: readonly string[],
    values: readonly (PropValue | undefined)[],
    component: string,
  ): string {
    const agrees = (name: string): boolean => {
      const known = this.#properties.get(name);
      if (!known) return true;
      if (!isAlike(known, prop)) return false;
      const said = this.#values.get(name)!;
      return ids.every(
        (id, i) => !said.has(id) || JSON.stringify(said.get(id)) === JSON.stringify(values[i]),
      );
    };
    const other = `${camelCase(component)}${pascalCase(prop.name)}`;
    const wanted = prop.name === 'id' ? other : prop.name;
    let name =
      this.#properties.has(wanted) && agrees(wanted)
        ? wanted
        : (this.#saying(prop, ids, values) ?? (agrees(wanted) ? wanted : other));
    for (let n = 2; !agrees(name); n++) name = `${other}${n}`;
    const known = this.#properties.get(name);
    const choices = new Set([...(known?.choices ?? []), ...(prop.choices ?? [])]);
    this.#properties.set(name, {
      kind: kindOf(prop),
      ...(choices.size ? { choices: [...choices] } : {}),
      isNeeded: (known?.isNeeded ?? false) || !prop.isOptional,
      ...(known?.isSet || prop.byDefault === true ? { isSet: true } : {}),
    });
    const said = this.#values.get(name) ?? new Map<string, PropValue>();
    ids.forEach((id, i) => {
      if (values[i] !== undefined) said.set(id, values[i]);
    });
    this.#values.set(name, said);
    return name;
  }

  /** A property that says the same of all these records already. */
  #saying(
    prop: Prop,
    ids: readonly string[],
    values: readonly (PropValue | undefined)[],
  ): string | undefined {
    if (new Set(values.map((value) => JSON.stringify(value))).size < 2) return undefined;
    return [...this.#properties].find(
      ([name, property]) =>
        isAlike(property, prop) &&
        ids.every((id, i) => JSON.stringify(this.#values.get(name)!.get(id)) === JSON.stringify(values[i])),
    )?.[0];
  }

  made(): Omit<EmittedCollection, 'lists'> {
    const { records } = this.#live;
    const ids = [...records.keys()];
    const like: Record<string, PropValue> = {};
    const complete = new Map<string, ReadonlyMap<string, PropValue>>();
    const byDefault = new Map(this.#live.collection.fields.map((field) => [field.name, field.byDefault]));
    for (const [name, { kind, isNeeded }] of this.#properties) {
      const said = this.#values.get(name)!;
      const usual = isField(this.#live, name) ? undefined : usualOf([...said.values()]);
      const empty = usual ?? (kind === 'text' || kind === 'link' ? '' : [...said.values()][0]);
      const usually = kind === 'text' ? byDefault.get(name) : undefined;
      if (usually !== undefined) like[name] = usually;
      else if (isNeeded && empty !== undefined) like[name] = empty;
      complete.set(
        name,
        isNeeded && empty !== undefined ? new Map(ids.map((id) => [id, said.get(id) ?? empty])) : said,
      );
    }
    return {
      live: this.#live,
      properties: [...this.#properties].map(([name, { kind, choices, isNeeded }]) => ({
        name,
        kind,
        ...(choices ? { choices } : {}),
        isOptional: !isNeeded,
      })),
      records: ids.map((id) => ({
        id,
        ...Object.fromEntries(
          [...complete].flatMap(([name, said]) => {
            const value = said.get(id);
            const isSaid = value !== undefined && (value !== false || this.#properties.get(name)?.isSet);
            return isSaid ? [[name, value]] : [];
          }),
        ),
      })),
      like,
    };
  }
}

/** Whether a property can be given to a prop: of a choice they must be the same. */
const isAlike = ({ kind, choices = [] }: Pick<Property, 'kind' | 'choices'>, prop: Prop): boolean =>
  kind === kindOf(prop) && [...choices].sort().join() === [...(prop.choices ?? [])].sort().join();

const kindOf = ({ kind }: Prop): Property['kind'] => (kind === 'drawing' ? 'text' : kind);
const isField = ({ collection }: LiveCollection, name: string): boolean =>
  collection.fields.some((field) => field.name === name);

/** What more than half of them are. */
function usualOf(values: readonly PropValue[]): PropValue | undefined {
  const counts = new Map<string, { value: PropValue; count: number }>();
  for (const value of values) {
    const key = JSON.stringify(value);
    counts.set(key, { value, count: (counts.get(key)?.count ?? 0) + 1 });
  }
  return [...counts.values()].find(({ count }) => count * 2 > values.length)?.value;
}

/** What stands around the ids of records in the addresses that rows are given, where that is the same in all. */
function addressAround(
  ids: readonly string[],
  values: readonly (PropValue | undefined)[],
): { readonly before: string; readonly behind: string } | null {
  const [first] = values;
  const at = typeof first === 'string' ? first.lastIndexOf(`/${ids[0]}`) : -1;
  if (typeof first !== 'string' || at < 0 || ids.length < 2) return null;
  const [before, behind] = [first.slice(0, at + 1), first.slice(at + 1 + ids[0].length)];
  const isPlain = /^[\w/.~:-]*$/.test(before + behind);
  return isPlain && values.every((value, i) => value === before + ids[i] + behind)
    ? { before, behind }
    : null;
}

/** Fewer rows say nothing about which one is marked. */
const LEAST_ROWS = 3;

/** A flag that the first or the last row alone has is that of its place. */
function positionOf(prop: Prop, values: readonly (PropValue | undefined)[]): 'first' | 'last' | null {
  if (prop.kind !== 'flag' || values.length < LEAST_ROWS) return null;
  const set = values.flatMap((value, i) => (value === true ? [i] : []));
  if (set.length !== 1) return null;
  return set[0] === 0 ? 'first' : set[0] === values.length - 1 ? 'last' : null;
}

/** By what a row knows its record. */
const ID: Prop = { name: ROW_ID, proposed: ROW_ID, what: ROW_ID, at: [], kind: 'text', isOptional: false };

/** The constant of a list that stays as it was drawn, where one that changes is called so. */
const stillNamed = (data: string, taken: ReadonlySet<string>): string =>
  taken.has(data) ? `${data}Drawn` : data;

interface Lists {
  readonly uses: ReadonlyMap<string, LiveUse>;
  /** Constants that hold lists which change. */
  readonly taken: ReadonlySet<string>;
  /** Components that do something to the record that they show. */
  readonly speaking: ReadonlySet<string>;
}

/** Markup with lists that show records as they are, each with what stands there while none fits. */
function withLive(node: MarkupElement, lists: Lists): MarkupElement {
  const made = mapChildren(node, (child) => {
    if (isElement(child)) return withLive(child, lists);
    if (!('list' in child)) return child;
    const live = child.key === null ? undefined : lists.uses.get(child.key);
    if (live) return { ...child, list: { ...child.list, live } };
    const data = stillNamed(child.list.data, lists.taken);
    const givesId = lists.speaking.has(child.list.component);
    return data === child.list.data && !givesId
      ? child
      : { ...child, list: { ...child.list, data, ...(givesId ? { givesId } : {}) } };
  });
  const [shown] = made.children.flatMap((child) =>
    'list' in child && child.list.live ? [child.list.live] : [],
  );
  return shown ? { ...made, children: [...made.children, ...besideRows(made, shown)] } : made;
}
