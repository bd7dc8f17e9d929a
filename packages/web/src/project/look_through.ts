import { type Finding, findingsOf, openRoles, type Project } from '@tovel/core';

/** What is looked for in all of a project whenever it changes. */
export interface Looked {
  readonly findings: readonly Finding[];
  /** Kinds of elements of which somebody has to say what they are. */
  readonly roles: number;
}

export const lookThrough = (project: Project): Looked => ({
  findings: findingsOf(project),
  roles: openRoles(project),
});
