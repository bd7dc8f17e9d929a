/** Words of labels and names in the one form in which they are compared. */

/** Phrases that mean the same in apps of any kind; the first word stands for all. */
const SAME: readonly (readonly [canon: string, pattern: RegExp])[] = [
  ['login', /\b(log|sign) ?in\b|\bsignin\b|\bwelcome back\b/g],
  [
    'register',
    /\bsign ?up\b|\bcreate (an |your )?account\b|\bjoin( us)?\b|\bregistration\b|\bregister account\b/g,
  ],
  ['logout', /\b(log|sign) ?(out|off)\b/g],
  [
    'password',
    /\b(forgot(ten)?|reset|recover|lost)( your)? password\b|\bpassword (recovery|reset|forgot(ten)?)\b|\bforgot(ten)?\b/g,
  ],
  ['home', /\b(home ?page|start ?page|home|index|landing|welcome|dashboard|overview)\b/g],
  ['setting', /\b(preferences|options)\b/g],
  ['profile', /\b(my account|your account)\b/g],
  ['basket', /\b(shopping )?(cart|bag|trolley)\b/g],
  ['faq', /\b(frequently asked questions?|help|support)\b/g],
  ['blog', /\b(news|articles|journal)\b/g],
  ['team', /\b(people|staff)\b/g],
  ['about', /\b(about us|who we are|our story)\b/g],
  ['contact', /\b(contact us|get in touch|write to us|reach us)\b/g],
  ['back', /\b(go back|return)\b/g],
];

const STOP = new Set(
  'a an the to of and or for in on at by with your my our us we you this that is are it all see view go open show read more here get page now sample screen html already have account need not no dont yet with more older'.split(
    ' ',
  ),
);

/** `Sign in to your account` → `login`, `account`. */
export function wordsIn(text: string): string[] {
  let plain = ` ${text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(/([a-z\d])([A-Z])/g, '$1 $2')
    .replace(/([A-Z])([A-Z][a-z])/g, '$1 $2')
    .replace(/([a-zA-Z])(\d)/g, '$1 $2')
    .replace(/(\d)([a-zA-Z])/g, '$1 $2')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()} `;
  for (const [canon, pattern] of SAME) plain = plain.replace(pattern, canon);
  return [...new Set(plain.trim().split(' ').map(stem))].filter((word) => word && !STOP.has(word));
}

/** A text as it is written, but for spaces, signs, capitals, accents and the word page: `User-Profile` → `userprofile`. */
export const asOneWord = (text: string): string =>
  text
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '')
    .replace(/(?<=.)(page|screen)s?$/, '');

/** Words without the endings that English gives them: `tools` → `tool`, `categories` → `category`. */
function stem(word: string): string {
  if (word.length > 4 && word.endsWith('ies')) return `${word.slice(0, -3)}y`;
  if (word.length > 4 && /(ses|xes|zes|ches|shes)$/.test(word)) return word.slice(0, -2);
  if (word.length > 3 && word.endsWith('s') && !/(ss|us|is)$/.test(word)) return word.slice(0, -1);
  if (word.length > 6 && word.endsWith('ing')) return word.slice(0, -3);
  return word;
}

/**
 * How well words say what other words say, 0 to 1, rarer words weighing more.
 * @param weight how much a word tells, from 0 (it is everywhere) to 1.
 */
export function wordLikeness(
  label: readonly string[],
  name: readonly string[],
  weight: (word: string) => number,
): number {
  if (!label.length || !name.length) return 0;
  const sum = (words: readonly string[]): number => words.reduce((all, word) => all + weight(word), 0);
  const shared = label.filter((word) => name.includes(word));
  if (!shared.length) return 0;
  const [both, left, right] = [sum(shared), sum(label), sum(name)];
  if (shared.length === label.length && shared.length === name.length) return 1;
  // All of the one in the other says more than a part of each.
  if (shared.length === label.length) return 0.45 + 0.45 * (both / right);
  if (shared.length === name.length) return 0.4 + 0.5 * (both / left);
  return 0.6 * (both / (left + right - both));
}
