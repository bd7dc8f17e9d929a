import { Link, type LinkProps, useParams } from 'react-router';
import type { Arrival } from './arrival';
import { fill } from './fill';
import { announce } from './history';

type GoProps = Omit<LinkProps, 'viewTransition' | 'to'> & { to: string; arrival?: Arrival };

/** A link to another screen. What its address leaves open is that of the present one. */
export function Go({ to, arrival = { kind: 'none' }, ...props }: GoProps) {
  const params = useParams();
  return (
    <Link
      {...props}
      to={fill(to, params)}
      viewTransition={arrival.kind !== 'none'}
      onClick={(event) => {
        props.onClick?.(event);
        announce(arrival, event.currentTarget);
      }}
    />
  );
}
