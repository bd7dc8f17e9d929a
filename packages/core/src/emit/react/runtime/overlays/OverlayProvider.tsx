import { type ReactNode, useEffect, useMemo, useState } from 'react';
import { matchPath, useLocation, useNavigate } from 'react-router';
import type { Arrival } from '../navigation/arrival';
import { Overlay } from './Overlay';
import { overlays } from './overlays';
import { OverlaysContext } from './useOverlays';

interface Opened {
  name: string;
  id: number;
  opener: Element | null;
  arrival?: Arrival;
}

const PARAMETER = 'show';
let count = 0;

/** Keeps what is open over the screen: in the address where it has one, else here. */
export function OverlayProvider({ children }: { children: ReactNode }) {
  const [opened, setOpened] = useState<Opened[]>([]);
  const { pathname, search, state } = useLocation();
  const navigate = useNavigate();
  const named = new URLSearchParams(search).get(PARAMETER);

  // Another screen closes what was open over the last one; a message may stay.
  useEffect(() => {
    setOpened((now) => now.filter(({ name }) => overlays[name].kind === 'toast'));
  }, [pathname]);

  const isOver = (name: string): boolean => {
    const { over } = overlays[name];
    return !over || over.some((path) => matchPath(path, pathname));
  };
  const inAddress = named && named in overlays && isOver(named) ? named : null;

  const actions = useMemo(
    () => ({
      open(name: string, arrival?: Arrival) {
        if (!(name in overlays)) return;
        if (overlays[name].hasAddress) {
          const query = new URLSearchParams(search);
          query.set(PARAMETER, name);
          void navigate({ search: query.toString() }, { state: { isOpened: true } });
          return;
        }
        const opener = document.activeElement;
        setOpened((now) => [
          ...now.filter((other) => other.name !== name),
          { name, id: ++count, opener, arrival },
        ]);
      },
      close() {
        if (opened.length) setOpened(opened.slice(0, -1));
        else if (state?.isOpened) void navigate(-1);
        else if (named) {
          const query = new URLSearchParams(search);
          query.delete(PARAMETER);
          void navigate({ search: query.toString() }, { replace: true });
        }
      },
    }),
    [opened, search, state, named, navigate],
  );

  return (
    <OverlaysContext value={actions}>
      {children}
      {inAddress && (
        <Overlay
          name={inAddress}
          definition={overlays[inAddress]}
          opener={null}
          onClose={actions.close}
        />
      )}
      {opened
        .filter(({ name }) => isOver(name))
        .map(({ name, id, opener, arrival }) => (
          <Overlay
            key={id}
            name={name}
            definition={overlays[name]}
            opener={opener}
            arrival={arrival}
            onClose={() => setOpened((now) => now.filter((other) => other.id !== id))}
          />
        ))}
    </OverlaysContext>
  );
}
