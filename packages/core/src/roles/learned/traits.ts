import type { ScreenSight, Sight } from '../sight.ts';
import { type Company, companyTraits } from './company_traits.ts';
import { contentsOf } from './contents.ts';
import { lookTraits } from './look_traits.ts';
import { nameTraits } from './name_traits.ts';

/** Holds of every element. */
export const ALWAYS = 'always';

/** The traits that hold of an element, each once. */
export function traitsOf(s: Sight, screen: ScreenSight, company: Company): ReadonlySet<string> {
  const traits = new Set([ALWAYS]);
  const say = (trait: string): void => void traits.add(trait);
  const contents = contentsOf(screen).get(s)!;
  lookTraits(s, screen, contents, say);
  companyTraits(s, company, contents, say);
  nameTraits(s, say);
  return traits;
}
