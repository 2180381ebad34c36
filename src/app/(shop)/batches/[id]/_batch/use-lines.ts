'use client';

import { useInfiniteQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { api } from '@/ui/data/api';
import { linesKey } from './use-acts';

/** Rows that stand there; earlier ones are asked for. */
const shownAtOnce = 20;

/** The lines of a batch, the newest first, page by page; all of them, or what waits for a person. */
export function useLines(id: number) {
  const [isOpenOnly, setIsOpenOnly] = useState(false);
  const [shownCount, setShownCount] = useState(shownAtOnce);
  const pages = useInfiniteQuery({
    queryKey: linesKey(id, isOpenOnly ? 'open' : 'all'),
    queryFn: ({ pageParam }) =>
      api('GET /batches/{id}/lines', {
        params: { id },
        query: { before: pageParam || undefined, open: isOpenOnly ? 'true' : undefined },
      }),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next ?? undefined,
    refetchInterval: 8_000,
    // First what was scanned meanwhile goes out.
    refetchOnReconnect: false,
  });
  const lines = useMemo(() => pages.data?.pages.flatMap((page) => page.lines) ?? [], [pages.data]);
  const shown = useMemo(() => lines.slice(0, shownCount), [lines, shownCount]);
  const more = () => {
    const wanted = shownCount + 2 * shownAtOnce;
    setShownCount(wanted);
    if (pages.hasNextPage && lines.length < wanted) void pages.fetchNextPage();
  };
  const hasMore = pages.hasNextPage || lines.length > shownCount;
  return { pages, lines, shown, isOpenOnly, setIsOpenOnly, more, hasMore };
}
