import type { Design, Project, Screen } from '@tovel/core';
import { replaceEqualDeep } from '@tanstack/react-query';

/** A project as it is told to a worker that has heard of it before. */
export interface ToldProject {
  readonly design: Omit<Design, 'screens'>;
  /** Null for one that is as it was told last, at the same place. */
  readonly screens: readonly (Screen | null)[];
  readonly app: Project['app'];
}

/** Tells one worker of a project, again and again: screens that it has are not copied to it once more. */
export class ProjectTeller {
  #told: readonly Screen[] = [];

  tell({ design: { screens, ...design }, app }: Project): ToldProject {
    const told = this.#told;
    this.#told = screens;
    return { design, screens: screens.map((screen, i) => (screen === told[i] ? null : screen)), app };
  }
}

/**
 * What a worker has heard of a project. Whatever is as it was is the very same value from one time to the next, so that what was
 * worked out of it still counts.
 */
export class ProjectMemory {
  #last: Project | null = null;

  hear({ design, screens, app }: ToldProject): Project {
    const last = this.#last;
    if (!last) return (this.#last = { design: { ...design, screens: screens as readonly Screen[] }, app });
    const { screens: before, ...known } = last.design;
    const isSame = screens.length === before.length && screens.every((screen) => screen === null);
    const rest = replaceEqualDeep(known, design);
    const isSameDesign =
      isSame && Object.entries(rest).every(([name, value]) => value === known[name as keyof typeof known]);
    return (this.#last = {
      design: isSameDesign
        ? last.design
        : { ...rest, screens: screens.map((screen, i) => screen ?? before[i]) },
      app: replaceEqualDeep(last.app, app),
    });
  }
}
