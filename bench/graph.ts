/**
 * The screen graph of 200 screens with 2,000 links and of 2,000 with 20,000: built and analysed from nothing, and after
 * one edit, beside a plain loop over the links. Then all states of 50 and of 500 screens with 12 conditions, beside a loop
 * over as many numbers.
 */
import { performance } from 'node:perf_hooks';
import {
  all,
  analysisOf,
  applyChange,
  type App,
  type Design,
  drawLines,
  explore,
  emptyApp,
  emptyDesign,
  graphFiles,
  graphOf,
  lineGroups,
  linesInput,
  pressablesOf,
  type Project,
  putVariable,
  putInteraction,
  putScreen,
  readSvg,
  statePlan,
  type Screen,
  takeIn,
} from '@tovel/core';

const LINKS = 10;

const row = (what: string, ...cells: string[]): void =>
  console.log(`  ${what.padEnd(44)}${cells.map((cell) => cell.padStart(14)).join('')}`);

/** The middle of several runs, in milliseconds. */
function median<T>(runs: number, work: (prepared: T) => unknown, prepare?: () => T): number {
  const times = Array.from({ length: runs }, () => {
    const prepared = prepare?.() as T;
    const begin = performance.now();
    work(prepared);
    return performance.now() - begin;
  });
  return times.sort((a, b) => a - b)[runs >> 1];
}

function screenOf(key: string): Screen {
  const buttons = Array.from(
    { length: LINKS },
    (_, i) =>
      `<g id="Button_${i}"><rect x="24" y="${40 + 60 * i}" width="342" height="48" rx="8" fill="#234"/><text x="195" y="${69 + 60 * i}" font-size="16" text-anchor="middle" fill="#fff">Go ${i}</text></g>`,
  );
  const text = `<svg xmlns="http://www.w3.org/2000/svg" width="390" height="844" viewBox="0 0 390 844">${buttons.join('')}</svg>`;
  return readSvg({ file: `${key}.svg`, text, screenKey: key, asset: () => null }).screen!;
}

/** Screens that lead on to near ones, and each tenth to one far away. */
function projectOf(n: number): Project {
  const design: Design = { ...emptyDesign, screens: Array.from({ length: n }, (_, i) => screenOf(`s${i}`)) };
  const app = applyChange(emptyApp, takeIn({ design, app: emptyApp }, design.screens));
  const wiring = design.screens.flatMap((screen, i) =>
    pressablesOf(screen).map(({ element }, j) =>
      putInteraction(element.key, {
        on: 'press',
        target: { kind: 'screen', screen: `s${(j ? i + j : i * 7 + 1) % n}` },
        arrival: { kind: 'none' },
      }),
    ),
  );
  return { design, app: applyChange(app, all(wiring)) };
}

const columns = [200, 2000].map((n) => {
  const { design, app } = projectOf(n);
  // The same app as another value, of which nothing is known yet.
  const fresh = (): App => ({ ...app, interactions: { ...app.interactions } });
  graphOf({ design, app });
  /** A document in which one more link was taken out, of another screen each time. */
  let [now, at] = [app, n];
  const edit = (): App => {
    const { key } = pressablesOf(design.screens[(at = (at - 1 + n) % n)])[0].element;
    return (now = applyChange(now, putInteraction(key, null)));
  };
  return {
    links: graphOf({ design, app }).links.length,
    loop: median(9, () => {
      let sum = 0;
      for (const link of graphOf({ design, app }).links) if (link.to) sum++;
      return sum;
    }),
    build: median(9, (made) => graphOf({ design, app: made }), fresh),
    analyse: median(9, () => analysisOf({ ...graphOf({ design, app }) })),
    change: median(9, edit),
    again: median(
      15,
      (made) => analysisOf(graphOf({ design, app: made })),
      () => {
        graphOf({ design, app: now });
        return edit();
      },
    ),
    draw: median(5, () => {
      const project = { design, app };
      const graph = graphOf(project);
      const groups = lineGroups(project, graph);
      return drawLines(linesInput(project, graph, groups), new Set());
    }),
    write: median(5, () => graphFiles.graphml.print({ design, app }, 'Bench')),
  };
});

const [small, large] = columns;
console.log('\nThe screen graph');
row('', '200 screens', '2,000 screens', 'times');
row('links', String(small.links), String(large.links), (large.links / small.links).toFixed(1));
for (const [what, name] of [
  ['a plain loop over the links', 'loop'],
  ['the graph, screens known', 'build'],
  ['depths, gates, traps', 'analyse'],
  ['one edit applied', 'change'],
  ['graph and analysis after it', 'again'],
  ['laid out as lines', 'draw'],
  ['written as GraphML', 'write'],
] as const)
  row(
    what,
    `${small[name].toFixed(2)} ms`,
    `${large[name].toFixed(2)} ms`,
    (large[name] / Math.max(0.001, small[name])).toFixed(1),
  );

const CONDITIONS = 12;

/** Screens of which each sets a condition, some depend on one, each leads back, and each seventh is guarded. */
function statefulOf(n: number): Project {
  const { design, app } = projectOf(n);
  let seed = 7;
  const any = (most: number): number => {
    seed = (Math.imul(seed, 48271) >>> 0) % 0x7fffffff;
    return (seed >>> 8) % most;
  };
  const one = (): string => `c${any(CONDITIONS)}`;
  const wiring = design.screens.flatMap((screen) =>
    pressablesOf(screen).map(({ element }, j) => {
      const to = { kind: 'screen', screen: `s${any(n)}` } as const;
      const made = { on: 'press', target: to, arrival: { kind: 'none' } } as const;
      if (j === 0)
        return putInteraction(element.key, {
          ...made,
          before: [{ kind: 'set', condition: one(), value: any(2) === 1 }],
        });
      if (j === 1)
        return putInteraction(element.key, { ...made, when: { condition: one(), is: any(2) === 1 } });
      return putInteraction(
        element.key,
        j === 9
          ? { ...made, target: { kind: 'back' } }
          : { ...made, target: { ...to, screen: `s${any(n)}` } },
      );
    }),
  );
  const guards = design.screens.flatMap(({ key }, i) =>
    i % 7 === 3
      ? [
          putScreen(key, {
            ...app.screens[key],
            guard: { condition: one(), is: false, otherwise: 's0' },
          }),
        ]
      : [],
  );
  const conditions = Array.from({ length: CONDITIONS }, (_, i) =>
    putVariable(`c${i}`, { name: `Condition ${i}`, initial: false }),
  );
  return { design, app: applyChange(app, all([...conditions, ...wiring, ...guards])) };
}

const explored = [50, 500].map((n) => {
  const project = statefulOf(n);
  const graph = graphOf(project);
  const plan = statePlan(project, graph);
  const { states, isWhole } = explore(plan);
  return {
    states: isWhole ? states : NaN,
    loop: median(5, () => {
      let sum = 0;
      for (let i = 0; i < states; i++) sum = (sum * 31 + i) | 0;
      return sum;
    }),
    plan: median(5, () => statePlan(project, graph)),
    explore: median(3, () => explore(plan)),
  };
});
console.log(`\nAll states, ${CONDITIONS} conditions`);
row('', '50 screens', '500 screens', 'times');
const [few, many] = explored;
row('states', String(few.states), String(many.states), (many.states / few.states).toFixed(1));
for (const [what, name] of [
  ['a plain loop over as many numbers', 'loop'],
  ['the plan', 'plan'],
  ['explored', 'explore'],
] as const)
  row(
    what,
    `${few[name].toFixed(2)} ms`,
    `${many[name].toFixed(2)} ms`,
    (many[name] / Math.max(0.001, few[name])).toFixed(1),
  );
