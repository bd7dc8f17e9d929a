/**
 * Class names stand in sheets with dashes, as CSS is written, and in code without, as code is written. The configuration of
 * the delivered project says so to its bundler (`localsConvention`).
 */
export const classInSheet = (name: string): string =>
  name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`);

/** A sheet of a module with its classes called as in code, for bundlers that know nothing of that. */
export const asInCode = (sheet: string): string =>
  sheet.replace(
    /^(\s*)\.([a-z][\w-]*)/gm,
    (_, indent: string, name: string) =>
      `${indent}.${name.replace(/-+(\w)/g, (_dashes, letter: string) => letter.toUpperCase())}`,
  );
