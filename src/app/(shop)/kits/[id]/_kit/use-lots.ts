'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useRef } from 'react';
import { editedFields } from '@/core/kit/meaning';
import type { Interface } from '@/http/interface';
import type { LotView } from '@/services/kits/find-kit';
import { ApiProblem, api } from '@/ui/data/api';
import { sentenceOf } from '@/ui/data/sentence';
import { useNotice } from '@/ui/frame/providers';

export type LotChange = NonNullable<Interface['PATCH /kits/{id}/lots']['body']>['lots'][number]['set'];

const atOnce = 2_000;
/** So long it waits before what was not heard goes once more. */
const againMs = 2_000;

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
 * The lots of sets, and how a change of one is kept: it stands in the table at once and goes out with those that gathered
 * while the request before was under way, so that two changes of the same lot never meet.
 */
export function useLots(id: number) {
  const client = useQueryClient();
  const notice = useNotice();
  const key = ['kit-lots', id];
  const pages = useQuery({ queryKey: key, queryFn: () => everyLot(id) });
  const waiting = useRef(new Map<number, LotChange>());
  const isSending = useRef(false);
  const writeAll = useCallback(
    (changes: ReadonlyMap<number, LotChange>) => {
      const lotsKey = ['kit-lots', id];
      const change = (some: ReadonlyMap<number, Partial<LotView>>) =>
        client.setQueryData<LotView[]>(lotsKey, (now) =>
          now?.map((lot) => {
            const part = some.get(lot.id);
            return part ? { ...lot, ...part } : lot;
          }),
        );
      change(new Map([...changes].map(([lotId, set]) => [lotId, shownAt(set)])));
      for (const [lotId, set] of changes) waiting.current.set(lotId, { ...waiting.current.get(lotId), ...set });
      const send = async (): Promise<void> => {
        if (isSending.current) return;
        isSending.current = true;
        // What is written in the same breath goes together.
        await Promise.resolve();
        try {
          while (waiting.current.size > 0) await sendSome();
        } finally {
          isSending.current = false;
        }
      };
      const sendSome = async () => {
        const some = new Map([...waiting.current].slice(0, atOnce));
        for (const one of some.keys()) waiting.current.delete(one);
        const known = new Map((client.getQueryData<LotView[]>(lotsKey) ?? []).map((lot) => [lot.id, lot]));
        const lots = [...some].flatMap(([one, given]) => {
          const lot = known.get(one);
          return lot ? [{ id: one, baseVersion: lot.version, set: given }] : [];
        });
        if (lots.length === 0) return;
        try {
          const { changed, refused } = await api('PATCH /kits/{id}/lots', { params: { id }, body: { lots } });
          change(
            new Map(
              changed.map((one) => [
                one.id,
                { version: one.version, ...editedAt(known.get(one.id), some.get(one.id) ?? {}) },
              ]),
            ),
          );
          const [first] = refused;
          if (!first) return;
          const more = refused.length > 1 ? `, and ${(refused.length - 1).toLocaleString('en')} more` : '';
          notice(`${known.get(first.id)?.name ?? 'A lot'}: ${first.why}${more}`);
          // Only those are read anew; what waits is sent all the same.
          const now = new Map((await everyLot(id)).map((lot) => [lot.id, lot]));
          change(new Map(refused.flatMap((one) => (now.has(one.id) ? [[one.id, now.get(one.id) ?? {}]] : []))));
        } catch (error) {
          notice(sentenceOf(error));
          const isGone = error instanceof ApiProblem && error.status >= 400 && error.status < 500;
          if (isGone) return void client.invalidateQueries({ queryKey: lotsKey });
          // Not heard: it goes once more, under what was written since.
          for (const [one, set] of some) waiting.current.set(one, { ...set, ...waiting.current.get(one) });
          await new Promise((resolve) => setTimeout(resolve, againMs));
        }
      };
      void send();
    },
    [client, id, notice],
  );
  const write = useCallback((lotId: number, set: LotChange) => writeAll(new Map([[lotId, set]])), [writeAll]);
  return { lots: pages.data ?? none, pages, write, writeAll };
}

const none: LotView[] = [];

/** What is seen at once: a price that a person writes is kept. */
const shownAt = (set: LotChange): Partial<LotView> =>
  set.price === undefined ? set : { isKept: set.price !== null, ...set, basis: null };

/** Of one in stock: that it is written otherwise here now. */
const editedAt = (lot: LotView | undefined, set: LotChange): Partial<LotView> =>
  lot?.state === 'done'
    ? { isKept: lot.isKept, edited: editedFields.filter((field) => field in set || lot.edited.includes(field)) }
    : {};
