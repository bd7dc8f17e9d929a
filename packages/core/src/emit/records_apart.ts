import { variablesOf } from '../expression/expression.ts';
import { derivedVariables } from '../variables/variables.ts';
import type { EmissionPlan } from './form/plan.ts';

/** The file of records that stand apart from the lists of them, beside the file of those. */
export const recordsApartFile = (name: string): string => `${name}.records`;

/**
 * The collections, by name, whose records stand in a file of their own: variables are worked out from them, and some list follows
 * variables. In one file each would have to be there before the other.
 */
export function recordsApart({ live, project }: Pick<EmissionPlan, 'live' | 'project'>): ReadonlySet<string> {
  const isFollowing = [...live.values()].some(({ views }) =>
    views.some(({ options: { of } }) => of !== undefined && variablesOf(of).size > 0),
  );
  if (!isFollowing) return new Set();
  const lookedAt = new Set(derivedVariables(project.app).derived.flatMap(({ looksAt }) => looksAt));
  return new Set([...live.values()].flatMap(({ name }) => (lookedAt.has(name) ? [name] : [])));
}
