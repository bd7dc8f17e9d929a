/**
 * Isotonic regression by pooling neighbours that are out of order (Ayer and others 1955): from a likelihood on, so many
 * are right.
 */
export function isotonic(pairs: readonly { readonly p: number; readonly y: number }[]): [number, number][] {
  const pools: { from: number; right: number; all: number }[] = [];
  for (const { p, y } of pairs.toSorted((a, b) => a.p - b.p)) {
    pools.push({ from: p, right: y, all: 1 });
    for (let i = pools.length - 1; i > 0; i--) {
      const [low, high] = [pools[i - 1], pools[i]];
      if (low.right / low.all <= high.right / high.all) break;
      pools.splice(i - 1, 2, { from: low.from, right: low.right + high.right, all: low.all + high.all });
    }
  }
  // Few cases say little: their share is drawn to that of the likelihood itself.
  return pools
    .filter(({ all }) => all >= 5)
    .map(({ from, right, all }) => [round(from), round((right + 2 * from) / (all + 2))]);
}

const round = (value: number): number => Math.round(value * 1000) / 1000;
