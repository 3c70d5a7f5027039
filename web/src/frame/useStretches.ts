// A long list in stretches: the first at once, the next as one scrolls towards it.
import { keepPreviousData, useInfiniteQuery } from '@tanstack/react-query';
import { ApiError } from '../api/client';
import type { Answer } from '../project/outcome';

/** How many entries come at a time. */
const COUNT = 24;

export interface Stretches<T> {
  entries: T[];
  /** How many there are of what is looked for, and in all. */
  found: number;
  total: number;
  /** The first stretch has come. */
  isDone: boolean;
  isFetching: boolean;
  hasMore: boolean;
  more: () => void;
  again: () => void;
  problem: string | null;
  /** Where what is looked for can be meant in two ways: what may be answered. */
  answers: Answer[];
}

interface Stretch<T> {
  entries: T[];
  found: number;
  total: number;
}

export function useStretches<T>(
  key: string,
  find: string,
  ask: (query: { find: string; from: number; count: number }) => Promise<Stretch<T>>,
  isPending: (entry: T) => boolean = () => false,
): Stretches<T> {
  const query = useInfiniteQuery({
    queryKey: [key, find],
    queryFn: ({ pageParam }) => ask({ find, from: pageParam, count: COUNT }),
    initialPageParam: 0,
    getNextPageParam: (last, all) => {
      const so_far = all.reduce((sum, s) => sum + s.entries.length, 0);
      return last.entries.length > 0 && so_far < last.found ? so_far : undefined;
    },
    placeholderData: keepPreviousData,
    staleTime: 0,
    // Entries that are still being made are asked for again.
    refetchInterval: (q) => (q.state.data?.pages.some((s) => s.entries.some(isPending)) ? 1500 : false),
  });
  const pages = query.data?.pages ?? [];
  const error = query.error;
  return {
    entries: pages.flatMap((s) => s.entries),
    found: pages.at(-1)?.found ?? 0,
    total: pages.at(-1)?.total ?? 0,
    isDone: query.data !== undefined,
    isFetching: query.isFetching,
    hasMore: query.hasNextPage,
    more: () => {
      if (!query.isFetchingNextPage) query.fetchNextPage();
    },
    again: () => query.refetch(),
    answers: error instanceof ApiError ? error.body.problems.flatMap((p) => p.answers) : [],
    problem: error ? (error instanceof ApiError ? error.message : String(error)) : null,
  };
}
