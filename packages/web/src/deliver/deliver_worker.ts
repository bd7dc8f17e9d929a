import { type EmittedProject, emitReact, type Project } from '@tovel/core';
import { expose } from 'comlink';

/** Writes the code away from the interface. */
const deliver = {
  emit(project: Project, name: string): EmittedProject {
    return emitReact(project, name);
  },
};

export type DeliverWorker = typeof deliver;

expose(deliver);
