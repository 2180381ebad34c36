'use client';

import { useState } from 'react';
import type { Placing } from '@/core/artwork/place';
import type { ArtworkView } from '@/services/artwork/find-artworks';
import { Dialog } from '@/ui/controls/dialog';
import { api, photoUrl } from '@/ui/data/api';
import { submitted, useCommand } from '@/ui/data/use-command';
import { PlacedPicture, type Product, placingFault } from './placed-picture';

type Props = { artwork: ArtworkView; product: Product; ground: string; close: () => void };

const numbers: [keyof Placing & ('x' | 'y' | 'scale' | 'degrees'), string, number, number, number][] = [
  ['x', 'Across, %', 0, 100, 100],
  ['y', 'Down, %', 0, 100, 100],
  ['scale', 'Size, %', 1, 200, 100],
  ['degrees', 'Turned, °', -180, 180, 1],
];

/** Places a picture by numbers, on the product that is looked at; on all others it stands in proportion. */
export function PlacingDialog({ artwork, product, ground, close }: Props) {
  const [placing, setPlacing] = useState<Placing>(artwork.placing);
  const { itemId, width, height, visible, hash, title } = artwork;
  const picture = { width, height, visible };
  const fault = placingFault(product.area, picture, placing);
  const keep = useCommand(
    async () => {
      await api('PUT /artworks/{id}/placing', { params: { id: itemId }, body: placing });
      close();
      return undefined;
    },
    { touches: [['artworks']] },
  );
  return (
    <Dialog title={`${title} on ${product.name}`} close={close} wide>
      <form className="grid grid-cols-[1fr_16rem] gap-6" onSubmit={submitted(() => keep.run())}>
        <div className="grid h-96 place-items-center bg-base-200 p-4">
          <PlacedPicture
            area={product.area}
            ground={ground}
            picture={picture}
            placing={placing}
            address={photoUrl(hash, 'view')}
            title={`${title} as it will stand on ${product.name}`}
          />
        </div>
        <div className="space-y-3">
          {numbers.map(([field, words, least, most, times], at) => (
            <label key={field} className="block text-[13px]">
              {words}
              <input
                className="input input-sm figures w-full"
                type="number"
                min={least}
                max={most}
                step="any"
                required
                data-first={at === 0 || undefined}
                value={Math.round(placing[field] * times * 10) / 10}
                onChange={(event) => {
                  const typed = event.target.valueAsNumber;
                  if (Number.isFinite(typed)) setPlacing({ ...placing, [field]: typed / times });
                }}
              />
            </label>
          ))}
          <label className="flex items-center gap-2 text-[13px]">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={placing.isOptical}
              onChange={(event) => setPlacing({ ...placing, isOptical: event.target.checked })}
            />
            By the eye’s middle
          </label>
          {fault || keep.problem ? (
            <p role="alert" className="text-error text-[13px]">
              {keep.problem || fault}
            </p>
          ) : null}
          <button type="submit" className="btn btn-primary btn-sm" disabled={keep.busy}>
            Keep it
          </button>
        </div>
      </form>
    </Dialog>
  );
}
