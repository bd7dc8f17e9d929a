import type { Note } from '@tovel/core';
import { useQuery } from '@tanstack/react-query';
import { api } from '../api/client';
import { useProject, useStanding } from '../project/context';

const NONE: readonly Note[] = [];

/** What visitors of the published app said, the newest first, and how much of it waits. */
export function useNotes(): { readonly notes: readonly Note[]; readonly waiting: number } {
  const { id, past } = useProject();
  const { noted } = useStanding();
  const { data = NONE } = useQuery({
    queryKey: ['notes', id, noted],
    queryFn: () => api.notes(id),
    enabled: past === null,
    placeholderData: (before) => before,
    staleTime: Infinity,
    retry: false,
  });
  return { notes: data, waiting: data.filter(({ settledAt }) => settledAt === null).length };
}
