import { type EmissionProgress, type EmittedProject, emitReact, type Project } from '@tovel/core';
import { expose } from 'comlink';

/** Progress is told this often at most, in ms. */
const TELL_MS = 100;

/** Writes the code away from the interface. */
const deliver = {
  emit(project: Project, name: string, tell: EmissionProgress): EmittedProject {
    let last = 0;
    return emitReact(project, name, (done, total) => {
      if (Date.now() - last < TELL_MS) return;
      last = Date.now();
      tell(done, total);
    });
  },
};

export type DeliverWorker = typeof deliver;

expose(deliver);
