'use client';

import { useQueryClient } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { type DragEvent, type ReactNode, useRef, useState } from 'react';
import { Failed, PageHead } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { bringIn, chosenFiles, type Dropped, droppedFiles } from '@/ui/photos/dropping';

/**
 * The whole place takes files and folders. What stands in it is handed in, so that it is not drawn anew while something
 * is over it or is noted.
 */
export function Bringing({ children }: { children: ReactNode }) {
  const router = useRouter();
  const client = useQueryClient();
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
      {children}
    </section>
  );
}
