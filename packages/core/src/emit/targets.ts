import { type EmittedProject } from './emitted.ts';
import { type App, DELIVERY, type Delivery } from '../model/app.ts';
import type { Project } from '../model/project.ts';
import type { EmissionProgress } from './progress.ts';
import { type CodeBefore, codeBefore } from './form/before.ts';
import { emitHtml } from './html/emit_html.ts';
import { emitReactWithTheirs } from './react/emit_react.ts';
import { emitVue } from './vue/emit_vue.ts';

/** What a project can be written as, by the name that the command line takes. */
export const targets: Readonly<
  Record<
    Delivery['target'],
    {
      readonly name: string;
      readonly title: string;
      /** What to do with it, as commands. */
      readonly commands: readonly string[];
      readonly emit: (project: Project, name: string, tell?: EmissionProgress) => EmittedProject;
    }
  >
> = {
  react: {
    name: 'React',
    title: 'TypeScript, Vite, React Router',
    commands: ['npm install', 'npm run build', 'npm test'],
    emit: emitReactWithTheirs,
  },
  vue: {
    name: 'Vue',
    title: 'TypeScript, Vite, Vue Router',
    commands: ['npm install', 'npm run build', 'npm test'],
    emit: emitVue,
  },
  html: {
    name: 'Plain pages',
    title: 'HTML, CSS and ES modules, nothing to build',
    commands: ['npx serve .'],
    emit: emitHtml,
  },
};

/** What of each long file has a file of its own, as the project is written: by file, names by outermost elements. */
export const piecesOf = (project: Project): CodeBefore['pieces'] =>
  targets[targetOf(project.app)].emit(project, 'App').pieces ?? codeBefore(project.app).pieces;

export type TargetName = Delivery['target'];

export const isTarget = (name: string): name is TargetName => Object.hasOwn(targets, name);

/** What an app is written as where nobody says otherwise. */
export const targetOf = ({ delivery }: App): TargetName => delivery.target ?? DELIVERY.target[0];
