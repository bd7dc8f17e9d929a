import { sentenceCase } from '../../model/names.ts';
import type { LiveView, ViewOptions } from '../form/live/live.ts';
import type { EmittedCollection, Property } from '../form/live/records.ts';
import type { PropValue } from '../form/markup.ts';
import { joined, named, onLines, printed, propertyName, remark, script, type Script } from '../script.ts';
import { lookupFor } from '../form/live/lookups.ts';
import type { ApiCode } from '../form/live/apis.ts';
import type { Expression } from '../../expression/expression.ts';
import { printExpression } from '../print_expression.ts';
import { recordsApartFile } from '../records_apart.ts';
import type { Around, Dialect } from './dialect.ts';
import { remoteRecords } from './remote_records.ts';
import { allNamed, hookForAll } from './wording.ts';

/** The files of the records of a collection. */
interface RecordsFiles {
  readonly text: string;
  /** The records alone, where they stand apart from what follows them and something else. */
  readonly apart: string | null;
  /** Hashes of the pictures that they take. */
  readonly assets: readonly string[];
}

/**
 * Writes the records of a collection, what can be done to them, and how its lists show them.
 * @param isApart whether the records stand in a file of their own
 */
export function recordsFile(
  emitted: EmittedCollection,
  assetImport: Around['assetImport'],
  api: ApiCode | null,
  beside: Dialect['beside'],
  isApart = false,
): RecordsFiles {
  const { live, properties, records, like } = emitted;
  const assets = new Map<string, { readonly hash: string; readonly path: string }>();
  const value = (one: PropValue): Script => {
    if (typeof one !== 'object') return script`${one}`;
    if (!('asset' in one)) throw new RangeError('a record holds texts, flags and pictures');
    const { name, path } = assetImport(one.asset);
    assets.set(name, { hash: one.asset, path });
    return named(name);
  };
  const literal = (entries: Readonly<Record<string, PropValue>>): Script =>
    script`{ ${Object.entries(entries).map(([name, one]) => script`${named(name)}: ${value(one)}`)} }`;
  const { name, record, collection, prefix } = live;
  const [list, row] = [named(name), named(record)];
  const labels = new Map(collection.fields.map((field) => [field.name, field.label ?? '']));
  const calls = api ? REMOTE : KEPT;
  const isField = (one: string): boolean => collection.fields.some((field) => field.name === one);
  const follows = api
    ? []
    : properties.flatMap((one) => {
        const found = lookupFor(one, properties, records, isField);
        if (!found) return [];
        const is = found.values.map(([text, is]) => script`${propertyName(text)}: ${value(is)}`);
        return [script`${named(one.name)}: { by: ${found.by}, is: { ${is} } }`];
      });
  const remote = api && remoteRecords(emitted, api, value);
  const views = new Map(live.views.map((view) => [view.hook, view]));
  const shown = new Map(
    [...views.values()].flatMap((view) =>
      view.options.of ? [[view, shownBy(view.options.of, name, beside)] as const] : [],
    ),
  );
  const said = [...shown.values()];
  const others = new Set(said.flatMap((one) => one.records));
  const given = [
    ...[...views.values()].map((view) => hookOf(view, { name, prefix, calls, shown: shown.get(view) })),
    ...[...live.details].map(
      ([parameter, hook]) => script`
/** The one that the address says. */
export const ${named(hook)} = () => ${named(calls.record)}(${list}, ${parameter});
`,
    ),
    ...(live.isCounted
      ? [
          script`
/** All of them. */
export const ${named(hookForAll(name))} = () => ${named(calls.records)}(${list});
`,
        ]
      : []),
  ];
  const body = script`export interface ${row} {
  id: string;
${onLines(properties.map((property) => propertyLine(property, labels.get(property.name) ?? '')))}
}

${
  remote
    ? remote.body
    : script`/** What is done to them is kept on the device. */
export const ${list} = createRecords<${row}>(
  ${name},
  [
${onLines(records.map((one) => script`    ${literal(one)},`))}
  ],
  ${literal(like)},
${
  follows.length
    ? script`  { ${follows} },
`
    : script``
});
`
}`;
  const hook = (one: string): Script => script`import { ${named(one)} } from ${`../records/${one}`};`;
  const takenByRecords = [
    ...(api && remote ? [script`import { ${remote.imports} } from ${`../api/${api.file}`};`] : []),
    remote
      ? script`import { ${remote.helpers} } from '../records/remote';`
      : script`import { createRecords } from '../records/records';`,
  ];
  const takenByLists = [
    ...(views.size ? [hook(calls.listing)] : []),
    ...(live.details.size ? [hook(calls.record)] : []),
    ...(live.isCounted ? [hook(calls.records)] : []),
    ...(said.some(({ callsFunctions }) => callsFunctions)
      ? [script`import * as calc from '../records/functions';`]
      : []),
    ...(said.some(({ variables }) => variables.length)
      ? [script`import { ${named(beside.takes)} } from '../state/variables';`]
      : []),
    ...[...others]
      .sort()
      .map((other) => script`import { ${named(hookForAll(other))} } from ${`./${other}`};`),
  ];
  const pictures = [...assets].sort().map(([one, { path }]) => script`import ${named(one)} from ${path};`);
  const hashes = [...assets.values()].map(({ hash }) => hash);
  const texts = (imports: readonly Script[], of: Script): string => script`${onLines(imports)}\n\n${of}`.text;
  if (!isApart)
    return {
      text: texts([...takenByRecords, ...takenByLists, ...pictures], script`${body}${joined(given)}`),
      apart: null,
      assets: hashes,
    };
  const file = `./${recordsApartFile(name)}`;
  return {
    text: texts(
      [...takenByLists, script`import { ${list} } from ${file};`],
      script`export { ${list}, type ${row} } from ${file};
${joined(given)}`,
    ),
    apart: texts([...takenByRecords, ...pictures], body),
    assets: hashes,
  };
}

/** The functions that give records which are kept in the app, and those that give what an API keeps. */
const KEPT = { listing: 'useListing', record: 'useRecord', records: 'useRecords' } as const;
const REMOTE = {
  listing: 'useRemoteListing',
  record: 'useRemoteRecord',
  records: 'useRemoteRecords',
} as const;

function propertyLine({ name, kind, choices = [], isOptional }: Property, label: string): Script {
  const type =
    kind === 'flag'
      ? script`boolean`
      : kind === 'choice' && choices.length
        ? joined(
            choices.map((one) => script`${one}`),
            ' | ',
          )
        : script`string`;
  const says =
    label && label.toLowerCase() !== name.toLowerCase() ? script`  /** ${remark(label)}. */\n` : script``;
  return script`${says}  ${named(name)}${isOptional ? script`?` : script``}: ${type};`;
}

/** Which records a list shows, as it is written. */
interface ShownBy {
  /** What it is of all of them. */
  readonly code: Script;
  readonly variables: readonly string[];
  /** Other collections whose records it looks at. */
  readonly records: readonly string[];
  readonly callsFunctions: boolean;
  /** What stands before it. */
  readonly before: readonly Script[];
}

function shownBy(of: Expression, own: string, beside: Dialect['beside']): ShownBy {
  const [variables, records] = [new Set<string>(), new Set<string>()];
  let callsFunctions = false;
  const code = printExpression(of, {
    prop: never,
    parameter: never,
    listing: never,
    variable: (name) => {
      variables.add(name);
      return beside.variable(name);
    },
    records: (name) => {
      if (name === own) return 'all';
      records.add(name);
      return beside.all(name);
    },
    called: (name) => {
      callsFunctions = true;
      return `calc.${name}`;
    },
    path: '',
  });
  const looksAt = [...variables].sort();
  const before = looksAt.length ? beside.before(looksAt) : null;
  return {
    code: printed(code),
    variables: looksAt,
    records: [...records],
    callsFunctions,
    before: [
      ...(before ? [before] : []),
      ...[...records]
        .sort()
        .map((name) => script`const ${named(allNamed(name))} = ${named(hookForAll(name))}();`),
    ],
  };
}

const never = (): never => {
  throw new RangeError('which records a list shows looks at variables and records alone');
};

interface ListCode {
  readonly name: string;
  readonly prefix: string;
  readonly calls: typeof KEPT | typeof REMOTE;
  readonly shown: ShownBy | undefined;
}

/** The function that gives a list to a component. */
function hookOf({ hook, options }: LiveView, { name, prefix, calls, shown }: ListCode): Script {
  const more = prefix ? script`, ${prefix}` : script``;
  const given = [...(shown ? [script`of: (all) => ${shown.code}`] : []), ...optionsOf(options)];
  const call = script`${named(calls.listing)}(${named(name)}, { ${given} }${more})`;
  const says = script`/** ${remark(sentenceCase(name))} as they are looked at. */`;
  if (!shown?.before.length)
    return script`
${says}
export const ${named(hook)} = () =>
  ${call};
`;
  return script`
${says}
export function ${named(hook)}() {
${onLines(shown.before.map((line) => script`  ${line}`))}
  return ${call};
}
`;
}

function optionsOf({ where, searched, sortedAs, filtered, within, perPage }: ViewOptions): Script[] {
  const as = Object.entries(sortedAs).map(([field, kind]) => script`${named(field)}: ${kind}`);
  return [
    ...(where
      ? [
          'field' in where
            ? script`where: (one) => one.${named(where.field)} === ${where.value}`
            : script`where: (one) => [${where.ids}].includes(one.id)`,
        ]
      : []),
    ...(searched.length ? [script`searched: [${searched}]`] : []),
    ...(as.length ? [script`sortedAs: { ${as} }`] : []),
    ...(filtered.length ? [script`filtered: [${filtered}]`] : []),
    ...(within.length ? [script`within: [${within}]`] : []),
    ...(perPage === undefined ? [] : [script`perPage: ${perPage}`]),
  ];
}
