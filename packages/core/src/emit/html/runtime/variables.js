/** What the app remembers, as it is when it opens. */
export const initial = { condition: false };

/** For how long each is remembered; while the tab is open where nothing is said. @type {Record<string, string>} */
export const kept = {};

/** What is worked out from others. @type {Record<string, (now: typeof initial) => unknown>} */
export const derived = {};
