import type { TimelineStep, Version } from '@tovel/core';
import { keepPreviousData, useInfiniteQuery } from '@tanstack/react-query';
import { useCallback, useMemo } from 'react';
import { api } from '../api/client';
import { linesOf } from './sittings';

interface Asked {
  readonly id: string;
  /** The last place in the history. */
  readonly seq: number;
  readonly words: string;
  /** Only steps on this screen; all where it is empty. */
  readonly screen: string;
  readonly versions: readonly Version[];
}

/** The steps of a project, the last first, page by page as somebody goes on. */
export function useTimeline({ id, seq, words, screen, versions }: Asked) {
  const pages = useInfiniteQuery({
    queryKey: ['timeline', id, seq, words, screen],
    queryFn: ({ pageParam }) =>
      api.timeline(id, {
        ...(pageParam === null ? {} : { before: pageParam }),
        ...(words.trim() ? { words: words.trim() } : {}),
        ...(screen ? { screen } : {}),
      }),
    initialPageParam: null as number | null,
    getNextPageParam: (page) => page.before,
    placeholderData: keepPreviousData,
  });
  const isSearch = words.trim() !== '' || screen !== '';
  const steps = useMemo(() => {
    const read = pages.data?.pages.flatMap((page) => page.steps) ?? [];
    const isAll = pages.data?.pages.at(-1)?.before === null && !isSearch;
    return isAll && read.length ? [...read, beginning(read.at(-1)!.madeAt)] : read;
  }, [pages.data, isSearch]);
  const lines = useMemo(() => linesOf(steps, versions), [steps, versions]);
  const { isPending, hasNextPage, isFetchingNextPage, fetchNextPage } = pages;
  const onEnd = useCallback(() => {
    if (hasNextPage && !isFetchingNextPage) void fetchNextPage();
  }, [hasNextPage, isFetchingNextPage, fetchNextPage]);
  return { steps, lines, isPending, onEnd };
}

/** What was before the first step. */
const beginning = (madeAt: string): TimelineStep => ({
  seq: 0,
  role: 'do',
  of: undefined,
  label: 'The beginning',
  author: undefined,
  madeAt,
  standing: null,
  screens: [],
  isIteration: false,
});
