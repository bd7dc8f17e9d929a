import { mapPoint, type Matrix } from '@tovel/core';

/** How many numbers follow each step of a path, and its letter. */
const STEPS: readonly (readonly [letter: string, numbers: number])[] = [
  ['M', 2],
  ['L', 2],
  ['C', 6],
  ['Q', 4],
  ['Z', 0],
];

const round = (n: number): number => Math.round(n * 1000) / 1000;

/** Path data as in SVG of what the library holds as numbers. */
export function pathData(buffer: ArrayLike<number>, matrix: Matrix): string {
  let path = '';
  for (let i = 0; i < buffer.length;) {
    const [letter, count] = STEPS[buffer[i++]] ?? [];
    if (!letter) return path;
    path += letter;
    for (let k = 0; k < count!; k += 2) {
      const [x, y] = mapPoint(matrix, buffer[i + k], buffer[i + k + 1]);
      path += `${k ? ' ' : ''}${round(x)} ${round(y)}`;
    }
    i += count!;
  }
  return path;
}

/** The outline of a box that a matrix maps. */
export const boxPath = ([left, top, right, bottom]: readonly number[], matrix: Matrix): string =>
  pathData([0, left, top, 1, right, top, 1, right, bottom, 1, left, bottom, 4], matrix);
