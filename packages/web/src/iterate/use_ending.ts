import type { WaitingRound } from '@tovel/core';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '../api/client';
import { useProject } from '../project/context';
import { newName } from '../project/identity';
import { forgetAnswers, type OpenRound } from './use_round';

/** Takes a round in, or puts it away; what was answered for it goes with it. */
export function useEnding(round: NonNullable<WaitingRound>, { isWhole, answers }: OpenRound) {
  const { id, session } = useProject();
  const queries = useQueryClient();
  const [busy, setBusy] = useState<'take' | 'drop' | null>(null);
  const [failure, setFailure] = useState<string | null>(null);
  // Said again with the same name it is done once.
  const [step] = useState(() => newName(16));
  const run = async (what: 'take' | 'drop', work: () => Promise<void>): Promise<void> => {
    setBusy(what);
    setFailure(null);
    try {
      await work();
      forgetAnswers(id, round);
      await queries.invalidateQueries({ queryKey: ['round', id] });
    } catch (error) {
      setFailure((error as Error).message);
    } finally {
      setBusy(null);
    }
  };
  return {
    busy,
    failure,
    take: () =>
      void run('take', () =>
        session.accept((input) => api.takeRound(id, { ...input, whole: isWhole, answers }), step),
      ),
    drop: () => void run('drop', () => api.dropRound(id)),
  };
}
