/** Turns a name into the form that identifiers of its kind take. */

const words = (name: string): string[] =>
  name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(/([a-z0-9])([A-Z])/g, '$1 $2')
    .split(/[^A-Za-z0-9]+/)
    .filter(Boolean)
    .map((w) => w.toLowerCase());

const capital = (word: string): string => word.charAt(0).toUpperCase() + word.slice(1);

/** `Tool detail` → `tool-detail`; empty when nothing of the name can be kept. */
export const kebabCase = (name: string): string => words(name).join('-');

/** `Tool detail` → `ToolDetail`; never starts with a digit. */
export const pascalCase = (name: string): string =>
  words(name)
    .map(capital)
    .join('')
    .replace(/^(?=\d)/, 'N');

/** `Tool detail` → `toolDetail`; never starts with a digit. */
export const camelCase = (name: string): string =>
  pascalCase(name).replace(/^./, (first) => first.toLowerCase());

/** `tool-detail_2` → `Tool detail 2`. */
export function sentenceCase(name: string): string {
  const text = name.replace(/[-_]+/g, ' ').replace(/\s+/g, ' ').trim();
  return capital(text);
}

/** The first of `name`, `name-2`, `name-3` … that is not taken. */
export function uniqueName(name: string, isTaken: (candidate: string) => boolean, joint = '-'): string {
  if (!isTaken(name)) return name;
  for (let n = 2; ; n++) if (!isTaken(`${name}${joint}${n}`)) return `${name}${joint}${n}`;
}
