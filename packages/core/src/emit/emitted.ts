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
}
