/** Multinomial logistic regression over traits that hold or do not. */
import { chance } from '../../packages/core/src/testing/chance.ts';

/** One element: the numbers of the traits that hold, the number of its class, and how much it counts. */
export interface Row {
  readonly x: ArrayLike<number>;
  readonly y: number;
  readonly weight: number;
}

export interface Shape {
  readonly traits: number;
  readonly classes: number;
}

/**
 * Weights, a row of classes for each trait, by gradient steps over small batches (Adam, Kingma and Ba 2015), pulled to
 * what was known before; the mean of the last third of the steps (Polyak and Juditsky 1992).
 * @param prior what is known before, of the same shape as the answer
 * @param pull how strongly
 */
export function learnSoftmax(
  rows: readonly Row[],
  { traits, classes }: Shape,
  prior: Float32Array,
  pull: number,
  epochs: number,
): Float32Array {
  const w = Float32Array.from(prior);
  const [m, v, mean] = [new Float32Array(w.length), new Float32Array(w.length), new Float64Array(w.length)];
  const order = rows.map((_, i) => i);
  const random = chance(7);
  const g = new Float32Array(w.length);
  const touched: number[] = [];
  const isTouched = new Uint8Array(traits);
  const p = new Float64Array(classes);
  const size = 256;
  const rounds = Math.ceil(rows.length / size);
  const all = epochs * rounds;
  const total = rows.reduce((sum, { weight }) => sum + weight, 0);
  let [step, kept] = [0, 0];
  for (let epoch = 0; epoch < epochs; epoch++) {
    for (let i = order.length - 1; i > 0; i--) {
      const j = Math.floor(random() * (i + 1));
      [order[i], order[j]] = [order[j], order[i]];
    }
    for (let from = 0; from < order.length; from += size) {
      step++;
      const batch = order.slice(from, from + size);
      for (const i of batch) {
        const { x, y, weight } = rows[i];
        likelihoods(w, x, classes, p);
        p[y] -= 1;
        const scale = (weight * rows.length) / total / batch.length;
        for (let k = 0; k < x.length; k++) {
          if (!isTouched[x[k]]) {
            isTouched[x[k]] = 1;
            touched.push(x[k]);
          }
          const at = x[k] * classes;
          for (let c = 0; c < classes; c++) g[at + c] += scale * p[c];
        }
      }
      const rate = 0.03 * (1 - (0.9 * step) / all);
      const [fixM, fixV] = [1 - 0.9 ** step, 1 - 0.999 ** step];
      for (const trait of touched) {
        isTouched[trait] = 0;
        for (let at = trait * classes; at < (trait + 1) * classes; at++) {
          const d = g[at] + pull * (w[at] - prior[at]);
          g[at] = 0;
          m[at] = 0.9 * m[at] + 0.1 * d;
          v[at] = 0.999 * v[at] + 0.001 * d * d;
          w[at] -= (rate * (m[at] / fixM)) / (Math.sqrt(v[at] / fixV) + 1e-8);
        }
      }
      touched.length = 0;
    }
    if (epoch >= (epochs * 2) / 3) {
      kept++;
      for (let at = 0; at < w.length; at++) mean[at] += w[at];
    }
  }
  return Float32Array.from(mean, (sum) => sum / Math.max(1, kept));
}

/** How likely each class is; written into `p`. */
export function likelihoods(w: Float32Array, x: ArrayLike<number>, classes: number, p: Float64Array): void {
  p.fill(0);
  for (let k = 0; k < x.length; k++) {
    const at = x[k] * classes;
    for (let c = 0; c < classes; c++) p[c] += w[at + c];
  }
  let most = -Infinity;
  for (let c = 0; c < classes; c++) most = Math.max(most, p[c]);
  let sum = 0;
  for (let c = 0; c < classes; c++) sum += p[c] = Math.exp(p[c] - most);
  for (let c = 0; c < classes; c++) p[c] /= sum;
}
