import { codeOf } from '../emit/form/parts.ts';
import {
  all,
  applyChange,
  type Change,
  putCollection,
  putComponent,
  putIteration,
  putSetAside,
} from '../change/change.ts';
import { keysBetween } from '../change/between.ts';
import type { KeyMapping } from '../change/key_mapping.ts';
import type { App, IterationRecord, SetAside, TableEntry } from '../model/app.ts';
import type { Design, Element, Screen } from '../model/design.ts';
import { labelOf } from '../links/pressable.ts';
import { uniqueName } from '../model/names.ts';
import { elementsByKey, type Project } from '../model/project.ts';
import { addToDesign, type IntakeResult } from '../intake/batch.ts';
import { keepCode } from '../emit/form/before.ts';
import { piecesOf } from '../emit/targets.ts';
import { partedAtFirst } from '../project/part_first.ts';
import { takeIn } from '../project/take_in.ts';
import { cutOverlay, overlayWithin } from '../overlays/cut.ts';
import { standingApart } from './apart.ts';
import { isOwnDrawing, type IterationPlan, staysMeanwhile } from './plan.ts';
import { placesWith, rowsWith } from './rows.ts';
import { movedTo, putBack } from './resolve.ts';
import { returned } from './returned.ts';
import { freshKey, placeKey, rekeyed } from './rekey.ts';

export interface AppliedIteration {
  readonly design: Design;
  readonly change: Change;
  /** Where the keys of the design went: what is gone, and what is new. */
  readonly mapping: KeyMapping;
}

/**
 * The design with an iteration in it, and the change of the app that goes with it. Elements that are surely what they
 * were keep their keys, and so all that was decided about them; what is not sure, or gone, is set aside. New elements get
 * keys that no element of the project had.
 * @param iteration its number: higher than that of every iteration that the project ever had
 */
export function applyIteration(
  project: Project,
  plan: IterationPlan,
  read: Pick<IntakeResult, 'assets' | 'notices'> & Partial<Pick<IntakeResult, 'fonts' | 'brief'>>,
  iteration: number,
): AppliedIteration {
  const { design, app } = project;
  const back = returned(project, plan);
  const keyOf = keysFor(project, plan, iteration, back);
  const screenKeyOf = screenKeysFor(project);
  const isGone = new Set(plan.screens.flatMap((step) => (step.old && !isOwnDrawing(step) ? [step.old] : [])));
  const incoming = plan.screens.flatMap((step): Screen[] => {
    const { old, now, standing } = step;
    if (!now || !isOwnDrawing(step)) return [];
    const stays = old !== null && standing !== 'part' && standing !== 'width';
    const key = stays ? old!.key : screenKeyOf(now.key);
    return [
      rekeyed(
        now,
        key,
        (element) => keyOf(element, key),
        (element) => {
          const old = plan.partner.get(element)?.old;
          return old && keyOf(element, key) === old.key ? old : null;
        },
      ),
    ];
  });
  const grown = addToDesign(
    { ...design, screens: design.screens.filter((screen) => !isGone.has(screen)) },
    { ...read, screens: incoming },
  );
  const made: Design = { ...grown, iteration };
  const keyIn = (element: Element, screen: Screen): string => keyOf(element, keyOfScreen(plan, screen));
  const aside = [
    ...[...back.values()].flatMap((id) => putBack(app, id)),
    ...setAsideBy(project, plan, iteration, keyOf, isGone),
    ...settledBy(app, plan, keyOf),
    ...joiningLists(plan, keyIn),
    ...joiningRecords(plan, keyIn),
  ];
  const after = applyChange(app, all(aside));
  const came = takeIn({ design: made, app: after }, incoming);
  const over = overlaying({ design: made, app: applyChange(after, came) }, plan, keyOf);
  // Of the first screens what they surely share and what surely repeats is written once from the beginning.
  const isFirst = !design.screens.length && !Object.keys(app.layouts).length;
  const taken = isFirst
    ? all([came, partedAtFirst({ design: made, app: applyChange(after, came) })])
    : all([came, ...over]);
  const changed = new Set(
    plan.screens.flatMap((step) => {
      const { old, standing } = step;
      return old && standing !== 'same' && isOwnDrawing(step) ? [old.key] : [];
    }),
  );
  // What the round leaves alone is written as before.
  const code = design.screens.length ? keepCode(app, codeOf(project, piecesOf(project))) : all([]);
  const apart = standingApart(
    project,
    { design: made, app: applyChange(applyChange(after, code), taken) },
    changed,
    decidedTogether(plan),
  );
  // Of the first screens there is nothing to tell.
  const record = design.screens.length
    ? [putIteration(String(iteration), recordOf(project, plan, back.size))]
    : [];
  return {
    design: made,
    change: all([code, ...aside, taken, ...apart, ...record]),
    mapping: keysBetween(design, made),
  };
}

/** Components whose places are built otherwise, and of which somebody said that they stay one. */
function decidedTogether({ rows, asks }: IterationPlan): ReadonlySet<string> {
  const open = new Set(asks.flatMap((ask) => ask.rows?.id ?? []));
  return new Set(rows.flatMap(({ id, rebuilt }) => (rebuilt === null || open.has(id) ? [] : [id])));
}

/** Certainty from which an element that nothing was decided about takes over a key. */
const LEAST_TAKEN = 0.5;

/** The key of each element of the new screens. */
function keysFor(
  { design, app }: Project,
  plan: IterationPlan,
  iteration: number,
  back: ReadonlyMap<Element, string>,
): (element: Element, screen: string) => string {
  // What was put on an element that stays another one, or let go, is nobody's any more.
  const undecided = new Set(
    [...plan.asks.filter(({ why }) => !staysMeanwhile(why)), ...plan.letGo, ...plan.onto].map(
      ({ element }) => element,
    ),
  );
  const taken = new Set(design.screens.flatMap((screen) => [...elementsByKey(screen).keys()]));
  const keys = new Map<Element, string>();
  // Before the very first screens nothing can have had a key.
  const isFirst = !design.screens.length && iteration === design.iteration + 1;
  return (element, screen) => {
    let key = keys.get(element);
    if (key === undefined) {
      const pair = plan.partner.get(element);
      const own = app.setAside[back.get(element) ?? '']?.element;
      // What is not sure keeps its key for whoever decides; what comes back has its own again.
      key =
        own !== undefined && !taken.has(own)
          ? own
          : pair && pair.score >= LEAST_TAKEN && !undecided.has(pair.old)
            ? pair.old.key
            : uniqueName(
                isFirst ? placeKey(screen, element) : freshKey(screen, iteration, element),
                (candidate) => taken.has(candidate),
                '.',
              );
      taken.add(key);
      keys.set(element, key);
    }
    return key;
  };
}

/** Gives keys to new screens, each one that no screen of the project has or had. */
function screenKeysFor({ design, app }: Project): (wanted: string) => string {
  const taken = new Set([
    ...design.screens.map(({ key }) => key),
    ...Object.keys(app.screens),
    ...Object.values(app.setAside).map(({ screen }) => screen),
  ]);
  return (wanted) => {
    const key = uniqueName(wanted, (candidate) => taken.has(candidate));
    taken.add(key);
    return key;
  };
}

/** Takes what is not sure or gone out of the app, and keeps it where it can be found again. */
function setAsideBy(
  { app }: Project,
  plan: IterationPlan,
  iteration: number,
  keyOf: (element: Element, screen: string) => string,
  isGone: ReadonlySet<Screen>,
): Change[] {
  const changes: Change[] = [];
  const nameOf = ({ key, name }: Screen): string => app.screens[key]?.name ?? name;
  let count = 0;
  const put = (
    element: Element | null,
    screen: Screen,
    standing: SetAside['standing'],
    entries: readonly TableEntry[],
    candidates: readonly string[],
  ): void => {
    if (!entries.length) return;
    // What both changed stays as somebody made it until that is decided.
    if (standing !== 'both') changes.push(...entries.map(without));
    const entry: SetAside = {
      screen: screen.key,
      ...(element ? { element: element.key } : {}),
      label: (element ? labelOf(element) : nameOf(screen)).slice(0, 300),
      on: nameOf(screen).slice(0, 300),
      place: element?.source.path ?? screen.source.file,
      standing,
      iteration,
      candidates,
      entries,
    };
    changes.push(putSetAside(`${iteration}-${++count}`, entry));
  };
  for (const ask of plan.asks)
    if (staysMeanwhile(ask.why))
      put(
        ask.element,
        ask.screen,
        'both',
        ask.why === 'template' ? ask.about.own : ask.clashes.map(({ entry }) => entry),
        [],
      );
    else
      put(
        ask.element,
        ask.screen,
        'asked',
        ask.about.own,
        ask.candidates.map((one) => keyOf(one.element, keyOfScreen(plan, one.screen))),
      );
  for (const { element, screen, about } of plan.letGo) put(element, screen, 'letGo', about.own, []);
  const overlaid = new Set(
    plan.screens.flatMap(({ old, standing }) => (standing === 'overlay' ? [old] : [])),
  );
  for (const screen of isGone) {
    if (overlaid.has(screen)) continue;
    const value = app.screens[screen.key];
    if (value) put(null, screen, 'letGo', [{ table: 'screens', key: screen.key, value }], []);
  }
  return changes;
}

const without = ({ table, key }: TableEntry): Change => ({ kind: 'put', table, key, value: null }) as Change;

/** What a person settled: decisions that go to an element that has a key of its own, and edits that give way. */
function settledBy(
  app: App,
  plan: IterationPlan,
  keyOf: (element: Element, screen: string) => string,
): Change[] {
  const changes: Change[] = plan.overruled.map(without);
  for (const { element, about, to } of plan.onto) {
    const pair = plan.partner.get(to)!;
    changes.push(...about.own.map(without), ...movedTo(app, element.key, keyOf(to, pair.old.key), about));
  }
  return changes;
}

/** New rows join the lists that they were put into. */
function joiningLists(plan: IterationPlan, keyOf: (element: Element, screen: Screen) => string): Change[] {
  const apart = new Set(plan.overruled.flatMap(({ table, key }) => (table === 'components' ? [key] : [])));
  return plan.rows
    .filter(({ id, joining }) => joining.length > 0 && !apart.has(id))
    .map((rows) => putComponent(rows.id, { ...rows.component, places: placesWith(rows, keyOf) }));
}

/** Rows that were put in among those of a collection are records of it. */
const joiningRecords = (plan: IterationPlan, keyOf: (element: Element, screen: Screen) => string): Change[] =>
  plan.records.map((step) => putCollection(step.id, { ...step.collection, rows: rowsWith(step, keyOf) }));

/** Makes overlays of the screens that are drawn over others now. */
function overlaying(
  project: Project,
  plan: IterationPlan,
  keyOf: (element: Element, screen: string) => string,
): Change[] {
  const changes: Change[] = [];
  let { app } = project;
  for (const step of plan.screens) {
    const { old, now, overlaid } = step;
    if (!old || !now || !overlaid) continue;
    const under = keyOfScreen(plan, overlaid.under);
    const proposal = { ...overlaid.proposal, panel: keyOf(overlaid.panel, keyOfScreen(plan, now)) };
    const current = { ...project, app };
    const change = isOwnDrawing(step)
      ? cutOverlay(current, old.key, proposal, under)
      : overlayWithin(current, old.key, proposal, under);
    changes.push(change);
    app = applyChange(app, change);
  }
  return changes;
}

function recordOf({ app }: Project, plan: IterationPlan, back: number): IterationRecord {
  return {
    screens: plan.screens.map(({ old, now, standing }) => ({
      screen: old?.key ?? now!.key,
      name: (app.screens[old?.key ?? '']?.name ?? (now ?? old)!.name).slice(0, 300),
      standing,
    })),
    kept: plan.kept.length,
    ...(plan.byHand ? { byHand: plan.byHand } : {}),
    ...(back ? { back } : {}),
    asked: plan.asks.length,
    letGo: plan.letGo.length,
  };
}

const keyOfScreen = (plan: IterationPlan, now: Screen): string => {
  const step = plan.screens.find((one) => one.now === now);
  return step?.old && step.standing !== 'part' && step.standing !== 'width' ? step.old.key : now.key;
};
