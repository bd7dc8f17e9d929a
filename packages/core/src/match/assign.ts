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
