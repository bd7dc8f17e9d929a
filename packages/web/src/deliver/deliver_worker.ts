import {
  type CodeChange,
  codeChanges,
  type CodeRead,
  deliveredCode,
  type EmissionProgress,
  type EmittedProject,
  generatedCode,
  type Project,
  readCode,
  seldom,
  targetOf,
} from '@tovel/core';
import { replaceEqualDeep } from '@tanstack/react-query';
import { expose } from 'comlink';
import { ProjectMemory, type ToldProject } from '../project/told_project';

const memory = new ProjectMemory();
/** What was written last: it is asked for again by what compares it with something else. */
let last: { readonly project: Project; readonly name: string; readonly emitted: EmittedProject } | null =
  null;
/** The code of the moment that was compared with last. */
let then: { readonly moment: string; readonly emitted: EmittedProject } | null = null;

async function written(project: Project, name: string, tell: EmissionProgress): Promise<EmittedProject> {
  if (last?.name !== name || last.project.design !== project.design || last.project.app !== project.app) {
    const emitted = await deliveredCode(project, name, targetOf(project.app), seldom(tell));
    last = { project, name, emitted };
  }
  return last.emitted;
}

/** Writes the code away from the interface. */
const deliver = {
  /** @param early hears the code while only what is looked at first is formatted, where the rest takes long */
  async emit(
    told: ToldProject,
    name: string,
    tell: EmissionProgress,
    early: (emitted: EmittedProject) => void,
  ): Promise<EmittedProject> {
    const project = memory.hear(told);
    const [target, { start, handWritten }] = [targetOf(project.app), project.app];
    // The formatter takes longer the first time than ever after.
    if (!last && start !== null && !Object.keys(handWritten).length)
      early(
        await generatedCode(
          project,
          name,
          target,
          seldom(tell),
          (path, { fileOfScreen }) => path === fileOfScreen.get(start),
        ),
      );
    return written(project, name, tell);
  },
  /**
   * What became of the code since the project was something else.
   * @param moment what that is known by: the same for the same
   */
  async changes(
    moment: string,
    past: Project,
    pastName: string,
    told: ToldProject,
    name: string,
    tell: EmissionProgress,
  ): Promise<CodeChange[]> {
    const project = memory.hear(told);
    const emitted = await written(project, name, tell);
    if (then?.moment !== moment) {
      // What is as it was then need not be written again.
      const before = replaceEqualDeep(project, past);
      then = { moment, emitted: await deliveredCode(before, pastName, targetOf(before.app)) };
    }
    return codeChanges(then.emitted, emitted);
  },
  read(told: ToldProject, name: string, path: string, text: string): Promise<CodeRead> {
    const project = memory.hear(told);
    return readCode(project, name, targetOf(project.app), path, text);
  },
};

export type DeliverWorker = typeof deliver;

expose(deliver);
