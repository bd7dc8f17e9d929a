import { type ComparisonAnswer, type View, viewsOf } from '@tovel/core';
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useMemo, useRef, useState } from 'react';
import { api } from '../api/client';
import { useProject, useStanding } from '../project/context';

/** What a screen is held against: its source, the picture that came with it, another target, or the app as it was. */
export type Reference = 'source' | 'picture' | 'pages' | 'vue' | `version-${number}`;

export const isReference = (text: string): text is Reference =>
  /^(source|picture|pages|vue|version-\d+)$/.test(text);

/** A view by what tells it apart from the others. */
export const viewId = ({ drawing, width }: Pick<View, 'drawing' | 'width'>): string => `${drawing} ${width}`;

const bodyOf = ({ drawing, width }: View, reference: Reference) => {
  const version = /^version-(\d+)$/.exec(reference)?.[1];
  return version === undefined
    ? { drawing, width, reference: reference as Exclude<Reference, `version-${number}`> }
    : { drawing, width, reference: 'source' as const, version: Number(version) };
};

/** The views of the project, in the order of its screens. */
export function useViews(): readonly View[] {
  const { drawn, app } = useProject();
  return useMemo(() => viewsOf({ design: drawn, app }), [drawn, app]);
}

/** One view held against its reference; what is not shown any more is not waited for. */
export function useCompared(view: View | undefined, reference: Reference) {
  const { id } = useProject();
  const { savedAt } = useStanding();
  const queries = useQueryClient();
  return useQuery<ComparisonAnswer>({
    queryKey: ['compared', id, view && viewId(view), reference, savedAt],
    queryFn: async ({ signal }) => {
      const found = await api.compare(id, bodyOf(view!, reference), signal);
      void queries.invalidateQueries({ queryKey: ['scores', id] });
      return found;
    },
    enabled: view !== undefined,
    staleTime: Infinity,
    retry: false,
    // What was found before a step stands until it is looked at again.
    placeholderData: keepPreviousData,
  });
}

export interface Going {
  readonly done: number;
  readonly total: number;
  /** Views that could not be compared, with why. */
  readonly failed: ReadonlyMap<string, string>;
}

/** Goes through things one after the other, with its progress, until it is through or stopped. */
export function useThrough<T>(
  work: (one: T, signal: AbortSignal) => Promise<void>,
  idOf: (one: T) => string,
) {
  const [going, setGoing] = useState<Going | null>(null);
  const [failed, setFailed] = useState<ReadonlyMap<string, string>>(new Map());
  const controller = useRef<AbortController | null>(null);
  const start = async (list: readonly T[]): Promise<void> => {
    controller.current?.abort();
    const own = new AbortController();
    controller.current = own;
    const problems = new Map<string, string>();
    for (const [done, one] of list.entries()) {
      if (own.signal.aborted) break;
      setGoing({ done, total: list.length, failed: problems });
      await work(one, own.signal).catch((error: Error) => {
        if (!own.signal.aborted) problems.set(idOf(one), error.message);
      });
    }
    if (controller.current === own) {
      setGoing(null);
      setFailed(problems);
    }
  };
  const stop = (): void => {
    controller.current?.abort();
    setGoing(null);
  };
  return { going, failed, start, stop };
}

/** Compares many views, and keeps what was found for when one of them is looked at. */
export function useCompareAll(reference: Reference) {
  const { id } = useProject();
  const { savedAt } = useStanding();
  const queries = useQueryClient();
  const work = useCallback(
    async (view: View, signal: AbortSignal) => {
      const found = await api.compare(id, bodyOf(view, reference), signal);
      queries.setQueryData(['compared', id, viewId(view), reference, savedAt], found);
      await queries.invalidateQueries({ queryKey: ['scores', id] });
    },
    [id, savedAt, reference, queries],
  );
  return useThrough(work, viewId);
}
