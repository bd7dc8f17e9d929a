import type { ElementPair } from '../match/elements.ts';
import type { Element } from '../model/design.ts';
import { labelOf } from '../links/pressable.ts';
import { elementsByKey } from '../model/places.ts';
import { elementKey, kinds, type Schema, table, type ValueOf } from '../schema/schema.ts';
import type { Ask, IterationPlan, Settled } from './plan.ts';

/**
 * What a person says of something that an iteration asks: it is this element of the newer screens; it is let go; of what
 * both changed, the design's is taken or one's own is kept. What nobody answers waits.
 */
export const answerSchema = kinds({
  on: { element: elementKey },
  letGo: {},
  design: {},
  own: {},
});
export type Answer = ValueOf<typeof answerSchema>;

/** Answers by the key of the element, as it was, that they are about; of a list or component by what the ask is called. */
export type Answers = Readonly<Record<string, Answer>>;
export const answersSchema = table(elementKey, answerSchema, { max: 20_000 }) as Schema<Answers>;

/**
 * A plan in which what was answered is no longer asked, and what was kept for another element, or kept at all, is put right.
 * Answers about anything else say nothing.
 */
export function answered(plan: IterationPlan, answers: Answers): IterationPlan {
  if (!Object.keys(answers).length) return plan;
  const incoming = new Map<string, Element>();
  for (const { now } of plan.screens)
    if (now) for (const [key, element] of elementsByKey(now)) incoming.set(key, element);
  const partner = new Map(plan.partner);
  const partnerOf = new Map([...partner.values()].map((pair) => [pair.old, pair]));
  const letGo = [...plan.letGo];
  const onto = [...plan.onto];
  const overruled = [...plan.overruled];
  const asks: Ask[] = [];
  const moving: { readonly from: Settled; readonly to: Element }[] = [];
  const part = (old: Element): void => {
    const before = partnerOf.get(old);
    if (before && partner.get(before.now) === before) partner.delete(before.now);
    partnerOf.delete(old);
  };
  for (const ask of plan.asks) {
    const answer = answers[ask.id];
    const to = answer?.kind === 'on' ? incoming.get(answer.element) : undefined;
    if (ask.why === 'template') {
      if (answer?.kind === 'design') overruled.push(...ask.about.own);
      else if (answer?.kind !== 'own') asks.push(ask);
    } else if (ask.why === 'bothChanged') {
      if (answer?.kind === 'design') overruled.push(...ask.clashes.map(({ entry }) => entry));
      else if (answer?.kind !== 'own') asks.push(ask);
    } else if (answer?.kind === 'letGo') letGo.push(ask);
    else if (to) moving.push({ from: ask, to });
    else asks.push(ask);
  }
  const kept = plan.kept.filter((one) => {
    const answer = answers[one.old.key];
    const to = answer?.kind === 'on' ? incoming.get(answer.element) : undefined;
    if (answer?.kind === 'letGo') letGo.push(one);
    else if (to && to !== one.now) moving.push({ from: one, to });
    else return true;
    return false;
  });
  // Before anything finds its place, all that moves has left its own: two can change places.
  for (const { from } of moving) part(from.element);
  const keeps = new Set(kept.map(({ now }) => now));
  for (const { from, to } of moving) {
    if (keeps.has(to)) {
      // It stays what it is, and takes on what was decided about the other.
      onto.push({ ...from, to });
      continue;
    }
    const pair: ElementPair = { old: from.element, now: to, score: 1 };
    const other = partner.get(to);
    if (other) partnerOf.delete(other.old);
    partner.set(to, pair);
    partnerOf.set(from.element, pair);
    keeps.add(to);
    const { element, screen, about } = from;
    kept.push({ ...pair, element, screen, about, isByHand: true });
  }
  // What has left its place is not at odds with the design there any more.
  const left = new Set([...letGo, ...onto].map(({ element }) => element));
  return {
    ...plan,
    partner,
    kept,
    asks: asks.filter(({ why, element }) => why !== 'bothChanged' || !left.has(element)),
    letGo,
    onto,
    overruled,
    byHand: plan.byHand + moving.length,
  };
}

/** Least certainty of a candidate that is taken with all that is likely, and what another one may have at most. */
const LIKELY = 0.5;
const RIVAL = 0.15;

/** What Tovel would answer by itself; null where that is anybody's guess. */
export function proposedAnswer(ask: Ask): Answer | null {
  if (ask.why === 'template') return ask.rows!.isAlike ? { kind: 'own' } : null;
  if (ask.why === 'bothChanged')
    // Where the design now says what somebody had made of it, there is nothing left to be of two minds about.
    return ask.clashes.every(({ mine, design }) => mine === design) ? { kind: 'design' } : null;
  const [first, second] = ask.candidates;
  const says = labelOf(ask.element);
  const same = ask.candidates.filter(({ element }) => says !== '' && labelOf(element) === says);
  // Only one that says the same, and it is what is likest: nobody would think twice.
  if (same.length === 1 && same[0] === first) return { kind: 'on', element: first.element.key };
  if (!first || first.score < LIKELY || (second && second.score > Math.max(RIVAL, first.score / 3)))
    return null;
  return { kind: 'on', element: first.element.key };
}
