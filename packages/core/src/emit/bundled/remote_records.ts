import type { ApiOperation } from '../../described/description.ts';
import { camelCase, pascalCase, uniqueCodeName } from '../../model/names.ts';
import type { AskedBy } from '../../standin/answer.ts';
import { askedBy } from '../../standin/plan.ts';
import type { EmittedCollection } from '../form/live/records.ts';
import { lookupFor } from '../form/live/lookups.ts';
import type { PropValue } from '../form/markup.ts';
import {
  joined,
  named,
  onLines,
  optionalProperty,
  property,
  propertyAt,
  propertyName,
  script,
  type Script,
} from '../script.ts';
import { type ApiCode, typeOfRecords } from '../form/live/apis.ts';

/** How the records of a collection come from an API, as code. */
export interface RemoteCode {
  /** The constants that make records of what the API gives, and the other way round, and the one with the records. */
  readonly body: Script;
  /** What is taken from the file of the API, with `type` before types. */
  readonly imports: readonly Script[];
  /** What is taken from `records/remote`. */
  readonly helpers: readonly Script[];
}

const NOTHING = script``;

/** A field of a collection and the property that it is. */
interface Bound {
  readonly field: string;
  readonly name: string;
}

/**
 * Writes the records of a collection that an API keeps.
 * @param value a text, a flag or a picture as it is written
 */
export function remoteRecords(
  { live, properties, records, like }: EmittedCollection,
  code: ApiCode,
  value: (one: PropValue) => Script,
): RemoteCode {
  const behind = live.collection.behind!;
  const operation = (id: string | undefined): ApiOperation | undefined =>
    code.description.operations.find((one) => one.id === id);
  const list = operation(behind.list)!;
  const asked = askedBy(list);
  // What stands within a record of a record is read alone.
  const plain = Object.entries(behind.fields).flatMap(([field, name]): Bound[] =>
    name.includes('.') ? [] : [{ field, name }],
  );
  const type = typeOfRecords(code, list)!;
  const row = named(live.record);
  const given = named(variableFor(type, 'given'));
  const typed = named(type === live.record ? `${type}Given` : type);
  const toRow = named(`to${pascalCase(live.record)}`);
  const toGiven = named(`from${pascalCase(live.record)}`);
  const fieldOf = (name: string): string | undefined =>
    Object.hasOwn(behind.fields, name) ? behind.fields[name] : undefined;
  const lookups = properties.flatMap((one) => {
    const found = lookupFor(one, properties, records, (name) => fieldOf(name) !== undefined);
    return found
      ? [{ ...found, constant: camelCase(`${found.name} by ${found.by}`), from: fieldOf(found.by)! }]
      : [];
  });
  const says = properties.flatMap((one): Script[] => {
    const from = fieldOf(one.name);
    const usual = like[one.name];
    const written = usual === undefined ? NOTHING : script` || ${value(usual)}`;
    if (from !== undefined)
      return [
        script`${named(one.name)}: said(${chain(given, from)})${one.kind === 'image' ? written : NOTHING},`,
      ];
    const lookup = lookups.find(({ name }) => name === one.name);
    if (lookup)
      return [
        script`${named(one.name)}: ${named(lookup.constant)}[said(${chain(given, lookup.from)})]${usual === undefined ? NOTHING : script` ?? ${value(usual)}`},`,
      ];
    return usual === undefined ? [] : [script`${named(one.name)}: ${value(usual)},`];
  });
  const [read, remove] = [operation(behind.read), operation(behind.remove)];
  const self = named(variableFor(live.record, 'one'));
  const sends = [operation(behind.add), operation(behind.change)].filter((one) => one !== undefined);
  const writes = sends.length ? sentOf({ list, sends, fields: plain, record: self, given: typed }) : [];
  // What takes nothing that is known here cannot be asked.
  const [add, change] = writes.length ? [operation(behind.add), operation(behind.change)] : [];
  const call = (one: ApiOperation): Script => named(code.functions.get(one.id)!);
  const query = askedFor(asked, plain);
  const hasQuery = list.parameters.some((one) => one.in === 'query');
  const called = plain.flatMap(({ field, name }) =>
    field === name ? [] : [script`${propertyName(name)}: ${field}`],
  );
  const answer = propertyAt(script`answer`, list.envelope);
  const total = list.total && propertyAt(script`answer`, list.total);
  const body = script`${joined(
    lookups.map(
      ({
        name,
        constant,
        values,
      }) => script`const ${named(constant)}: Partial<Record<string, ${row}[${name}]>> = {
${onLines(values.map(([text, one]) => script`  ${propertyName(text)}: ${value(one)},`))}
};

`,
    ),
  )}const ${toRow} = (${given}: ${typed}): ${row} => ({
  id: said(${chain(given, behind.key)}),
${onLines(says.map((line) => script`  ${line}`))}
});
${
  writes.length
    ? script`
const ${toGiven} = (${self}: Partial<${row}>): Partial<${typed}> => ({
${onLines(writes.map((line) => script`  ${line}`))}
});
`
    : NOTHING
}
/** What is done to them is kept by the API. */
export const ${named(live.name)} = createRemote<${row}>({
  name: ${live.name},
  list: async (${query.length ? script`asked` : script`_asked`}, signal) => {
    const answer = await ${call(list)}(${hasQuery ? script`{ ${query} }, ` : NOTHING}signal);
    return { rows: ${answer}.map(${toRow})${total ? script`, total: ${total}` : NOTHING} };
  },
  does: { ${doneBy(list, asked, plain)} },
${onLines([
  ...(read
    ? [
        script`  read: async (id, signal) => ${toRow}(${propertyAt(script`(await ${call(read)}(id, signal))`, read.envelope)}),`,
      ]
    : []),
  ...(add ? [script`  add: (values) => ${call(add)}(${toGiven}(values)),`] : []),
  ...(change ? [script`  change: (id, values) => ${call(change)}(id, ${toGiven}(values)),`] : []),
  ...(remove ? [script`  remove: (id) => ${call(remove)}(id),`] : []),
  ...(called.length ? [script`  called: { ${called} },`] : []),
])}
});
`;
  const used = [list, read, add, change, remove].filter((one) => one !== undefined);
  return {
    body,
    imports: [
      ...used.map(call),
      type === live.record ? script`type ${named(type)} as ${typed}` : script`type ${named(type)}`,
    ],
    helpers: [
      script`createRemote`,
      script`said`,
      // What the body calls.
      ...['numberIn', 'sortName'].flatMap((name) => (body.text.includes(`${name}(`) ? [named(name)] : [])),
    ],
  };
}

/** A name for a value of a type that hides nothing that is called beside it. */
const variableFor = (type: string, otherwise: string): string =>
  uniqueCodeName(camelCase(type), otherwise, (one) => one === type || HELPERS.has(one));

const HELPERS: ReadonlySet<string> = new Set(['said', 'numberIn', 'sortName', 'createRemote']);

/** `tool.shelf?.name`. */
const chain = (of: Script, path: string): Script => {
  const [first, ...rest] = path.split('.');
  return rest.reduce((inner, name) => optionalProperty(inner, name), property(of, first));
};

/** What the API does by itself, as fields of a literal. */
function doneBy(list: ApiOperation, asked: readonly AskedBy[], fields: readonly Bound[]): Script[] {
  const has = (purpose: AskedBy['for']): boolean => asked.some((one) => one.for === purpose);
  const choices = list.parameters.find((one) => one.for === 'sort')?.choices;
  const sortable = choices?.map((one) => one.replace(/^[-+]/, ''));
  const sorts = fields.filter(({ name }) => !sortable || sortable.includes(name));
  const filters = filtersOf(asked, fields);
  return [
    ...(has('search') ? [script`search: true`] : []),
    ...((has('page') || has('offset')) && has('page-size') ? [script`pages: true`] : []),
    ...(has('sort') && sorts.length ? [script`sort: [${sorts.map(({ field }) => field)}]`] : []),
    ...(filters.size ? [script`filter: [${[...filters.values()]}]`] : []),
  ];
}

/** The field that each filter of the API looks at, by the name of its parameter. */
const filtersOf = (asked: readonly AskedBy[], fields: readonly Bound[]): Map<string, string> =>
  new Map(
    asked.flatMap(({ name, for: purpose, property: of = name }) => {
      const bound = purpose === 'filter' ? fields.find((one) => one.name === of) : undefined;
      return bound ? [[name, bound.field] as const] : [];
    }),
  );

/** What is asked for, as the parameters of the operation. */
function askedFor(asked: readonly AskedBy[], fields: readonly Bound[]): Script[] {
  const filters = filtersOf(asked, fields);
  const hasOrder = asked.some((one) => one.for === 'order');
  const renamed = fields.filter(({ field, name }) => field !== name);
  const names = renamed.map(({ field, name }) => script`${propertyName(field)}: ${name}`);
  const sort = names.length ? script`sortName(asked.sort, { ${names} })` : script`asked.sort`;
  return asked.flatMap(({ name, for: purpose }): Script[] => {
    const is = (what: Script): Script[] => [script`${propertyName(name)}: ${what}`];
    switch (purpose) {
      case 'search':
        return is(script`asked.search`);
      case 'page':
        return is(script`asked.page`);
      case 'page-size':
        return is(script`asked.perPage`);
      case 'offset':
        return is(script`((asked.page ?? 1) - 1) * (asked.perPage ?? 0)`);
      case 'sort':
        return is(hasOrder ? script`${sort}?.replace(/^-/, '')` : sort);
      case 'order':
        return is(script`asked.sort && (asked.sort.startsWith('-') ? 'desc' : 'asc')`);
      case 'filter': {
        const field = filters.get(name);
        return field === undefined ? [] : is(property(script`asked.filters`, field));
      }
    }
  });
}

/** What is sent of a record, as fields of a literal. */
function sentOf({
  list,
  sends,
  fields,
  record,
  given,
}: {
  readonly list: ApiOperation;
  readonly sends: readonly ApiOperation[];
  readonly fields: readonly Bound[];
  readonly record: Script;
  /** The type of what is sent. */
  readonly given: Script;
}): Script[] {
  const taken = new Set(sends.flatMap((one) => one.sends.map(({ name }) => name)));
  return fields.flatMap(({ field, name }): Script[] => {
    const known = list.fields.find((one) => one.name === name);
    // What is a record itself there is no text that somebody could enter.
    if (!known || known.parts?.length || (taken.size > 0 && !taken.has(name))) return [];
    const value = property(record, field);
    const is = (what: Script): Script[] => [script`${propertyName(name)}: ${what},`];
    switch (known.json) {
      case 'integer':
      case 'number':
        return is(script`numberIn(${value})`);
      case 'boolean':
        return is(script`${value} === undefined ? undefined : ${value} === 'yes'`);
      case undefined:
      case 'string':
        return is(known.choices?.length ? script`${value} as ${given}[${name}]` : value);
      default:
        return [];
    }
  });
}
