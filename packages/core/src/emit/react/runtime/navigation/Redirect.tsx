import { Navigate, useParams } from 'react-router';
import { fill } from './fill';

/** Leads on to another address, with the parameters of this one. */
export function Redirect({ to }: { to: string }) {
  const params = useParams();
  return <Navigate to={fill(to, params)} replace />;
}
