'use client';

import { useQuery } from '@tanstack/react-query';
import { useSearchParams } from 'next/navigation';
import { useMemo } from 'react';
import { foundIds } from '@/ui/data/found-ids';
import { readSelection } from '@/ui/data/selection';

const mostItems = 5_000;

/** What labels are wanted of, as the address says: a batch, or the items that were chosen, by their numbers. */
export function useWhat(): { batch: number | null; items: number[]; isPending: boolean } {
  const params = useSearchParams();
  const batch = Number(params.get('batch')) || null;
  const selection = useMemo(() => readSelection(new URLSearchParams(params)), [params]);
  const found = useQuery({
    queryKey: ['label-items', selection],
    enabled: selection?.kind === 'filter',
    queryFn: async () => {
      if (selection?.kind !== 'filter') return [];
      return foundIds(selection.filter, mostItems, new Set(selection.except));
    },
  });
  const items = selection?.kind === 'items' ? selection.ids : (found.data ?? []);
  return { batch, items, isPending: selection?.kind === 'filter' && found.isPending };
}
