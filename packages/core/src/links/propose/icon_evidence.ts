import type { Pressed } from './evidence.ts';

/** What icons stand for, by the words that they are called by; each with the word that screens are called by. */
const ICONS: readonly (readonly [pattern: RegExp, word: string])[] = [
  [/ (home|house) /, 'home'],
  [/ (cog|cogs|gear|gears|settings?|sliders) /, 'setting'],
  [/ (user|person|account|profile|avatar) /, 'profile'],
  [/ (cart|basket|bag|trolley) /, 'basket'],
  [/ (search|magnifier|magnifying glass) /, 'search'],
  [/ (bell|notifications?) /, 'notification'],
  [/ (heart|favou?rites?|star) /, 'favourite'],
  [/ (envelope|mail|inbox) /, 'message'],
  [/ (question|help|life ring) /, 'faq'],
  [/ (sign out|log ?out|power off) /, 'logout'],
  [/ (sign in|log ?in) /, 'login'],
  [/ (calendar|schedule) /, 'calendar'],
  [/ (map|location|pin|marker) /, 'map'],
  [/ (phone|telephone) /, 'contact'],
  [/ (chart|analytics|stats) /, 'chart'],
];

/** What an element without a text shows by its icon: the word that a screen would be called by. */
export function iconWords({ sight }: Pick<Pressed, 'sight'>): string[] {
  if (sight.text) return [];
  const words = [sight, ...sight.children].map((one) => one.words).join('');
  return ICONS.flatMap(([pattern, word]) => (pattern.test(words) ? [word] : []));
}
