import { mostElements } from '../../../components/one_thing.ts';
import { grouped } from '../../../json/grouped.ts';
import { hash } from '../../../json/hash.ts';
import type { Component } from '../../../model/app.ts';
import type { PropsBefore } from '../before.ts';
import { elementsIn, type MarkupNode, termsOf, visitMarkup, variantsOf } from '../markup.ts';
import { formOf } from './columns.ts';
import { wayOf } from './compatible.ts';
import { type Hollow, hollowed } from './hollow.ts';
import { valuesInOrder } from './route_looks.ts';
import { type ElementsKnown, lookOf, type Place, type Template, templateOf } from './template.ts';

/** A template, and the places that it is of. */
export interface Fitting<P extends Place> {
  readonly template: Template;
  readonly places: readonly P[];
  /** What each place holds, where that is no part of the template. */
  readonly contents?: readonly (readonly MarkupNode[])[];
}

/** The template of the places; places that do not fit go their own way as long as most do. */
export function fittingTemplate<P extends Place>(
  given: readonly P[],
  component: Component,
  before?: PropsBefore,
  elements?: ElementsKnown,
): Fitting<P> | null {
  const hasDefaults = component.kind === 'component';
  const all = hasDefaults ? choosingAlike(given) : given;
  if (!all.length) return null;
  const holding = hasDefaults ? hollowed(all) : null;
  const aroundContent = (): Fitting<P> | null =>
    holding && fittingAround(holding, component, before, elements);
  // Entries of lists that are longer here than there are held, not told one by one.
  const holdsAll = holding?.holdsEntries && holding.places.length === all.length;
  if (holdsAll) {
    // Unless they are so much alike that they are given as a list.
    const listing = templateOf(all, component.props, hasDefaults, before, elements);
    if (listing?.props.some(({ kind }) => kind === 'list') && isOneThing(listing, all))
      return { template: listing, places: all };
  }
  const aroundEntries = holdsAll ? aroundContent() : null;
  if (aroundEntries) return aroundEntries;
  // A row that is left out would part its list.
  const places = hasDefaults ? withoutStrays(all) : all;
  const whole = templateOf(places, component.props, hasDefaults, before, elements);
  if (whole && isOneThing(whole, places)) {
    const usual = hasDefaults ? withoutOddlyGiven(whole, places) : places;
    const template =
      usual.length < places.length ? templateOf(usual, component.props, true, before, elements) : null;
    return template && isOneThing(template, usual)
      ? { template, places: usual }
      : { template: whole, places };
  }
  const around = aroundContent();
  if (around?.places.length === all.length) return around;
  const fitting = withOthers(mostFitting(places), places);
  if (around && around.places.length >= fitting.length) return around;
  if (fitting.length < 2) return null;
  const madeOf = (some: readonly P[]): Template | null =>
    templateOf(some, component.props, hasDefaults, before, elements);
  const template = madeOf(fitting);
  if (template) return { template, places: fitting };
  return surelyFitting(fitting, madeOf);
}

/** Places that fit, with those of the others that do, too, one by one where they are few. */
function withOthers<P extends Place>(fitting: readonly P[], places: readonly P[]): readonly P[] {
  const others = places.filter((place) => !fitting.includes(place));
  if (fitting.length < 2 || others.length > MOST_TRIED) return fitting;
  let all = fitting;
  for (const place of others) {
    const grown = [...all, place];
    const template = templateOf(grown);
    if (template && isOneThing(template, grown)) all = grown;
  }
  return all === fitting ? fitting : places.filter((place) => all.includes(place));
}

/**
 * Those of places whose kinds stand for each other's, but not all of which fit: one kind after the other, each as a whole; null
 * where no two do.
 */
function surelyFitting<P extends Place>(
  places: readonly P[],
  madeOf: (some: readonly P[]) => Template | null,
): Fitting<P> | null {
  let sure: Fitting<P> | null = null;
  for (const form of formsOf(places)) {
    const grown = places.filter((place) => form.includes(place) || sure?.places.includes(place));
    const template = madeOf(grown);
    if (template) sure = { template, places: grown };
  }
  return sure && sure.places.length >= 2 ? sure : null;
}

/** The most of places with the same around something else each; null where nothing is, or that is no one thing. */
function fittingAround<P extends Place>(
  holding: Hollow<P>,
  { props }: Component,
  before?: PropsBefore,
  elements?: ElementsKnown,
): Fitting<P> | null {
  const template = templateOf(holding.hollows, props, true, before, elements);
  if (!template || !isOneThing(template, holding.hollows)) return null;
  return { template, places: holding.places, contents: holding.contents };
}

/**
 * What elements have to have in common to be one, besides how they are nested, in order: the kinds of their links, as what leads
 * on within the app is no link out of it, how they open and close, what they do, and the looks that an outer component tells
 * apart.
 */
function ownWaysIn(place: Place): string[] {
  const found: string[] = [];
  visitMarkup(place.node, (node) => {
    const way = wayOf(node);
    if (way) found.push(way);
    for (const variant of variantsOf(node))
      found.push(
        hash(
          valuesInOrder(variant)
            .map((value) => lookOf(place, variant.classes[value] ?? null))
            .join(),
        ),
      );
    return true;
  });
  return found;
}

/** How much is saved by saying once what stands at some places: looks that an outer component tells apart take many words. */
function savedBy(places: readonly Place[]): number {
  let saved = places.length;
  for (const { node } of places)
    visitMarkup(node, (one) => {
      if (variantsOf(one).length) saved += SAVED_BY_LOOKS;
      return true;
    });
  return saved;
}
const SAVED_BY_LOOKS = 2;

/** Places by their kinds, those first that are saved most by being said once, as many kinds as are looked at. */
const formsOf = <P extends Place>(places: readonly P[]): P[][] =>
  [...grouped(places, (place) => `${formOf(place.node)} ${ownWaysIn(place).join()}`).values()]
    .sort((a, b) => savedBy(b) - savedBy(a))
    .slice(0, MOST_FORMS);

/** The most of places that are one thing: the most frequent form, and what fits it; all that are built alike come in together. */
function mostFitting<P extends Place>(places: readonly P[]): readonly P[] {
  const forms = formsOf(places);
  let most: readonly P[] = [];
  for (const start of forms.slice(0, MOST_STARTS)) {
    const group = fittingForms(start, forms);
    if (savedBy(group) > savedBy(most)) most = places.filter((place) => group.includes(place));
  }
  return most;
}

/** Of what is smaller than this, a part more or less is no matter. */
const LEAST_STRAYED = 12;
/** What adds more than this part of itself to what the others have in common goes its own way. */
const MOST_ADDED = 0.5;

/**
 * Places without those that hardly share anything with the others, in how they are built or in how they look: written with them,
 * each would be a second version behind conditions. What most places are is none.
 */
function withoutStrays<P extends Place>(all: readonly P[]): readonly P[] {
  if (elementsIn(all[0].node) < LEAST_STRAYED) return all;
  const places = withoutOddLooks(all);
  const kinds = [
    ...grouped(places, (place) => `${formOf(place.node)} ${hash(looksIn(place).join())}`).values(),
  ].sort((a, b) => b.length - a.length);
  if (kinds.length < 2 || kinds.length > MOST_FORMS) return places;
  let kept = kinds;
  let length = lengthOfAll(kinds);
  for (const kind of kinds.slice(1).reverse()) {
    const others = kept.filter((one) => one !== kind);
    const without = lengthOfAll(others);
    if (!(length - without > MOST_ADDED * elementsIn(kind[0].node))) continue;
    kept = others;
    length = without;
  }
  const stay = new Set(kept.flat());
  return stay.size < 2 ? places : places.filter((place) => stay.has(place));
}

/** What parts are chosen among in a place, in any order. */
function choicesIn({ node }: Place): string {
  const choices = new Set<string>();
  visitMarkup(node, ({ link, part }) => {
    const choice = (link?.kind === 'disclose' ? link.choice : undefined) ?? part?.choice;
    if (choice) choices.add(JSON.stringify(choice));
    return true;
  });
  return [...choices].sort().join();
}

/** Places in which the same is chosen among: tabs of other parts only look like them. */
function choosingAlike<P extends Place>(places: readonly P[]): readonly P[] {
  const kinds = [...grouped(places, choicesIn).values()];
  if (kinds.length < 2) return places;
  const most = kinds.reduce((longest, kind) => (kind.length > longest.length ? kind : longest));
  return most.length < 2 ? [] : most;
}

/** What is given more than so many things, where the others are given so few, says something else in the same form. */
const MOST_GIVEN = 9;
const FEW_GIVEN = 3;
/** At most this part of the places is odd; else there is nothing that most are. */
const MOST_ODD = 0.2;

/** Places without those few that are given much more than the others: a page in another language, with the same menu. */
function withoutOddlyGiven<P extends Place>(template: Template, places: readonly P[]): readonly P[] {
  const counts = template.values.map((given) => Object.keys(given).length);
  const usual = counts.toSorted((a, b) => a - b)[counts.length >> 1];
  if (usual > FEW_GIVEN) return places;
  const stay = places.filter((_, i) => counts[i] <= MOST_GIVEN);
  return places.length - stay.length <= places.length * MOST_ODD ? stay : places;
}

/** So many places tell what most of them look like. */
const LEAST_TELLING = 4;

/** Places without those most of whose elements look like nothing at most others: a page with a style sheet of its own. */
function withoutOddLooks<P extends Place>(places: readonly P[]): readonly P[] {
  if (places.length < LEAST_TELLING) return places;
  const looks = places.map(looksIn);
  const counts = new Map<string, number>();
  for (const own of looks) for (const look of new Set(own)) counts.set(look, (counts.get(look) ?? 0) + 1);
  const stay = places.filter((_, i) => {
    const odd = looks[i].filter((look) => counts.get(look)! * 2 <= places.length).length;
    return odd <= looks[i].length * MOST_ADDED;
  });
  // Where most are odd there is nothing that most look like.
  return stay.length * 2 > places.length ? stay : places;
}

/** The looks of all elements of a place, in order. */
export function looksIn(place: Place): string[] {
  const looks: string[] = [];
  visitMarkup(place.node, ({ className }) => {
    looks.push(hash(lookOf(place, className)));
    return true;
  });
  return looks;
}

/** How long what stands at places of some kinds is, written as one: its elements, and all that they depend on. */
function lengthOfAll(kinds: readonly (readonly Place[])[]): number {
  const template = templateOf(kinds.flatMap((kind) => kind.slice(0, ENOUGH)));
  if (!template) return Infinity;
  let length = 0;
  visitMarkup(template.root, (node) => {
    length += 1 + termsOf(node).length;
    return true;
  });
  return length;
}

/** Of one thing, such a part is there wherever it stands. */
const LEAST_ALWAYS = 0.4;

/** Whether a template is about as large as what it is of: what holds the one thing here and another there is no one thing. */
function isOneThing(template: Template, places: readonly Place[]): boolean {
  const size = elementsIn(template.root);
  if (size > mostElements(places.map(({ node }) => elementsIn(node)))) return false;
  return elementsIn(template.root, ({ when }) => !when) >= size * LEAST_ALWAYS;
}
/** So many forms are looked at, those first that most places have. */
const MOST_FORMS = 24;
/** So many of them, and of places built alike that do not fit, are tried as what the others have to fit. */
const MOST_STARTS = 3;
/** So many places stand for all that are built alike. */
const ENOUGH = 2;
/** Of places that are built alike and do not fit all the same, so many are tried one by one. */
const MOST_TRIED = 24;

/** The places of a form with those of others that fit it, one form after the other. */
function fittingForms<P extends Place>(start: readonly P[], forms: readonly (readonly P[])[]): readonly P[] {
  const fits = (some: readonly P[], all: readonly P[]): boolean => {
    const template = templateOf(some);
    return template !== null && isOneThing(template, all);
  };
  let all = fits(start.slice(0, ENOUGH), start) ? start : fittingPlaces(start.slice(0, MOST_TRIED), fits);
  let some = all.slice(0, ENOUGH);
  for (const form of forms) {
    if (form === start) continue;
    const [nowSome, nowAll] = [
      [...some, ...form.slice(0, ENOUGH)],
      [...all, ...form],
    ];
    if (fits(nowSome, nowAll)) [some, all] = [nowSome, nowAll];
  }
  return all;
}

/** The most of places, tried one by one, that fit one of the first. */
function fittingPlaces<P extends Place>(
  places: readonly P[],
  fits: (some: readonly P[], all: readonly P[]) => boolean,
): readonly P[] {
  let most: readonly P[] = [];
  for (const first of places.slice(0, MOST_STARTS)) {
    let made: readonly P[] = [first];
    for (const place of places) {
      const grown = [...made, place];
      if (place !== first && fits(grown, grown)) made = grown;
    }
    if (made.length > most.length) most = made;
  }
  return most;
}
