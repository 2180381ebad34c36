'use client';

import { useQuery } from '@tanstack/react-query';
import { useCallback, useState } from 'react';
import type { EditConsequences } from '@/services/changes/preview/consequences';
import { Link } from '@/ui/controls/link';
import { Failed, Loading, PageHead } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { type HeldBack, nothingHeldBack } from '@/ui/data/consequences';
import { CarryOut } from './carry-out';
import { Columns } from './columns';
import { Rows } from './rows';
import { Writing } from './writing';

const isUnderWay = (state: string | undefined) => state === 'checking' || state === 'applying';

/** A file from how it is written to what it changes: columns on the left, what comes of the rows on the right. */
export function ImportPage({ id }: { id: number }) {
  const made = useQuery({
    queryKey: ['imports', id],
    queryFn: () => api('GET /imports/{id}', { params: { id } }),
    refetchInterval: ({ state }) => (isUnderWay(state.data?.state) ? 700 : false),
  });
  const [held, setHeld] = useState<HeldBack>(nothingHeldBack);
  const [counts, setCounts] = useState<EditConsequences | null>(null);
  const tell = useCallback((now: EditConsequences) => setCounts(now), []);
  if (made.isError) return <Failed error={made.error} retry={() => void made.refetch()} />;
  if (!made.data) return <Loading what="the file" />;
  const file = made.data;
  return (
    <div className="flex flex-col lg:h-[calc(100dvh-var(--frame))]">
      <PageHead title={file.name}>
        <Link className="link" href="/files">
          All files
        </Link>
        <Writing file={file} />
      </PageHead>
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,2fr)_minmax(0,3fr)] divide-x divide-base-300 max-lg:grid-cols-1 max-lg:overflow-auto">
        <Columns file={file} />
        <section aria-label="What comes of it" className="flex min-h-0 flex-col">
          <CarryOut file={file} held={held} counts={counts} />
          <Rows file={file} key={file.state} held={held} hold={setHeld} tell={tell} />
        </section>
      </div>
    </div>
  );
}
