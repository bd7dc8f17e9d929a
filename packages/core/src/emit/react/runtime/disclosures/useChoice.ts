import { choiceOf } from './disclosure';
import { useOpened } from './useOpened';

/**
 * Parts of which one is shown.
 * @param first the id of the one that is shown until somebody chooses another
 * @param inOrder the ids of all, where one goes on to the next
 */
export function useChoice(first: string, ...inOrder: string[]) {
  const now = useOpened();
  return choiceOf(() => now, first, inOrder);
}
