import type { Finding } from '../findings/finding.ts';
import { findingsOf } from '../findings/rules.ts';
import { graphOf } from '../graph/graph.ts';
import { checkJourney } from '../journeys/walk.ts';
import { proposeLinks } from '../links/propose/propose.ts';
import { settle } from '../layers/settle.ts';
import { type Project, screenName } from '../model/project.ts';

/** What a change of the whole project does to what is computed of it. */
export interface Effects {
  /** Findings that were not there before, and those that are gone. */
  readonly came: readonly Finding[];
  readonly went: readonly Finding[];
  /** Screens that one got to from the start and does not any more, and the other way round, by name. */
  readonly lost: readonly string[];
  readonly reached: readonly string[];
  /** Journeys that went through and do not any more, with why; and those that go through again. */
  readonly broken: readonly { readonly name: string; readonly why: string }[];
  readonly mended: readonly string[];
  /** Elements that can be pressed and were not there before, and how many of them have a link proposed. */
  readonly fresh: { readonly pressable: number; readonly proposed: number };
}

/** Compares what follows from two versions of a project in which what stayed has kept its key. */
export function effectsOf(before: Project, after: Project): Effects {
  const [olds, nows] = [before, after].map(findingsOf);
  const [oldIds, nowIds] = [olds, nows].map((some) => new Set(some.map(({ id }) => id)));
  const [was, is] = [before, after].map((project) => {
    const settled = settle(project);
    return { settled, graph: graphOf(settled) };
  });
  const inUse = new Set([...is.graph.screens, ...is.graph.overlays]);
  const broken: Effects['broken'][number][] = [];
  const mended: string[] = [];
  for (const [id, journey] of Object.entries(after.app.journeys)) {
    const old = before.app.journeys[id];
    const [a, b] = [
      old ? checkJourney(was.settled, was.graph, old).problem : null,
      checkJourney(is.settled, is.graph, journey).problem,
    ];
    if (!a && b) broken.push({ name: journey.name, why: b.message });
    if (a && !b) mended.push(journey.name);
  }
  const known = new Set(
    [...was.graph.elements.values()].flatMap((states) => states.map(({ element }) => element.key)),
  );
  const fresh = [...is.graph.elements.values()]
    .flat()
    .filter(({ element, standing }) => standing === 'open' && !known.has(element.key));
  const proposed = new Set(
    fresh.length
      ? proposeLinks(is.settled.design, is.settled.design.screens, after.app.synonyms).map(
          ({ element }) => element,
        )
      : [],
  );
  return {
    fresh: {
      pressable: fresh.length,
      proposed: fresh.filter(({ element }) => proposed.has(element.key)).length,
    },
    came: nows.filter(({ id }) => !oldIds.has(id)),
    went: olds.filter(({ id }) => !nowIds.has(id)),
    lost: [...was.graph.reached]
      .filter((key) => inUse.has(key) && !is.graph.reached.has(key))
      .map((key) => screenName(after, key)),
    reached: [...is.graph.reached]
      .filter((key) => was.graph.screens.includes(key) && !was.graph.reached.has(key))
      .map((key) => screenName(after, key)),
    broken,
    mended,
  };
}
