import {
  type CodeRead,
  deliveredCode,
  type EmissionProgress,
  type EmittedProject,
  generatedCode,
  readCode,
  seldom,
  targetOf,
} from '@tovel/core';
import { expose } from 'comlink';
import { ProjectMemory, type ToldProject } from '../project/told_project';

const memory = new ProjectMemory();
/** Whether the formatter has been at work: it takes longer the first time than ever after. */
let isWarm = false;

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
    if (!isWarm && start !== null && !Object.keys(handWritten).length)
      early(
        await generatedCode(
          project,
          name,
          target,
          seldom(tell),
          (path, { fileOfScreen }) => path === fileOfScreen.get(start),
        ),
      );
    const emitted = await deliveredCode(project, name, target, seldom(tell));
    isWarm = true;
    return emitted;
  },
  read(told: ToldProject, name: string, path: string, text: string): Promise<CodeRead> {
    const project = memory.hear(told);
    return readCode(project, name, targetOf(project.app), path, text);
  },
};

export type DeliverWorker = typeof deliver;

expose(deliver);
