'use client';

import { ImagePlus, Smartphone } from 'lucide-react';
import dynamic from 'next/dynamic';
import { useCallback, useMemo, useRef, useState } from 'react';
import type { Photo } from '@/core/item/item';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { uploadAll } from '@/ui/data/upload';
import { useNotice } from '@/ui/frame/providers';
import { ClipTile } from './clip-tile';
import { PhotoTiles } from './photo-tiles';

const FlawDialog = dynamic(() => import('./flaw-dialog').then((module) => module.FlawDialog));
const PhoneDialog = dynamic(() => import('./phone-dialog').then((module) => module.PhoneDialog));
const PhotoDesk = dynamic(() => import('./desk/photo-desk').then((module) => module.PhotoDesk), {
  loading: () => <Loading what="the photo desk" />,
});

type Props = {
  /** 0 while nothing of it is stored: photos store it. */
  itemId: number;
  settle: () => Promise<number>;
  photos: Photo[];
  clip: string;
  limits: { name: string; max: number }[];
  conditionNote: string;
  addToNote: (words: string) => void;
  changed: () => Promise<unknown>;
};

/** The item's photos in their order; the first is the main one. Dropped, dragged, or moved with the keyboard. */
export function PhotoStrip({ itemId, settle, photos, clip, limits, conditionNote, addToNote, changed }: Props) {
  const [order, setOrder] = useState<string[] | null>(null);
  const [upload, setUpload] = useState<{ done: number; total: number } | null>(null);
  const [problems, setProblems] = useState<string[]>([]);
  const [over, setOver] = useState(false);
  const [open, setOpen] = useState<{ what: 'desk' | 'flaw'; index: number } | { what: 'phone' } | null>(null);
  const stop = useRef(false);
  const picker = useRef<HTMLInputElement>(null);
  const notice = useNotice();
  const hashes = useMemo(() => order ?? photos.map((photo) => photo.hash), [order, photos]);
  // The same photo may stand twice: a place is the photo and how often it came before.
  const places = useMemo(() => {
    const seen = new Map<string, number>();
    return hashes.map((hash) => {
      const count = seen.get(hash) ?? 0;
      seen.set(hash, count + 1);
      return { hash, id: `${hash}-${count}` };
    });
  }, [hashes]);
  const flaws = useMemo(() => new Map(photos.map((photo) => [photo.hash, photo.flaw])), [photos]);
  const loose = [...flaws.values()].filter(
    (words): words is string => Boolean(words) && !conditionNote.includes(words ?? ''),
  );

  const write = useCallback(
    async (next: string[], undoable?: { text: string; before: string[] }) => {
      setOrder(next);
      try {
        await api('PUT /items/{id}/photos', { params: { id: itemId }, body: { photos: next } });
        await changed();
        if (undoable)
          notice(undoable.text, {
            label: 'Take back',
            run: () => void write(undoable.before),
          });
      } catch (error) {
        setProblems([error instanceof Error ? error.message : 'The order was not saved']);
      }
      setOrder(null);
    },
    [changed, itemId, notice],
  );

  const add = async (files: File[]) => {
    setProblems([]);
    stop.current = false;
    let last = Date.now();
    let id = itemId;
    try {
      id = itemId || (await settle());
    } catch (error) {
      return setProblems([error instanceof Error ? error.message : 'The photos were not added']);
    }
    const refused = await uploadAll(
      `/api/v1/items/${id}/photos`,
      files,
      (done) => {
        setUpload({ done, total: files.length });
        // What has arrived shows up every now and then, not after each file: the sheet is computed anew each time.
        if (done > 0 && Date.now() - last > 1_500) {
          last = Date.now();
          void changed();
        }
      },
      () => stop.current,
    );
    await changed();
    setUpload(null);
    setProblems(refused);
  };

  const remove = useCallback((at: number) => void write(hashes.filter((_, index) => index !== at)), [hashes, write]);
  const edit = useCallback((index: number) => setOpen({ what: 'desk', index }), []);
  const mark = useCallback((index: number) => setOpen({ what: 'flaw', index }), []);
  const shown = open && open.what !== 'phone' ? hashes[open.index] : undefined;

  return (
    <section
      aria-label="Photos"
      className={`border-b border-base-300 px-4 py-2 ${over ? 'bg-base-300' : ''}`}
      onDragOver={(event) => {
        if (!event.dataTransfer.types.includes('Files')) return;
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        if (event.dataTransfer.files.length) void add([...event.dataTransfer.files]);
      }}
    >
      <div className="flex items-center gap-2 overflow-x-auto">
        <PhotoTiles
          tiles={places.map((one, index) => ({
            ...one,
            index,
            flaw: flaws.get(one.hash),
            outside: limits
              .filter((limit) => limit.max > 0 && index >= limit.max)
              .map((limit) => limit.name)
              .join(', '),
            remove,
            edit,
            mark,
          }))}
          move={(order) => void write(order.flatMap((at) => hashes[at] ?? []))}
        />
        <input
          ref={picker}
          type="file"
          accept="image/*,.heic,.heif"
          multiple
          className="sr-only"
          tabIndex={-1}
          aria-label="Photo files"
          onChange={(event) =>
            void add([...(event.target.files ?? [])]).then(() => {
              if (picker.current) picker.current.value = '';
            })
          }
        />
        <button
          type="button"
          className="grid h-[84px] w-24 shrink-0 place-items-center rounded border border-dashed border-base-content/40 text-[12px] hover:bg-base-200"
          onClick={() => picker.current?.click()}
        >
          <span className="grid justify-items-center gap-1">
            <ImagePlus size={18} aria-hidden="true" />
            Add photos
          </span>
        </button>
        {photos.length > 1 || clip ? (
          <ClipTile itemId={itemId} clip={clip} photos={photos.length} changed={changed} />
        ) : null}
        <div className="quiet ml-1 flex max-w-48 shrink-0 flex-col items-start gap-1 text-[12px]">
          <button
            type="button"
            className="flex items-center gap-1 underline"
            onClick={() => void settle().then(() => setOpen({ what: 'phone' }))}
          >
            <Smartphone size={13} aria-hidden="true" /> From the phone
          </button>
          {hashes.length > 0 ? (
            <button
              type="button"
              className="underline"
              onClick={() => void write([], { text: 'All photos are removed; the originals are kept', before: hashes })}
            >
              Remove all {hashes.length}
            </button>
          ) : (
            'Drop pictures here or choose files. The first one is the main photo.'
          )}
        </div>
        {upload ? (
          <p role="status" className="ml-2 shrink-0">
            Uploading {Math.min(upload.done + 1, upload.total)} of {upload.total} …{' '}
            <button
              type="button"
              className="underline"
              onClick={() => {
                stop.current = true;
              }}
            >
              stop
            </button>
          </p>
        ) : null}
      </div>
      {loose.length ? (
        <p className="mt-1 flex flex-wrap items-center gap-2 text-[12px]">
          Flaws that the condition note does not name:
          {loose.map((words) => (
            <button key={words} type="button" className="btn btn-xs" onClick={() => addToNote(words)}>
              Add “{words}”
            </button>
          ))}
        </p>
      ) : null}
      {problems.map((problem) => (
        <p key={problem} role="alert" className="mt-1 text-error">
          {problem}
        </p>
      ))}
      {open?.what === 'phone' ? (
        <PhoneDialog
          itemId={itemId}
          close={() => {
            setOpen(null);
            void changed();
          }}
        />
      ) : null}
      {open?.what === 'flaw' && shown ? (
        <FlawDialog
          itemId={itemId}
          hash={shown}
          words={flaws.get(shown) ?? ''}
          close={() => setOpen(null)}
          changed={changed}
        />
      ) : null}
      {open?.what === 'desk' ? (
        shown ? (
          <PhotoDesk
            itemId={itemId}
            hash={shown}
            place={open.index}
            count={hashes.length}
            go={(index) => setOpen({ what: 'desk', index })}
            close={() => setOpen(null)}
            changed={changed}
          />
        ) : (
          <Failed error={new Error('This photo is not here any more')} />
        )
      ) : null}
    </section>
  );
}
