import { useSearchParams } from 'react-router';

/** A value of the address's query; setting it to what it is without saying takes it out of the address. */
export function useQueryParam(name: string, unsaid: string): [string, (value: string) => void] {
  const [params, setParams] = useSearchParams();
  const set = (value: string): void =>
    setParams(
      (now) => {
        if (value === unsaid) now.delete(name);
        else now.set(name, value);
        return now;
      },
      { replace: true },
    );
  return [params.get(name) ?? unsaid, set];
}
