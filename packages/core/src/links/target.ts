import { isExternalAddress } from '../model/safe.ts';
import type { Arrival, Target } from '../model/app.ts';
import {
  findElement,
  isUsed,
  orderedScreens,
  type Project,
  screenName,
  useInWords,
} from '../model/project.ts';
import { labelOf } from './pressable.ts';

/** One thing that an element can be made to lead to. */
export interface TargetChoice {
  readonly target: Target;
  readonly label: string;
  /** The route, or what kind of target it is. */
  readonly detail: string;
}

/** How well a typed text fits a name: 0 is the same, larger is worse, null not at all. */
export function matchText(name: string, typed: string): number | null {
  const [a, b] = [name.toLowerCase(), typed.trim().toLowerCase()];
  if (!b) return 3;
  if (a === b) return 0;
  if (a.startsWith(b)) return 1;
  if (a.split(/[^\p{L}\p{N}]+/u).some((word) => word.startsWith(b))) return 2;
  return a.includes(b) ? 3 : isSubsequence(b.replace(/\s/g, ''), a) ? 4 : null;
}

function isSubsequence(typed: string, name: string): boolean {
  let i = 0;
  for (const char of name) if (char === typed[i]) i++;
  return i === typed.length;
}

/** What a typed text can mean as a target, best first: screens by name or route, back, an outside address. */
export function targetChoices(project: Project, typed: string): TargetChoice[] {
  const scored: { choice: TargetChoice; score: number }[] = [];
  for (const key of orderedScreens(project.app)) {
    if (!isUsed(project, key)) continue;
    const { name, route } = project.app.screens[key];
    const byName = matchText(name, typed);
    const byRoute = typed.trim().startsWith('/') ? matchText(route, typed) : null;
    const score = Math.min(byName ?? Infinity, byRoute ?? Infinity);
    if (Number.isFinite(score))
      scored.push({ choice: { target: { kind: 'screen', screen: key }, label: name, detail: route }, score });
  }
  const back = matchText('Back', typed);
  if (back !== null)
    scored.push({
      choice: { target: { kind: 'back' }, label: 'Back', detail: 'to where one came from' },
      score: back + 0.5,
    });
  scored.sort((a, b) => a.score - b.score);
  const choices = scored.map(({ choice }) => choice);
  const href = typed.trim();
  if (isExternalAddress(href))
    choices.unshift({ target: { kind: 'external', href }, label: href, detail: 'outside address' });
  return choices;
}

/** A target in people's words. */
export function describeTarget(project: Project, target: Target): { label: string; detail: string } {
  switch (target.kind) {
    case 'screen':
      return {
        label: screenName(project, target.screen),
        detail: project.app.screens[target.screen]?.route ?? '',
      };
    case 'back':
      return { label: 'Back', detail: target.fallback ? `or ${screenName(project, target.fallback)}` : '' };
    case 'anchor': {
      const element = findElement(project.design, target.element);
      return {
        label: screenName(project, target.screen),
        detail: element ? `at “${labelOf(element)}”` : 'at a place that is gone',
      };
    }
    case 'drawer':
      return {
        label: project.app.drawers[target.element]?.name ?? 'A drawer',
        detail: project.app.drawers[target.element] ? 'drawer' : 'is gone',
      };
    case 'external':
      return { label: target.href, detail: 'outside' };
  }
}

/** An arrival in people's words. */
export function describeArrival(arrival: Arrival): string {
  if (arrival.kind === 'none') return 'none';
  return arrival.kind === 'fade' ? `fade ${arrival.ms} ms` : `slide from ${arrival.from} ${arrival.ms} ms`;
}

/** Why a target cannot be reached, in words; null when it can. */
export function targetProblem(project: Project, target: Target): string | null {
  const missing = (screen: string): string | null => {
    const use = useInWords(project, screen);
    return use && `${screenName(project, screen)} ${use}`;
  };
  switch (target.kind) {
    case 'screen':
      return missing(target.screen);
    case 'anchor':
      return (
        missing(target.screen) ??
        (findElement(project.design, target.element)
          ? null
          : `the place on ${screenName(project, target.screen)} is gone`)
      );
    case 'back':
      return target.fallback ? missing(target.fallback) : null;
    case 'drawer':
      return project.app.drawers[target.element] ? null : 'the drawer is gone';
    case 'external':
      return null;
  }
}
