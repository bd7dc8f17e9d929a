import type { MergeSide, PushPlan } from '@tovel/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '../../api/client';
import { useProject } from '../../project/context';

/** The repository of the project: what is there, what pushing would do, what was decided, and pushing. */
export function useRepository() {
  const { id } = useProject();
  const queries = useQueryClient();
  const connection = useQuery({ queryKey: ['repository', id], queryFn: () => api.repository(id) });
  const [answers, setAnswers] = useState<ReadonlyMap<string, MergeSide>>(new Map());
  const [pushed, setPushed] = useState<string | null>(null);
  const isConnected = !!connection.data;
  const look = useQuery({
    queryKey: ['repository-look', id],
    queryFn: () => api.lookIntoRepository(id, []),
    enabled: isConnected,
    retry: false,
    // What is there is asked when somebody comes, and when they say so: each time takes git some seconds.
    staleTime: Infinity,
    gcTime: 0,
  });
  const lookAgain = async (): Promise<void> => {
    setPushed(null);
    await look.refetch();
  };
  const connect = useMutation({
    mutationFn: (to: { address: string; branch: string; token?: string }) => api.connectRepository(id, to),
    onSuccess: async (known) => {
      queries.setQueryData(['repository', id], known);
      setAnswers(new Map());
      if (isConnected) await lookAgain();
    },
  });
  /** Nothing of the repository itself is touched. */
  const disconnect = useMutation({
    mutationFn: () => api.disconnectRepository(id),
    onSuccess: () => {
      setAnswers(new Map());
      queries.removeQueries({ queryKey: ['repository-look', id] });
      queries.setQueryData(['repository', id], null);
    },
  });
  const push = useMutation({
    mutationFn: ({ plan, message }: { plan: PushPlan; message: string }) =>
      api.push(id, {
        head: plan.head,
        message,
        answers: [...answers].map(([ask, side]) => ({ id: ask, side })),
      }),
    onSuccess: async ({ commit }) => {
      setAnswers(new Map());
      await queries.invalidateQueries({ queryKey: ['repository', id] });
      await look.refetch();
      setPushed(commit);
    },
  });
  return {
    connection,
    look,
    lookAgain,
    connect,
    disconnect,
    push,
    pushed,
    answers,
    answer: (ask: string, side: MergeSide) => setAnswers((now) => new Map(now).set(ask, side)),
  };
}

export type RepositoryState = ReturnType<typeof useRepository>;
