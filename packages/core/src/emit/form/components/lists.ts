import { kebabCase, plural, uniqueCodeName } from '../../../model/names.ts';
import type { Component } from '../../../model/app.ts';
import { type KeptRow, recordIds } from '../../../records/kept_rows.ts';
import { isElement, type MarkupElement, type MarkupNode, type PropValue } from '../markup.ts';

/** The records of a list of one screen, or of one within a component. */
export interface EmittedList {
  /** Name of the constant. */
  readonly data: string;
  readonly component: string;
  readonly records: readonly Readonly<Record<string, PropValue>>[];
  /** Keys of the rows, in order. */
  readonly rows: readonly string[];
}

/** Puts one list where rows of a component stand one after the other. */
export function gatherLists(
  root: MarkupElement,
  component: string,
  wanted: Component,
  lists: EmittedList[],
  recordsOf: ReadonlyMap<string, string>,
  before: ReadonlyMap<string, KeptRow>,
): MarkupElement {
  const rows = new Set(wanted.places);
  const visit = (node: MarkupElement): MarkupElement => {
    const children: MarkupNode[] = [];
    for (let i = 0; i < node.children.length; i++) {
      const child = node.children[i];
      const isRow = (other: MarkupNode | undefined): other is MarkupElement =>
        !!other &&
        isElement(other) &&
        other.use?.component === component &&
        other.key !== null &&
        rows.has(other.key);
      if (!isRow(child) || !isRow(node.children[i + 1])) {
        children.push(isElement(child) ? visit(child) : child);
        continue;
      }
      const run: MarkupElement[] = [];
      for (; isRow(node.children[i]); i++) run.push(node.children[i] as MarkupElement);
      i--;
      const isTaken = (name: string): boolean => lists.some((one) => one.data === name);
      const list = listOf(component, run, isTaken, recordsOf, before);
      lists.push(list);
      children.push({
        key: run[0].key,
        list: { component, data: list.data, records: list.records },
      });
    }
    return { ...node, children };
  };
  return visit(root);
}

/** Props that choose a look, or name a place. */
const UNSAID = /(variant|color|size)\d*$|^(to|part|anchor|fieldId)\d*$/i;

/** The first words among what a row is given; what nobody reads only where there are no others. */
function firstSaid(props: Readonly<Record<string, PropValue>>): string | undefined {
  const said = Object.entries(props).flatMap(([name, value]) =>
    typeof value === 'string' && /\p{L}/u.test(value) ? [{ name, value }] : [],
  );
  return (said.find(({ name }) => !UNSAID.test(name)) ?? said[0])?.value;
}

/** So many rows one after the other are written as a list; fewer are read as quickly one by one. */
const LEAST_ROWS = 4;

/**
 * A component in which the same component stands several times in a row, given what never changes, with those as a list: the
 * columns of a table's head, the rows of a table that is there twice.
 */
export function withFixedRows<
  C extends { readonly root: MarkupElement; readonly props: readonly { readonly name: string }[] },
>(component: C): C & { readonly lists?: readonly EmittedList[] } {
  const lists: EmittedList[] = [];
  const taken = new Set(component.props.map(({ name }) => name));
  const visit = (node: MarkupElement): MarkupElement => {
    const children: MarkupNode[] = [];
    for (let i = 0; i < node.children.length; i++) {
      const run = runAt(node.children, i);
      const child = node.children[i];
      if (run.length < LEAST_ROWS) children.push(isElement(child) ? visit(child) : child);
      else {
        const list = listOf(run[0].use!.component, run, (name) => taken.has(name));
        taken.add(list.data);
        lists.push(list);
        i += run.length - 1;
        children.push({
          key: run[0].key,
          list: { component: list.component, data: list.data, records: list.records },
        });
      }
    }
    return { ...node, children };
  };
  const root = visit(component.root);
  return lists.length ? { ...component, root, lists } : component;
}

/** The uses of one component that stand at a place of these, one after the other. */
function runAt(nodes: readonly MarkupNode[], at: number): readonly MarkupElement[] {
  const run: MarkupElement[] = [];
  for (const node of nodes.slice(at)) {
    if (!isFixed(node) || (run.length && node.use!.component !== run[0].use!.component)) break;
    run.push(node);
  }
  return run;
}

/** Whether it is a component that is there in any case, the same each time, and holds nothing. */
const isFixed = (node: MarkupNode): node is MarkupElement =>
  isElement(node) &&
  node.use !== undefined &&
  !node.when &&
  node.className === null &&
  node.children.length === 0 &&
  Object.values(node.use.props).every(isPlain);

const isPlain = (value: PropValue): boolean => typeof value !== 'object' || 'asset' in value;

/** The list of rows of a component. @param isTaken names that the constant cannot have */
function listOf(
  component: string,
  run: readonly MarkupElement[],
  isTaken: (name: string) => boolean,
  recordsOf: ReadonlyMap<string, string> = new Map(),
  before: ReadonlyMap<string, KeptRow> = new Map(),
): EmittedList {
  const wereKnown = run.flatMap(({ key }) => before.get(key ?? '') ?? []);
  const ids = recordIds(
    run,
    ({ key }) => before.get(key ?? '')?.id,
    ({ use }) => kebabCase(firstSaid(use!.props) ?? '').slice(0, 40),
  );
  const records = run.map((row, i) => ({ id: ids[i], ...row.use!.props }));
  const plain =
    `${component.charAt(0).toLowerCase()}${component.slice(1)}`.replace(/(Row|Item|Card)$/, '') || 'row';
  const [collection, ...more] = new Set(run.map(({ key }) => recordsOf.get(key ?? '')));
  const wanted = collection !== undefined && !more.length ? collection : plural(plain);
  const kept = wereKnown.find(({ list }) => list?.replace(/\d+$/, '') === wanted && !isTaken(list))?.list;
  const spoken = new Set([...before.values()].map(({ list }) => list));
  const data = kept ?? uniqueCodeName(wanted, 'rows', (name) => isTaken(name) || spoken.has(name));
  return { data, component, records, rows: run.flatMap(({ key }) => key ?? []) };
}
