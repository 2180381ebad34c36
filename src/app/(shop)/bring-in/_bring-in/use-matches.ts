'use client';

import { useQueries } from '@tanstack/react-query';
import type { FoundView } from '@/services/gathering/find-found';
import type { ItemMatch } from '@/services/listings/links/match-items';
import { api } from '@/ui/data/api';

const atOnce = 50;

/**
 * Which items these listings probably are. The whole inventory is looked over for it, so the list stands there first and
 * this follows.
 * @returns by the listing's id: undefined while it is looked for, null where none is like it
 */
export function useMatches(account: number, rows: readonly FoundView[]): (id: number) => ItemMatch | null | undefined {
  const open = rows.filter((row) => row.item === null).map((row) => row.id);
  const portions = Array.from({ length: Math.ceil(open.length / atOnce) }, (_, at) =>
    open.slice(at * atOnce, (at + 1) * atOnce).join(','),
  );
  const answers = useQueries({
    queries: portions.map((ids) => ({
      queryKey: ['found', 'matches', account, ids],
      queryFn: () => api('GET /found/matches', { query: { account, ids } }),
      staleTime: 60_000,
    })),
  });
  const found = new Map(answers.flatMap(({ data }) => data?.matches.map((one) => [one.id, one.match] as const) ?? []));
  const looked = new Set(
    portions.flatMap((ids, at) => (answers[at]?.data || answers[at]?.isError ? ids.split(',').map(Number) : [])),
  );
  return (id) => (looked.has(id) ? (found.get(id) ?? null) : undefined);
}
