/** Waits so many milliseconds. */
export const pause = (ms: number): Promise<void> => new Promise((go) => setTimeout(go, ms));
