'use client';

import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import { readCommand } from '@/core/batch/command';
import type { Answer } from '@/http/interface';
import { ApiProblem, api } from '@/ui/data/api';
import { newKey } from '@/ui/data/new-key';
import { play, speak } from '@/ui/scan/sounds';

export type Said = Answer<'POST /consignments/{id}/packed'>;

const againMs = 1_500;
/** A hand does not pack two of the same so fast: a scanner that reads twice does. */
const twiceMs = 1_000;

const refusal = (message: string): Said => ({
  is: 'refused',
  message,
  to: null,
  isNewBox: false,
  sku: null,
  title: null,
  left: 0,
});

/**
 * Scans while packing, one after the other, each under its key until it is answered: what got lost on the way is sent again
 * and counts once. What was answered is heard at once.
 */
export function usePacking(id: number) {
  const client = useQueryClient();
  const [last, setLast] = useState<Said | null>(null);
  const [waiting, setWaiting] = useState(0);
  const [isAway, setIsAway] = useState(false);
  const queue = useRef<{ key: string; text: string }[]>([]);
  const isBusy = useRef(false);
  const isGone = useRef(false);
  const before = useRef('');
  const newest = useRef({ text: '', at: Number.NEGATIVE_INFINITY });
  useEffect(() => {
    isGone.current = false;
    return () => {
      isGone.current = true;
    };
  }, []);

  const hear = useCallback((said: Said) => {
    setLast(said);
    if (said.is === 'placed') {
      const name = said.to?.name ?? '';
      play(said.isNewBox || name !== before.current ? 'turn' : 'taken');
      speak(said.isNewBox ? `${name}, new box` : name);
      before.current = name;
    } else if (said.is === 'wrong') {
      play('wrong');
      speak(`Wrong box. ${said.to?.name ?? ''}`);
    } else play(said.is === 'refused' ? 'broken' : 'command');
  }, []);

  const work = useCallback(async () => {
    if (isBusy.current) return;
    isBusy.current = true;
    while (queue.current.length && !isGone.current) {
      const [next] = queue.current;
      if (!next) break;
      try {
        hear(await api('POST /consignments/{id}/packed', { params: { id }, body: next }));
        setIsAway(false);
      } catch (error) {
        if (!(error instanceof ApiProblem) || error.status === 0 || error.status >= 500) {
          // Not answered: it may be packed or not. The same key finds out.
          setIsAway(true);
          await new Promise((resolve) => setTimeout(resolve, againMs));
          continue;
        }
        hear(refusal(error.message));
      }
      queue.current.shift();
      setWaiting(queue.current.length);
      void client.invalidateQueries({ queryKey: ['consignment', id] });
    }
    isBusy.current = false;
  }, [client, hear, id]);

  const scan = useCallback(
    (given: string) => {
      const text = given.trim().slice(0, 200);
      const now = performance.now();
      const isTwice = text === newest.current.text && now - newest.current.at < twiceMs && readCommand(text) === null;
      // Asked once: the next scan of it counts, however fast.
      newest.current = { text: isTwice ? '' : text, at: now };
      if (isTwice) {
        hear(refusal('The same piece twice within a second: packed once. Scan it again if it is another one'));
        return;
      }
      queue.current.push({ key: newKey(), text });
      setWaiting(queue.current.length);
      void work();
    },
    [hear, work],
  );
  return { scan, last, waiting, isAway };
}
