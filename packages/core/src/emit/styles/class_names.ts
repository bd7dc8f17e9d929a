/**
 * Class names stand in sheets with dashes, as CSS is written, and in code without, as code is written. The configuration of
 * the delivered project says so to its bundler (`localsConvention`).
 */
export const classInSheet = (name: string): string =>
  name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`);

/** A class as it is called in code. */
const inCode = (name: string): string =>
  name.replace(/-+(\w)/g, (_dashes, letter: string) => letter.toUpperCase());

/** The first class of a selector, each of which has a line of its own; before it may stand what it is within, by where that stands. */
const SELECTOR = /^(\s*(?:[a-z][a-z0-9]*:[a-z-]+(?:\(:[a-z-]+\))? > )?)\.([a-z][\w-]*)/gm;

/** A sheet of a module with its classes called as in code, for bundlers that know nothing of that. */
export const asInCode = (sheet: string): string =>
  sheet.replace(SELECTOR, (_, before: string, name: string) => `${before}.${inCode(name)}`);

/**
 * A sheet of a module with classes that no other module has.
 * @param scope what they begin with
 * @returns with what each is called, by what it is called in code
 */
export function scopedSheet(
  sheet: string,
  scope: string,
): { readonly text: string; readonly names: ReadonlyMap<string, string> } {
  const names = new Map<string, string>();
  const text = sheet.replace(SELECTOR, (_, before: string, name: string) => {
    const scoped = `${scope}_${inCode(name)}`;
    names.set(inCode(name), scoped);
    return `${before}.${scoped}`;
  });
  return { text, names };
}
