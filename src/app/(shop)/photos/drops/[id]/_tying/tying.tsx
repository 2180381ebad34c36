'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from '@/ui/controls/link';
import { Failed, Loading, PageHead } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { counted } from '@/ui/data/counted';
import { useCommand } from '@/ui/data/use-command';
import { bringIn, type Dropped, droppedFiles, useDropping } from '@/ui/photos/dropping';
import { Groups } from './groups';
import { HowTied } from './how-tied';
import { Progress } from './progress';
import { Tray } from './tray';
import { useMoving } from './use-moving';

/** Files of one drop: to which items they are tied, and which are left; then they are put on the items. */
export function Tying({ id }: { id: number }) {
  const [items, setItems] = useState(60);
  const [tray, setTray] = useState(120);
  const dropping = useDropping(id);
  const found = useQuery({
    queryKey: ['photo-drops', id, items, tray],
    queryFn: () => api('GET /photo-drops/{id}', { params: { id }, query: { items, tray } }),
    refetchInterval: ({ state }) =>
      dropping || state.data?.task?.state === 'running' || state.data?.task?.state === 'waiting' ? 1_500 : false,
    placeholderData: (before) => before,
  });
  const touches = [['photo-drops'], ['photo-flaws'], ['photo-flawed']];
  const moving = useMoving(id);
  const [where, setWhere] = useState<'behind' | 'first'>('behind');
  const add = useCommand(
    async () => {
      await api('POST /photo-drops/{id}/add', { params: { id }, body: { where } });
      return undefined;
    },
    { touches },
  );
  const more = useCommand(
    async (files: Dropped[]) => {
      await bringIn(files, id, (drop) => {
        void tie(drop);
      });
      return undefined;
    },
    { touches, tells: true },
  );
  if (found.isError) return <Failed error={found.error} retry={() => void found.refetch()} />;
  if (!found.data) return <Loading what="the files" />;
  const drop = found.data;
  const tie = (of: number) =>
    api('POST /photo-drops/{id}/tie', {
      params: { id: of },
      body: { way: drop.way, pattern: drop.pattern, gapSeconds: drop.gapSeconds },
    }).then(() => found.refetch());
  const { counts, task } = drop;
  const isAdding = task?.state === 'running' || task?.state === 'waiting';
  return (
    <section
      aria-label="Photos to items"
      className="flex flex-col lg:h-[calc(100dvh-var(--frame))]"
      onDragOver={(event) => event.dataTransfer.types.includes('Files') && event.preventDefault()}
      onDrop={(event) => {
        if (!event.dataTransfer.types.includes('Files')) return;
        event.preventDefault();
        void droppedFiles(event.dataTransfer).then(more.run);
      }}
    >
      <PageHead title="Photos to items">
        <Link className="link" href="/photos">
          All photos
        </Link>
        <span className="quiet figures" role="status">
          {counted(counts.tied, 'file')} tied to {counted(counts.items, 'item')}, {counts.untied.toLocaleString('en')}{' '}
          to none
          {counts.added ? `, ${counts.added.toLocaleString('en')} added` : ''}
        </span>
        <Progress drop={drop} dropping={dropping} />
        <div className="ml-auto flex items-center gap-2">
          <select
            aria-label="Where the photos go"
            className="select select-sm w-52"
            value={where}
            onChange={(event) => setWhere(event.target.value === 'first' ? 'first' : 'behind')}
          >
            <option value="behind">Behind those they have</option>
            <option value="first">Before those they have</option>
          </select>
          <button
            type="button"
            className="btn btn-primary btn-sm"
            disabled={counts.tied === 0 || isAdding || add.busy || dropping !== undefined}
            onClick={() => void add.run()}
          >
            Add {counted(counts.tied, 'photo')} to {counted(counts.items, 'item')}
          </button>
        </div>
      </PageHead>
      {add.problem ? <Failed error={add.error} /> : null}
      <HowTied key={`${drop.way}${drop.pattern}${drop.gapSeconds}`} drop={drop} />
      <div className="grid grid-cols-[minmax(0,1fr)_24rem] max-lg:grid-cols-1 lg:min-h-0 lg:flex-1">
        <Groups drop={drop} moving={moving} more={() => setItems(items + 120)} />
        <Tray drop={drop} moving={moving} more={() => setTray(tray + 240)} />
      </div>
    </section>
  );
}
