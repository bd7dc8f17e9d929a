import { startTransition, useOptimistic } from 'react';
import { useSearchParams } from 'react-router';

/**
 * A value of the address's query; setting it to what it is without saying takes it out of the address. What is set is there at
 * once: the address follows when there is time, and what is typed in between would be typed into what was chosen before.
 */
export function useQueryParam(name: string, unsaid: string): [string, (value: string) => void] {
  const [params, setParams] = useSearchParams();
  const [value, setValue] = useOptimistic(params.get(name) ?? unsaid);
  const set = (next: string): void =>
    startTransition(() => {
      setValue(next);
      setParams(
        (now) => {
          if (next === unsaid) now.delete(name);
          else now.set(name, next);
          return now;
        },
        { replace: true },
      );
    });
  return [value, set];
}
