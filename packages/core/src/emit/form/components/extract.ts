import { allOf, type Expression, propsOf } from '../../../expression/expression.ts';
import { grouped } from '../../../json/grouped.ts';
import { kept, keptFlat, keptList, keptMap, sameList } from '../../../json/kept.ts';
import type { Component } from '../../../model/app.ts';
import { FileNames, isCodeName, pascalCase, uniqueCodeName } from '../../../model/names.ts';
import type { CodeBefore, PropsBefore } from '../before.ts';
import { keptMarkup } from '../kept_markup.ts';
import { isBound } from '../live/bindings.ts';
import { controlsList, holdsRowDeed } from '../live/controls.ts';
import { MESSAGE_TAG } from '../live/forms.ts';
import {
  type EmittedScreen,
  givenIn,
  isElement,
  mapChildren,
  type MarkupElement,
  type MarkupNode,
  type PropValue,
  type StyleRule,
  visitMarkup,
  visitTerms,
  variantsOf,
} from '../markup.ts';
import { type Fitting, fittingTemplate } from './fitting.ts';
import { holdsContent } from './hollow.ts';
import { boundAgain, holdsItems, type Unbound, unbound } from './item_list.ts';
import { type EmittedList, gatherLists, withFixedRows, withRowsOfScreen } from './lists.ts';
import { noteAddresses } from './own_links.ts';
import { withOwnRules } from './own_rules.ts';
import { type Apart, placedApart, withPlaced } from './placement.ts';
import { placedVariants, type RowPlace, rowPlaces } from './row_places.ts';
import {
  canBeNothing,
  type ElementsKnown,
  NOTHING_OF_ELEMENTS,
  type Place,
  type Prop,
  routesOf,
} from './template.ts';
import type { KeptRow } from '../../../records/kept_rows.ts';
import { asTheirs, type TheirComponent } from './theirs.ts';
import { onceFor } from '../../../json/once_for.ts';

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
  /** What became of the places that were to be each component, by its id. */
  readonly covered: ReadonlyMap<string, Covered>;
}

/** Which part of some places are a component, 0 to 1, and the keys of the others, which stay as they are. */
export interface Covered {
  readonly part: number;
  readonly left: readonly string[];
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
  memory: Memory = newMemory(),
): Extraction {
  const bodies = new Map<string, Body>();
  for (const [key, screen] of screens)
    bodies.set(key, { root: screen.root, rules: rulesByClass(screen.rules), route: routeOf(key) });
  const lists = new Map<string, readonly EmittedList[]>();
  const failed = new Map<string, string>();
  const names = new FileNames();
  const wholes = new Map<string, WholeComponent>();
  const covered = new Map<string, Covered>();
  const { steps } = memory;
  memory.steps = new Map();
  for (const component of bySize(bodies, wanted)) {
    const last = steps.get(component.id);
    const fit = fitted(bodies, component, known, last?.fit);
    const { places, fitting: made } = fit;
    // What stands once for each of a list stands there several times.
    if (places.length < 2 && !places[0]?.stands) {
      failed.set(
        component.id,
        places.length ? 'a larger component already holds all but one of its places' : 'its places are gone',
      );
      continue;
    }
    if (!made) {
      memory.steps.set(component.id, { fit });
      failed.set(component.id, 'its places differ in their elements, not only in what they say');
      continue;
    }
    const wish = pascalCase(component.name);
    const name = uniqueCodeName(
      known.views.has(wish) || !isCodeName(wish) ? `${wish}Block` : wish,
      'Part',
      (candidate) => names.has(candidate) || known.views.has(candidate),
    );
    names.add(name);
    const drawing = drawnOf(fit, made, name, bodies, last?.drawing);
    const { drawn, uses } = drawing;
    wholes.set(component.id, drawn);
    covered.set(component.id, {
      part: made.places.length / places.length,
      left: places.flatMap((place) => (made.places.includes(place) ? [] : (place.node.key ?? []))),
    });
    const bodiesThen = new Map<string, BodyStep>();
    for (const [key, inBody] of grouped(uses, ([{ body }]) => body)) {
      const body = bodies.get(key)!;
      const gathers: Gathering | null =
        component.kind === 'list' && !body.component
          ? {
              lists: lists.get(key) ?? NO_LISTS,
              recordsOf: known.recordsOf,
              before: known.rows.get(key) ?? NO_ROWS,
            }
          : null;
      const then = withUses(
        { root: body.root, rules: body.rules, uses: inBody, gathers },
        (root, ofScreen, { recordsOf, before }) =>
          gatherLists(root, name, component, ofScreen, recordsOf, before),
        last?.bodies?.get(key),
      );
      bodiesThen.set(key, then);
      bodies.set(key, { ...body, root: then.made.root, rules: then.made.rules });
      if (then.made.lists) lists.set(key, then.made.lists);
    }
    const { id } = component;
    const own = keptWhole(last?.own, standingAs({ id, name }, drawn, made, known.theirs.get(id)));
    bodies.set(`component ${id}`, {
      root: own.root,
      rules: rulesByClass(own.rules),
      ...routesOfAll(made.places),
      component: own,
    });
    memory.steps.set(id, { fit, drawing, bodies: bodiesThen, own });
  }
  const now = { ...withoutUnused(bodies, screens, lists, failed, memory), wholes, covered };
  memory.result = keptExtraction(memory.result ?? undefined, now);
  return memory.result;
}
const NO_LISTS: readonly EmittedList[] = [];
const NO_ROWS: ReadonlyMap<string, KeptRow> = new Map();

/** What was worked out for an app, by what it was worked out of: what nothing changed for is not worked out anew. */
export interface Memory {
  steps: Map<string, Step>;
  /** What was left of each body, by its key. */
  cleaned: Map<
    string,
    { readonly root: MarkupElement; readonly known: string; readonly made: MarkupElement }
  >;
  result: Extraction | null;
}
export const newMemory = (): Memory => ({ steps: new Map(), cleaned: new Map(), result: null });

/** What taking out one component came to. */
interface Step {
  readonly fit: Fit;
  readonly drawing?: Drawing;
  readonly bodies?: ReadonlyMap<string, BodyStep>;
  readonly own?: EmittedComponent;
}

/** The places of a component, and what they have in common. */
interface Fit {
  readonly component: Wanted;
  readonly found: readonly BodyPlace[];
  readonly before: PropsBefore | undefined;
  readonly elements: ElementsKnown;
  /** Of a list whose rows something around them makes look otherwise: where each stands among its siblings. */
  readonly rows: readonly RowPlace[] | null;
  readonly places: readonly Apart<BodyPlace>[];
  readonly fitting: Fitting<Apart<BodyPlace>> | null;
}

function fitted(
  bodies: ReadonlyMap<string, Body>,
  component: Wanted,
  known: Known,
  last: Fit | undefined,
): Fit {
  const found = currentPlaces(bodies, component);
  const rows =
    component.kind === 'list' && found.some(({ node }) => node.variant)
      ? rowPlaces(
          found.map(({ node }) => node),
          rootsOf(found, bodies),
        )
      : null;
  const [before, { elements }] = [known.before.get(component.id), known];
  if (
    last?.component === component &&
    last.before === before &&
    last.elements === elements &&
    sameList(last.rows ?? [], rows ?? []) &&
    found.length === last.found.length &&
    found.every((place, i) => isSamePlace(place, last.found[i]))
  )
    return last;
  const apart: Apart<BodyPlace>[] =
    component.kind === 'component'
      ? placedApart(found)
      : (rows ? placedVariants(found, rows) : found).map((place, i) => ({
          ...place,
          origin: found[i].node,
          placed: null,
        }));
  const places = apart.map((place, i) => ({
    ...place,
    ...(place.stands ? { origin: place.stands } : {}),
    placed: kept(last?.places[i]?.placed, place.placed),
  }));
  for (const { node, origin } of places) if (node !== origin) noteAddresses(node);
  const isPart = places.length < 2 && !places[0]?.stands;
  const fitting = isPart ? null : fittingTemplate(places, component, before, elements);
  return { component, found, before, elements, rows, places, fitting };
}

const isSamePlace = (one: BodyPlace, other: BodyPlace): boolean =>
  one.node === other.node &&
  one.rules === other.rules &&
  one.route === other.route &&
  one.body === other.body &&
  one.stands === other.stands &&
  one.props === other.props &&
  sameList(one.routes ?? NOWHERE, other.routes ?? NOWHERE);
const NOWHERE: readonly string[] = [];

type Use = readonly [place: Apart<BodyPlace>, use: MarkupElement];

/** A component as it is drawn, and what stands at each of its places instead. */
interface Drawing {
  readonly fitting: Fitting<Apart<BodyPlace>>;
  readonly name: string;
  readonly rows: readonly RowPlace[] | null;
  readonly drawn: WholeComponent;
  readonly uses: readonly Use[];
}

function drawnOf(
  { component }: Fit,
  fitting: Fitting<Apart<BodyPlace>>,
  name: string,
  bodies: ReadonlyMap<string, Body>,
  last: Drawing | undefined,
): Drawing {
  const made = fitting.places;
  const rows =
    component.kind === 'list'
      ? rowPlaces(
          made.map(({ node, origin, stands }) => (stands ? node : origin)),
          rootsOf(made, bodies),
        )
      : null;
  if (last?.fitting === fitting && last.name === name && sameList(last.rows ?? [], rows ?? [])) return last;
  const drawn = withOwnRules(fitting.template, made, name, rows);
  const usesBefore = new Map(last?.uses.map(([{ body, node }, use]) => [`${body} ${node.key}`, use]));
  return {
    fitting,
    name,
    rows,
    drawn: keptWhole(last?.drawn, drawn),
    uses: made.map((place, i): Use => {
      const plain = useOf(name, place.node, fitting.template.values[i], fitting.contents?.[i]);
      const use = place.stands ? boundAgain(plain, place.stands.each) : plain;
      return [place, keptMarkup(usesBefore.get(`${place.body} ${place.node.key}`), use)];
    }),
  };
}

const rootsOf = (places: readonly BodyPlace[], bodies: ReadonlyMap<string, Body>): MarkupElement[] => [
  ...new Set(places.map(({ body }) => bodies.get(body)!.root)),
];

const keptWhole = <T extends WholeComponent>(before: T | undefined, now: T): T =>
  keptFlat(before, {
    ...now,
    root: keptMarkup(before?.root, now.root),
    props: kept(before?.props, now.props),
    rules: kept(before?.rules, now.rules),
  });

/** What the lists of a screen depend on besides their rows: those that there are, whose records rows show, and what they were. */
interface Gathering {
  readonly lists: readonly EmittedList[];
  readonly recordsOf: Known['recordsOf'];
  readonly before: ReadonlyMap<string, KeptRow>;
}

const isSameGathering = (one: Gathering | null, other: Gathering | null): boolean =>
  one === other ||
  (one !== null &&
    other !== null &&
    sameList(one.lists, other.lists) &&
    one.recordsOf === other.recordsOf &&
    one.before === other.before);

/** What a screen, or a component made before, is once another one stands in it. */
interface BodyStep {
  readonly root: MarkupElement;
  readonly rules: ReadonlyMap<string, StyleRule>;
  readonly uses: readonly Use[];
  /** Where rows are made into lists. */
  readonly gathers: Gathering | null;
  readonly made: {
    readonly root: MarkupElement;
    readonly rules: ReadonlyMap<string, StyleRule>;
    readonly lists: readonly EmittedList[] | null;
  };
}

function withUses(
  given: Omit<BodyStep, 'made'>,
  gather: (root: MarkupElement, lists: EmittedList[], gathers: Gathering) => MarkupElement,
  last: BodyStep | undefined,
): BodyStep {
  const { root, rules, uses, gathers } = given;
  if (
    last?.root === root &&
    last.rules === rules &&
    isSameGathering(last.gathers, gathers) &&
    uses.length === last.uses.length &&
    uses.every(([place, use], i) => {
      const [placeBefore, useBefore] = last.uses[i];
      return use === useBefore && place.origin === placeBefore.origin && place.placed === placeBefore.placed;
    })
  )
    return last;
  const { rules: beside, names } = withPlaced(
    rules,
    uses.flatMap(([{ placed }]) => placed ?? []),
  );
  const standing = new Map(
    uses.map(([{ origin, placed }, use]) => [
      origin,
      placed ? { ...use, className: names.get(placed)! } : use,
    ]),
  );
  const lists = gathers && [...gathers.lists];
  const replaced = replace(root, standing);
  const made = keptMarkup(last?.made.root, gathers && lists ? gather(replaced, lists, gathers) : replaced);
  return {
    ...given,
    made: {
      root: made,
      rules: keptMap(last?.made.rules, withOwnKeys(beside, made, names)),
      lists: lists && keptList(last?.made.lists ?? [], lists),
    },
  };
}

/** A component as it stands among the bodies. */
function standingAs(
  { id, name }: Pick<EmittedComponent, 'id' | 'name'>,
  drawn: WholeComponent,
  { places }: Fitting<Apart<BodyPlace>>,
  theirs: TheirComponent | undefined,
): EmittedComponent {
  const given = places.filter(({ placed }) => placed).length;
  const placed: WholeComponent = given
    ? { ...drawn, root: { ...drawn.root, takesClass: given === places.length ? 'always' : 'sometimes' } }
    : drawn;
  return { id, name, ...(theirs ? asTheirs(placed, theirs) : placed) };
}

/** The rules of a sheet by their classes. */
const rulesByClass = onceFor(
  (rules: readonly StyleRule[]): ReadonlyMap<string, StyleRule> =>
    new Map(rules.map((rule) => [rule.className, rule])),
);

/** The result, without props and rules that smaller components have taken over from larger ones. */
function withoutUnused(
  bodies: ReadonlyMap<string, Body>,
  screens: ReadonlyMap<string, EmittedScreen>,
  lists: ReadonlyMap<string, readonly EmittedList[]>,
  failed: ReadonlyMap<string, string>,
  memory: Memory,
): Omit<Extraction, 'wholes' | 'covered'> {
  const props = new Map<string, ReadonlySet<string>>();
  const cleaned = new Map<string, MarkupElement>();
  // Those made last stand within those made first, so that their props are known when they are used.
  const order = [...bodies]
    .toReversed()
    .sort(([, a], [, b]) => Number(!!b.component) - Number(!!a.component));
  const { cleaned: before } = memory;
  memory.cleaned = new Map();
  for (const [key, { root, component }] of order) {
    const known = JSON.stringify(usesIn(root).map((name) => [...(props.get(name) ?? [])]));
    const there = before.get(key);
    const made = there?.root === root && there.known === known ? there.made : withoutProps(root, props);
    memory.cleaned.set(key, { root, known, made });
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
  const shown = [...screens.keys()].map((key) => {
    const own = (lists.get(key) ?? NO_LISTS).map((one) => ({
      ...one,
      records: one.records.map((record) => known(one.component, record)),
    }));
    return [key, withRowsOfScreen(cleaned.get(key)!, own)] as const;
  });
  return {
    components: components.sort((a, b) => (a.name < b.name ? -1 : 1)),
    roots: new Map(shown.map(([key, { root }]) => [key, root])),
    lists: new Map(shown.flatMap(([key, { lists: all }]) => (all.length ? [[key, all]] : []))),
    rules: new Map([...screens.keys()].map((key) => [key, [...bodies.get(key)!.rules.values()]])),
    failed,
  };
}

/** An extraction with the very components, roots, lists and rules of the one before, where those are equal. */
export function keptExtraction(before: Extraction | undefined, now: Extraction): Extraction {
  if (!before || before === now) return now;
  const components = new Map(before.components.map((one) => [one.id, one]));
  return {
    ...now,
    components: keptList(
      before.components,
      now.components.map((one) => {
        const last = components.get(one.id);
        return keptWhole(last, one.lists ? { ...one, lists: kept(last?.lists, one.lists) } : one);
      }),
      (_, one) => one,
    ),
    roots: keptMap(before.roots, now.roots, keptMarkup),
    lists: keptMap(before.lists, now.lists),
    rules: keptMap(before.rules, now.rules),
  };
}

/** Names of the components that markup uses. */
const usesIn = onceFor((root: MarkupElement): readonly string[] => {
  const names = new Set<string>();
  visitMarkup(root, ({ use }) => {
    if (use) names.add(use.component);
    return true;
  });
  return [...names];
});

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
 * be given, a link where it leads, and what opens and closes what it is known by.
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
  const { to, '@id': id } = node.slots ?? {};
  const terms = [
    ...(to ? [to] : []),
    // What opens and closes is known by its id.
    ...(node.part && id ? [id] : []),
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
  const given = Object.entries(node.use!.props);
  const used = given.filter(([name]) => known.has(name));
  if (used.length === given.length) return made;
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
  const all = [...bodies.values()].map(({ root }) => sizesIn(root));
  /** Places that are asked for one after the other mostly stand on one screen after the other. */
  let at = 0;
  const sizeOf = (key: string): number => {
    for (let tried = 0; tried < all.length; tried++, at = (at + 1) % all.length) {
      const size = all[at].get(key);
      if (size !== undefined) return size;
    }
    return 0;
  };
  const sizeOfAll = ({ places }: Wanted): number => Math.max(0, ...places.map(sizeOf));
  return wanted
    .map((component) => ({ component, size: sizeOfAll(component) }))
    .sort((a, b) => b.size - a.size || (a.component.id < b.component.id ? -1 : 1))
    .map(({ component }) => component);
}

/** How many elements there are in each of a screen, by its key; of what stands several times, where it stands first. */
const sizesIn = onceFor((root: MarkupElement): ReadonlyMap<string, number> => {
  const sizes = new Map<string, number>();
  const visit = (node: MarkupElement): number => {
    const isFirst = node.key !== null && !sizes.has(node.key);
    if (isFirst) sizes.set(node.key!, 0);
    const size = node.children.reduce((sum, child) => sum + (isElement(child) ? visit(child) : 0), 1);
    if (isFirst) sizes.set(node.key!, size);
    return size;
  };
  visit(root);
  return sizes;
});

/** The places as they stand now, in the given order; a part that is also a drawer stands twice. */
function currentPlaces(
  bodies: ReadonlyMap<string, Body>,
  { places: keys, kind }: Pick<Component, 'places' | 'kind'>,
): BodyPlace[] {
  const found: BodyPlace[] = [];
  for (const [body, { root, rules, route, routes, component }] of bodies) {
    for (const node of standingIn(root, keys)) {
      const inItem = component ? unboundIn(node, component) : null;
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
    }
  }
  // A place that depends on a prop of a component around it goes its own way, unless all stand in that one.
  const isAlone = new Set(found.map(({ body }) => body)).size === 1;
  const plain = found.filter(({ node, body }) => {
    const { isOwn, hasRowDeed, hasBound, looksAround } = standingOf(node);
    return (
      isOwn &&
      // What is done to the record of a row stands in what is given that record.
      (kind === 'list' || !hasRowDeed) &&
      (bodies.get(body)!.component || !hasBound) &&
      (isAlone || !looksAround)
    );
  });
  const order = new Map(keys.map((key, i) => [key, i]));
  return plain.sort((a, b) => order.get(a.node.key!)! - order.get(b.node.key!)!);
}

/** What decides whether an element can be a component by itself. */
interface Standing {
  readonly isOwn: boolean;
  readonly hasRowDeed: boolean;
  readonly hasBound: boolean;
  readonly looksAround: boolean;
}
const standings = new WeakMap<MarkupElement, Standing>();

function standingOf(node: MarkupElement): Standing {
  let standing = standings.get(node);
  if (!standing) {
    noteAddresses(node);
    standing = {
      isOwn: !controlsList(node) && !holdsItems(node) && !holdsContent(node),
      hasRowDeed: holdsRowDeed(node),
      hasBound: isBound(node),
      looksAround: dependsOnProps(node),
    };
    standings.set(node, standing);
  }
  return standing;
}

const standingKnown = new WeakMap<MarkupElement, Map<readonly string[], readonly MarkupElement[]>>();
const NONE: readonly MarkupElement[] = [];

/** The elements with these keys in a root, the outermost ones, as far as no component stands there. */
function standingIn(root: MarkupElement, keys: readonly string[]): readonly MarkupElement[] {
  const known = standingKnown.get(root) ?? new Map<readonly string[], readonly MarkupElement[]>();
  standingKnown.set(root, known);
  const there = known.get(keys);
  if (there) return there;
  const all = keysIn(root);
  const wanted = new Set(keys.filter((key) => all.has(key)));
  const found: MarkupElement[] = [];
  if (wanted.size)
    visitMarkup(root, (node) => {
      if (node.key === null || !wanted.has(node.key) || node.use) return true;
      found.push(node);
      return false;
    });
  const made = found.length ? found : NONE;
  known.set(keys, made);
  return made;
}

const unboundKnown = new WeakMap<EmittedComponent, WeakMap<MarkupElement, Unbound | null>>();

/** What stands in the item of a list, as it is by itself: of one node in one component the very same each time. */
function unboundIn(node: MarkupElement, component: EmittedComponent): Unbound | null {
  const known = unboundKnown.get(component) ?? new WeakMap<MarkupElement, Unbound | null>();
  unboundKnown.set(component, known);
  if (!known.has(node)) known.set(node, unbound(node, component));
  return known.get(node)!;
}

/** The keys of all elements in a root. It is asked for each component, and most have no place in most bodies. */
const keysIn = onceFor((root: MarkupElement): ReadonlySet<string> => {
  const made = new Set<string>();
  visitMarkup(root, ({ key }) => {
    if (key !== null) made.add(key);
    return true;
  });
  return made;
});

const dependsOnProps = (node: MarkupElement): boolean =>
  variantsOf(node).some(({ by }) => propsOf(by).size > 0) ||
  node.children.some(
    (child) => isElement(child) && ((!!child.when && propsOf(child.when).size > 0) || dependsOnProps(child)),
  );

/** The classes that markup has, drawings that are given as props among it. */
export const classesIn = onceFor((root: MarkupElement): ReadonlySet<string> => {
  const classes = new Set<string>();
  const visit = (node: MarkupElement): void => {
    if (node.className) classes.add(node.className);
    for (const { classes: looks } of variantsOf(node))
      for (const name of Object.values(looks)) if (name) classes.add(name);
    for (const value of givenIn(node)) if (typeof value === 'object' && 'node' in value) visit(value.node);
    for (const child of node.children)
      if (isElement(child)) visit(child);
      else if ('list' in child && child.list.className) classes.add(child.list.className);
  };
  visit(root);
  return classes;
});

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
