import { all, type Change, putDisclosure, putInteraction, putLayer } from '../change/change.ts';
import type { App } from '../model/app.ts';
import { pressTo } from '../model/interaction.ts';
import type { DisclosureProposal } from './find.ts';

/** Makes parts of screens open and close; what an element does already stays. */
export function takeDisclosures({ interactions, still }: App, taken: readonly DisclosureProposal[]): Change {
  const done = new Set<string>();
  return all(
    taken.flatMap(({ parts, controls }) => [
      ...parts.map(([key, disclosure]) => putDisclosure(key, disclosure)),
      ...controls.flatMap(([key, target]) => {
        if (interactions[key] || still[key] || done.has(key)) return [];
        done.add(key);
        return [putInteraction(key, pressTo(target))];
      }),
    ]),
  );
}

/** A part that is always shown again, with those of which only one was open; what opened and closed them does nothing more. */
export function alwaysShown({ disclosures, interactions, layers }: App, part: string): Change {
  const { among } = disclosures[part] ?? {};
  const parts = among ? Object.keys(disclosures).filter((key) => disclosures[key].among === among) : [part];
  const about = new Set(parts);
  const controls = Object.entries(interactions).flatMap(([key, { target }]) =>
    (target.kind === 'disclose' && about.has(target.part)) ||
    (target.kind === 'turn' && target.among === among)
      ? [key]
      : [],
  );
  return all([
    ...parts.flatMap((key) => [putDisclosure(key, null), putLayer(key, { ...layers[key], show: true })]),
    ...controls.map((key) => putInteraction(key, null)),
  ]);
}
