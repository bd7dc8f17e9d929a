/** Words and signs; quotes are one, since a formatter chooses between them. */
const TOKEN = /[\p{L}\p{N}_$-]+|[^\s]/gu;
const QUOTE = /["'`]/;

/** How far ahead it is looked for where two texts go on alike, and for how many tokens they must. */
const FAR = 60;
const ALIKE = 4;

interface Token {
  readonly said: string;
  readonly line: number;
}

/**
 * What each line is about after breaks between lines have moved, and parentheses, commas and the like have come or gone: that of
 * the line which its first word was on. Both texts are gone through side by side; where they part, they meet again at the nearest
 * place from where some tokens are the same.
 * @param lines what each line of `before` is about
 */
export function movedLines(
  before: string,
  lines: readonly (string | null)[],
  after: string,
): (string | null)[] {
  const [was, is] = [tokensOf(before), tokensOf(after)];
  const moved: (string | null | undefined)[] = after
    .replace(/\n$/, '')
    .split('\n')
    .map(() => undefined);
  let [i, j] = [0, 0];
  while (i < was.length && j < is.length) {
    if (was[i].said !== is[j].said) {
      const [less, more] = nextMeeting(was, i, is, j);
      i += less;
      j += more;
      continue;
    }
    moved[is[j].line] ??= lines[was[i].line];
    i++;
    j++;
  }
  // What came by itself goes with what it stands behind.
  let last: string | null = lines[0] ?? null;
  return moved.map((line) => (last = line === undefined ? last : line));
}

const tokensOf = (text: string): Token[] =>
  text
    .split('\n')
    .flatMap((line, i) =>
      (line.match(TOKEN) ?? []).map((said) => ({ said: QUOTE.test(said) ? '"' : said, line: i })),
    );

/** How many tokens to leave out on each side until both go on alike; one on each where they do not. */
function nextMeeting(
  was: readonly Token[],
  i: number,
  is: readonly Token[],
  j: number,
): readonly [number, number] {
  const goesOn = (a: number, b: number): boolean => {
    for (let at = 0; at < ALIKE; at++) if (was.at(a + at)?.said !== is.at(b + at)?.said) return false;
    return true;
  };
  for (let both = 1; both <= FAR; both++)
    for (let less = 0; less <= both; less++)
      if (i + less < was.length && j + both - less < is.length && goesOn(i + less, j + both - less))
        return [less, both - less];
  return [1, 1];
}
