import { alignPlaces } from '../../components/align.ts';
import { leadsTo } from '../../graph/graph.ts';
import { settle } from '../../layers/settle.ts';
import { componentAround, type Wired, wiringOf } from '../../links/wiring.ts';
import { looksAtRecords } from '../../expression/expression.ts';
import { copiedText } from '../../links/copied_text.ts';
import { interactionProblem } from '../../links/problem.ts';
import type { App, Binding, Drawer, Form, Target } from '../../model/app.ts';
import { type Element, nameInCode } from '../../model/design.ts';
import { codeNames, kebabCase, uniqueName } from '../../model/names.ts';
import {
  variableNames,
  hostOf,
  isOverlay,
  isUsed,
  orderedScreens,
  type Project,
  screensByKey,
  textOf,
} from '../../model/project.ts';
import { findElement } from '../../model/places.ts';
import { hash } from '../../json/hash.ts';
import { fillRoute, parametersOf, RouteMatcher } from '../../paths/pattern.ts';
import { type TokenLookup, tokenLookup } from '../../tokens/values.ts';
import { type EmittedPart, emittedParts } from './emitted_parts.ts';
import { type EmittedNames, type EmittedWiring, emittedWiring } from './emitted_wiring.ts';
import { withChosenParts } from './live/chosen_looks.ts';
import { withChosenSettings } from './live/chosen_settings.ts';
import { withListControls, withTickNames } from './live/controls.ts';
import { chartColor } from './live/chart_color.ts';
import { type BoundElement, boundElements, type ChartKind, withBindings } from './live/bindings.ts';
import { withForms } from './live/forms.ts';
import { type ApiCode, apisOf, callOf } from './live/apis.ts';
import { withNoneFound } from './live/none_found.ts';
import { emittedDeed, emittedSetting } from './live/deeds.ts';
import { type LiveCollection, liveCollections, listingOn, namesOn } from './live/live.ts';
import type { EmittedScreen } from './markup.ts';
import { type PlanMemory, planMemoryOf } from './plan_memory.ts';
import { emitScreen, type ScreenContext } from './screen.ts';
import { withNeeded } from '../../records/deeds.ts';
import { listedAtFirst, saidAtFirst } from '../../records/expression_names.ts';
import { knownVariables, onlyVariables } from '../../variables/variables.ts';
import { onceFor } from '../../json/once_for.ts';

/** The routes, overlays, variables and anchors of an app by their names, and what each wired element does. */
export class EmissionPlan {
  readonly project: Project;
  readonly screens: readonly string[];
  /** Keys of the overlays, with the names that they have in code. */
  readonly overlays: ReadonlyMap<string, string>;
  /** Ids of the variables, with the names that they have in code. */
  readonly variables: ReadonlyMap<string, string>;
  /** Collections that something is done to, by their ids. */
  readonly live: ReadonlyMap<string, LiveCollection>;
  /** Described APIs that are asked. */
  readonly apis: readonly ApiCode[];
  /** The address that the app opens with. */
  readonly start: string;
  /** What elements are called that tick boxes. */
  readonly #ticks = new Map<string, string>();
  readonly #anchors = new Map<string, string>();
  readonly #shared: ReadonlyMap<string, Shared>;
  readonly #tokens: NamedTokens | null;
  readonly #wirings = new Map<string, EmittedWiring>();
  readonly #wiringsByScreen: ByScreen<EmittedWiring>;
  readonly #anchorsByScreen: ByScreen<string>;
  readonly #drawersByScreen: ByScreen<Drawer>;
  readonly #isStill: boolean;
  /** Keys of elements that something is said of, or that say something of a record. */
  readonly #spoken: ReadonlyMap<string, true>;
  readonly #spokenByScreen: ByScreen<true>;
  readonly #partsByScreen: ByScreen<EmittedPart>;
  readonly #parts: ReadonlyMap<string, EmittedPart>;
  readonly #sharedByScreen: ByScreen<Shared>;
  readonly #formsByScreen: ByScreen<Form>;
  readonly #bindingsByScreen: ByScreen<Binding>;

  /** Whether components of the team's own are written in the place of those that are drawn. */
  readonly takesTheirs: boolean;
  /** Screens as they were emitted for this plan. */
  readonly emitted = new Map<string, EmittedScreen>();
  /** The same with what was drawn for lists that have nothing to show. */
  readonly shown = new Map<string, EmittedScreen>();

  /**
   * @param isStill whether lists stay as they were drawn, and what is done to them is left out
   * @param takesTheirs whether components of the team's own are written in the place of those that are drawn
   */
  constructor(
    drawn: Project,
    {
      isStill = false,
      takesTheirs = false,
    }: { readonly isStill?: boolean; readonly takesTheirs?: boolean } = {},
  ) {
    this.takesTheirs = takesTheirs;
    const project = settle(drawn);
    this.#isStill = isStill;
    const { app } = project;
    this.#tokens = tokensOf(app.tokens);
    const shown = Object.values(app.collections).flatMap(({ rows }) => rows.map(({ shows }) => shows));
    const spoken = [...Object.keys(app.bindings), ...shown.flatMap((one) => Object.values(one))];
    this.#spoken = new Map(spoken.map((key) => [key, true]));
    this.#spokenByScreen = byHost(project, this.#spoken);
    this.project = project;
    this.screens = orderedScreens(app).filter((key) => isUsed(project, key));
    this.overlays = codeNames(
      orderedScreens(app).filter((key) => isOverlay(project, key)),
      (key) => app.screens[key].name,
      'overlay',
    );
    this.variables = variableNames(app);
    const first = app.start && isUsed(project, app.start) ? app.start : this.screens[0];
    this.start = first ? this.#sampleAddress(first) : '/';
    const memory = planMemoryOf(project.design, `${isStill} ${takesTheirs}`);
    memory.begin(project);
    const wired = workingWiring(project, memory);
    this.live = isStill ? new Map() : liveCollections(project, wired);
    this.apis = isStill ? [] : apisOf(project, this.live, wired);
    this.#parts = emittedParts(project);
    this.#nameAnchors(wired);
    this.#partsByScreen = byHost(project, this.#parts);
    this.#shared = sharedIn(project, wired);
    memory.naming([this.#anchors, this.#shared, this.#parts]);
    for (const list of wired.values()) {
      const [{ element }] = list;
      const write = (): EmittedWiring =>
        emittedWiring(
          list.map((one) => one.interaction),
          this.#namesFor(hostOf(project, element), element),
        );
      this.#wirings.set(element, memory.written(list, write));
    }
    for (const screen of project.design.screens)
      for (const [key, same] of Object.entries(screen.aliases ?? {})) {
        const wiring = this.#wirings.get(same);
        if (wiring && !this.#wirings.has(key)) this.#wirings.set(key, wiring);
      }
    this.#wiringsByScreen = byHost(project, this.#wirings);
    this.#anchorsByScreen = byHost(project, this.#anchors);
    this.#drawersByScreen = byHost(project, new Map(Object.entries(app.drawers)));
    this.#sharedByScreen = byHost(project, this.#shared);
    this.#bindingsByScreen = byHost(project, new Map(Object.entries(app.bindings)));
    this.#formsByScreen = byHost(
      project,
      new Map(
        (isStill ? [] : Object.entries(app.forms)).map(([key, form]) => [key, withNeeded(app, key, form)]),
      ),
    );
  }

  routeOf(screen: string): string | null {
    return isUsed(this.project, screen) ? this.project.app.screens[screen].route : null;
  }

  #matcher: RouteMatcher | undefined;

  /** The screen that an address of the app leads to, with whatever is said by it; undefined where none is. */
  screenAt(address: string): string | undefined {
    this.#matcher ??= new RouteMatcher(this.screens.map((key) => this.routeOf(key)!));
    const match = this.#matcher.match(address.replace(/[?#].*/, ''));
    return match ? this.screens[match.route] : undefined;
  }

  anchorOf(element: string): string | null {
    return this.#anchors.get(element) ?? null;
  }

  /** Names of what moves from screen to screen. */
  sharedNames(): string[] {
    return [...this.#shared.values()].flatMap(({ arrives }) => arrives ?? []).sort();
  }

  wiringOf(element: string): EmittedWiring {
    return this.#wirings.get(element) ?? NOTHING;
  }

  /** The address at which a screen is shown where nobody says more: with its own values of parameters. */
  #sampleAddress(screen: string): string {
    const { route, params = {} } = this.project.app.screens[screen];
    return fillRoute(route, params);
  }

  #nameAnchors(wired: ReadonlyMap<string, readonly Wired[]>): void {
    const taken = new Set<string>();
    const ofParts = new Set([...this.#parts.values()].map(({ id }) => id));
    for (const list of wired.values())
      for (const { interaction } of list) {
        const { target } = interaction;
        if (target.kind !== 'anchor' || this.#anchors.has(target.element)) continue;
        const part = this.#parts.get(target.element);
        if (part) {
          // What opens and closes has a name already.
          this.#anchors.set(target.element, part.id);
          continue;
        }
        const element = findElement(this.project.design, target.element);
        const id = uniqueName(
          anchorName(element),
          (candidate) => taken.has(`${target.screen}#${candidate}`) || ofParts.has(candidate),
        );
        taken.add(`${target.screen}#${id}`);
        this.#anchors.set(target.element, id);
      }
  }

  /** What interactions speak of, for those on one screen: an address may leave open what the screen's own has. */
  #namesFor(from: string, element: string): EmittedNames {
    const { app } = this.project;
    const near = app.screens[from];
    const open = new Set(near?.use === 'overlay' ? [] : parametersOf(near?.route ?? ''));
    const addressOf = (screen: string, given: Readonly<Record<string, string>>): string | null => {
      const route = this.routeOf(screen);
      if (route === null) return null;
      const own = app.screens[screen].params ?? {};
      const params = Object.fromEntries(
        parametersOf(route).flatMap((name) => {
          const value = given[name] || (open.has(name) ? '' : own[name]);
          return value ? [[name, value]] : [];
        }),
      );
      return fillRoute(route, params);
    };
    const shownHere = () => namesOn(this.project, this.live, {}, from).records;
    return {
      addressOf: (target) => {
        const path = addressOf(target.screen, givenBy(target));
        if (path === null) return null;
        if (target.kind === 'screen') return path + queryOf(target.query);
        const id = this.anchorOf(target.element);
        return id === null ? null : `${path}#${id}`;
      },
      fallbackOf: (screen) => (screen && addressOf(screen, {})) || this.start,
      overlayOf: (screen) => this.overlays.get(screen) ?? null,
      conditionOf: (condition) => this.variables.get(condition) ?? null,
      settingOf: (steps, at) => {
        const place = { screen: from, element, shown: shownHere() };
        const made = emittedSetting(this.project, this.live, steps, at, place);
        // A page that is written once has no records.
        return made && this.#isStill && looksAtRecords(made.to) ? null : made;
      },
      callOf: (target) => callOf(this.project, this.apis, target),
      deedOf: (steps, at) =>
        emittedDeed(this.project, this.live, steps, at, { screen: from, element, shown: shownHere() }),
      listingOf: (collection) => listingOn(this.live, collection, from),
      sharedOf: (to) => this.#shared.get(to)?.arrives ?? null,
      partOf: (key) => {
        const part = this.#parts.get(key);
        if (!part) return null;
        const { id, choice, isOpen } = part;
        return { id, ...(choice ? { choice } : isOpen === true ? { isOpen } : {}) };
      },
      textOf: (key) => {
        const element = key === undefined ? null : findElement(this.project.design, key);
        return element && copiedText(element);
      },
      tickName: () => {
        let name = this.#ticks.get(element);
        if (name === undefined) {
          const drawn = findElement(this.project.design, element);
          const taken = new Set(this.#ticks.values());
          const wanted = kebabCase((drawn ? nameInCode(drawn) : '').slice(0, 40)) || 'all';
          name = uniqueName(wanted, (one) => taken.has(one));
          this.#ticks.set(element, name);
        }
        return name;
      },
      isAnswered: () =>
        [...this.live.values()].some(
          ({ isRemote, views }) => isRemote && views.some(({ screen }) => screen === from),
        ),
      choiceOf: (among) => [...this.#parts.values()].find((part) => part.among === among)?.choice ?? null,
    };
  }

  /** Whether something opens and closes in its place. */
  get hasParts(): boolean {
    return this.#parts.size > 0;
  }

  /** Whether a list whose records change stands on a screen. */
  hasLists(screen: string): boolean {
    return [...this.live.values()].some(({ views }) => views.some((view) => view.screen === screen));
  }

  /** Whether on a screen parts are chosen of which one is shown, and that can be seen where they are chosen. */
  choosesParts(screen: string): boolean {
    return !this.#isStill && !!this.#partsByScreen.get(screen)?.some(([, { choice }]) => choice);
  }

  /** A screen whose controls show what they have chosen; plain pages stay as they were drawn. */
  choosing(screen: EmittedScreen): EmittedScreen {
    return this.#isStill ? screen : withChosenSettings(screen);
  }

  /** What elements of a screen show of what is worked out, by their keys. */
  boundOn(screen: string): ReadonlyMap<string, BoundElement> {
    const bindings = new Map(this.#bindingsByScreen.get(screen) ?? []);
    if (!bindings.size) return new Map();
    const variables = knownVariables(this.project.app);
    if (this.#isStill) return boundElements(stillBindings(bindings), onlyVariables(variables));
    return boundElements(bindings, namesOn(this.project, this.live, variables, screen), {
      says: (part) => saidAtFirst(this.project, part, screen),
      lists: (list) => listedAtFirst(this.project, list, screen),
    });
  }

  /** What kind of chart an element is, what it is called, and in which colour it was drawn. */
  chartOf(key: string): { readonly kind: ChartKind; readonly label: string; readonly color?: string } {
    const element = findElement(this.project.design, key);
    const { chart = 'bar', label } = this.project.app.layers[key] ?? {};
    const called = label ?? element?.attributes?.['aria-label'] ?? '';
    const color = element ? chartColor(element) : undefined;
    return {
      kind: chart,
      label: called || (element && textOf(element).slice(0, 60)) || 'Chart',
      ...(color === undefined ? {} : { color }),
    };
  }

  /** The forms of a screen, by the keys of what is around their fields. */
  formsOn(screen: string): ReadonlyMap<string, Form> {
    return new Map(this.#formsByScreen.get(screen) ?? []);
  }

  /** What the emission of one screen depends on; `signature` is equal where that is equal. */
  contextOf(screenKey: string): ScreenContext & { readonly signature: string } {
    return {
      wiringOf: (key) => this.wiringOf(key),
      anchorOf: (key) => this.anchorOf(key),
      drawerOf: (key) => this.project.app.drawers[key] ?? null,
      partOf: (key) => this.#parts.get(key) ?? null,
      sharedOf: (key) => this.#shared.get(key) ?? null,
      isOverlay: this.overlays.has(screenKey),
      isSpokenOf: (key) => this.#spoken.has(key),
      ...(this.#tokens ? { tokenOf: this.#tokens.lookup } : {}),
      signature: [
        ...(this.#wiringsByScreen.get(screenKey) ?? []).map(
          ([key, wiring]) => `${key} ${textOfWiring(wiring)}`,
        ),
        JSON.stringify([
          this.#anchorsByScreen.get(screenKey) ?? [],
          this.#drawersByScreen.get(screenKey) ?? [],
          this.#partsByScreen.get(screenKey) ?? [],
          this.choosesParts(screenKey),
          this.#sharedByScreen.get(screenKey) ?? [],
          this.#formsByScreen.get(screenKey) ?? [],
          this.#bindingsByScreen.get(screenKey) ? [...this.boundOn(screenKey)] : [],
          this.hasLists(screenKey),
          this.#spokenByScreen.get(screenKey) ?? [],
          this.#tokens?.signature ?? '',
        ]),
      ].join('\n'),
    };
  }
}

const textOfWiring = onceFor((wiring: EmittedWiring) => JSON.stringify(wiring));

/** What of bindings a page can follow that is written once. */
const stillBindings = (bindings: ReadonlyMap<string, Binding>): ReadonlyMap<string, Binding> =>
  new Map(
    [...bindings].map(
      ([key, { text, shown, picture, value, enabled }]) =>
        [key, { text, shown, picture, value, enabled }] as const,
    ),
  );

const NOTHING: EmittedWiring = {};

const queryOf = (query: Readonly<Record<string, string>> = {}): string => {
  const pairs = Object.entries(query).map(([name, value]) => `${name}=${encodeURIComponent(value)}`);
  return pairs.length ? `?${pairs.join('&')}` : '';
};

/** What the author of a page calls a place of it, else what it says first. */
export function anchorName(element: Pick<Element, 'name' | 'firstName' | 'source'> | null): string {
  const id = element?.source.id ?? '';
  if (/^[a-z][a-z\d]*(-[a-z\d]+){1,4}$/.test(id)) return id;
  // One word is what fields and parts that open are called by, too.
  const own = /^[a-z][\w-]*$/i.test(id) ? kebabCase(id) : '';
  const said = kebabCase(element ? nameInCode(element) : '')
    .split('-')
    .slice(0, WORDS_OF_ANCHOR)
    .join('-');
  return `at-${own || said.slice(0, 40) || 'top'}`;
}
/** So many words tell what is said at a place. */
const WORDS_OF_ANCHOR = 4;

/** What a target gives to path parameters; fields of rows are settled before. */

const givenBy = (target: Target): Record<string, string> =>
  Object.fromEntries(
    Object.entries(target.kind === 'screen' ? (target.params ?? {}) : {}).flatMap(([name, given]) =>
      typeof given === 'string' ? [[name, given]] : [],
    ),
  );

/** Whether a drawing is shown as a state of a screen in use. */
const isState = (project: Project, key: string): boolean => {
  const { use, of } = project.app.screens[key] ?? {};
  return use === 'state' && of !== undefined && isUsed(project, of);
};

/** What can be done by elements of screens and overlays in use, by element. */
function workingWiring(project: Project, memory: PlanMemory): Map<string, readonly Wired[]> {
  const found = new Map<string, readonly Wired[]>();
  for (const [screen, elements] of wiringOf(project)) {
    if (!isUsed(project, screen) && !isOverlay(project, screen) && !isState(project, screen)) continue;
    for (const [element, list] of elements) {
      const working = memory.working(
        list,
        (one) => !interactionProblem(project, screen, one.interaction, one.element),
      );
      if (working.length) found.set(element, working);
    }
  }
  return found;
}

/** The names under which an element leaves its screen and arrives on it. */
interface Shared {
  readonly leaves?: string;
  readonly arrives?: string;
}

/** Names for elements that move from screen to screen: one for each that arrives, and for all that become it. */
function sharedIn(project: Project, wired: ReadonlyMap<string, readonly Wired[]>): Map<string, Shared> {
  const shared = new Map<string, Shared>();
  const taken = new Set<string>();
  const note = (key: string, more: Shared): void => void shared.set(key, { ...shared.get(key), ...more });
  for (const list of wired.values())
    for (const one of list) {
      const { arrival } = one.interaction;
      if (arrival.kind !== 'shared' || leadsTo(one.interaction) === null) continue;
      for (const { from, to } of arrival.pairs) {
        const element = findElement(project.design, to);
        const leaving = sameAt(project, one, from);
        if (!element || !leaving) continue;
        let name = shared.get(to)?.arrives;
        if (!name) {
          name = uniqueName(
            kebabCase(nameInCode(element)).replace(/^(?=\d)|^(?=(none|auto)$)/, 'part-') || 'part',
            (candidate) => taken.has(candidate),
          );
          taken.add(name);
          note(to, { arrives: name });
        }
        note(leaving, { leaves: name });
      }
    }
  return shared;
}

/** The element of a pair at the place where an interaction counts: that of the same row where it was passed on. */
function sameAt(project: Project, one: Wired, from: string): string | null {
  const { design } = project;
  if (!findElement(design, from)) return null;
  if (one.component === undefined) return from;
  const [said, here] = [componentAround(project, from), componentAround(project, one.element)];
  if (!said || !here || said.id !== here.id) return from;
  const [a, b] = [findElement(design, said.place), findElement(design, here.place)];
  return a && b ? (alignPlaces(a, b).get(from) ?? null) : null;
}

interface NamedTokens {
  readonly lookup: TokenLookup;
  /** What screens depend on: which token stands for what, but not its value. */
  readonly signature: string;
}

const tokensOf = onceFor((tokens: App['tokens']): NamedTokens | null => {
  if (!Object.keys(tokens).length) return null;
  const signature = hash(
    JSON.stringify(
      Object.keys(tokens)
        .sort()
        .map((name) => [name, tokens[name].kind, tokens[name].from]),
    ),
  );
  return { lookup: tokenLookup(tokens), signature };
});

type ByScreen<T> = ReadonlyMap<string, readonly (readonly [string, T])[]>;

/** Entries that are keyed by elements, for each screen that shows them and in order of their keys. */
function byHost<T>(project: Project, entries: ReadonlyMap<string, T>): Map<string, (readonly [string, T])[]> {
  const grouped = new Map<string, (readonly [string, T])[]>();
  for (const entry of [...entries].sort(([a], [b]) => (a < b ? -1 : 1))) {
    const screen = hostOf(project, entry[0]);
    const group = grouped.get(screen);
    if (group) group.push(entry);
    else grouped.set(screen, [entry]);
  }
  return grouped;
}

const emitted = new WeakMap<object, { signature: string; screen: EmittedScreen }>();

/** One screen as it is emitted within its app; kept until the screen or its links change. */
export function emitScreenOf(plan: EmissionPlan, screenKey: string): EmittedScreen {
  const there = plan.emitted.get(screenKey);
  if (there) return there;
  const made = emittedScreen(plan, screenKey);
  plan.emitted.set(screenKey, made);
  return made;
}

function emittedScreen(plan: EmissionPlan, screenKey: string): EmittedScreen {
  const screen = screensByKey(plan.project.design).get(screenKey);
  if (!screen) throw new RangeError(`emitScreenOf: no screen "${screenKey}" in the design`);
  const context = plan.contextOf(screenKey);
  const known = emitted.get(screen);
  if (known?.signature === context.signature) return known.screen;
  const drawn = emitScreen(screen, context);
  const made = withTickNames(
    withNoneFound(
      withForms(
        withListControls(
          plan.choosing(
            withBindings(
              plan.choosesParts(screenKey) ? withChosenParts(drawn) : drawn,
              plan.boundOn(screenKey),
            ),
          ),
        ),
        plan.formsOn(screenKey),
      ),
      plan.hasLists(screenKey),
    ),
  );
  emitted.set(screen, { signature: context.signature, screen: made });
  return made;
}
