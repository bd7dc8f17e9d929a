/** What the name of a font says, as files that hold fonts call them. */
export interface FontName {
  /** A CSS list: the family, and what stands in for it. */
  readonly family: string;
  readonly weight: number;
  readonly isItalic: boolean;
}

const WEIGHTS: readonly (readonly [RegExp, number])[] = [
  [/^(extra|ultra)light$/, 200],
  [/^(semi|demi)bold$|^demi$/, 600],
  [/^(extra|ultra)bold$/, 800],
  [/^(thin|hairline)$/, 100],
  [/^light$/, 300],
  [/^(regular|normal|book|roman)$/, 400],
  [/^medium$/, 500],
  [/^bold$/, 700],
  [/^(black|heavy)$/, 900],
];
const SLANTED = /^(italic|oblique|ital|obl)$/;
/** What makers of fonts put behind a name, and what says nothing of the family. */
const NOISE = /^(mt|ps|psmt|identity|h|v|subset)$/;
const STYLE =
  /(extra|ultra|semi|demi)?[-_ ]?(thin|hairline|light|regular|normal|book|roman|medium|bold|demi|black|heavy|italic|oblique)/gi;
/** Families whose parts begin with a capital letter within a word. */
const KEPT = /^(DejaVu|JetBrains|PlayFair|McLaren|FontAwesome)/;

/**
 * The family, weight and slant that the name of a font says: `ABCDEF+OpenSans-SemiBoldItalic` is Open Sans, 600, italic. A hyphen
 * that no style follows belongs to the family.
 * @param generic what stands in for it where the name does not say more
 */
export function fontNamed(written: string, generic = ''): FontName {
  const name = written.replace(/^[A-Z]{6}\+/, '').replace(/^["']|["']$/g, '');
  const [first, ...rest] = name.split(/[-,_ ](?=\S)/);
  const styles: string[] = [];
  const family = [first];
  for (const part of rest) {
    const found = wordsOfStyle(part);
    if (found) styles.push(...found);
    else family.push(part);
  }
  // Some end the family's own name with the style.
  const tail = /^(.+?)((?:Extra|Ultra|Semi|Demi)?(?:Light|Bold|Medium|Black|Italic|Oblique)+(?:MT)?)$/.exec(
    family.at(-1)!,
  );
  if (tail && !styles.length) {
    family[family.length - 1] = tail[1];
    styles.push(...(wordsOfStyle(tail[2]) ?? []));
  }
  const weight = styles.flatMap((word) => WEIGHTS.find(([test]) => test.test(word))?.[1] ?? [])[0] ?? 400;
  const plain = family.join('-').replace(/(MT|PS|PSMT)$/, '');
  return { family: stackOf(plain, generic), weight, isItalic: styles.some((word) => SLANTED.test(word)) };
}

/** The words of a style, in small letters; null where not all of a part is one. */
function wordsOfStyle(part: string): string[] | null {
  if (NOISE.test(part.toLowerCase())) return [];
  const words = part.match(STYLE) ?? [];
  const left = part.replace(STYLE, '').replace(/(MT|PS)+$/, '');
  return words.length && !left ? words.map((word) => word.toLowerCase().replace(/[-_ ]/g, '')) : null;
}

function stackOf(name: string, generic: string): string {
  const last = /^(serif|sans-serif|monospace)$/.test(generic) ? generic : '';
  const told = /mono|courier|consol|typewriter/i.test(name)
    ? 'monospace'
    : /sans|grotesk|gothic/i.test(name)
      ? 'sans-serif'
      : /serif|times|georgia|garamond|roman|slab|palatino|minion|caslon|bodoni/i.test(name)
        ? 'serif'
        : last || 'sans-serif';
  if (!name || /^(sans-serif|serif|monospace)$/.test(name)) return name || told;
  const kept = KEPT.exec(name)?.[1] ?? '';
  const spaced =
    kept + name.slice(kept.length).replace(/([a-z])([A-Z0-9])|([A-Z])(?=[A-Z][a-z])/g, '$1$3 $2');
  const family = (
    kept && !/^[ -]/.test(spaced.slice(kept.length)) && spaced.length > kept.length
      ? `${kept} ${spaced.slice(kept.length)}`
      : spaced
  )
    .replace(/-/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
  const quoted = (one: string): string => `"${one.replace(/["\\\n]/g, '')}"`;
  return [...new Set([quoted(family), quoted(name)])].join(', ') + `, ${told}`;
}
