import { inputTypeOf, labelOfField } from '../fields.ts';
import { LEAST_CONFIDENCE, type RoleGuess } from '../guess.ts';
import type { Role, RoleDetail } from '../names.ts';
import type { ScreenSight, Sight } from '../sight.ts';
import { LEARNED, type Likely, likelyRoles } from './model.ts';

/** Where so many of the texts and pictures of a page have tags that tell, what else it holds is as its author says. */
const TELLING = 0.25;

/** What stands for itself whatever a trait says: a person sees more in it than its tag does. */
const FINER: Readonly<Partial<Record<Role, readonly Role[]>>> = {
  avatar: ['image'],
  chart: ['image'],
  menuitem: ['link', 'button', 'listitem'],
  switch: ['checkbox'],
};

/** Whether a page's own tags say what most of it is. */
export function tagsTell(screen: ScreenSight, guesses: ReadonlyMap<string, RoleGuess>): boolean {
  const leaves = screen.all.filter((s) => s.hasOwnText || s.element.kind === 'image');
  const told = leaves.filter((s) => guesses.get(s.element.key)?.confidence === 1).length;
  return told >= leaves.length * TELLING;
}

/** Puts what was learned of pages in the place of what rules said, where nobody's tag or word says it for certain. */
export function asLearned(screen: ScreenSight, guesses: Map<string, RoleGuess>): void {
  const isOpen = (s: Sight): boolean =>
    s !== screen.root && (guesses.get(s.element.key)?.confidence ?? 0) < 1;
  const likely = likelyRoles(screen, ({ element }) => guesses.get(element.key)?.role ?? null, isOpen);
  for (const [sight, one] of likely) {
    const { key } = sight.element;
    const guess = weighed(sight, one, guesses.get(key) ?? null);
    if (guess) guesses.set(key, guess);
    else guesses.delete(key);
  }
}

function weighed(sight: Sight, likely: Likely, before: RoleGuess | null): RoleGuess | null {
  const { role, share } = likely;
  if (!role) return before && !LEARNED.has(before.role) ? before : null;
  if (before && (before.role === role || FINER[before.role]?.includes(role)))
    return {
      ...before,
      confidence: before.role === role ? Math.max(share, LEAST_CONFIDENCE) : before.confidence,
    };
  if (share < LEAST_CONFIDENCE) return before && !LEARNED.has(before.role) ? before : null;
  return { ...detailOf(sight, role), confidence: share, reason: reasonOf(likely.tells) };
}

function detailOf(sight: Sight, role: Role): RoleDetail {
  if (role === 'textbox') return { role, input: inputTypeOf(sight, labelOfField(sight)?.text ?? '') };
  if (role === 'image') return { role, label: sight.element.attributes?.alt ?? sight.element.name };
  return { role };
}

/** What only says how large something is, where it stands, or how rules saw it, is no reason to a person. */
const DULL =
  /^(always|kind|height|width|padding|depth|distance|children|leaves|holds words|words|letters|at first|alike|weight|display|within|first|last|as (wide|high) as|all that) ?/;

function reasonOf(tells: readonly string[]): string {
  const said = tells.filter((trait) => !DULL.test(trait)).slice(0, 2);
  return said.length
    ? `so are most on other pages: ${said.join(', ')}`
    : 'it is built as such on other pages';
}
