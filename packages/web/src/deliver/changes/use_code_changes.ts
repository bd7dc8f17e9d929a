import { useQuery } from '@tanstack/react-query';
import type { CodeChange } from '@tovel/core';
import { proxy } from 'comlink';
import { useEffect, useState } from 'react';
import { api } from '../../api/client';
import { useProject } from '../../project/context';
import { writer } from '../use_emitted';

/** When the code was handed over, the newest first. */
export function useDeliveries() {
  const { id } = useProject();
  // It is handed over by downloads, which nobody is told of.
  return useQuery({
    queryKey: ['deliveries', id],
    queryFn: () => api.deliveries(id),
    refetchOnMount: 'always',
  });
}

/** A moment whose code that of now is held against. */
export interface Moment {
  /** The place of the history. */
  readonly seq: number;
  /** What the project was called then, where that is known. */
  readonly name: string | null;
}

interface Known {
  readonly changes: readonly CodeChange[] | null;
  readonly problem: string | null;
  readonly done: number;
  readonly total: number;
}
const NOTHING: Known = { changes: null, problem: null, done: 0, total: 0 };

/** What became of the code since a moment; null while it is worked out, with how far that is. */
export function useCodeChanges(moment: Moment | null): Known {
  const { id, design, app, name } = useProject();
  const [known, setKnown] = useState<Known>(NOTHING);
  const past = useQuery({
    queryKey: ['past', id, moment?.seq],
    queryFn: () => api.past(id, moment!.seq),
    enabled: moment !== null,
    staleTime: Infinity,
  });
  useEffect(() => writer.use(), []);
  const nameThen = moment?.name ?? name;
  useEffect(() => {
    if (!past.data) return;
    let isStale = false;
    const hear = (next: Partial<Known>): void => void (isStale || setKnown((now) => ({ ...now, ...next })));
    setKnown((now) => ({ ...now, problem: null }));
    const tell = proxy((done: number, total: number) => hear({ done, total }));
    writer
      .ask({ design, app }, (remote, told) =>
        remote.changes(
          `${id} ${past.data.history.seq} ${nameThen}`,
          { design: past.data.design, app: past.data.app },
          nameThen,
          told,
          name,
          tell,
        ),
      )
      .then(
        (changes) => hear({ changes }),
        (error: Error) => hear({ problem: error.message }),
      );
    return () => {
      isStale = true;
    };
  }, [id, past.data, nameThen, design, app, name]);
  // What was found of another moment is nothing of this one.
  useEffect(() => setKnown(NOTHING), [moment?.seq]);
  return past.error ? { ...known, problem: past.error.message } : known;
}
