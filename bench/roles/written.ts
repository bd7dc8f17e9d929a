import { writeFileSync } from 'node:fs';
import { format, resolveConfig } from 'prettier';
import { LETTERS } from '../../packages/core/src/roles/learned/model.ts';
import { authorOf } from './piles.ts';
import { CLASSES, type Learned, learn, type prepare, sharesOf } from './learning.ts';

/** Weights that say less are left out. */
const LEAST = 0.1;
const TARGET = 'packages/core/src/roles/learned/weights.ts';

/** Learns from pages and writes what was learned; gives it as it was written. */
export async function learnAndWrite(pages: readonly ReturnType<typeof prepare>[]): Promise<Learned> {
  const shares = sharesOf(pages, authorOf);
  const learned = rounded(learn(pages));
  const code = `import type { Role } from '../names.ts';

/** Learned by \`bench/roles/learn.ts\`. */
export const CLASSES = '${CLASSES.join(' ')}'.split(' ') as readonly (Role | 'none')[];

/** From a likelihood on, the share that was right on templates that were not learned from. */
export const SHARES: readonly (readonly [from: number, share: number])[] = ${JSON.stringify(shares)};

/** What each trait says: for some classes their letter, of LETTERS, and tenths. */
export const WEIGHTS: Readonly<Record<string, string>> = {
${entries(learned)
  .map(([trait, text]) => `  ${JSON.stringify(trait)}: ${JSON.stringify(text)},`)
  .join('\n')}
};
`;
  writeFileSync(TARGET, await format(code, { ...(await resolveConfig(TARGET)), filepath: TARGET }));
  return learned;
}

/** Weights as they are written. */
export function rounded({ traits, weights }: Learned): Learned {
  return {
    traits,
    weights: weights.map((weight) => (Math.abs(weight) < LEAST ? 0 : Math.round(weight * 10) / 10)),
  };
}

function entries({ traits, weights }: Learned): [string, string][] {
  return traits
    .map((trait, i): [string, string] => [
      trait,
      CLASSES.map((_, c) => Math.round(weights[i * CLASSES.length + c] * 10))
        .map((tenths, c) => (tenths ? `${LETTERS[c]}${tenths}` : ''))
        .join(''),
    ])
    .filter(([, text]) => text)
    .sort(([a], [b]) => (a < b ? -1 : 1));
}
