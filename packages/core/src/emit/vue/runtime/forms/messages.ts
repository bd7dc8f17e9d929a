import type { InjectionKey } from 'vue';
import type { Values } from './check';

/** What is wrong with the fields of the form around, by their names, and a name for the form. */
export const messages: InjectionKey<{ readonly form: string; readonly problems: Values }> =
  Symbol('messages');
