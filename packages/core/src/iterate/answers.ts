import type { Element, Screen } from '../model/design.ts';
import { labelOf } from '../links/pressable.ts';
import { elementsByKey } from '../model/places.ts';
import { elementKey, kinds, type Schema, table, type ValueOf } from '../schema/schema.ts';
import type { Ask, IterationPlan } from './plan.ts';

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

/** Answers by the key of the element, as it was, that they are about. */
export type Answers = Readonly<Record<string, Answer>>;
export const answersSchema = table(elementKey, answerSchema, { max: 20_000 }) as Schema<Answers>;

/** A plan in which what was answered is no longer asked. Answers about what is not asked say nothing. */
export function answered(plan: IterationPlan, answers: Answers): IterationPlan {
  if (!Object.keys(answers).length) return plan;
  const incoming = new Map<string, { readonly element: Element; readonly screen: Screen }>();
  for (const { now } of plan.screens)
    if (now) for (const [key, element] of elementsByKey(now)) incoming.set(key, { element, screen: now });
  const partner = new Map(plan.partner);
  const partnerOf = new Map([...partner.values()].map((pair) => [pair.old, pair]));
  const kept = [...plan.kept];
  const letGo = [...plan.letGo];
  const onto = [...plan.onto];
  const overruled = [...plan.overruled];
  const asks: Ask[] = [];
  const keeps = new Set(kept.map(({ now }) => now));
  let byHand = plan.byHand;
  for (const ask of plan.asks) {
    const answer = answers[ask.element.key];
    const to = answer?.kind === 'on' ? incoming.get(answer.element) : undefined;
    if (ask.why === 'bothChanged') {
      if (answer?.kind === 'design') overruled.push(...ask.clashes.map(({ entry }) => entry));
      else if (answer?.kind !== 'own') asks.push(ask);
      continue;
    }
    if (answer?.kind === 'letGo') {
      letGo.push(ask);
      continue;
    }
    if (!to) {
      asks.push(ask);
      continue;
    }
    byHand++;
    if (keeps.has(to.element)) {
      // It stays what it is, and takes on what was decided about the other.
      onto.push({ ...ask, to: to.element });
      continue;
    }
    const before = partnerOf.get(ask.element);
    if (before) partner.delete(before.now);
    const pair = { old: ask.element, now: to.element, score: 1 };
    partner.set(to.element, pair);
    partnerOf.set(ask.element, pair);
    keeps.add(to.element);
    kept.push(pair);
  }
  return { ...plan, partner, kept, asks, letGo, onto, overruled, byHand };
}

/** Least certainty of a candidate that is taken with all that is likely, and what another one may have at most. */
const LIKELY = 0.5;
const RIVAL = 0.15;

/** What Tovel would answer by itself; null where that is anybody's guess. */
export function proposedAnswer(ask: Ask): Answer | null {
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
