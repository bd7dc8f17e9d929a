/**
 * The assignment of rows to columns with the greatest sum: shortest augmenting paths after Jonker and Volgenant (1987),
 * O(n² m) for n rows and m columns. What is worth 0 or less is left alone.
 * @param worth of each pair, by row and column
 * @returns for each row its column, or -1
 */
export function bestAssignment(worth: readonly Float64Array[], columns: number): Int32Array {
  const rows = worth.length;
  const size = Math.max(rows, columns);
  const costAt = (i: number, j: number): number => (i < rows && j < columns ? -Math.max(0, worth[i][j]) : 0);
  const u = new Float64Array(size + 1);
  const v = new Float64Array(size + 1);
  const rowOf = new Int32Array(size + 1);
  const way = new Int32Array(size + 1);
  for (let i = 1; i <= size; i++) {
    rowOf[0] = i;
    let at = 0;
    const least = new Float64Array(size + 1).fill(Infinity);
    const used = new Uint8Array(size + 1);
    do {
      used[at] = 1;
      const row = rowOf[at];
      let delta = Infinity;
      let next = 0;
      for (let j = 1; j <= size; j++) {
        if (used[j]) continue;
        const cost = costAt(row - 1, j - 1) - u[row] - v[j];
        if (cost < least[j]) {
          least[j] = cost;
          way[j] = at;
        }
        if (least[j] < delta) {
          delta = least[j];
          next = j;
        }
      }
      for (let j = 0; j <= size; j++)
        if (used[j]) {
          u[rowOf[j]] += delta;
          v[j] -= delta;
        } else least[j] -= delta;
      at = next;
    } while (rowOf[at] !== 0);
    do {
      const before = way[at];
      rowOf[at] = rowOf[before];
      at = before;
    } while (at);
  }
  const found = new Int32Array(rows).fill(-1);
  for (let j = 1; j <= columns; j++) {
    const i = rowOf[j] - 1;
    if (i < rows && worth[i][j - 1] > 0) found[i] = j - 1;
  }
  return found;
}

/**
 * Pairs of equal items in two sequences that keep their order, as many as there can be; where that is too much work, the
 * items that are there once on each side, in a longest increasing run (patience sorting).
 * @returns pairs of indices, in order
 */
export function commonRun(a: readonly number[], b: readonly number[], work = 4_000_000): [number, number][] {
  const pairs: [number, number][] = [];
  let start = 0;
  while (start < a.length && start < b.length && a[start] === b[start]) pairs.push([start, start++]);
  let [endA, endB] = [a.length, b.length];
  const tail: [number, number][] = [];
  while (endA > start && endB > start && a[endA - 1] === b[endB - 1]) tail.push([--endA, --endB]);
  const [n, m] = [endA - start, endB - start];
  if (n && m) {
    const inner = n * m <= work ? longest(a, b, start, endA, endB) : patience(a, b, start, endA, endB);
    pairs.push(...inner);
  }
  return [...pairs, ...tail.reverse()];
}

function longest(
  a: readonly number[],
  b: readonly number[],
  start: number,
  endA: number,
  endB: number,
): [number, number][] {
  const [n, m] = [endA - start, endB - start];
  const lengths = Array.from({ length: n + 1 }, () => new Uint16Array(m + 1));
  for (let i = n - 1; i >= 0; i--)
    for (let j = m - 1; j >= 0; j--)
      lengths[i][j] =
        a[start + i] === b[start + j]
          ? lengths[i + 1][j + 1] + 1
          : Math.max(lengths[i + 1][j], lengths[i][j + 1]);
  const pairs: [number, number][] = [];
  for (let i = 0, j = 0; i < n && j < m;)
    if (a[start + i] === b[start + j]) pairs.push([start + i++, start + j++]);
    else if (lengths[i + 1][j] >= lengths[i][j + 1]) i++;
    else j++;
  return pairs;
}

function patience(
  a: readonly number[],
  b: readonly number[],
  start: number,
  endA: number,
  endB: number,
): [number, number][] {
  const once = (list: readonly number[], end: number): Map<number, number> => {
    const at = new Map<number, number>();
    for (let i = start; i < end; i++) at.set(list[i], at.has(list[i]) ? -1 : i);
    return at;
  };
  const inB = once(b, endB);
  const both = [...once(a, endA)]
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
