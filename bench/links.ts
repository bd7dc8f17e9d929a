/**
 * How often Tovel says rightly where an element leads: multi-page templates from the registry with every link between
 * their pages replaced by `#`, once as they are and once with neutral titles and file names. None of them was learned from.
 * `npm run bench -- links [PACKAGE...]` measures others.
 */
import { elementsByKey, inferRoles, labelOf, proposeLinks, type Screen } from '@tovel/core';
import { HeadlessHost } from '@tovel/reader/headless';
import { installed } from './installed.ts';
import { blindPile, fileOf, placeOf, TO_MEASURE } from './links/piles.ts';

const wanted = process.argv.slice(2).filter((arg) => !arg.startsWith('--'));
const isLong = process.argv.includes('--misses');
const packages = wanted.length ? wanted : TO_MEASURE;
const packaged = await installed(packages);
const host = new HeadlessHost();
try {
  for (const name of packages) {
    for (const neutral of [false, true]) await measure(name, packaged.rootOf(name), neutral);
  }
} finally {
  await host.close();
  await packaged.remove();
}

async function measure(name: string, root: string, neutral: boolean): Promise<void> {
  const { screens, truth } = await blindPile(root, neutral, host);
  const design = { format: 'tovel-design/1' as const, iteration: 1, screens, assets: [], notices: [] };
  const begin = performance.now();
  const proposals = proposeLinks(design);
  const spent = performance.now() - begin;
  const byKey = new Map(screens.map((screen) => [screen.key, screen]));
  const best = new Map<string, (typeof proposals)[number]>();
  for (const proposal of proposals) if (!best.has(proposal.element)) best.set(proposal.element, proposal);
  const bins = Array.from({ length: 10 }, () => ({ right: 0, all: 0 }));
  let [right, found] = [0, 0];
  const [foundPairs, rightPairs, truePairs] = [new Set<string>(), new Set<string>(), new Set<string>()];
  const outside = { right: 0, found: 0, true: 0 };
  for (const screen of screens) {
    const guesses = inferRoles(screen);
    const inNavigation = new Set<string>();
    const visit = (element: Screen['root'], isIn: boolean): void => {
      const isNav =
        isIn ||
        ['navigation', 'contentinfo', 'banner'].includes(guesses.get(element.key)?.role ?? '') ||
        /\b(sidebar|navbar|topbar|sidenav)\b/.test(element.classes ?? '');
      if (isNav) inNavigation.add(element.key);
      element.children.forEach((child) => visit(child, isNav));
    };
    visit(screen.root, false);
    for (const element of elementsByKey(screen).values()) {
      const place = placeOf(fileOf(screen), element.source.path);
      const to = truth.get(place);
      const proposal = best.get(element.key);
      const isOut = !inNavigation.has(element.key);
      const label = labelOf(element).toLowerCase();
      if (to) truePairs.add(`${label} ${to}`);
      if (to && isOut) outside.true++;
      if (!proposal) {
        if (isLong && to) console.log(`    missed  ${place} “${label}” → ${to}`);
        continue;
      }
      const said = fileOf(byKey.get(proposal.to)!);
      const bin = bins[Math.min(9, Math.floor(proposal.confidence * 10))];
      bin.all++;
      if (said === to) bin.right++;
      if (proposal.confidence < 0.5) {
        if (isLong && to)
          console.log(
            `    unsure  ${place} “${label}” → ${to}, said ${said} ${proposal.confidence.toFixed(2)}`,
          );
        continue;
      }
      found++;
      foundPairs.add(`${label} ${said}`);
      if (isOut) outside.found++;
      if (said === to) {
        right++;
        rightPairs.add(`${label} ${said}`);
        if (isOut) outside.right++;
      } else if (isLong)
        console.log(
          `    wrong   ${place} “${label}” → ${to ?? 'nowhere'}, said ${said} ${proposal.confidence.toFixed(2)} because ${proposal.reason}`,
        );
    }
  }
  const f1 = (hits: number, said: number, all: number): number =>
    said + all ? (2 * hits) / (said + all) : 0;
  console.log(`\nLinks${neutral ? ' with neutral titles and file names' : ''}: ${name}`);
  console.log(
    `  over elements: precision ${(right / Math.max(1, found)).toFixed(2)}  recall ${(right / Math.max(1, truth.size)).toFixed(2)}  of ${truth.size}`,
  );
  console.log(
    `  each distinct (label, target) once: F1 ${f1(rightPairs.size, foundPairs.size, truePairs.size).toFixed(2)}  of ${truePairs.size}`,
  );
  console.log(
    `  outside navigation: F1 ${f1(outside.right, outside.found, outside.true).toFixed(2)}  of ${outside.true}`,
  );
  console.log(
    `  of those at a confidence, right: ${bins
      .map((bin, i) =>
        bin.all ? `${(i / 10).toFixed(1)}: ${((100 * bin.right) / bin.all).toFixed(0)} % of ${bin.all}` : '',
      )
      .filter(Boolean)
      .join(', ')}`,
  );
  console.log(`  ${proposals.length} proposals in ${spent.toFixed(0)} ms`);
}
