import { applyChange } from '../change/change.ts';
import { type Difference, differencesOf } from '../differences/elements.ts';
import { type GraphDifference, graphDifferences } from '../differences/projects.ts';
import { type PageOf, pageOf } from '../emit/page_of.ts';
import { EmissionPlan } from '../emit/form/plan.ts';
import type { IntakeResult } from '../intake/batch.ts';
import { labelOf } from '../links/pressable.ts';
import type { Element, Screen } from '../model/design.ts';
import { elementsByKey, type Project, screensByKey } from '../model/project.ts';
import { answered, type Answers } from './answers.ts';
import { applyIteration } from './apply.ts';
import { type Effects, effectsOf } from './effects.ts';
import { isOwnDrawing, type IterationPlan, planIteration, type ScreenStep } from './plan.ts';
import { type IterationReport, keptOn, type ReportedKept, reportOf } from './report.ts';

/** One screen before and after. */
export interface RoundScreen {
  readonly before: PageOf | null;
  readonly after: PageOf | null;
  /** What differs; keys of `nows` are those that the newer screen has in its picture. */
  readonly differences: readonly Difference[];
  /** Keys in the picture of the newer screen by the keys that came in with it, and the other way round. */
  readonly shown: Readonly<Record<string, string>>;
  readonly incoming: Readonly<Record<string, string>>;
  /** What was decided about the screen's elements and goes along, with where to. */
  readonly kept: readonly ReportedKept[];
  /** What can be pointed at by its name: key that came in, and label. */
  readonly named: readonly { readonly key: string; readonly label: string }[];
}

type Read = Pick<IntakeResult, 'screens' | 'assets' | 'notices'> &
  Partial<Pick<IntakeResult, 'fonts' | 'brief'>>;

/**
 * A next round of screens held against a project: what it would do with what somebody has answered so far. Nothing of it
 * is done. What was worked out for the same answers is kept.
 */
export class Round {
  readonly #project: Project;
  readonly #read: Read;
  readonly #assetUrl: (hash: string) => string;
  #plan: IterationPlan;
  #answers: Answers = {};
  #after: { readonly project: Project; readonly emission: EmissionPlan } | null = null;
  #before: EmissionPlan | null = null;

  /**
   * @param whole whether these are all screens there are
   * @param tell hears how many screens have been compared
   */
  constructor(
    project: Project,
    read: Read,
    whole: boolean,
    assetUrl: (hash: string) => string,
    tell?: (done: number, total: number) => void,
  ) {
    this.#project = project;
    this.#read = read;
    this.#assetUrl = assetUrl;
    this.#plan = planIteration(project, read.screens, { whole, ...(tell ? { tell } : {}) });
  }

  report(answers: Answers): IterationReport {
    return reportOf(this.#project, answered(this.#plan, answers));
  }

  effects(answers: Answers): Effects & { readonly graph: GraphDifference } {
    const { project } = this.#made(answers);
    return { ...effectsOf(this.#project, project), graph: graphDifferences(this.#project, project) };
  }

  /** The project as it would be. */
  project(answers: Answers): Project {
    return this.#made(answers).project;
  }

  /** @param at which of the screens of the report */
  screen(at: number, answers: Answers): RoundScreen {
    const step = this.#plan.screens[at];
    const plan = answered(this.#plan, answers);
    const made = this.#made(answers);
    const key = keyOfMade(made.project, step);
    const screen = key ? (screensByKey(made.project.design).get(key) ?? null) : null;
    const shown: Record<string, string> = {};
    const incoming: Record<string, string> = {};
    const partnerNow = new Map<Element, Element>();
    if (step.now && screen)
      inParallel(step.now.root, screen.root, (came, is) => {
        shown[came.key] = is.key;
        incoming[is.key] = came.key;
        partnerNow.set(came, is);
      });
    const pairs = step.old
      ? [...plan.partner.values()].flatMap(({ old, now }) => {
          const is = partnerNow.get(now);
          return is && elementsByKey(step.old!).get(old.key) === old ? [{ old, now: is }] : [];
        })
      : [];
    return {
      before: step.old ? this.#page(this.#project, this.#beforePlan(), step.old.key) : null,
      after: screen ? this.#page(made.project, made.emission, screen.key) : null,
      differences: step.old && screen ? shownDifferences(made.project, step.old, screen, pairs) : [],
      shown,
      incoming,
      kept: step.old ? keptOn(this.#project, plan, step.old) : [],
      named: step.now
        ? [...elementsByKey(step.now).values()].flatMap((element) => {
            const label = element === step.now!.root ? '' : labelOf(element);
            return label ? [{ key: element.key, label }] : [];
          })
        : [],
    };
  }

  #made(answers: Answers): { readonly project: Project; readonly emission: EmissionPlan } {
    if (this.#after && this.#answers === answers) return this.#after;
    const { design, change } = applyIteration(
      this.#project,
      answered(this.#plan, answers),
      this.#read,
      this.#project.design.iteration + 1,
    );
    const project = { design, app: applyChange(this.#project.app, change) };
    this.#answers = answers;
    return (this.#after = { project, emission: new EmissionPlan(project) });
  }

  #beforePlan(): EmissionPlan {
    return (this.#before ??= new EmissionPlan(this.#project));
  }

  #page(project: Project, emission: EmissionPlan, key: string): PageOf | null {
    return pageOf(project, emission, key, this.#assetUrl);
  }
}

/** What differs between a screen as it was and as it is in the app: of a drawing that an overlay is cut out of, the overlay. */
function shownDifferences(
  { app }: Project,
  old: Screen,
  now: Screen,
  pairs: readonly { readonly old: Element; readonly now: Element }[],
): Difference[] {
  const panel = elementsByKey(now).get(app.screens[now.key]?.overlay?.panel ?? '');
  if (!panel) return differencesOf(old, now, pairs);
  const cut = { ...now, root: panel };
  const left = new Set(elementsByKey(cut).values());
  return differencesOf(
    old,
    cut,
    pairs.filter((pair) => left.has(pair.now)),
  );
}

/** The key that a screen that came in has in the project that it was taken into. */
function keyOfMade(made: Project, step: ScreenStep): string | null {
  const { old, now } = step;
  if (!now) return null;
  const there = screensByKey(made.design);
  const isIt = (key: string): boolean => {
    const screen = there.get(key);
    return (
      screen !== undefined && screen.source.file === now.source.file && screen.source.path === now.source.path
    );
  };
  if (old && isOwnDrawing(step) && isIt(old.key)) return old.key;
  return made.design.screens.find(({ key }) => isIt(key))?.key ?? null;
}

/** Visits two trees of the same build together. */
function inParallel(a: Element, b: Element, visit: (a: Element, b: Element) => void): void {
  visit(a, b);
  a.children.forEach((child, i) => b.children[i] && inParallel(child, b.children[i], visit));
}
