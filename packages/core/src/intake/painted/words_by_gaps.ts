/**
 * How many letters each word has, by the gaps after them. What most letters of a line are apart is how they are spaced: of spaced
 * capitals each would be a word else.
 * @param widest gaps up to this much wider than that are within a word
 */
export function wordsByGaps(gaps: readonly number[], widest: number): number[] {
  const spacing =
    gaps.length > 2 ? Math.max(0, gaps.toSorted((a, b) => a - b)[Math.floor(gaps.length / 3)]) : 0;
  const words = [1];
  for (const gap of gaps) {
    if (gap - spacing > widest) words.push(1);
    else words[words.length - 1]++;
  }
  return words;
}
