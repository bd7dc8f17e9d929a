import { useCallback, useState } from 'react';
import { useLocation, useSearchParams } from 'react-router';

/**
 * The chosen element of a view, which stands in its address. The choice is there at once and the address follows, so
 * that a key that is pressed right after it meets it; an address that came otherwise makes the choice.
 */
export function useElementInAddress(): [key: string | null, select: (key: string | null) => void] {
  const [params, setParams] = useSearchParams();
  const location = useLocation();
  const [wanted, setWanted] = useState(params.get('element'));
  const [visit, setVisit] = useState(location.key);
  if (visit !== location.key) {
    setVisit(location.key);
    if (!(location.state as { isOwn?: boolean } | null)?.isOwn) setWanted(params.get('element'));
  }
  const select = useCallback(
    (key: string | null): void => {
      setWanted(key);
      setParams(key ? { element: key } : {}, { replace: true, state: { isOwn: true } });
    },
    [setParams],
  );
  return [wanted, select];
}
