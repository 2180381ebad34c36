'use client';

import { useState } from 'react';
import type { Photo } from '@/core/item/item';
import type { Json } from '@/core/json';
import { readPhotoReference } from '@/core/photo/reference';
import type { SheetColumn, SheetField } from '@/services/items/item-sheet';
import { photoUrl } from '@/ui/data/api';

type Props = {
  column: SheetColumn;
  field: SheetField;
  photos: Photo[];
  first: string[];
  save: (value: Json | undefined) => Promise<void>;
  /** What would be saved now. */
  pending: (value: Json) => void;
  close: () => void;
};

/** Which photos this marketplace gets, and in which order; the same one may stand in it more than once. */
export function PhotoChoice({ column, field, photos, first, save, pending, close }: Props) {
  const [chosen, setChosen] = useState(() => first.map((reference) => readPhotoReference(reference).hash));
  const max = column.photoMax;
  const choose = (next: string[]) => {
    setChosen(next);
    pending(next);
  };
  const move = (at: number, by: number) => {
    const to = at + by;
    const hash = chosen[at];
    if (hash === undefined || to < 0 || to >= chosen.length) return;
    const next = chosen.filter((_, index) => index !== at);
    next.splice(to, 0, hash);
    choose(next);
    requestAnimationFrame(() => document.getElementById(`chosen-${to}`)?.focus());
  };
  const unique = photos.filter((photo, index) => photos.findIndex((one) => one.hash === photo.hash) === index);
  const tile = 'relative block w-full rounded border-2';
  const picture = (hash: string) => (
    <img src={photoUrl(hash, 'view')} alt="" className="aspect-[4/3] w-full rounded object-cover" />
  );
  return (
    <>
      <p className="quiet mb-1 text-[12px]">In this order; arrow keys move one, Delete or a click takes it out.</p>
      {chosen.length === 0 ? <p className="mb-1">None is chosen yet.</p> : null}
      <ol className="grid grid-cols-5 gap-1.5" aria-label="Chosen photos">
        {chosen.map((hash, at) => (
          <li key={`${hash}-${at}`}>
            <button
              type="button"
              id={`chosen-${at}`}
              aria-label={`Photo at place ${at + 1} of ${chosen.length}`}
              className={`${tile} border-primary`}
              onClick={() => choose(chosen.filter((_, index) => index !== at))}
              onKeyDown={(event) => {
                if (event.key === 'ArrowLeft') move(at, -1);
                if (event.key === 'ArrowRight') move(at, 1);
                if (event.key === 'Delete' || event.key === 'Backspace')
                  choose(chosen.filter((_, index) => index !== at));
              }}
            >
              {picture(hash)}
              <span
                className={`figures absolute top-0.5 left-0.5 rounded px-1 text-[11px] ${at < max ? 'bg-base-100/90' : 'bg-error text-error-content'}`}
              >
                {at + 1}
              </span>
            </button>
          </li>
        ))}
      </ol>
      <p className="quiet mt-2 mb-1 text-[12px]">All photos of the item: a click puts one at the end.</p>
      <ul className="grid grid-cols-5 gap-1.5" aria-label="All photos">
        {unique.map((photo, index) => {
          const times = chosen.filter((one) => one === photo.hash).length;
          return (
            <li key={photo.hash}>
              <button
                type="button"
                // biome-ignore lint/a11y/noAutofocus: opened by the person who is going to choose
                autoFocus={index === 0}
                aria-label={`Photo ${index + 1}, chosen ${times === 1 ? 'once' : `${times} times`}: add`}
                className={`${tile} border-transparent ${times ? '' : 'opacity-60'}`}
                onClick={() => choose([...chosen, photo.hash])}
              >
                {picture(photo.hash)}
              </button>
            </li>
          );
        })}
      </ul>
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <button type="button" className="btn btn-primary btn-sm" onClick={() => void save(chosen)}>
          Keep for {column.name}
        </button>
        {field.origin === 'override' ? (
          <button type="button" className="btn btn-sm" onClick={() => void save(undefined)}>
            Follow the item again
          </button>
        ) : null}
        <button type="button" className="btn btn-ghost btn-sm" onClick={close}>
          Cancel
        </button>
        <span className={`figures text-[12px] ${chosen.length > max ? 'text-error' : 'quiet'}`}>
          {chosen.length}/{max}
        </span>
      </div>
    </>
  );
}
