import { all, type Change, putCode } from '../../change/change.ts';
import { equalJson } from '../../json/json.ts';
import type { App, CodeEntry } from '../../model/app.ts';
import type { ClassStyle } from '../../model/design.ts';

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
  /** Names of drawings that are components, by a hash of them. */
  readonly drawings: ReadonlyMap<string, string>;
}

export const NOTHING_BEFORE: CodeBefore = {
  shared: new Map(),
  files: new Map(),
  values: new Map(),
  drawings: new Map(),
};

const known = new WeakMap<App['code'], CodeBefore>();

export function codeBefore({ code }: App): CodeBefore {
  let before = known.get(code);
  if (!before) {
    const entries = Object.values(code);
    const ofKind = <K extends CodeEntry['kind']>(kind: K) =>
      entries.filter((entry): entry is Extract<CodeEntry, { kind: K }> => entry.kind === kind);
    before = {
      shared: new Map(ofKind('class').map(({ name, style }) => [name, style])),
      // A screen that is gone has no file.
      files: new Map(
        ofKind('file').flatMap((file) =>
          file.screen || file.part
            ? [[file.screen ? screenFile(file.screen) : file.part!, file] as const]
            : [],
        ),
      ),
      values: new Map(ofKind('value').map(({ name, value }) => [value, name])),
      drawings: new Map(ofKind('drawing').map(({ name, sign }) => [sign, name])),
    };
    known.set(code, before);
  }
  return before;
}

const SCREEN = 'screen ';
/** How the file of a screen is called here. */
export const screenFile = (key: string): string => SCREEN + key;

/** The change that makes the code go on being written as it is now. */
export function keepCode({ code }: App, now: CodeBefore): Change {
  const entries = new Map<string, CodeEntry>();
  const put = (entry: CodeEntry, of: string): void => void entries.set(`${entry.kind} ${of}`, entry);
  for (const [name, style] of now.shared) put({ kind: 'class', name, style }, name);
  for (const [value, name] of now.values) put({ kind: 'value', name, value }, name);
  for (const [sign, name] of now.drawings) put({ kind: 'drawing', name, sign }, name);
  for (const [id, { own, values, looks }] of now.files)
    put(
      {
        kind: 'file',
        ...(id.startsWith(SCREEN) ? { screen: id.slice(SCREEN.length) } : { part: id }),
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
