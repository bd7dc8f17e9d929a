import { allOf, type Expression, propsOf } from '../../../expression/expression.ts';
import type { Component } from '../../../model/app.ts';
import type { CodeBefore, PropsBefore } from '../before.ts';
import { isBound } from '../live/bindings.ts';
import { controlsList, holdsRowDeed } from '../live/controls.ts';
import { MESSAGE_TAG } from '../live/forms.ts';
import { mostElements } from '../../../components/one_thing.ts';
import { grouped } from '../../../json/grouped.ts';
import { hash } from '../../../json/hash.ts';
import { pascalCase, uniqueCodeName } from '../../../model/names.ts';
import {
  type EmittedScreen,
  elementsIn,
  givenIn,
  isElement,
  mapChildren,
  type MarkupElement,
  type MarkupNode,
  type PropValue,
  type StyleRule,
  termsOf,
  visitTerms,
} from '../markup.ts';
import { type Apart, placedApart, withPlaced } from './placement.ts';
import { type EmittedList, gatherLists, withFixedRows } from './lists.ts';
import { withOwnRules } from './own_rules.ts';
import { formOf } from './columns.ts';
import { holdsContent, type Hollow, hollowed } from './hollow.ts';
import { boundAgain, holdsItems, unbound } from './item_list.ts';
import { noteAddresses } from './own_links.ts';
import { rowPlaces } from './row_places.ts';
import { valuesInOrder } from './route_looks.ts';
import { asTheirs, type TheirComponent } from './theirs.ts';
import {
  canBeNothing,
  type ElementsKnown,
  lookOf,
  NOTHING_OF_ELEMENTS,
  type Place,
  type Prop,
  routesOf,
  type Template,
  templateOf,
} from './template.ts';

/** A component as it will be written. */
export interface EmittedComponent {
  readonly id: string;
  readonly name: string;
  readonly root: MarkupElement;
  readonly props: readonly Prop[];
  readonly rules: readonly StyleRule[];
  /** Rows in it that never change. */
  readonly lists?: readonly EmittedList[];
}

export interface Extraction {
  readonly components: readonly EmittedComponent[];
  /** What is left of each screen, by its key. */
  readonly roots: ReadonlyMap<string, MarkupElement>;
  readonly lists: ReadonlyMap<string, readonly EmittedList[]>;
  /** The rules of each screen, by its key, with those that say where its components stand. */
  readonly rules: ReadonlyMap<string, readonly StyleRule[]>;
  /** Components that could not be made, with the reason. */
  readonly failed: ReadonlyMap<string, string>;
  /** Each component with all that it shows, before smaller ones were taken out of it, by its id. */
  readonly wholes: ReadonlyMap<string, WholeComponent>;
  /** Which part of the places that were to be each component are it, 0 to 1; the others stay as they are. */
  readonly covered: ReadonlyMap<string, number>;
}

/** What a component shows, and what differs in it from place to place. */
export type WholeComponent = Pick<EmittedComponent, 'root' | 'props' | 'rules'>;

/** What is to be extracted: what people took, and what has to stand twice. */
export interface Wanted extends Component {
  readonly id: string;
}

/** What there is besides the places of a component that its props depend on. */
export interface Known {
  /** The props that each component had, by its id. */
  readonly before: CodeBefore['props'];
  readonly elements: ElementsKnown;
  /** What the collection of records is called that a row shows one of, by the key of the row. */
  readonly recordsOf: ReadonlyMap<string, string>;
  /** What the rows of each screen were known by. */
  readonly rows: CodeBefore['rows'];
  /** Components of the team's own that are written in the place of drawn ones, by the ids of those. */
  readonly theirs: ReadonlyMap<string, TheirComponent>;
  /** What screens and overlays are called in code: a component that one of them uses cannot be called the same. */
  readonly views: ReadonlySet<string>;
}
export const NOTHING_KNOWN: Known = {
  before: new Map(),
  elements: NOTHING_OF_ELEMENTS,
  recordsOf: new Map(),
  rows: new Map(),
  theirs: new Map(),
  views: new Set(),
};

/** Where places can stand: a screen, or a component that was made before. */
interface Body {
  readonly root: MarkupElement;
  readonly rules: ReadonlyMap<string, StyleRule>;
  readonly route: string | null;
  readonly routes?: readonly string[];
  /** Of a component. */
  readonly component?: EmittedComponent;
}

/**
 * Takes components and lists out of emitted screens. The result says the same as before: what a component writes at a
 * place, with what the place gives it, is the very markup that stood there. Larger ones go first; smaller ones are then
 * taken out of what is left of the screens and out of the larger ones.
 * @param routeOf the route of a screen by its key.
 */
export function extractComponents(
  screens: ReadonlyMap<string, EmittedScreen>,
  wanted: readonly Wanted[],
  routeOf: (screen: string) => string | null,
  known: Known = NOTHING_KNOWN,
): Extraction {
  const bodies = new Map<string, Body>();
  for (const [key, screen] of screens)
    bodies.set(key, {
      root: screen.root,
      rules: new Map(screen.rules.map((rule) => [rule.className, rule])),
      route: routeOf(key),
    });
  const lists = new Map<string, EmittedList[]>();
  const failed = new Map<string, string>();
  const names = new Set<string>();
  const wholes = new Map<string, WholeComponent>();
  const covered = new Map<string, number>();
  for (const component of bySize(bodies, wanted)) {
    const found = currentPlaces(bodies, component);
    const places: Apart<BodyPlace>[] = (
      component.kind === 'component'
        ? placedApart(found)
        : found.map((place) => ({ ...place, origin: place.node, placed: null }))
    ).map((place) => (place.stands ? { ...place, origin: place.stands } : place));
    for (const { node, origin } of places) if (node !== origin) noteAddresses(node);
    // What stands once for each of a list stands there several times.
    if (places.length < 2 && !places[0]?.stands) {
      failed.set(
        component.id,
        places.length ? 'a larger component already holds all but one of its places' : 'its places are gone',
      );
      continue;
    }
    const made = fittingTemplate(places, component, known.before.get(component.id), known.elements);
    if (!made) {
      failed.set(component.id, 'its places differ in their elements, not only in what they say');
      continue;
    }
    const wish = pascalCase(component.name);
    const name = uniqueCodeName(
      known.views.has(wish) ? `${wish}Block` : wish,
      'Part',
      (candidate) => names.has(candidate) || known.views.has(candidate),
    );
    names.add(name);
    const rows =
      component.kind === 'list'
        ? rowPlaces(
            made.places.map(({ node }) => node),
            [...new Set(made.places.map(({ body }) => bodies.get(body)!.root))],
          )
        : null;
    const drawn = withOwnRules(made.template, made.places, name, rows);
    wholes.set(component.id, drawn);
    covered.set(component.id, made.places.length / places.length);
    const usesAll = made.places.map((place, i) => {
      const use = useOf(name, place.node, made.template.values[i], made.contents?.[i]);
      const { stands } = place;
      return [place, stands ? boundAgain(use, stands.each) : use] as const;
    });
    for (const [key, inBody] of grouped(usesAll, ([{ body }]) => body)) {
      const body = bodies.get(key)!;
      const { rules, names: placedNames } = withPlaced(
        body.rules,
        inBody.flatMap(([{ placed }]) => placed ?? []),
      );
      const uses = new Map(
        inBody.map(([{ origin, placed }, use]) => [
          origin,
          placed ? { ...use, className: placedNames.get(placed)! } : use,
        ]),
      );
      let root = replace(body.root, uses);
      if (component.kind === 'list' && !body.component) {
        const ofScreen = lists.get(key) ?? [];
        root = gatherLists(
          root,
          name,
          component,
          ofScreen,
          known.recordsOf,
          known.rows.get(key) ?? new Map(),
        );
        lists.set(key, ofScreen);
      }
      bodies.set(key, { ...body, root, rules: withOwnKeys(rules, root, placedNames) });
    }
    const given = made.places.filter(({ placed }) => placed).length;
    const placed: WholeComponent = given
      ? {
          ...drawn,
          root: { ...drawn.root, takesClass: given === made.places.length ? 'always' : 'sometimes' },
        }
      : drawn;
    const theirs = known.theirs.get(component.id);
    const own = theirs ? asTheirs(placed, theirs) : placed;
    bodies.set(`component ${component.id}`, {
      root: own.root,
      rules: new Map(own.rules.map((rule) => [rule.className, rule])),
      ...routesOfAll(made.places),
      component: { id: component.id, name, ...own },
    });
  }
  return { ...withoutUnused(bodies, screens, lists, failed), wholes, covered };
}

/** The result, without props and rules that smaller components have taken over from larger ones. */
function withoutUnused(
  bodies: ReadonlyMap<string, Body>,
  screens: ReadonlyMap<string, EmittedScreen>,
  lists: ReadonlyMap<string, readonly EmittedList[]>,
  failed: ReadonlyMap<string, string>,
): Omit<Extraction, 'wholes' | 'covered'> {
  const props = new Map<string, ReadonlySet<string>>();
  const cleaned = new Map<string, MarkupElement>();
  // Those made last stand within those made first, so that their props are known when they are used.
  const order = [...bodies]
    .toReversed()
    .sort(([, a], [, b]) => Number(!!b.component) - Number(!!a.component));
  for (const [key, { root, component }] of order) {
    const made = withoutProps(root, props);
    cleaned.set(key, made);
    if (component) props.set(component.name, propsIn(made));
  }
  const unsaid = unsaidTexts(bodies, cleaned);
  const needed = new Map<string, ReadonlySet<string>>();
  for (const { component } of bodies.values())
    if (component)
      needed.set(
        component.name,
        new Set(
          component.props.flatMap(({ name, isOptional }) =>
            isOptional || unsaid.has(`${component.name} ${name}`) ? [] : [name],
          ),
        ),
      );
  const components = [...bodies].flatMap(([key, { component, rules }]): EmittedComponent[] => {
    if (!component) return [];
    const optional = new Set(
      component.props.flatMap(({ name, kind, isOptional, byDefault }) =>
        isOptional && kind !== 'flag' && byDefault === undefined ? [name] : [],
      ),
    );
    const root = guarded(cleaned.get(key)!, optional, needed);
    const [classes, terms] = [classesIn(root), propsIn(root)];
    return [
      withFixedRows({
        ...component,
        root,
        props: component.props
          .filter(({ name }) => terms.has(name))
          .map((prop) =>
            unsaid.has(`${component.name} ${prop.name}`) ? { ...prop, isOptional: true } : prop,
          ),
        rules: [...rules.values()].filter((rule) => classes.has(rule.className)),
      }),
    ];
  });
  const known = (component: string, record: Readonly<Record<string, PropValue>>) =>
    Object.fromEntries(
      Object.entries(record).filter(([name]) => name === 'id' || props.get(component)?.has(name)),
    );
  return {
    components: components.sort((a, b) => (a.name < b.name ? -1 : 1)),
    roots: new Map([...screens.keys()].map((key) => [key, cleaned.get(key)!])),
    lists: new Map(
      [...lists].map(([key, list]) => [
        key,
        list.map((one) => ({ ...one, records: one.records.map((record) => known(one.component, record)) })),
      ]),
    ),
    rules: new Map([...screens.keys()].map((key) => [key, [...bodies.get(key)!.rules.values()]])),
    failed,
  };
}

/**
 * Texts that may be missing though what they stand in is there, as `Component prop`: those that a place says nothing for, and
 * those that are handed on from such a one.
 */
function unsaidTexts(
  bodies: ReadonlyMap<string, Body>,
  roots: ReadonlyMap<string, MarkupElement>,
): ReadonlySet<string> {
  const kinds = new Map<string, Prop['kind']>();
  const found = new Set<string>();
  for (const { component } of bodies.values())
    for (const { name, kind, canBeUnsaid } of component?.props ?? []) {
      kinds.set(`${component!.name} ${name}`, kind);
      if (canBeUnsaid) found.add(`${component!.name} ${name}`);
    }
  for (let before = -1; before < found.size;) {
    before = found.size;
    for (const [key, { component }] of bodies) {
      if (!component) continue;
      visitMarkup(roots.get(key)!, ({ use }) => {
        for (const [name, value] of Object.entries(use?.props ?? {})) {
          const inner = `${use!.component} ${name}`;
          if (typeof value !== 'object' || !('given' in value) || kinds.get(inner) !== 'text') continue;
          if (canBeNothing(value.given, (prop) => found.has(`${component.name} ${prop}`))) found.add(inner);
        }
        return true;
      });
    }
  }
  return found;
}

/** Names of the props that a component's markup looks at. */
export function propsIn(root: MarkupElement): Set<string> {
  const names = new Set<string>();
  visitTerms(root, (term) => propsOf(term).forEach((name) => names.add(name)));
  return names;
}

/**
 * What needs something stands only where that is given, where the outer component may be without it: a component what it must
 * be given, and a link where it leads.
 * @param optional props of the outer component that may be missing
 * @param needed props of each component that must be given
 * @param given props that are there wherever the node is
 */
function guarded(
  node: MarkupElement,
  optional: ReadonlySet<string>,
  needed: ReadonlyMap<string, ReadonlySet<string>>,
  given: ReadonlySet<string> = new Set(),
): MarkupElement {
  const of = node.tag === MESSAGE_TAG ? node.slots?.['@of'] : undefined;
  // What says what is wrong with a field is there wherever it is given which.
  if (of?.kind === 'prop' && optional.has(of.name) && !given.has(of.name)) return { ...node, when: of };
  const there = new Set([...given, ...conjuncts(node.when)]);
  const known = node.use && needed.get(node.use.component);
  const terms = [
    ...(node.slots?.to ? [node.slots.to] : []),
    ...Object.entries(node.use?.props ?? {}).flatMap(([name, value]) =>
      known?.has(name) && typeof value === 'object' && 'given' in value ? [value.given] : [],
    ),
  ];
  const missing = new Map(
    terms.flatMap((term) =>
      term.kind === 'prop' && optional.has(term.name) && !there.has(term.name) ? [[term.name, term]] : [],
    ),
  );
  const inside = new Set([...there, ...missing.keys()]);
  const made = mapChildren(node, (child) =>
    isElement(child) ? guarded(child, optional, needed, inside) : child,
  );
  const when = allOf([...(node.when ? [node.when] : []), ...missing.values()]);
  return when ? { ...made, when } : made;
}

/** Props that are there where a condition holds. */
const conjuncts = (when: Expression | undefined): string[] =>
  when?.kind === 'prop' ? [when.name] : when?.kind === 'and' ? when.of.flatMap(conjuncts) : [];

function withoutProps(node: MarkupElement, props: ReadonlyMap<string, ReadonlySet<string>>): MarkupElement {
  const made = mapChildren(node, (child) => (isElement(child) ? withoutProps(child, props) : child));
  const known = node.use && props.get(node.use.component);
  if (!known) return made;
  const used = Object.entries(node.use!.props).filter(([name]) => known.has(name));
  return { ...made, use: { ...node.use!, props: Object.fromEntries(used) } };
}

/** The routes that places are on, as far as all are known, and the one where they are on no other. */
function routesOfAll(places: readonly Place[]): Pick<Place, 'route' | 'routes'> {
  const all = places.map(routesOf);
  if (all.includes(null)) return { route: null };
  const routes = [...new Set(all.flatMap((some) => some!))];
  return { route: routes.length === 1 ? routes[0] : null, routes };
}

interface BodyPlace extends Place {
  readonly body: string;
  /** Of what stands in an item of a list: as it stands there. */
  readonly stands?: MarkupElement;
}

/** What is wanted, the largest first. */
function bySize(bodies: ReadonlyMap<string, Body>, wanted: readonly Wanted[]): Wanted[] {
  const sizes = new Map<string, number>();
  const keys = new Set(wanted.flatMap((component) => component.places));
  for (const { root } of bodies.values())
    visitMarkup(root, (node) => {
      if (node.key !== null && keys.has(node.key) && !sizes.has(node.key))
        sizes.set(node.key, elementsIn(node));
      return true;
    });
  const sizeOfAll = ({ places }: Wanted): number => Math.max(0, ...places.map((key) => sizes.get(key) ?? 0));
  return wanted
    .map((component) => ({ component, size: sizeOfAll(component) }))
    .sort((a, b) => b.size - a.size || (a.component.id < b.component.id ? -1 : 1))
    .map(({ component }) => component);
}

/** The places as they stand now, in the given order; a part that is also a drawer stands twice. */
function currentPlaces(
  bodies: ReadonlyMap<string, Body>,
  { places: keys, kind }: Pick<Component, 'places' | 'kind'>,
): BodyPlace[] {
  const wanted = new Set(keys);
  const found: BodyPlace[] = [];
  for (const [body, { root, rules, route, routes, component }] of bodies) {
    const there = keysIn(root);
    if (!keys.some((key) => there.has(key))) continue;
    visitMarkup(root, (node) => {
      if (node.key === null || !wanted.has(node.key) || node.use) return true;
      const inItem = component ? unbound(node, component) : null;
      const given = inItem?.props ?? component?.props;
      found.push({
        node: inItem?.node ?? node,
        rules,
        route,
        ...(routes ? { routes } : {}),
        body,
        ...(inItem ? { stands: node } : {}),
        ...(given ? { props: given } : {}),
      });
      return false;
    });
  }
  for (const { node } of found) noteAddresses(node);
  // A place that depends on a prop of a component around it goes its own way, unless all stand in that one.
  const isAlone = new Set(found.map(({ body }) => body)).size === 1;
  const plain = found.filter(
    ({ node, body }) =>
      !controlsList(node) &&
      !holdsItems(node) &&
      !holdsContent(node) &&
      // What is done to the record of a row stands in what is given that record.
      (kind === 'list' || !holdsRowDeed(node)) &&
      (bodies.get(body)!.component || !isBound(node)) &&
      (isAlone || !dependsOnProps(node)),
  );
  const order = new Map(keys.map((key, i) => [key, i]));
  return plain.sort((a, b) => order.get(a.node.key!)! - order.get(b.node.key!)!);
}

const keysInRoot = new WeakMap<MarkupElement, ReadonlySet<string>>();

/** The keys of all elements in a root. It is asked for each component, and most have no place in most bodies. */
function keysIn(root: MarkupElement): ReadonlySet<string> {
  let keys = keysInRoot.get(root);
  if (!keys) {
    const made = new Set<string>();
    visitMarkup(root, ({ key }) => {
      if (key !== null) made.add(key);
      return true;
    });
    keysInRoot.set(root, (keys = made));
  }
  return keys;
}

const dependsOnProps = (node: MarkupElement): boolean =>
  (!!node.variant && propsOf(node.variant.by).size > 0) ||
  node.children.some(
    (child) => isElement(child) && ((!!child.when && propsOf(child.when).size > 0) || dependsOnProps(child)),
  );

/** The classes that markup has, drawings that are given as props among it. */
export function classesIn(root: MarkupElement): ReadonlySet<string> {
  const known = classesKnown.get(root);
  if (known) return known;
  const classes = new Set<string>();
  const visit = (node: MarkupElement): void => {
    if (node.className) classes.add(node.className);
    for (const name of Object.values(node.variant?.classes ?? {})) if (name) classes.add(name);
    for (const value of givenIn(node)) if (typeof value === 'object' && 'node' in value) visit(value.node);
    for (const child of node.children) if (isElement(child)) visit(child);
  };
  visit(root);
  classesKnown.set(root, classes);
  return classes;
}
const classesKnown = new WeakMap<MarkupElement, ReadonlySet<string>>();

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
  const sure = surelyFitting(fitting);
  return sure.length < 2 ? null : { template: madeOf(sure)!, places: sure };
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

/** Those of places whose kinds stand for each other's, but not all of which fit: one kind after the other, each as a whole. */
function surelyFitting<P extends Place>(places: readonly P[]): readonly P[] {
  let all: readonly P[] = [];
  for (const form of formsOf(places)) {
    const grown = [...all, ...form];
    if (templateOf(grown) !== null) all = grown;
  }
  return places.filter((place) => all.includes(place));
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
 * on within the app is no link out of it, and the looks that an outer component tells apart.
 */
function ownWaysIn(place: Place): string[] {
  const found: string[] = [];
  visitMarkup(place.node, ({ link, variant }) => {
    if (link) found.push(link.kind);
    if (variant)
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
    visitMarkup(node, ({ variant }) => {
      if (variant) saved += SAVED_BY_LOOKS;
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

/**
 * What a class that elements share goes on being kept by, where the element that it was kept by has become a component, and
 * says by another class how that is placed.
 */
function withOwnKeys(
  rules: ReadonlyMap<string, StyleRule>,
  root: MarkupElement,
  placed: ReadonlyMap<StyleRule, string>,
): ReadonlyMap<string, StyleRule> {
  const names = new Set(placed.values());
  const keys = new Set([...placed.keys()].map(({ key }) => key));
  const stale = new Set(
    [...rules.values()].flatMap(({ className, key }) =>
      keys.has(key) && !names.has(className) ? [className] : [],
    ),
  );
  if (!stale.size) return rules;
  const first = new Map<string, string | null>();
  visitMarkup(root, ({ className, key }) => {
    if (className !== null && stale.has(className) && !first.has(className)) first.set(className, key);
    return true;
  });
  return new Map(
    [...rules].map(([name, rule]) => [name, first.has(name) ? { ...rule, key: first.get(name)! } : rule]),
  );
}

const useOf = (
  component: string,
  node: MarkupElement,
  props: Readonly<Record<string, PropValue>>,
  children: readonly MarkupNode[] = [],
): MarkupElement => ({
  tag: component,
  key: node.key,
  className: null,
  attributes: {},
  children,
  ...(node.when ? { when: node.when } : {}),
  use: { component, props },
});

function replace(root: MarkupElement, uses: ReadonlyMap<MarkupElement, MarkupElement>): MarkupElement {
  const made = uses.get(root);
  if (made) return made;
  return mapChildren(root, (child) => (isElement(child) ? replace(child, uses) : child));
}

/** Visits markup from the outside inwards; return false to leave out what is inside. */
function visitMarkup(root: MarkupElement, visit: (node: MarkupElement) => boolean): void {
  if (!visit(root)) return;
  for (const child of root.children) if (isElement(child)) visitMarkup(child, visit);
}
