const listeners = new Set<() => void>();
let notice = '';
let timer: ReturnType<typeof setTimeout> | undefined;

/** How long a notice stands, in milliseconds. */
const STANDS = 8000;

/** What did not work, to be said to whoever uses the app. */
export const notices = {
  now: (): string => notice,
  tell(error: unknown): void {
    clearTimeout(timer);
    notice = error instanceof Error ? error.message : String(error);
    timer = setTimeout(notices.forget, STANDS);
    listeners.forEach((listener) => listener());
  },
  forget(): void {
    notice = '';
    listeners.forEach((listener) => listener());
  },
  /** Is told of each change; returns how to no longer be. */
  subscribe(listener: () => void): () => void {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },
};
