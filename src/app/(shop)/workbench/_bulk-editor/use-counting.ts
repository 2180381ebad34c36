import { useEffect, useState } from 'react';
import type { EditConsequences } from '@/services/changes/consequences';
import { apiLines, type RequestOf } from '@/ui/data/api';

type Edit = RequestOf<'POST /edits/counting'>['body'];
export type Counting = { counts: EditConsequences | null; error: Error | null; again: () => void };

/** What a change comes to, as far as it has been counted; another change stops the counting of the one before. */
export function useCounting(edit: Edit | null): Counting {
  const key = JSON.stringify(edit);
  const [counts, setCounts] = useState<EditConsequences | null>(null);
  const [error, setError] = useState<Error | null>(null);
  const [round, setRound] = useState(0);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key says all of the change; another round asks again
  useEffect(() => {
    if (!edit) return;
    const stop = new AbortController();
    const count = async () => {
      try {
        setError(null);
        for await (const one of apiLines('POST /edits/counting', { body: edit, signal: stop.signal })) setCounts(one);
      } catch (failed) {
        if (!stop.signal.aborted) setError(failed instanceof Error ? failed : new Error('It could not be counted'));
      }
    };
    void count();
    return () => stop.abort();
  }, [key, round]);
  return { counts, error, again: () => setRound(round + 1) };
}
