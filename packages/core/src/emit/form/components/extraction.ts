import { kept, keptFlat, keptList, keptMap, sameList } from '../../../json/kept.ts';
import type { App, Component } from '../../../model/app.ts';
import { asDrawn, byDrawing, findElement } from '../../../model/places.ts';
import { pascalCase } from '../../../model/names.ts';
import { hostOf, type Project } from '../../../model/project.ts';
import { codeBefore } from '../before.ts';
import { keptMarkup } from '../kept_markup.ts';
import type { EmittedScreen } from '../markup.ts';
import { withOwnPlaces } from '../own_places.ts';
import { type EmissionPlan, emitScreenOf } from '../plan.ts';
import { shownScreenOf } from '../shown_screen.ts';
import { columnFields } from './column_fields.ts';
import {
  extractComponents,
  type Extraction,
  type Memory,
  newMemory,
  NOTHING_KNOWN,
  type Wanted,
} from './extract.ts';
import { holdsContent } from './hollow.ts';
import { type ElementsKnown, NOTHING_OF_ELEMENTS, type Prop } from './template.ts';
import { theirComponents } from './theirs.ts';

/** Components that were taken, and the parts that are drawers, which stand twice. */
function wantedOf({ app }: Project): Wanted[] {
  const drawers = Object.entries(app.drawers).map(([key, { name }]): Wanted => ({
    id: `drawer ${key}`,
    kind: 'component',
    name,
    places: [key],
  }));
  return [...Object.entries(app.components).map(([id, component]) => ({ ...component, id })), ...drawers];
}

/** What was worked out for the screens of a design, and what it was worked out of. */
interface Before extends Memory {
  screens: ReadonlyMap<string, EmittedScreen>;
  /** What each of them was made of. */
  shown: ReadonlyMap<string, { readonly screen: EmittedScreen; readonly route: string | null }>;
  wanted: readonly Wanted[];
  elements: ElementsKnown & { readonly collections: App['collections'] | null };
  recordsOf: ReadonlyMap<string, string>;
}

const nothingBefore = (): Before => ({
  ...newMemory(),
  screens: new Map(),
  shown: new Map(),
  wanted: [],
  elements: { ...NOTHING_OF_ELEMENTS, collections: null },
  recordsOf: new Map(),
});

/** By the design as it was drawn: with components of the team's own, and without. */
const memoriesOf = byDrawing(() => ({ own: nothingBefore(), theirs: nothingBefore() }));

/** What is known of elements: the very same as before where that says the same. */
function keptElements(project: Project, { elements: before }: Before): Before['elements'] {
  const { collections } = project.app;
  const { fieldOf: fields, ...now } = elementsIn(project);
  const fieldOf = keptMap(before.fieldOf, fields);
  const isSame = before.fieldOf === fieldOf && before.collections === collections;
  return isSame ? before : { ...now, fieldOf, collections };
}

/** The fields of records that elements show, by their keys. */
export const fieldsShown = ({ collections }: Pick<App, 'collections'>): ReadonlyMap<string, string> =>
  new Map(
    Object.values(collections).flatMap(({ rows }) =>
      rows.flatMap(({ shows }) => Object.entries(shows).map(([field, key]) => [key, field] as const)),
    ),
  );

/** What is said by elements as fields: after the heads of tables, unless a collection calls it otherwise. */
function elementsIn({ app, design }: Project): ElementsKnown {
  const shown = fieldsShown(app);
  return {
    fieldOf: new Map([...design.screens.flatMap((screen) => [...columnFields(screen)]), ...shown]),
    isBound: (key) => shown.has(key),
    classesOf: (key) => findElement(asDrawn(design), key)?.classes ?? '',
  };
}

const extractions = new WeakMap<
  App['components'],
  {
    drawers: App['drawers'];
    code: App['code'];
    collections: App['collections'];
    libraries: App['libraries'] | null;
    /** Names and addresses of its screens. */
    says: string;
    screens: readonly EmittedScreen[];
    extraction: Extraction;
  }
>();

/** The components of an app, taken out of its screens; kept until one of the screens changes. */
export function extractionOf(plan: EmissionPlan): Extraction {
  const { app, design } = plan.project;
  const keys = [...plan.screens, ...plan.overlays.keys()];
  // Without a library both are written alike, and worked out once.
  const libraries = plan.takesTheirs && Object.keys(app.libraries).length ? app.libraries : null;
  const memory = memoriesOf(design)[libraries ? 'theirs' : 'own'];
  const shown = new Map(
    keys.map((key) => [key, { screen: shownScreenOf(plan, key), route: plan.routeOf(key) }] as const),
  );
  const screens = new Map(
    keys.map((key) => {
      const { screen, route } = shown.get(key)!;
      const before = memory.screens.get(key);
      const last = memory.shown.get(key);
      if (before && last?.screen === screen && last.route === route) return [key, before] as const;
      const root = keptMarkup(before?.root, withOwnPlaces(screen.root, route));
      return [key, keptFlat(before, { root, rules: kept(before?.rules, screen.rules) })] as const;
    }),
  );
  const list = [...screens.values()];
  const views = [...new Set(keys.map((key) => pascalCase(app.screens[key].name)))].sort();
  const says = JSON.stringify([views, keys.map((key) => plan.routeOf(key))]);
  const known = extractions.get(app.components);
  if (
    known?.drawers === app.drawers &&
    known.code === app.code &&
    known.collections === app.collections &&
    known.libraries === libraries &&
    known.says === says &&
    sameList(known.screens, list)
  )
    return known.extraction;
  memory.screens = screens;
  memory.shown = shown;
  const wantedBefore = new Map(memory.wanted.map((one) => [one.id, one]));
  memory.wanted = keptList(memory.wanted, wantedOf(plan.project), (_, one) =>
    kept(wantedBefore.get(one.id), one),
  );
  memory.elements = keptElements(plan.project, memory);
  memory.recordsOf = keptMap(
    memory.recordsOf,
    new Map(
      Object.values(app.collections).flatMap(({ name, rows }) =>
        rows.map(({ element }) => [element, name] as const),
      ),
    ),
  );
  const extraction = extractComponents(
    screens,
    memory.wanted,
    (key) => plan.routeOf(key),
    {
      before: codeBefore(app).props,
      elements: memory.elements,
      recordsOf: memory.recordsOf,
      rows: codeBefore(app).rows,
      theirs: libraries ? theirComponents(app) : new Map(),
      views: new Set(views),
    },
    memory,
  );
  extractions.set(app.components, {
    drawers: app.drawers,
    code: app.code,
    collections: app.collections,
    libraries,
    says,
    screens: list,
    extraction,
  });
  return extraction;
}

/** What a component would be if it were taken by itself: its props, whether it holds content, or why it cannot be made. */
export function previewComponent(
  plan: EmissionPlan,
  component: Component,
): { readonly props: readonly Prop[]; readonly holds: boolean; readonly problem: string | null } {
  const keys = new Set(component.places.map((place) => hostOf(plan.project, place)));
  const screens = new Map(
    plan.screens.filter((key) => keys.has(key)).map((key) => [key, emitScreenOf(plan, key)] as const),
  );
  const { components, failed } = extractComponents(
    screens,
    [{ ...component, id: 'preview' }],
    (key) => plan.routeOf(key),
    { ...NOTHING_KNOWN, elements: elementsIn(plan.project) },
  );
  const [made] = components;
  return {
    props: made?.props ?? [],
    holds: !!made && holdsContent(made.root),
    problem: failed.get('preview') ?? null,
  };
}
