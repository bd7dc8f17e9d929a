import { type Counterpart, counterpartsOf, mergeCounterparts } from '../counterparts/merge.ts';
import {
  type Added,
  type App,
  defaultSettings,
  screenOfOwn,
  type Layer,
  type Region,
  type Settings,
} from '../model/app.ts';
import type { Declarations, Design, Element, Screen } from '../model/design.ts';
import { equalJson } from '../json/json.ts';
import { type CutPanel, cutPanelsOf, type Project, walkElements } from '../model/project.ts';
import { noteDrawn, screenOf } from '../model/places.ts';
import { applyRoles } from '../roles/apply.ts';
import { type ChartKind, type InputType, isRole, type RoleDetail } from '../roles/names.ts';
import { panelScreen, withoutPanel } from '../overlays/panel.ts';
import { addedWith, controlStyles, withAdded } from './added.ts';
import { parseEditKey } from '../model/edit_key.ts';
import { editsByElement, withEdits } from './edit.ts';
import { plannedScreen } from './planned.ts';
import { onceFor } from '../json/once_for.ts';

interface Decisions {
  /** Keys of the parts that are opened and closed: there, also where the page hides them at first. */
  readonly disclosed: readonly string[];
  readonly layers: Readonly<Record<string, Layer>>;
  readonly regions: readonly (readonly [string, Region])[];
  readonly settings: Settings;
}

const nothing: Decisions = { disclosed: [], layers: {}, regions: [], settings: defaultSettings };

/** What is decided of a screen of which nothing is said: the very same each time. */
const withoutDecisions = onceFor((settings: App['settings']): Decisions => ({
  ...nothing,
  settings: { ...defaultSettings, ...settings },
}));

const settledScreens = new WeakMap<Screen, { decisions: Decisions; screen: Screen }>();
const settledDesigns = new WeakMap<Design, { app: App; design: Design }>();
const results = new WeakSet<Design>();

/** The tables of an app that settling depends on. */
const TABLES = ['layers', 'disclosures', 'regions', 'settings', 'edits', 'added', 'screens'] as const;

/**
 * The project as it is after what was decided about its elements: hidden and left-out ones are gone, regions of
 * pictures are elements, flattened groups are pictures; counterparts are one screen; roles, additions and edits are
 * done. A screen that no decision is about stays the same value.
 */
export function settle(project: Project): Project {
  const { design, app } = project;
  if (results.has(design)) return project;
  const known = settledDesigns.get(design);
  if (known && TABLES.every((table) => known.app[table] === app[table]))
    return known.design === design ? project : { design: known.design, app };
  const plain = withoutDecisions(app.settings);
  const layers = byScreen(app.layers, (key) => homeOf(project, key));
  const regions = byScreen(app.regions, (key) => homeOf(project, key));
  const disclosures = byScreen(app.disclosures, (key) => homeOf(project, key));
  const edits = byScreen(app.edits, (key) => homeOf(project, parseEditKey(key)!.element));
  const added = byScreen(app.added, (key) => homeOf(project, key));
  const isSaid = (key: string): boolean => [disclosures, layers, regions].some((table) => table.has(key));
  const laid = design.screens.map((screen) =>
    settleScreen(
      screen,
      isSaid(screen.key)
        ? {
            disclosed: (disclosures.get(screen.key) ?? []).map(([key]) => key),
            layers: Object.fromEntries(layers.get(screen.key) ?? []),
            regions: (regions.get(screen.key) ?? []).toSorted(([a], [b]) => (a < b ? -1 : 1)),
            settings: plain.settings,
          }
        : plain,
    ),
  );
  const counterparts = counterpartsOf(app, new Map(laid.map((screen) => [screen.key, screen])));
  const isFinished = (key: string): boolean =>
    !counterparts.has(key) && ![layers, edits, added].some((table) => table.has(key));
  const drawn = laid.map((screen) => {
    const others = counterparts.get(screen.key) ?? [];
    const keys = [screen.key, ...others.map((other) => other.screen.key)];
    const made = isFinished(screen.key)
      ? screen
      : finishScreen(screen, {
          others,
          layers: Object.fromEntries(keys.flatMap((key) => layers.get(key) ?? [])),
          edits: Object.fromEntries(keys.flatMap((key) => edits.get(key) ?? [])),
          added: keys.flatMap((key) => added.get(key) ?? []),
          design,
        });
    const { use, overlay } = app.screens[screen.key] ?? {};
    return use === 'overlay' && overlay?.panel ? panelScreen(made, overlay.panel) : made;
  });
  const cut = [...cutPanelsOf(project).values()].flat();
  const rest = cut.length ? drawn.map((screen) => withoutPanels(screen, cut)) : drawn;
  const parts = cut.flatMap(({ key, panel, screen }): Screen[] => {
    const source = drawn.find((one) => one.key === screen);
    return source
      ? [{ ...panelScreen(source, panel), key, name: app.screens[key].name, cutFrom: screen }]
      : [];
  });
  const planned = Object.entries(app.screens).flatMap(([key, entry]) =>
    entry.use === 'planned' ? [plannedScreen(key, entry)] : [],
  );
  const screens = planned.length || parts.length ? [...rest, ...parts, ...planned] : rest;
  const isSame =
    !planned.length && !parts.length && screens.every((screen, i) => screen === design.screens[i]);
  const made = isSame ? design : { ...design, screens };
  if (!isSame) {
    results.add(made);
    noteDrawn(made, design);
  }
  settledDesigns.set(design, { app, design: made });
  return isSame ? project : { design: made, app };
}

const withoutPanels = (screen: Screen, cut: readonly CutPanel[]): Screen =>
  cut.reduce((made, one) => (one.screen === screen.key ? withoutPanel(made, one.panel) : made), screen);

interface Finish {
  readonly others: readonly Counterpart[];
  readonly layers: Readonly<Record<string, Layer>>;
  readonly edits: Readonly<Record<string, string>>;
  readonly added: readonly (readonly [string, Added])[];
  readonly design: Design;
}

const finishedScreens = new WeakMap<Screen, { finish: Finish; screen: Screen }>();

const isSameFinish = (a: Finish, b: Finish): boolean =>
  a.others.length === b.others.length &&
  a.others.every((other, i) => other.screen === b.others[i].screen && other.turn === b.others[i].turn) &&
  a.design === b.design &&
  equalJson([a.layers, a.edits, a.added], [b.layers, b.edits, b.added]);

/** What comes after the layers of each drawing are settled: counterparts, roles, additions, edits. */
function finishScreen(screen: Screen, finish: Finish): Screen {
  const known = finishedScreens.get(screen);
  if (known && isSameFinish(known.finish, finish)) return known.screen;
  let made = finish.others.length ? mergeCounterparts(screen, finish.others) : screen;
  const put = (root: Element): void => void (made = root === made.root ? made : { ...made, root });
  const roles = roleDecisions(finish.layers);
  if (roles.size) put(applyRoles(made, roles));
  if (finish.added.length) put(withAdded(made.root, finish.added, controlStyles(finish.design)));
  if (Object.keys(finish.edits).length) put(withEdits(made.root, editsByElement(finish.edits)));
  finishedScreens.set(screen, { finish, screen: made });
  return made;
}

/** What was decided about roles, as far as it is known what that means. */
export function roleDecisions(layers: Readonly<Record<string, Layer>>): Map<string, RoleDetail> {
  const decisions = new Map<string, RoleDetail>();
  for (const [key, layer] of Object.entries(layers)) {
    if (!isRole(layer.role) || layer.flat || layer.show === false) continue;
    decisions.set(key, {
      role: layer.role,
      ...(layer.input ? { input: layer.input as InputType } : {}),
      ...(layer.level ? { level: layer.level } : {}),
      ...(layer.label ? { label: layer.label } : {}),
      ...(layer.chart ? { chart: layer.chart as ChartKind } : {}),
    });
  }
  return decisions;
}

/** The screen that an element belongs to, also one that a person put there and that no design has. */
function homeOf({ design, app }: Project, element: string): string {
  const region = app.regions[element];
  if (region) return screenOfOwn(element, region);
  const drawn = Object.hasOwn(app.added, element) ? '' : screenOf(design, element);
  if (drawn) return drawn;
  const added = addedWith(app, element);
  return added ? screenOfOwn(added, app.added[added]) : '';
}

function byScreen<T>(
  table: Readonly<Record<string, T>>,
  home: (key: string) => string,
): Map<string, (readonly [string, T])[]> {
  const grouped = new Map<string, (readonly [string, T])[]>();
  for (const entry of Object.entries(table)) {
    const screen = home(entry[0]);
    const group = grouped.get(screen);
    if (group) group.push(entry);
    else grouped.set(screen, [entry]);
  }
  return grouped;
}

function settleScreen(screen: Screen, decisions: Decisions): Screen {
  const known = settledScreens.get(screen);
  if (known && equalJson(known.decisions, decisions)) return known.screen;
  const root = isUntouched(screen, decisions)
    ? screen.root
    : withRegions(
        screen,
        settleElement(screen.root, decisions) ?? { ...screen.root, children: [] },
        decisions.regions,
      );
  const made = root === screen.root ? screen : { ...screen, root };
  settledScreens.set(screen, { decisions, screen: made });
  return made;
}

/** Most screens hold nothing hidden and have nothing decided about them. */
function isUntouched(screen: Screen, decisions: Decisions): boolean {
  if (!equalJson({ ...decisions, settings: nothing.settings }, nothing)) return false;
  if (isLayered(screen) && !equalJson(decisions.settings, nothing.settings)) return false;
  return hasNothingHidden(screen);
}

const hasNothingHidden = onceFor((screen: Screen): boolean => {
  let hidden = 0;
  walkElements(screen.root, (element) => void (element.hidden && hidden++));
  return hidden === 0;
});

const isLayered = ({ source }: { readonly source: { readonly file: string } }): boolean =>
  source.file.toLowerCase().endsWith('.ora');

/** The element as it is in the app, itself where nothing is different; null when it is left out. */
function settleElement(element: Element, decisions: Decisions): Element | null {
  const layer = decisions.layers[element.key];
  const isShown =
    layer?.show ??
    (!element.hidden ||
      decisions.settings.hidden === 'in' ||
      (decisions.disclosed.length > 0 && decisions.disclosed.includes(element.key)));
  if (!isShown) return null;
  const children = element.children
    .map((child) => settleElement(child, decisions))
    .filter((child) => child !== null);
  const isSame =
    children.length === element.children.length &&
    children.every((child, i) => child === element.children[i]);
  let made: Element = isSame ? element : { ...element, children };
  if (element.hidden) made = shown(made);
  if (layer?.name) made = { ...made, name: layer.name };
  if (layer?.role) made = { ...made, role: layer.role };
  else if (isLayered(element) && decisions.settings.names === 'plain') made = { ...made, role: 'none' };
  if (layer?.through) made = withStyle(made, { 'pointer-events': 'none' });
  if (layer?.scrolls) made = withStyle(made, { 'overflow-x': 'auto', 'overflow-y': 'auto' });
  const isFlat =
    layer?.flat ??
    (decisions.settings.groups === 'picture' &&
      isLayered(element) &&
      element.source.path !== '' &&
      element.kind === 'box');
  return isFlat ? flatten(made) : made;
}

function shown(element: Element): Element {
  const { hidden: _hidden, ...rest } = element;
  return rest.tag === 'dialog' ? { ...rest, attributes: { ...rest.attributes, open: '' } } : rest;
}

const withStyle = (element: Element, css: Declarations): Element => ({
  ...element,
  style: { ...element.style, base: { ...element.style.base, ...css } },
});

/** A group as one picture. Where all in it are pictures, they become its backgrounds, the uppermost first. */
function flatten(group: Element): Element {
  const picture: Element = {
    ...group,
    role: 'image',
    attributes: { ...group.attributes, role: 'img', 'aria-label': group.name },
  };
  const pictures: Element[] = [];
  let isPlain = true;
  const visit = (element: Element): void => {
    const { base } = element.style;
    if (element.kind === 'image' && element.asset && !base.opacity && !base['mix-blend-mode'])
      pictures.push(element);
    else if (element !== group && (element.kind !== 'box' || base['background-color'] || base.opacity))
      isPlain = false;
    element.children.forEach(visit);
  };
  visit(group);
  if (!isPlain || !pictures.length) return picture;
  const top = pictures.reverse();
  const px = (n: number): string => `${Math.round(n * 100) / 100}px`;
  return {
    ...withStyle(picture, {
      'background-image': top.map((image) => `url("asset:${image.asset}")`).join(', '),
      'background-position': top
        .map(({ box }) => `${px(box.x - group.box.x)} ${px(box.y - group.box.y)}`)
        .join(', '),
      'background-size': top.map(({ box }) => `${px(box.width)} ${px(box.height)}`).join(', '),
      'background-repeat': 'no-repeat',
    }),
    children: [],
  };
}

/** Regions lie over their picture and grow with it. */
function withRegions(screen: Screen, root: Element, regions: Decisions['regions']): Element {
  if (!regions.length) return root;
  const share = (n: number, whole: number): string => `${Math.round((n / whole) * 100_000) / 1000}%`;
  const made = regions.map(([key, { kind, box, name, role, text }]): Element => {
    const base: Declarations = {
      position: 'absolute',
      left: share(box.x, screen.width),
      top: share(box.y, screen.height),
      width: share(box.width, screen.width),
      height: share(box.height, screen.height),
    };
    const common = {
      key,
      name,
      box,
      tag: 'div',
      children: [],
      source: { file: screen.source.file, path: `~${key}` },
    };
    if (kind === 'text' && !role)
      return {
        ...common,
        kind: 'text',
        text: text ?? name,
        style: {
          // The picture shows the text; this one is there to be read out, found and selected.
          base: {
            ...base,
            color: 'transparent',
            'white-space': 'nowrap',
            'overflow-x': 'hidden',
            'overflow-y': 'hidden',
            'font-size': `${Math.max(1, Math.round(box.height * 0.8))}px`,
          },
        },
      };
    return {
      ...common,
      kind: 'box',
      role: role ?? (kind === 'row' ? 'listitem' : 'button'),
      attributes: { 'aria-label': text ?? name },
      style: { base },
    };
  });
  return { ...root, children: [...root.children, ...made] };
}
