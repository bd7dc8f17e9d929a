import { collectionsOf, eachPart, type Expression } from '../../../expression/expression.ts';
import type { KnownNames } from '../../../expression/language.ts';
import type { Target } from '../../../model/app.ts';
import { recordVariable } from '../../../model/names.ts';
import type { Project } from '../../../model/project.ts';
import {
  deedNames,
  type DeedPlace,
  filledIn,
  readDeed,
  type ReadDeed,
  rowCollectionOf,
} from '../../../records/deeds.ts';
import { readSetting, type Setting } from '../../../variables/variables.ts';
import { type EmittedRecordDeed, type EmittedStep, saidByDeed } from '../markup.ts';
import type { RecordStep } from './controls.ts';
import type { LiveCollection } from './live.ts';

/** Where the steps of an interaction are done. */
export interface DoneAt {
  readonly screen: string;
  readonly element: string;
  /** The record of the screen, as it is called and got in the app. */
  readonly shown: KnownNames['records'];
}

/**
 * What one of the steps of an interaction does to records, as it is written; null where it cannot be done.
 * @param live the collections of the app, by their ids
 */
export function emittedDeed(
  project: Project,
  live: ReadonlyMap<string, LiveCollection>,
  steps: readonly Target[],
  at: number,
  { screen, element, shown }: DoneAt,
): RecordStep | null {
  const step = steps[at];
  const of = step.kind === 'record' ? live.get(step.collection) : undefined;
  if (step.kind !== 'record' || !of) return null;
  const readAt = (i: number): ReadDeed | null => {
    const one = steps[i];
    const place = { screen, element, before: steps.slice(0, i) };
    if (one.kind !== 'record') return null;
    const made = readDeed(project, one, place, shown);
    return made.problem === undefined ? made.deed : null;
  };
  const read = readAt(at);
  if (!read) return null;
  const { app } = project;
  const own = recordVariable(of.collection.name);
  const isSpokenOf = steps.some((one, i) => {
    if (i <= at) return false;
    const later = readAt(i);
    return (
      (later !== null && spokenOf(expressionsOf(later), 'item').has(own)) ||
      spokenOf(
        expressionsOfSetting(project, one, { screen, element, before: steps.slice(0, i) }),
        'item',
      ).has(own)
    );
  });
  const known = new Set(of.collection.fields.map(({ name }) => name));
  const deed: EmittedRecordDeed =
    read.kind === 'add'
      ? {
          kind: 'add',
          fields: filledIn(app, read.form).filter(
            (field) => known.has(field) && !Object.hasOwn(read.says, field),
          ),
          says: Object.entries(read.says),
          ...(isSpokenOf ? { as: own } : {}),
        }
      : read.kind === 'set'
        ? { kind: 'set', to: [[read.field, read.to]], of: read.of }
        : read;
  const single = read.kind !== 'add' && read.of.kind === 'shown' ? Object.keys(shown ?? {})[0] : undefined;
  return {
    kind: 'record',
    records: of.name,
    ...(of.isRemote ? { isRemote: true } : {}),
    ...atHand(project, live, steps.slice(0, at), { screen, element, shown }, expressionsOf(read), single),
    deed,
  };
}

/** What single records a step speaks of that are at hand where it is done. */
export type AtHand = Pick<RecordStep, 'row' | 'shown' | 'asks'>;

/**
 * The record of the row and that of the screen, as far as expressions of a step speak of them.
 * @param before the steps that are done first, which may add records that are at hand then
 * @param meant the record of the screen that is meant without being spoken of
 */
export function atHand(
  project: Project,
  live: ReadonlyMap<string, LiveCollection>,
  before: readonly Target[],
  { element, shown }: DoneAt,
  expressions: readonly (readonly [Expression, asked?: string])[],
  meant?: string,
): AtHand {
  const items = spokenOf(expressions, 'item');
  const rowId = rowCollectionOf(project, element);
  const row = rowId === null ? undefined : live.get(rowId);
  const rowName = row && recordVariable(row.collection.name);
  const isAdded = before.some(
    (one) =>
      one.kind === 'record' &&
      one.deed.kind === 'add' &&
      recordVariable(project.app.collections[one.collection]?.name ?? '') === rowName,
  );
  const looksAt = new Set(expressions.flatMap(([one]) => [...collectionsOf(one)]));
  const asks = [...live.values()].flatMap(({ name, isRemote }) =>
    isRemote && looksAt.has(name) ? [name] : [],
  );
  const [spoken] = meant === undefined ? spokenOf(expressions, 'record') : [meant];
  return {
    ...(row && rowName && items.has(rowName) && !isAdded
      ? { row: { name: rowName, records: row.name } }
      : {}),
    ...(asks.length ? { asks } : {}),
    ...(spoken !== undefined && shown?.[spoken] ? { shown: { name: spoken, ...shown[spoken] } } : {}),
  };
}

/** The expressions of a step that sets a variable or says something; none of any other. */
function expressionsOfSetting(
  project: Project,
  step: Target,
  place: DeedPlace,
): readonly (readonly [Expression])[] {
  if (step.kind !== 'set' && step.kind !== 'say') return [];
  const read = readSetting(project.app, step, deedNames(project, place));
  return read && read.problem === undefined ? [[read.to]] : [];
}

/** A step that sets a variable or says something, as it is read where it is done, with what it speaks of there. */
export function emittedSetting(
  project: Project,
  live: ReadonlyMap<string, LiveCollection>,
  steps: readonly Target[],
  at: number,
  { screen, element, shown }: DoneAt,
): (Extract<Setting, { readonly to: Expression }> & AtHand) | null {
  const step = steps[at];
  if (step.kind !== 'set' && step.kind !== 'say') return null;
  const before = steps.slice(0, at);
  const names = { ...deedNames(project, { screen, element, before }), records: shown };
  const read = readSetting(project.app, step, names);
  if (!read || read.problem !== undefined) return null;
  return { ...read, ...atHand(project, live, before, { screen, element, shown }, [[read.to]]) };
}

/** The expressions of a deed, each with what it calls the record that it asks about. */
const expressionsOf = (deed: ReadDeed): readonly (readonly [Expression, asked?: string])[] =>
  deed.kind === 'add'
    ? Object.values(deed.says).map((says) => [says] as const)
    : [
        ...(deed.kind === 'set' ? [[deed.to] as const] : []),
        ...(deed.of.kind === 'where' ? [[deed.of.holds, deed.of.each] as const] : []),
      ];

/** What expressions speak of by name: single records at hand, but for the one that is asked about, or that of the screen. */
function spokenOf(
  expressions: readonly (readonly [Expression, asked?: string])[],
  kind: 'item' | 'record',
): ReadonlySet<string> {
  const found = new Set<string>();
  for (const [expression, asked] of expressions)
    eachPart(expression, (part) => {
      if (part.kind === kind && (kind === 'record' || part.name !== asked)) found.add(part.name);
    });
  return found;
}

/** Steps of which those that come one after the other and say something of the same records say it at once. */
export function togetherSaid(steps: readonly EmittedStep[]): EmittedStep[] {
  const made: EmittedStep[] = [];
  for (const step of steps) {
    const last = made.at(-1);
    const isMore =
      last?.kind === 'record' &&
      step.kind === 'record' &&
      last.deed.kind === 'set' &&
      step.deed.kind === 'set' &&
      last.records === step.records &&
      JSON.stringify(last.deed.of) === JSON.stringify(step.deed.of) &&
      !asksWhatChanged(last, step);
    if (isMore && last.deed.kind === 'set' && step.deed.kind === 'set')
      made[made.length - 1] = {
        ...last,
        ...(step.row ? { row: step.row } : {}),
        ...(step.shown ? { shown: step.shown } : {}),
        ...(last.asks || step.asks
          ? { asks: [...new Set([...(last.asks ?? []), ...(step.asks ?? [])])] }
          : {}),
        deed: { ...last.deed, to: [...last.deed.to, ...step.deed.to] },
      };
    else made.push(step);
  }
  return made;
}

/** Whether which records the second is about depends on what the first says of them. */
function asksWhatChanged(first: RecordStep, second: RecordStep): boolean {
  const said = first.deed.kind === 'set' ? new Set(first.deed.to.map(([field]) => field)) : new Set<string>();
  let found = false;
  for (const expression of saidByDeed(second.deed))
    eachPart(expression, (part) => (found ||= part.kind === 'field' && said.has(part.name)));
  return found;
}
