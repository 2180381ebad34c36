'use client';

import { type InfiniteData, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { IntakeAct } from '@/services/intake/intake-act';
import type { LineView } from '@/services/intake/line-view';
import { ApiProblem, api } from '@/ui/data/api';
import {
  addAct,
  dropActs,
  dropRefused,
  type KeptAct,
  keepRefused,
  type RefusedAct,
  readActs,
  readRefused,
} from './kept-acts';

const mostAtOnce = 20;
/** After so long a piece is in nobody's hand any more, in milliseconds: its details may come later. */
const outOfHandMs = 1_000;
/** After a silence it is tried again so soon, then later and later, in milliseconds. */
const firstWait = 400;
const longestWait = 4_000;
/** The totals follow so often at most, and by themselves. */
const totalsMs = 2_000;

export type Page = { lines: LineView[]; next: number | null };
export const linesKey = (batch: number, view: 'all' | 'open') => ['batch-lines', batch, view];

/** Lines as the server told them, put where the page's lists look. */
export function useMergeLines(batch: number): (lines: readonly LineView[]) => void {
  const client = useQueryClient();
  return useCallback(
    (lines) =>
      client.setQueryData<InfiniteData<Page>>(linesKey(batch, 'all'), (now) => {
        if (!now) return now;
        const known = new Map(now.pages.flatMap((page) => page.lines).map((line) => [line.id, line]));
        const changed = lines.filter((line) => JSON.stringify(known.get(line.id)) !== JSON.stringify(line));
        if (changed.length === 0) return now;
        const byId = new Map(changed.map((line) => [line.id, line]));
        const pages = now.pages.map((page) => ({
          ...page,
          lines: page.lines.map((line) => byId.get(line.id) ?? line),
        }));
        const fresh = changed.filter((line) => !known.has(line.id)).sort((a, b) => b.id - a.id);
        const [first, ...rest] = pages;
        if (!first || fresh.length === 0) return { ...now, pages };
        return { ...now, pages: [{ ...first, lines: [...fresh, ...first.lines] }, ...rest] };
      }),
    [client, batch],
  );
}

type Told = (line: LineView, act: IntakeAct) => void;

/**
 * The line between the scan field and the server: every act is kept in the browser first, sent in order, a portion at a
 * time, and let go when it was heard. While the connection is lost they wait; sent twice, each is carried out once.
 */
export function useActs(batch: number, told: Told) {
  const client = useQueryClient();
  const merge = useMergeLines(batch);
  const [waiting, setWaiting] = useState<KeptAct[]>([]);
  const [refused, setRefused] = useState<RefusedAct[]>([]);
  const [isAway, setIsAway] = useState(false);
  const [problem, setProblem] = useState('');
  const sending = useRef(false);
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  const wait = useRef(firstWait);
  const totalled = useRef(0);
  const hear = useRef(told);
  hear.current = told;

  const send = useCallback(async () => {
    if (sending.current) return;
    sending.current = true;
    if (timer.current) clearTimeout(timer.current);
    try {
      for (let acts = readActs(batch); acts.length; acts = readActs(batch)) {
        const first = acts.slice(0, mostAtOnce);
        const some = first.map((one) => one.act);
        const kept = first.filter(({ at }) => Date.now() - at > outOfHandMs).length;
        const { done } = await api('POST /batches/{id}/acts', { params: { id: batch }, body: { acts: some, kept } });
        // What was not taken is kept before it is let go.
        for (const [index, one] of done.entries()) {
          const act = some[index];
          if (one.problem && act?.act === 'scan')
            keepRefused(batch, { act, why: [one.problem.message, one.problem.fix].filter(Boolean).join('. ') });
        }
        dropActs(batch, some);
        setRefused(readRefused(batch));
        merge(done.flatMap((one) => one.lines));
        for (const [index, one] of done.entries()) {
          const act = some[index];
          if (!act) continue;
          for (const line of one.lines) hear.current(line, act);
          if (one.problem && act.act !== 'scan')
            setProblem([one.problem.message, one.problem.fix].filter(Boolean).join('. '));
        }
        setWaiting(readActs(batch));
        setIsAway(false);
        wait.current = firstWait;
      }
      if (Date.now() - totalled.current > totalsMs) {
        totalled.current = Date.now();
        void client.invalidateQueries({ queryKey: ['batch', batch] });
      }
    } catch (error) {
      const isRefused = error instanceof ApiProblem && error.status >= 400 && error.status < 500;
      // What is refused as a whole stays kept and is said; a silence is waited out.
      if (isRefused) setProblem(error.message);
      else setIsAway(true);
      timer.current = setTimeout(() => void send(), isRefused ? longestWait : wait.current);
      wait.current = Math.min(longestWait, wait.current * 2);
    } finally {
      sending.current = false;
    }
  }, [batch, merge, client]);

  const add = useCallback(
    (act: IntakeAct) => {
      setProblem('');
      addAct(batch, act);
      setWaiting(readActs(batch));
      void send();
    },
    [batch, send],
  );

  /** A scan that was not taken is tried once more, or thrown away. */
  const settleRefused = useCallback(
    ({ act }: RefusedAct, isTried: boolean) => {
      if (isTried) add(act);
      dropRefused(batch, act.key);
      setRefused(readRefused(batch));
    },
    [batch, add],
  );

  useEffect(() => {
    setWaiting(readActs(batch));
    setRefused(readRefused(batch));
    void send();
    const back = () => {
      wait.current = firstWait;
      void send();
    };
    window.addEventListener('online', back);
    return () => {
      window.removeEventListener('online', back);
      if (timer.current) clearTimeout(timer.current);
    };
  }, [batch, send]);

  return { add, waiting, isAway, problem, refused, settleRefused };
}
