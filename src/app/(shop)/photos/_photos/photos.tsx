'use client';

import { useQuery } from '@tanstack/react-query';
import { parseAsInteger, parseAsStringLiteral, useQueryStates } from 'nuqs';
import { useEffect } from 'react';
import { photoFlaws } from '@/core/photo/flaws';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { counted } from '@/ui/data/counted';
import { Bringing } from './bringing';
import { Causes } from './causes';
import { OpenDrops } from './open-drops';
import { Wall } from './wall';
import { Wanted } from './wanted';

/** What is missing of photos and what is wrong with them, by cause; and the place to drop a folder of new ones. */
export function Photos() {
  const [chosen, choose] = useQueryStates(
    { flaw: parseAsStringLiteral(photoFlaws).withDefault('none'), account: parseAsInteger },
    { history: 'replace' },
  );
  const accounts = useQuery({ queryKey: ['accounts'], queryFn: () => api('GET /accounts') });
  const flaws = useQuery({
    queryKey: ['photo-flaws'],
    queryFn: () => api('GET /photos/flaws'),
    // While they are being looked at it becomes more from time to time.
    refetchInterval: ({ state }) => (state.data?.unseen ? 4_000 : false),
  });
  // What nobody has looked at is looked at as soon as somebody wants to know.
  const unseen = flaws.data?.unseen ?? 0;
  const isOpen = unseen > 0;
  useEffect(() => {
    if (isOpen) void api('POST /photos/look').catch(() => undefined);
  }, [isOpen]);
  if (flaws.isError) return <Failed error={flaws.error} retry={() => void flaws.refetch()} />;
  if (!flaws.data || !accounts.data) return <Loading what="what is missing" />;
  return (
    <Bringing>
      <OpenDrops />
      <div className="grid grid-cols-[17rem_minmax(0,1fr)] max-lg:grid-cols-1 lg:min-h-0 lg:flex-1">
        <section aria-label="Causes" className="overflow-auto border-r border-base-300 p-3">
          <Causes
            counts={flaws.data.counts}
            accounts={accounts.data.accounts}
            chosen={chosen}
            choose={(next) => void choose(next)}
          />
          {unseen ? (
            <p className="quiet mt-3 text-[12px]">
              {counted(unseen, 'photo')} still to be looked at; it goes on by itself.
            </p>
          ) : null}
          <Wanted />
        </section>
        <Wall flaw={chosen.flaw} account={chosen.account} accounts={accounts.data.accounts} />
      </div>
    </Bringing>
  );
}
