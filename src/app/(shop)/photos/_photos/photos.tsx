'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { parseAsInteger, parseAsStringLiteral, useQueryStates } from 'nuqs';
import { type DragEvent, useEffect, useRef, useState } from 'react';
import { photoFlaws } from '@/core/photo/flaws';
import { Failed, Loading, PageHead } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { counted } from '@/ui/data/counted';
import { useCommand } from '@/ui/data/use-command';
import { bringIn, chosenFiles, type Dropped, droppedFiles } from '@/ui/photos/dropping';
import { Causes } from './causes';
import { OpenDrops } from './open-drops';
import { Wall } from './wall';
import { Wanted } from './wanted';

/** What is missing of photos and what is wrong with them, by cause; and the place to drop a folder of new ones. */
export function Photos() {
  const router = useRouter();
  const client = useQueryClient();
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
  const [over, setOver] = useState(false);
  const picker = useRef<HTMLInputElement>(null);
  const folder = useRef<HTMLInputElement>(null);
  const bring = useCommand(
    async (files: Dropped[]) => {
      if (files.length === 0) throw new Error('There was no file in it');
      const drop = await bringIn(files, undefined, (id) => {
        void api('POST /photo-drops/{id}/tie', { params: { id }, body: { way: 'name' } }).finally(() =>
          client.invalidateQueries({ queryKey: ['photo-drops'] }),
        );
      });
      router.push(`/photos/drops/${drop}`);
      return undefined;
    },
    { touches: [['photo-drops']] },
  );
  // What nobody has looked at is looked at as soon as somebody wants to know.
  const unseen = flaws.data?.unseen ?? 0;
  const isOpen = unseen > 0;
  useEffect(() => {
    if (isOpen) void api('POST /photos/look').catch(() => undefined);
  }, [isOpen]);
  if (flaws.isError) return <Failed error={flaws.error} retry={() => void flaws.refetch()} />;
  if (!flaws.data || !accounts.data) return <Loading what="what is missing" />;
  const onDrop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    // An item's own card takes what is dropped on it.
    if (event.dataTransfer.types.includes('Files')) void droppedFiles(event.dataTransfer).then(bring.run);
  };
  return (
    <section
      aria-label="Photos"
      className={`flex flex-col lg:h-[calc(100dvh-var(--frame))] ${over ? 'bg-base-200' : ''}`}
      onDragOver={(event) => {
        if (!event.dataTransfer.types.includes('Files')) return;
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={onDrop}
    >
      <PageHead title="Photos">
        <span className="quiet">
          Drop files or a folder anywhere here; they find their items by name, barcode or time.
        </span>
        <div className="ml-auto flex gap-2">
          <button type="button" className="btn btn-sm" disabled={bring.busy} onClick={() => folder.current?.click()}>
            Choose a folder
          </button>
          <button
            type="button"
            className="btn btn-primary btn-sm"
            disabled={bring.busy}
            onClick={() => picker.current?.click()}
          >
            {bring.busy ? 'Being noted …' : 'Choose files'}
          </button>
        </div>
        <input
          ref={picker}
          type="file"
          multiple
          accept="image/*,.heic,.heif,.zip"
          className="sr-only"
          tabIndex={-1}
          aria-label="Photo files for many items"
          onChange={(event) => void bring.run(chosenFiles(event.target.files))}
        />
        <input
          ref={(input) => {
            folder.current = input;
            input?.setAttribute('webkitdirectory', '');
          }}
          type="file"
          multiple
          className="sr-only"
          tabIndex={-1}
          aria-label="Folder of photos"
          onChange={(event) => void bring.run(chosenFiles(event.target.files))}
        />
      </PageHead>
      {bring.problem ? <Failed error={bring.error} /> : null}
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
    </section>
  );
}
