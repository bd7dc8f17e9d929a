import type { MergeConflict } from '../merge/conflict.ts';

/** A file of an emitted project: text with the design element of each line, or an asset by its hash. */
export type EmittedFile =
  | {
      readonly path: string;
      readonly text: string;
      readonly lines?: readonly (string | null)[];
      readonly screen?: string;
      /** Whether it is written once, for people to go on with, and never again. */
      readonly owner?: 'yours';
    }
  | { readonly path: string; readonly asset: string };

export interface EmittedProject {
  /** By path. */
  readonly files: readonly EmittedFile[];
  /** Key of each screen's component file, by screen key. */
  readonly fileOfScreen: ReadonlyMap<string, string>;
  /** What of long files has a file of its own beside it: names by outermost elements, by file as `CodeBefore` calls them. */
  readonly pieces?: ReadonlyMap<string, ReadonlyMap<string, string>>;
  /** What people wrote by hand, where there is any. */
  readonly handWritten?: readonly HandWrittenPart[];
  /** Files that the formatter could not read, each with its reason: they are as they were written first, and will not build. */
  readonly unread?: readonly string[];
}

/** What became of what somebody wrote by hand into a file. */
export interface HandWrittenPart {
  /** Under which path it is kept. */
  readonly path: string;
  /** The file that it is in now; null where there is no such file any more. */
  readonly file: string | null;
  /** The file as it is generated. */
  readonly generated: string;
  /** Places that the design says otherwise by now; what people wrote stands there. */
  readonly conflicts: readonly MergeConflict[];
}
