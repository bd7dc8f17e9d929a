import { useSearchParams } from 'react-router';
import type { Words } from './listing';

/**
 * What the address says of how a list is looked at, and how that is written anew.
 * @param prefix before each of its words in the address, where several lists stand on a page
 */
export function useWords(prefix: string): [Words, (next: Words) => void] {
  const [params, setParams] = useSearchParams();
  const words: Record<string, string> = {};
  for (const [name, value] of params)
    if (name.startsWith(prefix)) words[name.slice(prefix.length)] = value;
  const write = (next: Words): void => {
    setParams(
      (before) => {
        for (const [name, value] of Object.entries(next))
          if (value) before.set(prefix + name, value);
          else before.delete(prefix + name);
        return before;
      },
      { replace: true, preventScrollReset: true },
    );
  };
  return [words, write];
}
