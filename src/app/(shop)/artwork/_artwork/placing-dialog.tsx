'use client';

import { useState } from 'react';
import { placingFault } from '@/core/artwork/offered-prints';
import type { Area, Picture, Placing } from '@/core/artwork/place';
import { Dialog } from '@/ui/controls/dialog';
import { PlacingFields } from '@/ui/controls/placing-fields';
import { api, photoUrl } from '@/ui/data/api';
import { submitted, useCommand } from '@/ui/data/use-command';
import { PlacingStage } from './placing-stage';

type Props = {
  artwork: Picture & { itemId: number; title: string; hash: string };
  product: string;
  area: Area;
  ground: string;
  background?: string | null;
  /** Where it stands now, and whether a person has placed it. */
  placing: Placing;
  isByHand: boolean;
  /** Accounts for which a printable is made of it, as it is kept. */
  files?: readonly { id: number; name: string }[];
  close: () => void;
};

/** Places a picture with the mouse or by numbers: on this product alone, or on all, where it stands in proportion. */
export function PlacingDialog({
  artwork,
  product,
  area,
  ground,
  background = null,
  placing: now,
  isByHand,
  files = [],
  close,
}: Props) {
  const [placing, setPlacing] = useState<Placing>(now);
  const [isForAll, setIsForAll] = useState(false);
  const { itemId, hash, title } = artwork;
  const fault = placingFault(area, artwork, placing);
  const keep = useCommand(
    async (next: Placing | null) => {
      await api('PUT /artworks/{id}/placing', {
        params: { id: itemId },
        body: { placing: next, ...(isForAll ? {} : { product }) },
      });
      close();
      return undefined;
    },
    { touches: [['artworks'], ['sights']] },
  );
  return (
    <Dialog title={`${title} on ${product}`} close={close} wide>
      <form className="grid grid-cols-[1fr_15rem] gap-6" onSubmit={submitted(() => keep.run(placing))}>
        <div className="h-[26rem] rounded bg-[#e9e9e9] p-4">
          <PlacingStage
            product={product}
            area={area}
            ground={ground}
            background={background}
            picture={artwork}
            placing={placing}
            address={photoUrl(hash, 'view')}
            title={`${title} as it will stand on ${product}`}
            place={setPlacing}
          />
        </div>
        <div className="space-y-3 text-[13px]">
          <PlacingFields placing={placing} set={setPlacing} look="w-full" isFirst />
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={placing.isOptical}
              onChange={(event) => setPlacing({ ...placing, isOptical: event.target.checked })}
            />
            By the eye’s middle
          </label>
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={isForAll}
              onChange={(event) => setIsForAll(event.target.checked)}
            />
            So on every product
          </label>
          {fault || keep.problem ? (
            <p role="alert" className="text-error">
              {keep.problem || fault?.words}
            </p>
          ) : null}
          {files.map((one) => (
            <p key={one.id}>
              <a
                className="link"
                href={`/api/v1/artworks/${itemId}/print?account=${one.id}&product=${encodeURIComponent(product)}`}
              >
                Printable for {one.name}
              </a>
            </p>
          ))}
          <div className="flex flex-wrap gap-2">
            <button type="submit" className="btn btn-primary btn-sm" disabled={keep.busy}>
              Keep it
            </button>
            {isByHand ? (
              <button
                type="button"
                className="btn btn-ghost btn-sm"
                disabled={keep.busy}
                onClick={() => void keep.run(null)}
              >
                As the template says
              </button>
            ) : null}
          </div>
        </div>
      </form>
    </Dialog>
  );
}
