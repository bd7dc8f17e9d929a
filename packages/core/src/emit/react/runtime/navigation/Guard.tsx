import { type ReactNode, useState } from 'react';
import { Navigate, useLocation, useParams } from 'react-router';
import { type Variables, useVariables } from '../state/variables';
import { fill } from './fill';

interface GuardProps {
  condition: keyof Variables;
  is?: boolean;
  /** The address to show instead. */
  otherwise: string;
  children: ReactNode;
}

/** Lets one in while a condition holds, and leads somewhere else when it does not. Who is in stays in. */
export function Guard(props: GuardProps) {
  const { pathname } = useLocation();
  return <Entrance key={pathname} {...props} />;
}

function Entrance({ condition, is = true, otherwise, children }: GuardProps) {
  const variables = useVariables();
  const params = useParams();
  const [isIn] = useState(variables[condition] === is);
  return isIn ? children : <Navigate to={fill(otherwise, params)} replace />;
}
