'use client';

import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Verdict } from '@/core/artwork/stands';
import { ApiProblem, api } from '@/ui/data/api';
import { sentenceOf } from '@/ui/data/sentence';
import { useNotice } from '@/ui/frame/providers';
import type { Sight } from './sights';

type Said = { product: string; ground: string; verdict: Verdict | null };

const againMs = 2_000;
const atOnce = 500;

/**
 * What is said of sights: it stands at once, and goes out artwork by artwork, with what gathered while the request before was
 * under way. What was not heard goes once more.
 */
export function useLooks() {
  const client = useQueryClient();
  const notice = useNotice();
  const [said, setSaid] = useState<ReadonlyMap<string, Verdict | null>>(new Map());
  const waiting = useRef(new Map<number, Map<string, Said>>());
  const isSending = useRef(false);
  const [open, setOpen] = useState(0);

  const send = useCallback(async () => {
    if (isSending.current) return;
    isSending.current = true;
    // What is said in the same breath goes together.
    await Promise.resolve();
    for (let next = [...waiting.current][0]; next; next = [...waiting.current][0]) {
      const [id, all] = next;
      const some = [...all].slice(0, atOnce);
      for (const [key] of some) all.delete(key);
      if (all.size === 0) waiting.current.delete(id);
      try {
        await api('PUT /artworks/{id}/looks', { params: { id }, body: { looks: some.map(([, one]) => one) } });
      } catch (error) {
        notice(sentenceOf(error));
        const isRefused = error instanceof ApiProblem && error.status >= 400 && error.status < 500;
        if (isRefused)
          setSaid((now) => {
            const left = new Map(now);
            for (const [key] of some) left.delete(key);
            return left;
          });
        else {
          waiting.current.set(id, new Map([...some, ...(waiting.current.get(id) ?? [])]));
          await new Promise((resolve) => setTimeout(resolve, againMs));
        }
      }
      setOpen([...waiting.current.values()].reduce((sum, one) => sum + one.size, 0));
    }
    isSending.current = false;
    await client.invalidateQueries({ queryKey: ['sights'] });
  }, [client, notice]);

  const say = useCallback(
    (sights: readonly Sight[], verdict: Verdict | null) => {
      setSaid((now) => new Map([...now, ...sights.map((one) => [one.key, verdict] as const)]));
      for (const { artwork, product, ground, key } of sights) {
        const all = waiting.current.get(artwork.itemId) ?? new Map<string, Said>();
        all.set(key, { product, ground, verdict });
        waiting.current.set(artwork.itemId, all);
      }
      setOpen([...waiting.current.values()].reduce((sum, one) => sum + one.size, 0));
      void send();
    },
    [send],
  );

  // A page that is left while something waits says so.
  useEffect(() => {
    const ask = (event: BeforeUnloadEvent) => {
      if (waiting.current.size > 0 || isSending.current) event.preventDefault();
    };
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, []);

  const verdictOf = useCallback(
    (sight: Sight): Verdict | null => (said.has(sight.key) ? (said.get(sight.key) ?? null) : sight.verdict),
    [said],
  );
  return { verdictOf, say, open };
}
