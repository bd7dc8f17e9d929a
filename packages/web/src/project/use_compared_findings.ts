import { comparedFindings, type Finding, letStand, type Project } from '@tovel/core';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { api } from '../api/client';

/** How near each view was, the last time that it was compared and before. */
export const useScores = (id: string) =>
  useQuery({ queryKey: ['scores', id], queryFn: () => api.comparisons(id) });

/** What was found of each screen, the last time that it was looked at from narrow to wide. */
export const useSweeps = (id: string) =>
  useQuery({ queryKey: ['sweeps', id], queryFn: () => api.sweeps(id) });

/** What follows from comparisons and sweeps that were made of the project. */
export function useComparedFindings(id: string, { design, app }: Project): readonly Finding[] {
  const { data: scores } = useScores(id);
  const { data: sweeps } = useSweeps(id);
  return useMemo(
    () => letStand(app, comparedFindings({ design, app }, scores ?? [], sweeps ?? [])),
    [design, app, scores, sweeps],
  );
}
