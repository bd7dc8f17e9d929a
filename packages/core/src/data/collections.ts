import type { Screen } from '../model/design.ts';
import { uniqueName } from '../model/names.ts';
import { ticked } from '../records/records.ts';
import type { Cell } from './columns.ts';
import { hasParent } from '../roles/sight.ts';
import { type FoundList, listsOf, NO_NAME } from './drawn_lists.ts';
import type { ProposedField } from './fields.ts';
import { collectionBy, onScreen } from './names.ts';

/** Where the records of a collection are drawn. */
export interface CollectionPlace {
  /** Key of the screen. */
  readonly screen: string;
  /** Key of the element that holds the rows. */
  readonly within: string;
  /** Keys of the rows, in reading order. */
  readonly rows: readonly string[];
  /** Keys of what shows each field in each row, by the name of the field. */
  readonly shows: Readonly<Record<string, readonly (string | null)[]>>;
  /** What each row says, by the name of the field. */
  readonly records: readonly Readonly<Record<string, string>>[];
}

/** Records of one kind that screens show, as a proposal. */
export interface CollectionProposal {
  readonly name: string;
  readonly places: readonly CollectionPlace[];
  readonly fields: readonly ProposedField[];
  /** How many different records were drawn. */
  readonly records: number;
  /** How sure it is, 0 to 1. */
  readonly confidence: number;
  readonly reason: string;
}

/** Two lists are of one collection when so much of their fields is the same. */
const SAME_FIELDS = 0.25;

/** The collections that lists and tables of all screens show, the surest first. */
export function findCollections(screens: readonly Screen[]): CollectionProposal[] {
  const lists = screens.flatMap((screen) => withoutGroups(listsOf(screen)));
  const groups: FoundList[][] = [];
  for (const list of lists) {
    const same = groups.find(([first]) => areSame(first, list));
    if (same) same.push(list);
    else groups.push([list]);
  }
  const taken = new Set<string>();
  const named = new Map(screens.map(({ key, name }) => [key, name]));
  return groups
    .map((group) => proposalOf(group))
    .sort((a, b) => b.confidence - a.confidence || b.records - a.records)
    .map((proposal) => {
      const isTaken = (one: string): boolean => taken.has(one);
      const name = uniqueName(
        isTaken(proposal.name)
          ? onScreen(proposal.name, named.get(proposal.places[0].screen)!)
          : proposal.name,
        isTaken,
        '',
      );
      taken.add(name);
      return { ...proposal, name };
    });
}

/** Lists without those whose rows are groups, each with a list of things of one kind in it. */
function withoutGroups(lists: readonly FoundList[]): FoundList[] {
  const isInRow = (list: FoundList, row: FoundList['rows'][number]): boolean =>
    list.within === row || hasParent(list.within, (parent) => parent === row);
  return lists.filter((list) => {
    const holding = list.rows.filter((row) => lists.some((other) => other !== list && isInRow(other, row)));
    return list.hasHead || holding.length < 2 || holding.length * 2 <= list.rows.length;
  });
}

function areSame(a: FoundList, b: FoundList): boolean {
  const names = new Set(a.fields.map(({ name }) => name));
  const shared = b.fields.filter(({ name }) => names.has(name)).length;
  const likeness = shared / Math.max(1, new Set([...names, ...b.fields.map(({ name }) => name)]).size);
  return a.name === b.name && a.name !== NO_NAME
    ? likeness >= SAME_FIELDS
    : likeness > 0.8 && a.fields.length > 2 && a.hasHead === b.hasHead && hasSameRecord(a, b);
}

/** Whether some record of one list stands in the other. */
function hasSameRecord(a: FoundList, b: FoundList): boolean {
  const said = (list: FoundList): Set<string> =>
    new Set(list.rows.map((_, i) => recordOf(list, i).join('|')).filter((text) => text.length > 12));
  const known = said(a);
  return [...said(b)].some((one) => known.has(one));
}

const recordOf = ({ fields }: FoundList, row: number): string[] =>
  fields.map(({ column }) => column.cells[row]?.text ?? '').filter(Boolean);

function proposalOf(group: readonly FoundList[]): CollectionProposal {
  const best = group.reduce((most, list) => (list.confidence > most.confidence ? list : most));
  const fields = new Map<string, ProposedField>();
  for (const list of [best, ...group.filter((one) => one !== best)])
    for (const { column: _column, ...field } of list.fields)
      if (!fields.has(field.name)) fields.set(field.name, field);
  const places = group.map((list): CollectionPlace => ({
    screen: list.screen.key,
    within: list.within.element.key,
    rows: list.rows.map(({ element }) => element.key),
    shows: Object.fromEntries(
      list.fields.map(({ name, column }) => [
        name,
        column.cells.map((cell) => cell?.sight.element.key ?? null),
      ]),
    ),
    records: list.rows.map((_, i) =>
      Object.fromEntries(
        list.fields.flatMap(({ name, column }) => {
          const cell = column.cells[i];
          return cell ? [[name, valueOf(cell)]] : [];
        }),
      ),
    ),
  }));
  const distinct = new Set(places.flatMap(({ records }) => records.map((record) => JSON.stringify(record))));
  const more = group.length > 1 ? `; ${group.length} lists show the same kind of record` : '';
  // Lists of one kind under several headings are called after what they list.
  const isOver = new Set(group.map(({ name }) => name)).size > 1;
  const thing = isOver && group.every((list) => list.thing === best.thing) ? best.thing : null;
  return {
    name:
      thing ??
      (best.name === NO_NAME
        ? (collectionBy(best.fields, best.rows.length, best.screen.name) ?? NO_NAME)
        : best.name),
    places,
    fields: [...fields.values()],
    records: distinct.size,
    confidence: Math.min(0.97, best.confidence + (group.length > 1 ? 0.04 : 0)),
    reason: best.reason + more,
  };
}

/** What a cell says as a value: of a picture its file, of a box to tick whether it is. */
function valueOf({ kind, text, sight }: Cell): string {
  const { element } = sight;
  if (kind === 'picture') return element.asset ?? text;
  if (kind === 'check') return ticked(element);
  if (kind === 'progress') return element.attributes?.['aria-valuenow'] ?? element.attributes?.value ?? text;
  return text;
}
