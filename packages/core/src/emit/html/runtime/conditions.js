/** Which conditions there are, and whether they hold when the app opens. */
export const initial = { condition: false };
