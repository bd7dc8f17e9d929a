import { type NamedVariable, storeOf } from '../named_variables.ts';
import { script } from '../script.ts';

/** What the app remembers. */
export function variablesTs(variables: readonly NamedVariable[]): string {
  const { type, store, imports } = storeOf(variables);
  return script`import { useSyncExternalStore } from 'react';
${imports}import { createStore } from './store';

${type}

const store = ${store};

export const setVariable = store.set;

/** What there is at this moment. */
export const variables = store.now;

export const useVariables = (): Variables => useSyncExternalStore(store.listen, store.now);
`.text;
}
