import { sentenceCase } from '../../model/names.ts';
import type { LiveView, ViewOptions } from '../form/live/live.ts';
import type { EmittedCollection, Property } from '../form/live/records.ts';
import type { PropValue } from '../form/markup.ts';
import { joined, named, onLines, propertyName, remark, script, type Script } from '../script.ts';
import { lookupFor } from '../form/live/lookups.ts';
import type { ApiCode } from '../form/live/apis.ts';
import type { Around } from './dialect.ts';
import { remoteRecords } from './remote_records.ts';
import { hookForAll } from './wording.ts';

/**
 * Writes the records of a collection, what can be done to them, and how its lists show them.
 * @returns the text, and the hashes of the pictures that it takes
 */
export function recordsFile(
  emitted: EmittedCollection,
  assetImport: Around['assetImport'],
  api: ApiCode | null,
): { readonly text: string; readonly assets: readonly string[] } {
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
  const given = [
    ...[...views.values()].map((view) => hookOf(view, list, prefix, calls)),
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
}${joined(given)}`;
  const hook = (one: string): Script => script`import { ${named(one)} } from ${`../records/${one}`};`;
  const imports = onLines([
    ...(api && remote ? [script`import { ${remote.imports} } from ${`../api/${api.file}`};`] : []),
    remote
      ? script`import { ${remote.helpers} } from '../records/remote';`
      : script`import { createRecords } from '../records/records';`,
    ...(views.size ? [hook(calls.listing)] : []),
    ...(live.details.size ? [hook(calls.record)] : []),
    ...(live.isCounted ? [hook(calls.records)] : []),
    ...[...assets].sort().map(([one, { path }]) => script`import ${named(one)} from ${path};`),
  ]);
  return { text: script`${imports}\n\n${body}`.text, assets: [...assets.values()].map(({ hash }) => hash) };
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

/** The function that gives a list to a component. */
function hookOf(
  { hook, options }: LiveView,
  list: Script,
  prefix: string,
  { listing }: typeof KEPT | typeof REMOTE,
): Script {
  const more = prefix ? script`, ${prefix}` : script``;
  return script`
/** ${remark(sentenceCase(list.text))} as they are looked at. */
export const ${named(hook)} = () =>
  ${named(listing)}(${list}, { ${optionsOf(options)} }${more});
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
