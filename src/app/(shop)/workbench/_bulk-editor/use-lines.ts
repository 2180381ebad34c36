import { useEffect, useState } from 'react';

export type Lines<T> = { lines: T[]; isWhole: boolean; error: Error | null; again: () => void };

/**
 * What comes line by line, as far as it has come. Another key asks anew and stops what was under way; null asks nothing.
 * @param keep only the last line is of interest
 */
export function useLines<T>(
  key: string | null,
  read: (signal: AbortSignal) => AsyncGenerator<T>,
  keep: 'all' | 'last' = 'all',
): Lines<T> {
  const [lines, setLines] = useState<T[]>([]);
  /** What has been heard to its end. */
  const [ended, setEnded] = useState<string | null>(null);
  const [error, setError] = useState<Error | null>(null);
  const [round, setRound] = useState(0);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key says all of what is asked; another round asks again
  useEffect(() => {
    if (key === null) return;
    const stop = new AbortController();
    const listen = async () => {
      try {
        setError(null);
        setEnded(null);
        let isFirst = true;
        for await (const one of read(stop.signal)) {
          const anew = isFirst || keep === 'last';
          isFirst = false;
          setLines((now) => (anew ? [one] : [...now, one]));
        }
        setEnded(key);
      } catch (failed) {
        if (!stop.signal.aborted) setError(failed instanceof Error ? failed : new Error('It could not be read'));
      }
    };
    void listen();
    return () => stop.abort();
  }, [key, round]);
  return { lines, isWhole: key !== null && ended === key, error, again: () => setRound(round + 1) };
}
