import { allOf, type Expression, not } from '../../expression/expression.ts';
import { placeOfState } from '../../drawn_states/place.ts';
import type { DrawnState } from '../../model/app.ts';
import { pascalCase, uniqueCodeName } from '../../model/names.ts';
import { asDrawn } from '../../model/places.ts';
import { screensByKey } from '../../model/project.ts';
import { drawnStatesOf } from '../../drawn_states/take.ts';
import { listStepOf } from './live/controls.ts';
import type { ListingName, LiveCollection, LiveView } from './live/live.ts';
import { withCharts } from './live/bindings.ts';
import { askingAnew, reasonsOf } from './live/none_found.ts';
import {
  type EmittedScreen,
  findMarkup,
  isElement,
  mapChildren,
  type MarkupElement,
  type MarkupNode,
  type StyleRule,
  textIn,
} from './markup.ts';
import { type EmissionPlan, emitScreenOf } from './plan.ts';

const known = new WeakMap<
  EmittedScreen,
  { readonly says: string; readonly others: readonly EmittedScreen[]; readonly screen: EmittedScreen }
>();

/**
 * A screen as it is written into the app: with what was drawn for lists that have nothing to show, where such a list stands there.
 * Pictures of the screen show it as it is drawn.
 */
export function shownScreenOf(plan: EmissionPlan, key: string): EmittedScreen {
  const there = plan.shown.get(key);
  if (there) return there;
  const made = withItsStates(plan, key);
  plan.shown.set(key, made);
  return made;
}

function withItsStates(plan: EmissionPlan, key: string): EmittedScreen {
  const screen = chartedScreenOf(plan, key);
  const states = drawnStatesOf(plan.project.app, key);
  if (!states.length) return screen;
  const views = [...plan.live.values()].flatMap((of) =>
    of.views.flatMap((view) => (view.screen === key ? [{ of, view }] : [])),
  );
  if (!views.length) return screen;
  const others = states.map((state) => emitScreenOf(plan, state.key));
  const says = JSON.stringify([
    states,
    views.map(({ of, view }) => [of.name, of.isRemote, view.within, view.hook]),
  ]);
  const before = known.get(screen);
  if (before?.says === says && before.others.every((one, i) => one === others[i])) return before.screen;
  const made = states.reduce(
    (shown, { key: other, state }, i) =>
      withState(plan, shown, { key, other, state, drawn: others[i], views }),
    screen,
  );
  known.set(screen, { says, others, screen: made });
  return made;
}

const charted = new WeakMap<EmittedScreen, EmittedScreen>();

/** A screen whose charts draw what they are given. */
function chartedScreenOf(plan: EmissionPlan, key: string): EmittedScreen {
  const screen = emitScreenOf(plan, key);
  let made = charted.get(screen);
  if (!made) charted.set(screen, (made = withCharts(screen, plan.boundOn(key), (at) => plan.chartOf(at))));
  return made;
}

interface StateOf {
  /** Keys of the screen and of the drawing of its state. */
  readonly key: string;
  readonly other: string;
  readonly state: DrawnState;
  readonly drawn: EmittedScreen;
  readonly views: readonly { readonly of: LiveCollection; readonly view: LiveView }[];
}

/** The first list of the screen that the drawing has something else for gives way to that while it is so. */
function withState(
  plan: EmissionPlan,
  screen: EmittedScreen,
  { key, other, state, drawn, views }: StateOf,
): EmittedScreen {
  // What was decided of the screen was not decided of the drawing of its state.
  const screens = screensByKey(asDrawn(plan.project.design));
  const [own, their] = [screens.get(key), screens.get(other)];
  if (!own || !their) return screen;
  for (const { of, view } of views) {
    const list = { name: of.name, hook: view.hook };
    const when = reasonsOf(list, of.isRemote)[state];
    const place = when && placeOfState(own, their, view.within);
    if (!place) continue;
    const shows = place.shows.flatMap((one) => findMarkup(drawn.root, ({ key: is }) => is === one) ?? []);
    if (!shows.length) continue;
    const { nodes, rules } = broughtAlong(shows, drawn.rules, screen.rules, state);
    const again = state === 'failed' ? nodes.map((node) => asking(node, list)) : nodes;
    const beside = new Set(place.beside);
    // What looks for records has to stay, so that one finds some again.
    const givesWay = (child: MarkupNode): child is MarkupElement =>
      isElement(child) &&
      ((child.key === place.list && !place.keepsList) || (beside.has(child.key ?? '') && !looksFor(child)));
    const visit = (node: MarkupElement): MarkupElement => {
      if (node.key !== place.within)
        return mapChildren(node, (child) => (isElement(child) ? visit(child) : child));
      const at = node.children.findIndex((child) => isElement(child) && child.key === place.list);
      const kept = node.children.map((child): MarkupNode =>
        givesWay(child) ? notWhile(child, when) : child,
      );
      const told = again.map((one): MarkupElement => ({ ...one, when }));
      return { ...node, children: [...kept.slice(0, at + 1), ...told, ...kept.slice(at + 1)] };
    };
    const root = visit(screen.root);
    return root === screen.root
      ? screen
      : { ...screen, root: marked(root, view.within, state), rules: [...screen.rules, ...rules] };
  }
  return screen;
}

const notWhile = (node: MarkupElement, when: Expression): MarkupElement => ({
  ...node,
  when: allOf([...(node.when ? [node.when] : []), not(when)])!,
});

/** Whether something in markup searches or filters a list. */
const looksFor = (node: MarkupElement): boolean =>
  /^(search|filter|choose)$/.test(listStepOf(node)?.deed.kind ?? '') ||
  node.children.some((child) => isElement(child) && looksFor(child));

/** What holds the rows, or the body of a table that does, says which states are drawn, so that nothing plain is written for them. */
const marked = (node: MarkupElement, list: string, state: DrawnState): MarkupElement =>
  node.key === list
    ? stating(
        mapChildren(node, (child) => (isElement(child) ? stating(child, state) : child)),
        state,
      )
    : mapChildren(node, (child) => (isElement(child) ? marked(child, list, state) : child));

const stating = (node: MarkupElement, state: DrawnState): MarkupElement => ({
  ...node,
  states: [...(node.states ?? []), state],
});

/** Markup of another screen with its rules, under names that say nothing else here. */
function broughtAlong(
  nodes: readonly MarkupElement[],
  theirs: readonly StyleRule[],
  own: readonly StyleRule[],
  state: DrawnState,
): { readonly nodes: MarkupElement[]; readonly rules: StyleRule[] } {
  const byClass = new Map(theirs.map((rule) => [rule.className, rule]));
  const taken = new Set(own.map(({ className }) => className));
  const names = new Map<string, string>();
  const rules: StyleRule[] = [];
  const nameFor = (className: string): string => {
    const before = names.get(className);
    if (before !== undefined) return before;
    const wanted = taken.has(className) ? `${state}${pascalCase(className)}` : className;
    const name = uniqueCodeName(wanted, state, (one) => taken.has(one));
    taken.add(name);
    names.set(className, name);
    const rule = byClass.get(className);
    if (rule) rules.push({ ...rule, className: name });
    return name;
  };
  const visit = (node: MarkupElement): MarkupElement => ({
    ...mapChildren(node, (child) => (isElement(child) ? visit(child) : child)),
    className: node.className === null ? null : nameFor(node.className),
  });
  return { nodes: nodes.map(visit), rules };
}

const AGAIN = /\b(again|retry|reload|refresh)\b/i;

/** What says that it tries again asks anew, where nothing else was said of it. */
function asking(node: MarkupElement, list: ListingName): MarkupElement {
  const made = mapChildren(node, (child) => (isElement(child) ? asking(child, list) : child));
  const isFree = !made.acts?.length && !made.link;
  if (!isFree || !/^(button|a)$/.test(made.tag) || !AGAIN.test(textIn(made))) return made;
  const { href: _href, ...attributes } = made.attributes;
  return {
    ...made,
    tag: 'button',
    attributes: { ...attributes, type: 'button' },
    form: 'button',
    acts: askingAnew(list),
  };
}
