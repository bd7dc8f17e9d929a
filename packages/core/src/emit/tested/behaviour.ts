import type { ApiField, ApiOperation } from '../../described/description.ts';
import type { Value } from '../../expression/expression.ts';
import { findElement } from '../../model/places.ts';
import type { Design } from '../../model/design.ts';
import { textOf, walkElements } from '../../model/project.ts';
import type { LiveCollection, LiveView } from '../form/live/live.ts';
import type { EmittedCollection } from '../form/live/records.ts';
import type { MarkupElement } from '../form/markup.ts';
import type { EmissionPlan } from '../form/plan.ts';
import { shownScreenOf } from '../form/shown_screen.ts';
import type { NamedVariable } from '../named_variables.ts';
import { testedChangesIn } from './changes.ts';
import { testedDeedsIn } from './deeds.ts';
import { testedGesturesIn } from './gestures.ts';
import { pageHere } from './page_here.ts';
import type { Known } from './effects.ts';
import { type FieldRule, isMatch, testedFormsIn } from './forms.ts';
import { settledAddress, testedAddress, type TestedLink, triedOnce } from './links.ts';
import type { Opens } from './presses.ts';
import { testedLists } from './lists.ts';
import type { TestedBehaviour } from './test_files.ts';

/** What a way needs to be tried: what variables have to be; null where they cannot be made so. */
type Givable = (
  screen: string,
  given?: Readonly<Record<string, boolean>>,
) => Readonly<Record<string, boolean>> | null;

/**
 * What the app's own tests try of its lists, its forms and what is done by pressing, entering and choosing.
 * @param links all links
 * @param unsure keys of elements whose texts nobody knows before
 * @param layouts the addresses of the screens of each layout
 * @param givable what must hold for something on a screen to be tried
 * @param neededAt what must hold for the screen of an address to be shown
 * @param leftAtOnce keys of screens that lead elsewhere as soon as they are shown
 */
export function testedBehaviour(
  plan: EmissionPlan,
  collections: readonly EmittedCollection[],
  variables: readonly NamedVariable[],
  {
    links,
    unsure,
    layouts,
    givable,
    neededAt,
    leftAtOnce,
  }: {
    readonly links: readonly TestedLink[];
    readonly unsure: ReadonlySet<string>;
    readonly layouts: readonly (readonly string[])[];
    readonly givable: Givable;
    readonly neededAt: (address: string) => Readonly<Record<string, boolean>>;
    readonly leftAtOnce: ReadonlySet<string>;
  },
): TestedBehaviour {
  const { screens } = plan.project.app;
  const known = knownOf(plan, collections, variables, unsure);
  const ruleOf = rulesOf(plan, known);
  const addressOf = (key: string): string => testedAddress(screens[key].route, screens[key].params);
  /** What is tried on a screen, or in what is opened on it. */
  const triedOn = (shown: string, screen: string, opens?: Opening): Omit<TestedBehaviour, 'lists'> => {
    const { route, params = {} } = screens[screen];
    const from = addressOf(screen);
    const { root } = shownScreenOf(plan, shown);
    const here = {
      shown: ({ live }: EmittedCollection): string | undefined =>
        [...live.details.keys()].map((parameter) => params[parameter]).find((id) => id !== undefined),
      addressOf: (to: string, now: Readonly<Record<string, Value>>): string | null => {
        const address = settledAddress(to, from, route, params);
        const isLetIn = Object.entries(neededAt(address)).every(([name, is]) => now[name] === is);
        const isSeen = !leftAtOnce.has(plan.screenAt(address) ?? '');
        return isLetIn && isSeen && !/[:*]/.test(address) ? address : null;
      },
      over: opens ? [opens.overlay] : [],
      page: pageHere(root, known),
    };
    const tried = <T extends Tried>(made: readonly T[]): (T & { readonly from: string })[] =>
      made.flatMap(({ given: own, ...one }) => {
        const given = givable(screen, { ...opens?.given, ...own });
        if (!given) return [];
        const { given: _given, ...opening } = opens ?? {};
        const needs = {
          ...(opens ? { opens: opening } : {}),
          ...(Object.keys(given).length ? { given } : {}),
        };
        return [{ from, ...one, ...needs } as unknown as T & { from: string }];
      });
    const gestures = tried(testedGesturesIn(root, known, here));
    if (leftAtOnce.has(screen))
      return { forms: [], deeds: [], changes: [], gestures: gestures.filter(({ on }) => on === 'load') };
    return {
      forms: tried(testedFormsIn(root, known, here, ruleOf)),
      deeds: tried(testedDeedsIn(root, known, here)),
      changes: tried(testedChangesIn(root, known, here)),
      gestures,
    };
  };
  const all = [
    ...plan.screens.map((key) => triedOn(key, key)),
    ...[...plan.overlays].flatMap(([key, name]) => {
      // What is over a screen is tried where it is opened first.
      const opener = links.find((link) => link.kind === 'open' && link.to === name);
      const screen = opener && plan.screens.find((one) => addressOf(one) === opener.from);
      return opener && screen ? [triedOn(key, screen, openingOf(opener))] : [];
    }),
  ];
  const once = <T extends { readonly from: string }>(
    of: (one: Omit<TestedBehaviour, 'lists'>) => readonly T[],
  ): readonly T[] => triedOnce(all.flatMap(of), layouts);
  return {
    lists: collections.flatMap((collection) =>
      testedLists(collection, (screen) => {
        const given = plan.routeOf(screen) === null ? null : givable(screen);
        return given && { at: addressOf(screen), given };
      }),
    ),
    forms: once(({ forms }) => forms),
    deeds: once(({ deeds }) => deeds),
    changes: once(({ changes }) => changes),
    gestures: once(({ gestures }) => gestures),
  };
}

/**
 * Keys of elements that show what an API gives otherwise than it was drawn: a number where the drawing has words, the same as
 * another drawing of the record, or nothing.
 */
export function saidByApis({ live, apis, project: { design } }: EmissionPlan): ReadonlySet<string> {
  const unsure = new Set<string>();
  for (const { isRemote, collection, records, views } of live.values()) {
    const { behind } = collection;
    if (!isRemote || !behind) continue;
    const fields = apis
      .find(({ id }) => id === behind.api)
      ?.description.operations.find(({ id }) => id === behind.list)?.fields;
    const isPlain = (field: string): boolean => {
      const name = Object.hasOwn(behind.fields, field) ? behind.fields[field] : undefined;
      const json = fields?.find((one) => one.name === name)?.json;
      return name !== undefined && (json === undefined || json === 'string');
    };
    for (const { values } of records.values())
      for (const [field, { text, elements }] of Object.entries(values))
        for (const key of elements) {
          const element = isPlain(field) ? findElement(design, key) : null;
          if (!element || textOf(element) !== text) unsure.add(key);
        }
    for (const view of views) for (const key of unsaidIn(design, view, records)) unsure.add(key);
  }
  return unsure;
}

/** Keys of elements in rows that say something else in each, and are no field of what is shown. */
function unsaidIn(design: Design, { rows }: LiveView, records: LiveCollection['records']): readonly string[] {
  const fields = new Set(
    [...records.values()].flatMap(({ values }) => Object.values(values).flatMap(({ elements }) => elements)),
  );
  const texts = [...rows.keys()].flatMap((key) => {
    const row = findElement(design, key);
    const own: { readonly key: string; readonly text: string }[] = [];
    if (row) walkElements(row, ({ key: inner, text }) => void (text && own.push({ key: inner, text })));
    return own;
  });
  const counts = new Map<string, number>();
  for (const { text } of texts) counts.set(text, (counts.get(text) ?? 0) + 1);
  return texts.flatMap(({ key, text }) => (counts.get(text)! < rows.size && !fields.has(key) ? [key] : []));
}

interface Tried {
  readonly given?: Readonly<Record<string, boolean>>;
}

/** What is pressed so that something opens, and what must hold for that. */
type Opening = Opens & Pick<TestedLink, 'given'>;

const openingOf = ({ role, name, at, to, given }: TestedLink): Opening => ({
  role,
  name,
  ...(at === undefined ? {} : { at }),
  overlay: to,
  ...(given ? { given } : {}),
});

function knownOf(
  plan: EmissionPlan,
  collections: readonly EmittedCollection[],
  variables: readonly NamedVariable[],
  unsure: ReadonlySet<string>,
): Known {
  const operationOf = (
    collection: EmittedCollection,
    does: 'add' | 'change' | 'remove',
  ): ApiOperation | undefined => {
    const { behind } = collection.live.collection;
    const api = plan.apis.find(({ id }) => id === behind?.api);
    return api?.description.operations.find(({ id }) => id === behind?.[does]);
  };
  return {
    unsure,
    collections: new Map(collections.map((one) => [one.live.name, one])),
    variables: Object.fromEntries(
      variables.flatMap(({ name, variable: { initial, kept }, derived }) =>
        derived || kept === 'address' ? [] : [[name, initial]],
      ),
    ),
    takes: (collection, does, says) => {
      const operation = operationOf(collection, does === 'set' ? 'change' : does);
      if (!operation) return false;
      if (does === 'remove') return true;
      const { fields } = collection.live.collection.behind!;
      const sent = Object.fromEntries(
        Object.entries(fields).flatMap(([field, name]) =>
          Object.hasOwn(says, field) ? [[name, says[field]]] : [],
        ),
      );
      return isTaken(operation.sends, sent, operation.method === 'patch');
    },
    answers: ({ api, name, sends }, filled) => {
      const code = plan.apis.find(({ file }) => file === api);
      const operation = code?.description.operations.find(({ id }) => code.functions.get(id) === name);
      const sent = Object.fromEntries((sends ?? []).map(([property, field]) => [property, filled[field]]));
      return operation !== undefined && isTaken(operation.sends, sent, false);
    },
  };
}

/** What the API or the type of a field asks of what a form is filled in with. */
function rulesOf(plan: EmissionPlan, known: Known): (form: MarkupElement, field: string) => FieldRule | null {
  return (form, field) => {
    const steps = form.acts?.flatMap(({ ways }) => ways.flatMap((way) => way.steps)) ?? [];
    for (const step of steps) {
      if (step.kind !== 'record' || step.deed.kind !== 'add' || !step.deed.fields.includes(field)) continue;
      const of = known.collections.get(step.records)?.live.collection;
      const type = of?.fields.find(({ name }) => name === field)?.type;
      const property = of?.behind?.fields[field];
      const api = plan.apis.find(({ id }) => id === of?.behind?.api);
      const rule = api?.description.operations
        .find(({ id }) => id === of?.behind?.add)
        ?.sends.find(({ name }) => name === property);
      return {
        isNumber: isNumber(rule) || (type !== undefined && /^(number|money|percent)$/.test(type)),
        ...(rule?.choices ? { choices: rule.choices } : {}),
      };
    }
    return null;
  };
}

const isNumber = (rule: ApiField | undefined): boolean => /^(number|integer)$/.test(rule?.json ?? '');

/** Whether an operation takes what is sent: all that it needs, each as it wants it. */
function isTaken(
  rules: readonly ApiField[],
  sent: Readonly<Record<string, Value>>,
  isPart: boolean,
): boolean {
  return rules.every((rule) => {
    const value = Object.hasOwn(sent, rule.name) ? sent[rule.name] : undefined;
    if (value === undefined || value === '') return isPart || !rule.required;
    const { choices, least = -Infinity, most = Infinity, pattern } = rule;
    const size = isNumber(rule) ? Number(value) : String(value).length;
    return (
      (!choices || choices.includes(String(value))) &&
      size >= least &&
      size <= most &&
      (pattern === undefined || isMatch(String(value), pattern, 'u'))
    );
  });
}
