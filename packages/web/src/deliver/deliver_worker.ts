import { type EmissionProgress, type EmittedProject, emitReact, type Project, seldom } from '@tovel/core';
import { expose } from 'comlink';

/** Writes the code away from the interface. */
const deliver = {
  emit(project: Project, name: string, tell: EmissionProgress): EmittedProject {
    return emitReact(project, name, seldom(tell));
  },
};

export type DeliverWorker = typeof deliver;

expose(deliver);
