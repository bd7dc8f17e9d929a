import { disclosureOf, type FirstOpen } from './disclosure';
import { useOpened } from './useOpened';

/**
 * Parts that are opened and closed.
 * @param openAtFirst ids of those that are open until somebody closes them, as far as they are
 */
export function useDisclosure(...openAtFirst: (FirstOpen | (() => FirstOpen))[]) {
  const now = useOpened();
  return disclosureOf(
    () => now.value,
    () => openAtFirst.map((one) => (typeof one === 'function' ? one() : one)),
  );
}
