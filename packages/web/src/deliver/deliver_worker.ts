import {
  type CodeRead,
  deliveredCode,
  type EmissionProgress,
  type EmittedProject,
  type Project,
  readCode,
  seldom,
  targetOf,
} from '@tovel/core';
import { expose } from 'comlink';

/** Writes the code away from the interface. */
const deliver = {
  emit(project: Project, name: string, tell: EmissionProgress): Promise<EmittedProject> {
    return deliveredCode(project, name, targetOf(project.app), seldom(tell));
  },
  read(project: Project, name: string, path: string, text: string): Promise<CodeRead> {
    return readCode(project, name, targetOf(project.app), path, text);
  },
};

export type DeliverWorker = typeof deliver;

expose(deliver);
