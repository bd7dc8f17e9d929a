import type { Evidence, Names, Pressed } from './evidence.ts';
import { TOGGLE } from './name_evidence.ts';

export const isAbout = ({ title, file, headings }: Names, word: string): boolean =>
  file.includes(word) ||
  title.includes(word) ||
  headings.some((words) => words.includes(word) && words.length <= 3);

/** What is sent on the screens around signing in, and leaving. */
export function fromForms(
  element: Pressed,
  names: ReadonlyMap<string, Names>,
  start: string | null,
  login: string | null,
): Evidence[] {
  const { words, screen, sight } = element;
  if (TOGGLE.test(sight.words)) return [];
  if (words.includes('logout') && login)
    return [{ kind: 'form', to: login, strength: 0.7, reason: 'after signing out one signs in again' }];
  if (!login || !start || words.length > 3) return [];
  const own = names.get(screen)!;
  const isSent =
    sight.look.hasFill || sight.look.hasBorder || sight.element.style.base.appearance === 'button';
  if (!isSent || element.menu) return [];
  if (screen === login && words.includes('login'))
    return [
      { kind: 'form', to: start, strength: 0.72, reason: 'who has signed in comes to the first screen' },
    ];
  for (const word of ['register', 'password'])
    if (isAbout(own, word) && words.includes(word) && screen !== login)
      return [{ kind: 'form', to: login, strength: 0.6, reason: 'what is sent here leads to signing in' }];
  return [];
}
