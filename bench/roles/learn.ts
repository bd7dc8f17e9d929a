/**
 * Learns how much each trait of an element says of its role, and what a likelihood was worth on templates that it was not
 * learned from; writes `learned/weights.ts` of the roles. Prints what it comes to on templates that are only measured on.
 * `node --import tsx bench/roles/learn.ts` installs what it needs.
 */
import { HeadlessHost } from '@tovel/reader/headless';
import { bareName, installed } from '../installed.ts';
import { prepare, score, type TruePage } from './learning.ts';
import { learnAndWrite } from './written.ts';
import { hiddenPages, TO_LEARN, TO_MEASURE } from './piles.ts';

const packaged = await installed([...TO_LEARN, ...TO_MEASURE]);
const host = new HeadlessHost();
const pages: TruePage[] = [];
try {
  for (const name of [...TO_LEARN, ...TO_MEASURE])
    for (const isNeutral of [false, true])
      pages.push(...(await hiddenPages(name, packaged.rootOf(name), isNeutral, host)));
} finally {
  await host.close();
  await packaged.remove();
}
const toLearn = new Set(TO_LEARN.map(bareName));
const learned = await learnAndWrite(pages.filter(({ template }) => toLearn.has(template)).map(prepare));
for (const name of TO_MEASURE.map(bareName))
  for (const isNeutral of [false, true]) {
    const own = pages.filter((page) => page.template === name && page.isNeutral === isNeutral).map(prepare);
    const { byRules, asLearned } = score(learned, own);
    console.log(
      `  ${name.padEnd(42)}${isNeutral ? ' names neutral' : ''.padEnd(14)}  macro F1 ${byRules.toFixed(3)} by rules, ${asLearned.toFixed(3)} as learned`,
    );
  }
