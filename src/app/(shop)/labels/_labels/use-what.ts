'use client';

import { useQuery } from '@tanstack/react-query';
import { useSearchParams } from 'next/navigation';
import { useMemo } from 'react';
import { api } from '@/ui/data/api';
import { readSelection } from '@/ui/data/selection';

const mostItems = 5_000;
const atOnce = 500;

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
      const left = new Set(selection.except);
      const ids: number[] = [];
      for (let after: string | null = ''; after !== null && ids.length < mostItems; ) {
        const page: { items: { id: number }[]; next: string | null } = await api('GET /items', {
          query: { ...selection.filter, limit: atOnce, after: after || undefined },
        });
        ids.push(...page.items.map((one) => one.id).filter((id) => !left.has(id)));
        after = page.next;
      }
      return ids.slice(0, mostItems);
    },
  });
  const items = selection?.kind === 'items' ? selection.ids : (found.data ?? []);
  return { batch, items, isPending: selection?.kind === 'filter' && found.isPending };
}
