/** What an element's classes are for each of the values that they depend on: those that it always has, and the rest of each. */
export interface PartedClasses {
  readonly common: readonly string[];
  readonly rest: Readonly<Record<string, readonly string[]>>;
}

/**
 * Parts the classes for each value into those of all and those of its own.
 * @param classes the class for each value, and null where that has none
 * @param written what each class is written as
 */
export function partedClasses(
  classes: Readonly<Record<string, string | null>>,
  written: (name: string) => readonly string[],
): PartedClasses {
  const all = Object.entries(classes).map(
    ([value, name]) => [value, name === null ? [] : written(name)] as const,
  );
  const [, first] = all[0];
  const common = first.filter((part) => all.every(([, parts]) => parts.includes(part)));
  return {
    common,
    rest: Object.fromEntries(
      all.map(([value, parts]) => [value, parts.filter((one) => !common.includes(one))]),
    ),
  };
}
