'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Empty, Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { useTitle } from '@/ui/frame/use-title';
import { AddContents } from './add-contents';
import { KitHead } from './kit-head';
import { LotsTable } from './lots-table';
import { useLots } from './use-lots';

/** Sets that are taken apart: what they hold, lot by lot. */
export function Kit({ id }: { id: number }) {
  const kit = useQuery({ queryKey: ['kit', id], queryFn: () => api('GET /kits/{id}', { params: { id } }) });
  const { lots, pages, write } = useLots(id);
  const [isAdding, setIsAdding] = useState(false);
  useTitle(kit.data?.name ?? '');
  if (kit.isPending) return <Loading what="the sets" />;
  if (kit.isLoadingError) return <Failed error={kit.error} retry={() => void kit.refetch()} />;
  if (!kit.data) return null;
  const add = () => setIsAdding(true);
  return (
    <div className="flex flex-col lg:h-[calc(100dvh-var(--frame))]">
      <KitHead kit={kit.data} add={add} />
      {pages.isPending ? <Loading what="the lots" /> : null}
      {pages.error ? <Failed error={pages.error} retry={() => void pages.refetch()} /> : null}
      {pages.data && lots.length === 0 ? (
        <Empty title="Nothing is in it yet">
          <p>Say which set it is, or paste what it holds: one thing a line, such as 2 x tray 18 × 24.</p>
          <button type="button" className="btn btn-sm" onClick={add}>
            Add contents
          </button>
        </Empty>
      ) : null}
      {lots.length ? <LotsTable kitId={id} lots={lots} isOpen={kit.data.state === 'open'} write={write} /> : null}
      {isAdding ? <AddContents kit={kit.data} close={() => setIsAdding(false)} /> : null}
    </div>
  );
}
