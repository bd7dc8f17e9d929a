/** What the app says of a screen, for tests. @param more what it says otherwise than that it is one by itself */
export const screenEntry = (order: number, more: object = {}) => ({
  name: `S${order}`,
  route: `/s${order}`,
  use: 'screen' as const,
  order,
  ...more,
});
