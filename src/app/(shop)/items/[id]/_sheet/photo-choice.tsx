'use client';

import { useState } from 'react';
import type { Photo } from '@/core/item/item';
import type { Json } from '@/core/json';
import { readPhotoReference } from '@/core/listing/fit/photos';
import type { SheetColumn, SheetField } from '@/services/items/item-sheet';
import { photoUrl } from '@/ui/data/api';

type Props = {
  column: SheetColumn;
  field: SheetField;
  photos: Photo[];
  first: string[];
  save: (value: Json | undefined) => Promise<void>;
  close: () => void;
};

/** Which photos this marketplace gets, and in which order: the order in which they are chosen. */
export function PhotoChoice({ column, field, photos, first, save, close }: Props) {
  const [chosen, setChosen] = useState(() => first.map((reference) => readPhotoReference(reference).hash));
  const max = column.photoMax;
  const toggle = (hash: string) =>
    setChosen(chosen.includes(hash) ? chosen.filter((one) => one !== hash) : [...chosen, hash]);
  const move = (hash: string, by: number) => {
    const at = chosen.indexOf(hash);
    const to = at + by;
    if (at < 0 || to < 0 || to >= chosen.length) return;
    const next = chosen.filter((one) => one !== hash);
    next.splice(to, 0, hash);
    setChosen(next);
  };
  const unique = photos.filter((photo, index) => photos.findIndex((one) => one.hash === photo.hash) === index);
  return (
    <>
      <p className="quiet mb-2 text-[12px]">
        Choose them in the order in which they shall stand; arrow keys move a chosen one.
      </p>
      <ul className="grid grid-cols-5 gap-1.5">
        {unique.map((photo, index) => {
          const at = chosen.indexOf(photo.hash);
          return (
            <li key={photo.hash}>
              <button
                type="button"
                // biome-ignore lint/a11y/noAutofocus: opened by the person who is going to choose
                autoFocus={index === 0}
                aria-pressed={at >= 0}
                aria-label={`Photo ${index + 1}${at >= 0 ? `, at place ${at + 1}` : ', not chosen'}`}
                className={`relative block w-full rounded border-2 ${at >= 0 ? 'border-primary' : 'border-transparent opacity-60'}`}
                onClick={() => toggle(photo.hash)}
                onKeyDown={(event) => {
                  if (event.key === 'ArrowLeft') move(photo.hash, -1);
                  if (event.key === 'ArrowRight') move(photo.hash, 1);
                }}
              >
                <img src={photoUrl(photo.hash, 'view')} alt="" className="aspect-[4/3] w-full rounded object-cover" />
                {at >= 0 ? (
                  <span className="figures absolute top-0.5 left-0.5 rounded bg-base-100/90 px-1 text-[11px]">
                    {at + 1}
                  </span>
                ) : null}
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
