/** How well what was found agrees with what is true. */
export interface Agreement {
  readonly precision: number;
  readonly recall: number;
  readonly f1: number;
  /** How many there truly are. */
  readonly support: number;
}

export interface RoleScore {
  readonly byRole: ReadonlyMap<string, Agreement>;
  /** The mean of the F1 of all roles that occur, whatever their number. */
  readonly macroF1: number;
}

/**
 * Scores labels against labels, both by place. Places that are in `truth` without a role count as having none, so that
 * a role found there is wrong.
 */
export function scoreRoles(
  truth: ReadonlyMap<string, string>,
  found: ReadonlyMap<string, string>,
): RoleScore {
  const counts = new Map<string, { right: number; found: number; true: number }>();
  const of = (role: string) => {
    let count = counts.get(role);
    if (!count) counts.set(role, (count = { right: 0, found: 0, true: 0 }));
    return count;
  };
  for (const [place, role] of truth) {
    of(role).true++;
    if (found.get(place) === role) of(role).right++;
  }
  for (const role of found.values()) of(role).found++;
  const byRole = new Map(
    [...counts].map(([role, count]): [string, Agreement] => {
      const precision = count.found ? count.right / count.found : 0;
      const recall = count.true ? count.right / count.true : 0;
      const f1 = precision + recall ? (2 * precision * recall) / (precision + recall) : 0;
      return [role, { precision, recall, f1, support: count.true }];
    }),
  );
  const occurring = [...byRole.values()].filter((agreement) => agreement.support > 0);
  const macroF1 = occurring.reduce((sum, { f1 }) => sum + f1, 0) / Math.max(1, occurring.length);
  return { byRole, macroF1 };
}
