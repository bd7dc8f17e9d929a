/** Something that is said over whatever screen is there. */
export interface Notice {
  readonly text: string;
  /** Whether something did not work. */
  readonly isProblem: boolean;
}

const listeners = new Set<() => void>();
let notice: Notice | null = null;
let timer: ReturnType<typeof setTimeout> | undefined;

/** How long a notice stands, in milliseconds. */
const STANDS = 8000;

function put(next: Notice | null): void {
  clearTimeout(timer);
  notice = next;
  if (next) timer = setTimeout(notices.forget, STANDS);
  listeners.forEach((listener) => listener());
}

/** What is said to whoever uses the app. */
export const notices = {
  now: (): Notice | null => notice,
  say: (text: string): void => put({ text, isProblem: false }),
  /** Tells what did not work. */
  tell: (error: unknown): void =>
    put({ text: error instanceof Error ? error.message : String(error), isProblem: true }),
  forget: (): void => put(null),
  /** Is told of each change; returns how to no longer be. */
  subscribe(listener: () => void): () => void {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },
};
