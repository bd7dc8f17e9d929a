import { all, type Change, putCode } from '../../change/change.ts';
import { grouped } from '../../json/grouped.ts';
import { equalJson } from '../../json/json.ts';
import type { App, CodeEntry, Gesture } from '../../model/app.ts';
import type { ClassStyle } from '../../model/design.ts';
import { type KeptRow, keptRows } from '../../records/kept_rows.ts';
import { actId } from './act_names.ts';

/** How a file with styles was written when the last iteration came in. */
export interface FileBefore {
  /** Classes of its own sheet that several looks share. */
  readonly own: Readonly<Record<string, ClassStyle>>;
  /** Values that it says by a custom property. */
  readonly values: readonly string[];
  /** How each look is written, by the first element that has it. */
  readonly looks: Readonly<Record<string, LookBefore>>;
}
export interface LookBefore {
  /** A hash of the look. */
  readonly sign: string;
  /** The class that says what no shared class says. */
  readonly name?: string;
  readonly shared: readonly string[];
  readonly own: readonly string[];
}

/** A drawing that is a component. */
export interface NamedDrawing {
  readonly name: string;
  readonly isSmall?: boolean;
}

/** A prop of a component as it was written. */
export interface PropBefore {
  /** What kind of thing it says, of which attribute. */
  readonly what: string;
  /** Elements of some places that it is given to. */
  readonly at: readonly string[];
  /** What it is where nothing is given. */
  readonly byDefault?: string | true;
}
/** The props of a component, by the name that each has unless somebody calls it otherwise. */
export type PropsBefore = ReadonlyMap<string, PropBefore>;

/**
 * How the code was written when the last iteration came in. What could be written in several ways goes on being written in
 * this one, so that the files of what nothing happened to stay the same to the byte.
 */
export interface CodeBefore {
  readonly shared: ReadonlyMap<string, ClassStyle>;
  /** By file: `screen KEY`, `layout NAME`, `component NAME`. */
  readonly files: ReadonlyMap<string, FileBefore>;
  /** Names of custom properties, by value. */
  readonly values: ReadonlyMap<string, string>;
  /** Drawings that are components, by a hash of them: what each is called, and whether it is a small one. */
  readonly drawings: ReadonlyMap<string, NamedDrawing>;
  /** The props of each component, by its id. */
  readonly props: ReadonlyMap<string, PropsBefore>;
  /** What of each screen stood within a layout: sets of elements, by layout and screen. */
  readonly insides: ReadonlyMap<string, ReadonlyMap<string, ReadonlySet<string>>>;
  /** What the functions of each screen are called, by `actId`. */
  readonly acts: ReadonlyMap<string, ReadonlyMap<string, string>>;
  /** What the rows of each screen are known by, by their keys. */
  readonly rows: ReadonlyMap<string, ReadonlyMap<string, KeptRow>>;
  /** What of each long file has a file of its own: names by outermost elements. By file. */
  readonly pieces: ReadonlyMap<string, PiecesBefore>;
}
/** What of a long file has a file of its own beside it: what it is called, by its outermost element. */
export type PiecesBefore = ReadonlyMap<string, string>;

export const NOTHING_BEFORE: CodeBefore = {
  shared: new Map(),
  files: new Map(),
  values: new Map(),
  drawings: new Map(),
  props: new Map(),
  insides: new Map(),
  acts: new Map(),
  rows: new Map(),
  pieces: new Map(),
};

const known = new WeakMap<App['code'], CodeBefore>();

export function codeBefore({ code }: App): CodeBefore {
  let before = known.get(code);
  if (!before) {
    const entries = Object.values(code);
    const ofKind = <K extends CodeEntry['kind']>(kind: K) =>
      entries.filter((entry): entry is Extract<CodeEntry, { kind: K }> => entry.kind === kind);
    // A screen that is gone has no file.
    const byFile = <T extends { readonly screen?: string; readonly part?: string }>(
      written: readonly T[],
    ): readonly (readonly [string, T])[] =>
      written.flatMap((one) =>
        one.screen || one.part ? [[one.screen ? screenFile(one.screen) : one.part!, one] as const] : [],
      );
    before = {
      shared: new Map(ofKind('class').map(({ name, style }) => [name, style])),
      files: new Map(byFile(ofKind('file'))),
      values: new Map(ofKind('value').map(({ name, value }) => [value, name])),
      drawings: new Map(ofKind('drawing').map(({ name, sign, isSmall }) => [sign, { name, isSmall }])),
      props: new Map(
        ofKind('component').map(({ component, props }) => [
          component,
          new Map(
            props.map(({ name, what, at, text, isSet }): [string, PropBefore] => [
              name,
              { what, at, ...(isSet ? { byDefault: true } : text === undefined ? {} : { byDefault: text }) },
            ]),
          ),
        ]),
      ),
      insides: new Map(
        [...grouped(ofKind('inside'), ({ layout }) => layout)].map(([layout, entries]) => [
          layout,
          new Map(entries.flatMap(({ screen, keys }) => (screen ? [[screen, new Set(keys)] as const] : []))),
        ]),
      ),
      acts: new Map(
        ofKind('acts').flatMap(({ screen, names }) =>
          screen
            ? [[screen, new Map(names.map(({ at, on, name }) => [actId(at, on as Gesture), name]))] as const]
            : [],
        ),
      ),
      rows: keptRows({ code }),
      pieces: new Map(
        byFile(ofKind('pieces')).map(([id, { names }]) => [
          id,
          new Map(names.map(({ at, name }) => [at, name])),
        ]),
      ),
    };
    known.set(code, before);
  }
  return before;
}

const SCREEN = 'screen ';
/** How the file of a screen is called here. */
export const screenFile = (key: string): string => SCREEN + key;

/** How the file of a component is called here. */
export const componentFile = (name: string): string => `component ${name}`;

/** What the functions of a screen were called, by the name of its file here. */
export const actsBefore = (app: App, file: string): ReadonlyMap<string, string> =>
  codeBefore(app).acts.get(file.slice(SCREEN.length)) ?? new Map();

/** The change that makes the code go on being written as it is now. */
export function keepCode({ code }: App, now: CodeBefore): Change {
  const entries = new Map<string, CodeEntry>();
  const put = (entry: CodeEntry, of: string): void => void entries.set(`${entry.kind} ${of}`, entry);
  for (const [name, style] of now.shared) put({ kind: 'class', name, style }, name);
  for (const [value, name] of now.values) put({ kind: 'value', name, value }, name);
  for (const [sign, { name, isSmall }] of now.drawings)
    put({ kind: 'drawing', name, sign, ...(isSmall === undefined ? {} : { isSmall }) }, name);
  for (const [component, props] of now.props)
    put(
      {
        kind: 'component',
        component,
        props: [...props].map(([name, { what, at, byDefault }]) => ({
          name,
          what,
          at,
          ...(byDefault === true ? { isSet: true } : byDefault === undefined ? {} : { text: byDefault }),
        })),
      },
      component,
    );
  for (const [layout, screens] of now.insides)
    for (const [screen, keys] of screens)
      put({ kind: 'inside', layout, screen, keys: [...keys] }, `${layout} ${screen}`);
  for (const [screen, names] of now.acts) {
    const list = [...names].map(([id, name]) => {
      const [at, on] = id.split(/ (?=[^ ]*$)/);
      return { at, on, name };
    });
    if (list.length) put({ kind: 'acts', screen, names: list }, screen);
  }
  for (const [screen, rows] of now.rows)
    put({ kind: 'rows', screen, rows: [...rows].map(([at, row]) => ({ at, ...row })) }, screen);
  const fileOf = (id: string) => (id.startsWith(SCREEN) ? { screen: id.slice(SCREEN.length) } : { part: id });
  for (const [id, names] of now.pieces)
    put({ kind: 'pieces', ...fileOf(id), names: [...names].map(([at, name]) => ({ at, name })) }, id);
  for (const [id, { own, values, looks }] of now.files)
    put(
      {
        kind: 'file',
        ...fileOf(id),
        own,
        values,
        looks,
      },
      id,
    );
  return all([
    ...Object.keys(code)
      .filter((id) => !entries.has(id))
      .map((id) => putCode(id, null)),
    ...[...entries]
      .filter(([id, entry]) => !equalJson(code[id], entry))
      .map(([id, entry]) => putCode(id, entry)),
  ]);
}
