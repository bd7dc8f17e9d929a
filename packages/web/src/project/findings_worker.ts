import { expose } from 'comlink';
import { type Looked, lookThrough } from './look_through';
import { ProjectMemory, type ToldProject } from './told_project';

const memory = new ProjectMemory();

/** Looks through a project away from the interface. */
const looking = {
  look: (told: ToldProject): Looked => lookThrough(memory.hear(told)),
};

export type FindingsWorker = typeof looking;

expose(looking);
