import { type NamedVariable, storeOf } from '../named_variables.ts';
import { script } from '../script.ts';

/** What the app remembers. */
export function variablesTs(variables: readonly NamedVariable[]): string {
  const { type, store, imports } = storeOf(variables);
  return script`import { reactive } from 'vue';
${imports}import { createStore } from './store';

${type}

const store = ${store};

export const variables: Variables = reactive({ ...store.now() });

export const setVariable = store.set;

/** What belongs to a screen, or is said by the address, follows where one is. */
export const followAddress = (): void => void Object.assign(variables, store.now());

store.listen(followAddress);
`.text;
}
