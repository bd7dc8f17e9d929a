/**
 * Pairs of equal items in two sequences that keep their order, as many as there can be; where that is too much work, the
 * items that are there once on each side.
 * @returns pairs of indices, in order
 */
export function commonRun(a: readonly number[], b: readonly number[], work = 4_000_000): [number, number][] {
  const pairs: [number, number][] = [];
  let start = 0;
  while (start < a.length && start < b.length && a[start] === b[start]) pairs.push([start, start++]);
  let [endA, endB] = [a.length, b.length];
  const tail: [number, number][] = [];
  while (endA > start && endB > start && a[endA - 1] === b[endB - 1]) tail.push([--endA, --endB]);
  const [middleA, middleB] = [a.slice(start, endA), b.slice(start, endB)];
  if (middleA.length && middleB.length) {
    const find = middleA.length * middleB.length <= work ? commonSubsequence<number> : commonOnce;
    for (const [i, j] of find(middleA, middleB)) pairs.push([start + i, start + j]);
  }
  return [...pairs, ...tail.reverse()];
}

/**
 * Pairs of items of two sequences that are alike and keep their order, as many as there can be (a longest common
 * subsequence by the table of its lengths, as in Wagner and Fischer, 1974); time and memory grow with the product of both.
 * @returns pairs of indices, in order
 */
export function commonSubsequence<T>(a: readonly T[], b: readonly T[]): [number, number][] {
  const lengths = Array.from({ length: a.length + 1 }, () => new Uint16Array(b.length + 1));
  for (let i = a.length - 1; i >= 0; i--)
    for (let j = b.length - 1; j >= 0; j--)
      lengths[i][j] =
        a[i] === b[j] ? lengths[i + 1][j + 1] + 1 : Math.max(lengths[i + 1][j], lengths[i][j + 1]);
  const pairs: [number, number][] = [];
  for (let i = 0, j = 0; i < a.length && j < b.length;)
    if (a[i] === b[j]) pairs.push([i++, j++]);
    else if (lengths[i + 1][j] >= lengths[i][j + 1]) i++;
    else j++;
  return pairs;
}

/** Items that are there once on each side, in a longest increasing run (patience sorting). */
function commonOnce(a: readonly number[], b: readonly number[]): [number, number][] {
  const once = (list: readonly number[]): Map<number, number> => {
    const at = new Map<number, number>();
    list.forEach((value, i) => at.set(value, at.has(value) ? -1 : i));
    return at;
  };
  const inB = once(b);
  const both = [...once(a)]
    .filter(([value, i]) => i >= 0 && (inB.get(value) ?? -1) >= 0)
    .map(([value, i]): [number, number] => [i, inB.get(value)!])
    .sort((x, y) => x[0] - y[0]);
  const ends: number[] = [];
  const before = new Int32Array(both.length).fill(-1);
  both.forEach(([, j], k) => {
    let [low, high] = [0, ends.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (both[ends[middle]][1] < j) low = middle + 1;
      else high = middle;
    }
    if (low) before[k] = ends[low - 1];
    ends[low] = k;
  });
  const run: [number, number][] = [];
  for (let k = ends.at(-1) ?? -1; k >= 0; k = before[k]) run.push(both[k]);
  return run.reverse();
}
