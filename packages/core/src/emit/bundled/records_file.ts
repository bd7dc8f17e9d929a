import { sentenceCase } from '../../model/names.ts';
import type { LiveView, ViewOptions } from '../form/live/live.ts';
import type { EmittedCollection, Property } from '../form/live/records.ts';
import type { PropValue } from '../form/markup.ts';
import { joined, named, onLines, remark, script, type Script } from '../script.ts';
import type { Around } from './dialect.ts';
import { hookForAll } from './wording.ts';

/**
 * Writes the records of a collection, what can be done to them, and how its lists show them.
 * @returns the text, and the hashes of the pictures that it takes
 */
export function recordsFile(
  { live, properties, records, like }: EmittedCollection,
  assetImport: Around['assetImport'],
): { readonly text: string; readonly assets: readonly string[] } {
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
  const written = records.map((one) => script`    ${literal(one)},`);
  const views = new Map(live.views.map((view) => [view.hook, view]));
  const given = [
    ...[...views.values()].map((view) => hookOf(view, list, prefix)),
    ...[...live.details].map(
      ([parameter, hook]) => script`
/** The one that the address says. */
export const ${named(hook)} = () => useRecord(${list}, ${parameter});
`,
    ),
    ...(live.isCounted
      ? [
          script`
/** All of them. */
export const ${named(hookForAll(name))} = () => useRecords(${list});
`,
        ]
      : []),
  ];
  const body = script`export interface ${row} {
  id: string;
${onLines(properties.map((property) => propertyLine(property, labels.get(property.name) ?? '')))}
}

/** What is done to them is kept on the device. */
export const ${list} = createRecords<${row}>(
  ${name},
  [
${onLines(written)}
  ],
  ${literal(like)},
);
${joined(given)}`;
  const imports = onLines([
    script`import { createRecords } from '../records/records';`,
    ...(views.size ? [script`import { useListing } from '../records/useListing';`] : []),
    ...(live.details.size ? [script`import { useRecord } from '../records/useRecord';`] : []),
    ...(live.isCounted ? [script`import { useRecords } from '../records/useRecords';`] : []),
    ...[...assets].sort().map(([one, { path }]) => script`import ${named(one)} from ${path};`),
  ]);
  return { text: script`${imports}\n\n${body}`.text, assets: [...assets.values()].map(({ hash }) => hash) };
}

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
function hookOf({ hook, options }: LiveView, list: Script, prefix: string): Script {
  const more = prefix ? script`, ${prefix}` : script``;
  return script`
/** ${remark(sentenceCase(list.text))} as they are looked at. */
export const ${named(hook)} = () =>
  useListing(${list}, { ${optionsOf(options)} }${more});
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
