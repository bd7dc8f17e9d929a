import type { Sight } from '../sight.ts';
import type { Say } from './say.ts';

/** Words that can be of more than one author; what is made by a machine holds digits or is long. */
const wordsOf = (s: Sight | null): string[] =>
  s ? s.words.split(' ').filter((word) => /^([a-z]{2,16}|h[1-6])$/.test(word)) : [];

/** Traits of what an element and what is around it are called. */
export function nameTraits(s: Sight, say: Say): void {
  const own = wordsOf(s);
  for (const word of new Set(own)) say(`called ${word}`);
  for (let i = 0; i + 1 < own.length; i++) say(`called ${own[i]} ${own[i + 1]}`);
  for (const word of new Set(wordsOf(s.parent))) say(`in what is called ${word}`);
}
