'use client';

import { useInfiniteQuery } from '@tanstack/react-query';
import { type DragEvent, useRef, useState } from 'react';
import { isByHand, placingFor } from '@/core/artwork/stands';
import { AsFile } from '@/ui/controls/as-file';
import { FurtherPages } from '@/ui/controls/further-pages';
import { Empty, Failed, Loading, PageHead } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { counted } from '@/ui/data/counted';
import { useCommand } from '@/ui/data/use-command';
import { ArtworkCard } from './artwork-card';
import { ArtworkPages } from './artwork-pages';
import { bringIn } from './bring-in';
import { PlacingDialog } from './placing-dialog';
import { useOffers } from './use-offers';

/** Pictures that are printed on products: each with the grounds on which it reads well. */
export function Artworks() {
  const picker = useRef<HTMLInputElement>(null);
  const [isOver, setIsOver] = useState(false);
  const [done, setDone] = useState<{ count: number; of: number } | null>(null);
  const [refused, setRefused] = useState<string[]>([]);
  const [notes, setNotes] = useState<string[]>([]);
  const stop = useRef(false);
  const [ground, setGround] = useState('');
  const [productId, setProductId] = useState('');
  const [placed, setPlaced] = useState<number | null>(null);
  const pages = useInfiniteQuery({
    queryKey: ['artworks'],
    queryFn: ({ pageParam }) => api('GET /artworks', { query: { before: pageParam || undefined } }),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next ?? undefined,
  });
  const bring = useCommand(
    async (files: File[]) => {
      setRefused([]);
      stop.current = false;
      const {
        taken,
        refused: not,
        notes: said,
      } = await bringIn(
        files,
        (count) => setDone({ count, of: files.length }),
        () => stop.current,
      );
      setDone(null);
      setRefused(not);
      setNotes(said);
      return taken ? `${counted(taken, 'picture')} taken` : undefined;
    },
    { touches: [['artworks'], ['stages']] },
  );
  const onDrop = (event: DragEvent) => {
    event.preventDefault();
    setIsOver(false);
    const files = [...event.dataTransfer.files];
    if (files.length) void bring.run(files);
  };
  const all = pages.data?.pages.flatMap((page) => page.artworks) ?? [];
  const { grounds, products } = useOffers();
  const product = products.find((one) => `${one.market} ${one.id}` === productId);
  const placing = all.find((one) => one.itemId === placed);
  const visible = placing?.photos[0]?.visible;
  const shown = grounds.find((one) => one.name === ground) ?? grounds[0];
  const choose = () => picker.current?.click();
  return (
    <section
      aria-label="Artwork"
      className={`flex flex-col lg:h-[calc(100dvh-var(--frame))] ${isOver ? 'bg-base-200' : ''}`}
      onDragOver={(event) => {
        if (!event.dataTransfer.types.includes('Files')) return;
        event.preventDefault();
        setIsOver(true);
      }}
      onDragLeave={() => setIsOver(false)}
      onDrop={onDrop}
    >
      <PageHead title="Artwork">
        <ArtworkPages />
        <span className="quiet">Drop files anywhere here; what they say of themselves comes along.</span>
        <input
          ref={picker}
          type="file"
          multiple
          accept="image/png,image/jpeg,image/webp,image/tiff,image/svg+xml,.tif,.tiff,.svg,.xmp"
          aria-label="Pictures of artwork"
          className="sr-only"
          tabIndex={-1}
          onChange={(event) => {
            const files = [...(event.target.files ?? [])];
            event.target.value = '';
            if (files.length) void bring.run(files);
          }}
        />
        <button type="button" className="btn btn-primary btn-sm ml-auto" disabled={bring.busy} onClick={choose}>
          {done ? `${(done.count + 1).toLocaleString('en')} of ${done.of.toLocaleString('en')} …` : 'Choose pictures'}
        </button>
        {done ? (
          <button
            type="button"
            className="btn btn-ghost btn-sm"
            onClick={() => {
              stop.current = true;
            }}
          >
            Stop
          </button>
        ) : null}
        <AsFile of="GET /artworks/file" what="The artwork" />
      </PageHead>
      {refused.length ? (
        <div role="alert" className="mx-4 my-2 rounded border border-warning p-2 text-[13px]">
          <p className="font-medium">{counted(refused.length, 'picture')} not taken</p>
          <ul>
            {refused.map((one) => (
              <li key={one}>{one}</li>
            ))}
          </ul>
        </div>
      ) : null}
      {notes.length ? (
        <div role="status" className="mx-4 my-2 rounded border border-base-300 p-2 text-[13px]">
          <ul>
            {notes.map((one) => (
              <li key={one}>{one}</li>
            ))}
          </ul>
        </div>
      ) : null}
      {grounds.length && all.length ? (
        <fieldset className="flex flex-wrap items-center gap-2 border-b border-base-300 px-4 py-1.5 text-[12px]">
          <legend className="sr-only">Ground on which they are shown</legend>
          <span className="quiet">Shown on</span>
          {grounds.map((one) => (
            <button
              key={one.name}
              type="button"
              aria-pressed={shown?.name === one.name}
              className={`btn btn-xs ${shown?.name === one.name ? 'bg-base-300' : 'btn-ghost'}`}
              onClick={() => setGround(one.name)}
            >
              <span className="size-3 rounded-full border border-base-300" style={{ background: one.colour }} />
              {one.name}
            </button>
          ))}
          <label className="ml-auto flex items-center gap-2">
            as
            <select
              className="select select-xs w-56 text-[12px]"
              aria-label="Shown as"
              value={productId}
              onChange={(event) => setProductId(event.target.value)}
            >
              <option value="">the picture alone</option>
              {products.map((one) => (
                <option key={`${one.market} ${one.id}`} value={`${one.market} ${one.id}`}>
                  {one.name}, {one.market}
                </option>
              ))}
            </select>
          </label>
        </fieldset>
      ) : null}
      {pages.isPending ? <Loading what="the artwork" /> : null}
      {pages.error ? <Failed error={pages.error} retry={() => void pages.refetch()} /> : null}
      {pages.data && all.length === 0 ? (
        <Empty title="No artwork yet">
          <p>
            Drop pictures here, as PNG, JPEG, TIFF, SVG or WebP, and XMP files beside them. Title, tags and description
            come along where the files hold them; on which ground colours each reads well is worked out from the
            picture.
          </p>
          <button type="button" className="btn btn-sm" onClick={choose}>
            Choose the first ones
          </button>
        </Empty>
      ) : null}
      <ul className="grid min-h-0 flex-1 auto-rows-max grid-cols-[repeat(auto-fill,minmax(15rem,1fr))] gap-4 overflow-auto p-4">
        {all.map((one) => (
          <ArtworkCard
            key={one.itemId}
            artwork={one}
            ground={shown}
            product={product}
            place={() => setPlaced(one.itemId)}
          />
        ))}
      </ul>
      <FurtherPages pages={pages} words="Show earlier ones" />
      {placing && product && visible ? (
        <PlacingDialog
          artwork={{ ...placing, visible }}
          product={product.name}
          area={product.area}
          ground={shown?.colour ?? '#ffffff'}
          placing={placingFor(placing, product.name, null)}
          isByHand={isByHand(placing, product.name)}
          close={() => setPlaced(null)}
        />
      ) : null}
    </section>
  );
}
