import { useQuery } from '@tanstack/react-query';
import { useParams } from 'react-router';
import type { Kept } from './records';
import { oneOf, type Remote } from './remote';

/** The record whose id a parameter of the address says; nothing until it is there, and where there is none. */
export function useRemoteRecord<T extends Kept>(
  remote: Remote<T>,
  parameter: string,
): T | undefined {
  const id = useParams()[parameter] ?? '';
  const { data } = useQuery({
    queryKey: [remote.source.name, 'one', id],
    queryFn: ({ signal }) => oneOf(remote, id, signal),
    enabled: id !== '',
  });
  return data?.rows[0];
}
