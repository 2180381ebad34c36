import { useCallback, useEffect, useRef } from 'react';
import type { DeskAnswer, DeskRequest } from './messages';

type Made = Extract<DeskAnswer, { result: Blob }>;
type Waiting = { done: (made: Made) => void; failed: (error: Error) => void };

/** A worker of its own for the open photo: pictures are made beside the page, which stays free. */
export function useDeskWorker(): (request: Omit<DeskRequest, 'id'>) => Promise<Made> {
  const worker = useRef<Worker | null>(null);
  const waiting = useRef(new Map<number, Waiting>());
  const next = useRef(1);
  useEffect(() => {
    const open = waiting.current;
    const made = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' });
    made.onmessage = ({ data }: MessageEvent<DeskAnswer>) => {
      const one = open.get(data.id);
      open.delete(data.id);
      if ('problem' in data) one?.failed(new Error(data.problem));
      else one?.done(data);
    };
    made.onerror = () => {
      for (const one of open.values()) one.failed(new Error('The picture could not be made'));
      open.clear();
    };
    worker.current = made;
    return () => {
      made.terminate();
      open.clear();
    };
  }, []);
  return useCallback((request) => {
    const id = next.current++;
    return new Promise<Made>((done, failed) => {
      waiting.current.set(id, { done, failed });
      worker.current?.postMessage({ id, ...request });
    });
  }, []);
}
