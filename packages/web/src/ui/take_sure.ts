/** What the button says that takes all proposals that are sure. */
export const takeSure = (count: number): string =>
  count ? `Take ${count} that ${count === 1 ? 'is' : 'are'} sure` : 'None that are sure';
