import { createContext } from 'react';
import type { Values } from './check';

/** What is wrong with the fields of the form around, by their names, and a name for the form. */
export const Messages = createContext<{ form: string; problems: Values }>({
  form: '',
  problems: {},
});
