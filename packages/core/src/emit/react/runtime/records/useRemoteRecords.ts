import { useQuery } from '@tanstack/react-query';
import { givenFor } from './asked';
import type { Kept } from './records';
import type { Remote } from './remote';

/** All records that an API keeps of one kind; none until they are there. */
export function useRemoteRecords<T extends Kept>(remote: Remote<T>): readonly T[] {
  const { data } = useQuery({
    queryKey: [remote.source.name, 'list', null],
    queryFn: ({ signal }) => givenFor(remote, null, signal),
  });
  return data?.rows ?? [];
}
