/** What is so once something was done; of records those that have come or gone, or what one of them says. */
export type Effect =
  | { variable: string; is: unknown }
  | { records: string; more: number }
  | { records: string; id?: string; says: Record<string, string> }
  | { words: Record<string, string | null> }
  | { told: string }
  | { to: string }
  | { part: string; isOpen: boolean }
  | { over: string[] }
  | { copied: string }
  | { printed: number }
  | { ticked: number }
  | { answered: boolean };

interface Row {
  readonly id: string;
}

/** All that can be seen of an app at one moment. */
export interface Moment {
  /** With what is said by it. */
  address: string;
  variables: Readonly<Record<string, unknown>>;
  records: Readonly<Record<string, readonly Row[]>>;
  /** What is said over the screen. */
  told: string;
  /** The ids of all that is open. */
  open: readonly string[];
  /** What is open over the screen, the last one last. */
  over: string[];
  /** All that was copied, and how often something was printed. */
  copied: readonly string[];
  printed: number;
  /** How many boxes are ticked. */
  ticked: number;
  /** How often what is shown has come over the network. */
  answers: number;
}

/** How what was expected is in the app: the same where it came about. */
export function effectSeen(expected: Effect, now: Moment, before: Moment): Effect {
  if ('variable' in expected) return { ...expected, is: now.variables[expected.variable] };
  if ('told' in expected) return { told: now.told };
  if ('to' in expected) return { to: now.address };
  if ('part' in expected) return { ...expected, isOpen: now.open.includes(expected.part) };
  if ('over' in expected) return { over: now.over };
  if ('copied' in expected) return { copied: now.copied.slice(before.copied.length).at(-1) ?? '' };
  if ('printed' in expected) return { printed: now.printed - before.printed };
  if ('ticked' in expected) return { ticked: now.ticked - before.ticked };
  if ('answered' in expected) return { answered: now.answers > before.answers };
  if ('words' in expected) {
    const said = new URL(now.address, 'http://app').searchParams;
    return {
      words: Object.fromEntries(Object.keys(expected.words).map((word) => [word, said.get(word)])),
    };
  }
  const { records } = expected;
  const [rows, rowsBefore] = [now.records[records], before.records[records]];
  if ('more' in expected) return { records, more: rows.length - rowsBefore.length };
  const { id, says } = expected;
  const row =
    id === undefined
      ? (rows.find((one) => !rowsBefore.some((other) => other.id === one.id)) ?? rows[0])
      : rows.find((one) => one.id === id);
  const said = new Map<string, unknown>(Object.entries(row ?? {}));
  return {
    ...expected,
    says: Object.fromEntries(
      Object.keys(says).map((field) => [field, String(said.get(field) ?? '')]),
    ),
  };
}
