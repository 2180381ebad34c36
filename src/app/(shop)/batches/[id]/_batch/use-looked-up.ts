'use client';

import { useEffect, useRef } from 'react';
import type { LineView } from '@/services/intake/line-view';
import { api } from '@/ui/data/api';
import { useMergeLines } from './use-acts';

const everyMs = 250;
/** The pieces that are in the hand are asked for each time; those behind them, which were kept meanwhile, now and then. */
const inHand = 8;
const allEveryMs = 3_000;

/** Asks for the lines that are being looked up until their details have come, and tells which have. */
export function useLookedUp(batch: number, lines: readonly LineView[], told: (line: LineView) => void): void {
  const merge = useMergeLines(batch);
  const hear = useRef(told);
  hear.current = told;
  const allAt = useRef(0);
  const open = lines.filter((line) => !line.isDone && !line.isUndone).map((line) => line.id);
  const ids = open.slice(0, 100).join(',');
  useEffect(() => {
    if (ids === '') return;
    let isOver = false;
    let timer: ReturnType<typeof setTimeout>;
    const ask = async () => {
      const isForAll = performance.now() - allAt.current > allEveryMs;
      if (isForAll) allAt.current = performance.now();
      const asked = isForAll ? ids : ids.split(',').slice(0, inHand).join(',');
      try {
        const { lines: now } = await api('GET /batches/{id}/lines', {
          params: { id: batch },
          query: { ids: asked, limit: 100 },
        });
        if (isOver) return;
        merge(now);
        for (const line of now) if (line.isDone) hear.current(line);
      } catch {
        // The connection is lost: it is asked again.
      }
      if (!isOver) timer = setTimeout(() => void ask(), everyMs);
    };
    timer = setTimeout(() => void ask(), everyMs / 2);
    return () => {
      isOver = true;
      clearTimeout(timer);
    };
  }, [ids, batch, merge]);
}
