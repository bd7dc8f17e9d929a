import { type EmittedProject } from './emitted.ts';
import type { Project } from '../model/project.ts';

import type { EmissionProgress } from './progress.ts';

import { emitReact } from './react/emit_react.ts';

/** What a project can be written as, by the name that the command line takes. */
export const targets: Readonly<
  Record<
    string,
    {
      readonly title: string;
      readonly emit: (project: Project, name: string, tell?: EmissionProgress) => EmittedProject;
    }
  >
> = {
  react: { title: 'React, TypeScript, Vite, React Router', emit: emitReact },
};
