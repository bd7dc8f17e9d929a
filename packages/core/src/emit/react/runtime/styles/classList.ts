/** The classes of an element: those of these that apply, in one text. */
export const classList = (...names: (string | false | null | undefined)[]): string =>
  names.filter(Boolean).join(' ');
