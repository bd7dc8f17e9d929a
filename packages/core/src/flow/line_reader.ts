import type { Line, Token } from './tokens.ts';

/** What could stand at a place: a word of the language, something by its name, or a kind of value. */
export type Wanted =
  | { readonly word: string }
  | { readonly name: string; readonly all: () => readonly string[] }
  | { readonly value: string };

/** Why a line cannot be read, and where: columns from 0, `to` behind it. */
export class FlowError extends Error {
  readonly from: number;
  readonly to: number;

  constructor(says: string, from: number, to: number) {
    super(says);
    this.from = from;
    this.to = to;
  }
}

/** Reads one line, and remembers what could have stood where it stopped. */
export class LineReader {
  readonly line: Line;
  readonly isLenient: boolean;
  #at = 0;
  #wanted: Wanted[] = [];

  /** @param isLenient whether names that there are none of may stand: what follows them is asked for */
  constructor(line: Line, isLenient = false) {
    this.line = line;
    this.isLenient = isLenient;
  }

  /** What could stand at the place that was reached. */
  get wanted(): readonly Wanted[] {
    return this.#wanted;
  }

  get isAtEnd(): boolean {
    return this.#at >= this.line.tokens.length;
  }

  peek(): Token | undefined {
    return this.line.tokens[this.#at];
  }

  /** Whether this word comes next. It is remembered as something that could. */
  sees(word: string): boolean {
    this.want({ word });
    const next = this.peek();
    return next !== undefined && next.kind !== 'text' && next.value === word;
  }

  /** Takes a word where it comes next. */
  takes(word: string): boolean {
    if (!this.sees(word)) return false;
    this.#go();
    return true;
  }

  /** Takes a token of a kind where one comes next. */
  take(kind: Token['kind'], wanted: Wanted): Token | null {
    this.want(wanted);
    const next = this.peek();
    if (next?.kind !== kind) return null;
    this.#go();
    return next;
  }

  /**
   * Stops.
   * @throws FlowError that says what could stand here
   */
  fail(): never {
    const next = this.peek();
    const said = next ? `“${next.value.slice(0, 40)}” is not what can stand here` : 'The line ends too early';
    const { line } = this;
    if (line.stray && !next) throw new FlowError(line.stray.says, line.stray.at, line.length);
    throw new FlowError(
      `${said}; expected ${expected(this.#wanted)}.`,
      next?.from ?? line.length,
      next?.to ?? line.length,
    );
  }

  /**
   * The line ends here.
   * @throws FlowError where it does not
   */
  end(): void {
    if (!this.isAtEnd || this.line.stray) this.fail();
  }

  /** Remembers something that could stand here. */
  want(wanted: Wanted): void {
    this.#wanted.push(wanted);
  }

  #go(): void {
    this.#at++;
    this.#wanted = [];
  }
}

function expected(wanted: readonly Wanted[]): string {
  const said = new Set(
    wanted.map((one) => ('word' in one ? one.word : 'name' in one ? `the name of ${one.name}` : one.value)),
  );
  return said.size ? new Intl.ListFormat('en', { type: 'disjunction' }).format(said) : 'the end of the line';
}
