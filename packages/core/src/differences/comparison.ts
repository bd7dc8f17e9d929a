import { type PageOf, pageOf } from '../emit/page_of.ts';
import { EmissionPlan } from '../emit/form/plan.ts';
import { settle } from '../layers/settle.ts';
import { type Project, screensByKey } from '../model/project.ts';
import { type Difference, differencesOf, pairsByKey } from './elements.ts';
import {
  type GraphDifference,
  graphDifferences,
  type ProjectDifference,
  projectDifferences,
} from './projects.ts';

/** One screen in two versions of a project. */
export interface ComparedScreen {
  readonly before: PageOf | null;
  readonly after: PageOf | null;
  readonly differences: readonly Difference[];
}

/** Two versions of one project beside each other; what stayed from one to the other has kept its key. */
export class Comparison {
  readonly #before: Side;
  readonly #after: Side;
  readonly #assetUrl: (hash: string) => string;

  constructor(before: Project, after: Project, assetUrl: (hash: string) => string) {
    this.#before = new Side(before);
    this.#after = new Side(after);
    this.#assetUrl = assetUrl;
  }

  list(): ProjectDifference[] {
    return projectDifferences(this.#before.project, this.#after.project);
  }

  graph(): GraphDifference {
    return graphDifferences(this.#before.project, this.#after.project);
  }

  screen(key: string): ComparedScreen {
    const [old, now] = [this.#before, this.#after].map(({ project }) =>
      screensByKey(settle(project).design).get(key),
    );
    return {
      before: this.#before.page(key, this.#assetUrl),
      after: this.#after.page(key, this.#assetUrl),
      differences: old && now ? differencesOf(old, now, pairsByKey(old, now)) : [],
    };
  }
}

class Side {
  readonly project: Project;
  #emission: EmissionPlan | null = null;

  constructor(project: Project) {
    this.project = project;
  }

  page(key: string, assetUrl: (hash: string) => string): PageOf | null {
    return pageOf(this.project, (this.#emission ??= new EmissionPlan(this.project)), key, assetUrl);
  }
}
