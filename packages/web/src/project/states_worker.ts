import { explore, type Explored, type StatePlan } from '@tovel/core';
import { expose } from 'comlink';

/** Goes through all states of an app, away from the interface. */
const states = {
  explore: (plan: StatePlan): Explored => explore(plan),
};

export type StatesWorker = typeof states;

expose(states);
