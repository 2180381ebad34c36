'use client';

import { useEffect, useState } from 'react';
import type { EditConsequences } from '@/services/changes/preview/consequences';
import { Failed, Loading } from '@/ui/controls/states';
import { apiLines } from '@/ui/data/api';
import { Consequences, type HeldBack } from '@/ui/data/consequences';

type Props = {
  importId: number;
  held: HeldBack;
  hold: (held: HeldBack) => void;
  tell: (counts: EditConsequences) => void;
};

/** What the file comes to at each account, counted while one looks; what is unticked is saved and not sent. */
export function ComesTo({ importId, held, hold, tell }: Props) {
  const [counts, setCounts] = useState<EditConsequences | null>(null);
  const [error, setError] = useState<unknown>(null);
  useEffect(() => {
    const stop = new AbortController();
    const count = async () => {
      const lines = apiLines('GET /imports/{id}/consequences', { params: { id: importId }, signal: stop.signal });
      for await (const one of lines) {
        if (stop.signal.aborted) return;
        setCounts(one);
        if (one.isWhole) tell(one);
      }
    };
    count().catch((failure: unknown) => {
      if (!stop.signal.aborted) setError(failure);
    });
    return () => stop.abort();
  }, [importId, tell]);
  if (error) return <Failed error={error} />;
  if (!counts) return <Loading what="what it comes to" />;
  return (
    <div className="max-w-xl p-4">
      <Consequences counts={counts} held={held} hold={hold} />
      {counts.accounts.every((one) => one.changes === 0) && counts.isWhole ? (
        <p className="quiet mt-2">No live listing becomes different.</p>
      ) : null}
    </div>
  );
}
