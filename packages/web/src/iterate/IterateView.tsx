import { useQuery } from '@tanstack/react-query';
import { api } from '../api/client';
import { useProject } from '../project/context';
import { DoneView } from './DoneView';
import { RoundView } from './RoundView';

/** The next round of screens: what it would do while it waits, and after it was taken in what it did. */
export function IterateView() {
  const { id } = useProject();
  const { data: round } = useQuery({ queryKey: ['round', id], queryFn: () => api.round(id) });
  return round ? <RoundView key={round.madeAt} round={round} /> : <DoneView />;
}
