import {
  deliveredCode,
  type EmissionProgress,
  type EmittedProject,
  type Project,
  seldom,
  targetOf,
} from '@tovel/core';
import { expose } from 'comlink';

/** Writes the code away from the interface. */
const deliver = {
  emit(project: Project, name: string, tell: EmissionProgress): Promise<EmittedProject> {
    return deliveredCode(project, name, targetOf(project.app), seldom(tell));
  },
};

export type DeliverWorker = typeof deliver;

expose(deliver);
