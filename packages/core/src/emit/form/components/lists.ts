import { kept } from '../../../json/kept.ts';
import { kebabCase, plural, uniqueCodeName } from '../../../model/names.ts';
import type { Component } from '../../../model/app.ts';
import { type KeptRow, recordIds } from '../../../records/kept_rows.ts';
import {
  isElement,
  isSpace,
  type MarkupElement,
  type MarkupNode,
  type MarkupText,
  type PropValue,
  visitTerms,
} from '../markup.ts';

/** The records of a list of one screen, or of one within a component. */
export interface EmittedList {
  /** Name of the constant. */
  readonly data: string;
  readonly component: string;
  readonly records: readonly Readonly<Record<string, PropValue>>[];
  /** Keys of the rows, in order. */
  readonly rows: readonly string[];
  /** Of a list that a component is given as a whole: the prop by which, and what it is given. */
  readonly prop?: string;
  readonly items?: Extract<PropValue, { readonly items: unknown }>['items'];
  /** Whether each row is given a class where they stand. */
  readonly isClassed?: true;
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
  const isTaken = (name: string): boolean => lists.some((one) => one.data === name);
  return withLists(
    root,
    (run) => run.length > 1,
    (node) => node.use.component === component && node.key !== null && rows.has(node.key),
    false,
    (run) => {
      const list = listOf(run, isTaken, recordsOf, before);
      lists.push(list);
      return list;
    },
  );
}

type Use = MarkupElement & Required<Pick<MarkupElement, 'use'>>;

/**
 * Markup with a list wherever uses of one component stand one after the other.
 * @param isWorth whether those that stand one after the other are a list
 * @param isRow which uses can stand in one
 * @param canBeApart whether there may be a space between one and the next
 */
function withLists(
  root: MarkupElement,
  isWorth: (run: readonly Use[]) => boolean,
  isRow: (node: Use) => boolean,
  canBeApart: boolean,
  list: (run: readonly Use[]) => EmittedList,
): MarkupElement {
  const visit = (node: MarkupElement): MarkupElement => {
    const children: MarkupNode[] = [];
    let run: Use[] = [];
    /** The space between the first two, and that after the last one. */
    let [gap, pending]: (MarkupText | null)[] = [null, null];
    const end = (): void => {
      if (!isWorth(run)) run.forEach((row, i) => children.push(...(i && gap ? [gap] : []), visit(row)));
      else {
        const { component, data, records } = list(run);
        const [{ key, className }] = run;
        children.push({
          key,
          list: {
            component,
            data,
            records,
            ...(className === null ? {} : { className }),
            ...(gap ? { isApart: true } : {}),
          },
        });
      }
      if (pending) children.push(pending);
      run = [];
      gap = pending = null;
    };
    for (const child of node.children) {
      if (run.length && !pending && canBeApart && isSpace(child)) {
        pending = child;
        continue;
      }
      const row = isUse(child) && isRow(child) ? child : null;
      const [first] = run;
      const isNext =
        row &&
        (!first ||
          (first.use.component === row.use.component &&
            first.className === row.className &&
            (run.length === 1 || gap?.text === pending?.text)));
      if (!isNext) end();
      if (!row) children.push(isElement(child) ? visit(child) : child);
      else {
        gap = pending;
        pending = null;
        run.push(row);
      }
    }
    end();
    return { ...node, children };
  };
  return visit(root);
}

const isUse = (node: MarkupNode): node is Use => isElement(node) && node.use !== undefined;

/** Props that choose a look, or name a place. */
const UNSAID = /(variant|color|size|shape|type)\d*$|^(to|part|anchor|fieldId)\d*$/i;

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
  const taken = new Set(component.props.map(({ name }) => name));
  const made = rowsGathered(component.root, isPlain, (name) => taken.has(name));
  return made.lists.length ? { ...component, ...made } : component;
}

/** Markup with the lists that it has. */
interface Listed {
  readonly root: MarkupElement;
  readonly lists: readonly EmittedList[];
}
const listed = new WeakMap<
  MarkupElement,
  { readonly lists: readonly EmittedList[]; readonly made: Listed }
>();

/** The same on a screen, beside the lists that it has; there what a row is given may be a drawing. */
export function withRowsOfScreen(root: MarkupElement, lists: readonly EmittedList[]): Listed {
  const before = listed.get(root);
  const own = kept(before?.lists, lists);
  if (before?.lists === own) return before.made;
  const isSaid = (value: PropValue): boolean => isPlain(value) || isDrawing(value);
  const { root: gathered, lists: more } = rowsGathered(root, isSaid, (name) =>
    own.some(({ data }) => data === name),
  );
  const made = { root: gathered, lists: more.length ? [...own, ...more] : own };
  listed.set(root, { lists: own, made });
  return made;
}

/**
 * Markup with a list wherever rows that never change stand one after the other, and those lists; the very same where there are none.
 * @param isSaid what a row can be given
 * @param isTaken names that their constants cannot have
 */
function rowsGathered(
  root: MarkupElement,
  isSaid: (value: PropValue) => boolean,
  isTaken: (name: string) => boolean,
): Listed {
  const lists: EmittedList[] = [];
  const made = withLists(
    root,
    (run) => run.length >= LEAST_ROWS && run.some(saysSomething),
    (node) => isFixed(node, isSaid),
    true,
    (run) => {
      const list = listOf(run, (name) => isTaken(name) || lists.some(({ data }) => data === name));
      lists.push(list);
      return list;
    },
  );
  return { root: lists.length ? made : root, lists };
}

/** Whether it is a component that is there in any case, the same each time, and holds nothing. */
const isFixed = ({ use, when, variant, children }: Use, isSaid: (value: PropValue) => boolean): boolean =>
  !when && !variant && children.length === 0 && Object.values(use.props).every(isSaid);

/** Whether a row is given anything: rows that are not have no data to be a list of. */
const saysSomething = ({ use }: Use): boolean => Object.keys(use.props).length > 0;

const isPlain = (value: PropValue): boolean => typeof value !== 'object' || 'asset' in value;
/** A drawing that is the same at all times. */
function isDrawing(value: PropValue): boolean {
  if (typeof value !== 'object' || !('node' in value)) return false;
  let isFixed = true;
  visitTerms(value.node, () => (isFixed = false));
  return isFixed;
}

/** The list of rows of a component. @param isTaken names that the constant cannot have */
function listOf(
  run: readonly Use[],
  isTaken: (name: string) => boolean,
  recordsOf: ReadonlyMap<string, string> = new Map(),
  before: ReadonlyMap<string, KeptRow> = new Map(),
): EmittedList {
  const [
    {
      use: { component },
    },
  ] = run;
  const wereKnown = run.flatMap(({ key }) => before.get(key ?? '') ?? []);
  const ids = recordIds(
    run,
    ({ key }) => before.get(key ?? '')?.id,
    ({ use }) => kebabCase(firstSaid(use.props) ?? '').slice(0, 40),
  );
  const records = run.map((row, i) => ({ id: ids[i], ...row.use.props }));
  const plain =
    `${component.charAt(0).toLowerCase()}${component.slice(1)}`.replace(/(Row|Item|Card)$/, '') || 'row';
  const [collection, ...more] = new Set(run.map(({ key }) => recordsOf.get(key ?? '')));
  const wanted = collection !== undefined && !more.length ? collection : plural(plain);
  const kept = wereKnown.find(({ list }) => list?.replace(/\d+$/, '') === wanted && !isTaken(list))?.list;
  const spoken = new Set([...before.values()].map(({ list }) => list));
  const data = kept ?? uniqueCodeName(wanted, 'rows', (name) => isTaken(name) || spoken.has(name));
  const isClassed = run[0].className !== null;
  return {
    data,
    component,
    records,
    rows: run.flatMap(({ key }) => key ?? []),
    ...(isClassed ? { isClassed } : {}),
  };
}
