import { Navigate, useParams } from 'react-router';
import { fill } from './fill';

/** Leads on to another address, with the parameters of this one. */
export function Redirect({ to }: { to: string }) {
  return <Navigate to={fill(to, useParams())} replace />;
}
