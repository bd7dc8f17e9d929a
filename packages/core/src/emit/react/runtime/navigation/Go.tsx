import type { MouseEvent } from 'react';
import { Link, type LinkProps, useParams } from 'react-router';
import type { Arrival } from './arrival';
import { fill } from './fill';
import { announce } from './history';
import { useGo } from './useGo';

type GoProps = Omit<LinkProps, 'viewTransition' | 'to'> & {
  to: string;
  arrival?: Arrival;
  /** What is done when it is pressed, given what goes there. */
  around?: (go: () => void) => void | Promise<void>;
};

/** A link to another screen. What its address leaves open is that of the present one. */
export function Go({ to, arrival = { kind: 'none' }, around, ...props }: GoProps) {
  const params = useParams();
  const go = useGo();
  return (
    <Link
      {...props}
      to={fill(to, params)}
      viewTransition={arrival.kind !== 'none'}
      onClick={(event) => {
        props.onClick?.(event);
        if (around && isPlain(event)) {
          event.preventDefault();
          void around(() => go(to, arrival));
        } else announce(arrival, event.currentTarget);
      }}
    />
  );
}

/** Whether a press leads on in this window. */
const isPlain = ({ button, metaKey, ctrlKey, shiftKey, altKey, defaultPrevented }: MouseEvent) =>
  button === 0 && !metaKey && !ctrlKey && !shiftKey && !altKey && !defaultPrevented;
