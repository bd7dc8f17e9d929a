import { readSetting, type Setting } from '../variables/variables.ts';
import { deedNames, type DeedPlace, readDeed } from '../records/deeds.ts';
import { apiOf } from '../described/keep.ts';
import type { Interaction, ScreenTarget, Target } from '../model/app.ts';
import { isOverlay, type Project, screenName, useInWords } from '../model/project.ts';
import { findElement } from '../model/places.ts';
import { parametersOf, requiredParametersOf } from '../paths/pattern.ts';

/**
 * Why an interaction cannot do what it says, in words; null when it can.
 * @param from the screen that it is on
 * @param element what does it, where that is known: rows and screens have records at hand
 */
export function interactionProblem(
  project: Project,
  from: string,
  interaction: Interaction,
  element?: string,
): string | null {
  const { on, when, before = [], target } = interaction;
  const condition = when && project.app.variables[when.condition];
  if (when && !condition) return 'its condition is gone';
  if (condition && (condition.type ?? 'yes-no') !== 'yes-no')
    return `its condition, ${condition.name}, is not yes or no`;
  const steps = [...before, target];
  const placeOf = (i: number): DeedPlace => ({ screen: from, element, before: steps.slice(0, i) });
  if (on !== 'change' && steps.some((step, i) => takesEntered(project, step, placeOf(i))))
    return 'what is entered is known only when that changes';
  for (const [i, step] of steps.entries()) {
    const place = placeOf(i);
    const problem =
      targetProblem(project, step) ??
      (step.kind === 'record'
        ? readDeed(project, step, place).problem
        : (settingAt(project, step, place)?.problem ?? null));
    if (problem) return problem;
  }
  if (target.kind !== 'screen') return null;
  const [missing] = missingParameters(project, from, target);
  return missing === undefined
    ? null
    : `${screenName(project, target.screen)} needs :${missing}, which nobody gives`;
}

/** Whether a step speaks of what was entered. */
function takesEntered(project: Project, step: Target, place: DeedPlace): boolean {
  const setting = settingAt(project, step, place);
  return setting?.problem === undefined && setting?.takesEntered === true;
}

/** What a step sets a variable to or says, read where it is done; null for any other step. */
function settingAt(project: Project, step: Target, place: DeedPlace): Setting | null {
  // Most steps set nothing: what is at hand is looked for only where it is spoken of.
  return step.kind === 'set' || step.kind === 'say'
    ? readSetting(project.app, step, deedNames(project, place))
    : null;
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
    case 'open':
      if (isOverlay(project, target.overlay)) return null;
      return `${screenName(project, target.overlay)} is ${project.app.screens[target.overlay] ? 'no overlay' : 'gone'}`;
    // What can be spoken of depends on where it is done.
    case 'set':
      return project.app.variables[target.condition] ? null : 'its variable is gone';
    case 'say':
      return null;
    case 'list': {
      const collection = project.app.collections[target.collection];
      if (!collection) return 'its collection is gone';
      const { deed } = target;
      return 'field' in deed && !collection.fields.some(({ name }) => name === deed.field)
        ? `${collection.name} have no field ${deed.field}`
        : null;
    }
    case 'record':
      return project.app.collections[target.collection] ? null : 'its collection is gone';
    case 'call':
      if (!apiOf(project.app, target.api)?.operations.some(({ id }) => id === target.operation))
        return `no described API has “${target.operation}” any more`;
      return target.form !== undefined && !project.app.forms[target.form] ? 'its form is gone' : null;
    case 'drawer':
      return project.app.drawers[target.element] ? null : 'the drawer is gone';
    case 'disclose':
      return project.app.disclosures[target.part] && findElement(project.design, target.part)
        ? null
        : 'the part that it opens is gone';
    case 'turn':
      return Object.values(project.app.disclosures).some(({ among }) => among === target.among)
        ? null
        : 'the parts that it turns are gone';
    case 'browser':
      return target.does === 'copy' && !(target.of && findElement(project.design, target.of))
        ? 'what it copies is gone'
        : null;
    case 'close':
    case 'file':
    case 'external':
      return null;
  }
}

/** Parameters of a target that neither the link, nor the address it is pressed at, nor the screen itself gives. */
export const missingParameters = (project: Project, from: string, target: ScreenTarget): string[] =>
  unsaidParameters(project, from, target).filter(
    (name) => !project.app.screens[target.screen].params?.[name],
  );

/** Parameters of a target that neither the link nor the address it is pressed at gives. */
export function unsaidParameters({ app }: Project, from: string, target: ScreenTarget): string[] {
  const entry = app.screens[target.screen];
  if (!entry) return [];
  const source = app.screens[from];
  const near = new Set(source && source.use !== 'overlay' ? parametersOf(source.route) : []);
  return requiredParametersOf(entry.route).filter((name) => !target.params?.[name] && !near.has(name));
}
