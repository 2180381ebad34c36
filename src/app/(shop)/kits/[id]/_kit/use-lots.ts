'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useRef } from 'react';
import type { Interface } from '@/http/interface';
import type { LotView } from '@/services/kits/find-kit';
import { api } from '@/ui/data/api';
import { sentenceOf } from '@/ui/data/sentence';
import { useNotice } from '@/ui/frame/providers';

export type LotChange = NonNullable<Interface['PATCH /kits/{id}/lots']['body']>['lots'][number]['set'];

const atOnce = 2_000;

async function everyLot(id: number): Promise<LotView[]> {
  const all: LotView[] = [];
  for (let after: number | null = 0; after !== null; ) {
    const page: { lots: LotView[]; next: number | null } = await api('GET /kits/{id}/lots', {
      params: { id },
      query: { after, limit: atOnce },
    });
    all.push(...page.lots);
    after = page.next;
  }
  return all;
}

/**
 * The lots of sets, and how a change of one is kept: it stands in the table at once and goes out behind the one before,
 * so that two changes of the same lot never meet.
 */
export function useLots(id: number) {
  const client = useQueryClient();
  const notice = useNotice();
  const key = ['kit-lots', id];
  const pages = useQuery({ queryKey: key, queryFn: () => everyLot(id) });
  const last = useRef(Promise.resolve());
  const write = useCallback(
    (lotId: number, set: LotChange) => {
      const lotsKey = ['kit-lots', id];
      const change = (some: Partial<LotView>) =>
        client.setQueryData<LotView[]>(lotsKey, (now) =>
          now?.map((lot) => (lot.id === lotId ? { ...lot, ...some } : lot)),
        );
      change(set);
      last.current = last.current.then(async () => {
        const lot = client.getQueryData<LotView[]>(lotsKey)?.find((one) => one.id === lotId);
        if (!lot) return;
        try {
          const { changed, refused } = await api('PATCH /kits/{id}/lots', {
            params: { id },
            body: { lots: [{ id: lotId, baseVersion: lot.version, set }] },
          });
          for (const one of changed) change({ version: one.version });
          if (refused[0]) throw new Error(`${lot.name}: ${refused[0].why}`);
          void client.invalidateQueries({ queryKey: ['kit', id] });
        } catch (error) {
          notice(sentenceOf(error));
          await client.invalidateQueries({ queryKey: lotsKey });
        }
      });
    },
    [client, id, notice],
  );
  return { lots: pages.data ?? [], pages, write };
}
