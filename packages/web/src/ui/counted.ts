/** How many of something there are, in words: `1 record`, `3 records`. */
export const counted = (count: number, word: string): string => `${count} ${count === 1 ? word : `${word}s`}`;
