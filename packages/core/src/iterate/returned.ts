import { labelOf } from '../links/pressable.ts';
import type { SetAside } from '../model/app.ts';
import type { Element, Screen } from '../model/design.ts';
import { elementsByKey, type Project } from '../model/project.ts';
import type { IterationPlan } from './plan.ts';

/**
 * Elements of the newer screens that are what an earlier iteration had let go, or was not sure of, with the id under which
 * what was decided about them waits: new ones of the same screen that are called the same, as the only one there; what has
 * the same place in its file goes before others of that name.
 */
export function returned({ app }: Project, plan: IterationPlan): ReadonlyMap<Element, string> {
  const byScreen = new Map<string, Screen>();
  for (const { old, now, standing } of plan.screens)
    if (old && now && standing !== 'part' && standing !== 'width') byScreen.set(old.key, now);
  const found = new Map<Element, string>();
  for (const [id, aside] of Object.entries(app.setAside)) {
    const screen = byScreen.get(aside.screen);
    if (!screen || aside.element === undefined || aside.standing === 'both') continue;
    const element = itAmong(screen, aside, plan);
    if (element && !found.has(element)) found.set(element, id);
  }
  return found;
}

function itAmong(screen: Screen, { label, place }: SetAside, plan: IterationPlan): Element | null {
  if (!/\p{L}/u.test(label)) return null;
  const called = [...elementsByKey(screen).values()].filter(
    (element) => !plan.partner.has(element) && labelOf(element).slice(0, 300) === label,
  );
  // A container around one thing is called as that is: the outermost of them is meant, as it was.
  const [first] = called;
  if (first && called.every((element) => element === first || holds(first, element))) {
    return called.find(({ source }) => source.path === place) ?? first;
  }
  return null;
}

const holds = (outer: Element, inner: Element): boolean =>
  outer.children.some((child) => child === inner || holds(child, inner));
