'use client';

import { readsWell } from '@/core/artwork/ground-score';
import { placingFault } from '@/core/artwork/offered-prints';
import { placingFor } from '@/core/artwork/stands';
import type { ArtworkView } from '@/services/artwork/find-artworks';
import { Link } from '@/ui/controls/link';
import { api, photoUrl } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { FileSays } from './file-says';
import { ProductView } from './product-view';
import type { Product } from './use-offers';

type Props = {
  artwork: ArtworkView;
  ground: { name: string; colour: string } | undefined;
  /** What it is shown on; the picture alone without one. */
  product: Product | undefined;
  place: () => void;
};

/** One picture on the chosen ground, and on which grounds it reads well: by its score, corrected by hand. */
export function ArtworkCard({ artwork, ground, product, place }: Props) {
  const { itemId, title, hash, width, height, grounds, scores, tags, audience } = artwork;
  const [picture] = artwork.photos;
  const seen = picture?.visible ? { width, height, visible: picture.visible } : null;
  const placing = product ? placingFor(artwork, product.name, null) : null;
  const fault = product && seen && placing ? placingFault(product.area, seen, placing) : null;
  const suits = new Set(grounds.map((one) => one.toLowerCase()));
  const set = useCommand(
    async (name: string) => {
      const next = suits.has(name.toLowerCase())
        ? grounds.filter((one) => one.toLowerCase() !== name.toLowerCase())
        : [...grounds, name];
      await api('PUT /artworks/{id}/grounds', { params: { id: itemId }, body: { grounds: next } });
      return undefined;
    },
    { touches: [['artworks']], tells: true },
  );
  return (
    <li className="flex flex-col overflow-hidden rounded border border-base-300">
      {product && seen && placing ? (
        <button
          type="button"
          className="grid h-48 place-items-center bg-[#e9e9e9] p-2"
          title="Place it"
          aria-label={`Place ${title} on ${product.name}`}
          onClick={place}
        >
          <ProductView
            product={product.name}
            area={product.area}
            ground={ground?.colour ?? '#ffffff'}
            picture={seen}
            placing={placing}
            address={photoUrl(hash, 'view')}
            title={title}
          />
        </button>
      ) : (
        <div className="grid h-48 place-items-center p-3" style={{ background: ground?.colour }}>
          <img src={photoUrl(hash, 'view')} alt={title} loading="lazy" className="max-h-42 max-w-full object-contain" />
        </div>
      )}
      <div className="flex flex-1 flex-col gap-2 p-3 text-[13px]">
        <Link className="font-medium hover:underline" href={`/items/${itemId}`}>
          {title}
        </Link>
        <p className="quiet text-[12px]">
          {width.toLocaleString('en')} × {height.toLocaleString('en')}
          {audience ? `, for ${audience}` : ''}
          {tags.length ? `, ${tags.slice(0, 3).join(', ')}${tags.length > 3 ? ' …' : ''}` : ''}
        </p>
        <fieldset className="flex flex-wrap gap-1">
          <legend className="sr-only">{title} reads well on</legend>
          {scores.map((one) => {
            const isOn = suits.has(one.ground.toLowerCase());
            const isOther = isOn !== one.score >= readsWell;
            return (
              <button
                key={one.ground}
                type="button"
                aria-pressed={isOn}
                title={`${one.why}${isOther ? '. Corrected by hand' : ''}`}
                disabled={set.busy}
                className={`rounded border px-1.5 py-0.5 text-[12px] ${isOn ? 'border-primary bg-primary/10' : 'border-base-300 quiet'}`}
                onClick={() => void set.run(one.ground)}
              >
                {one.ground} <span className="figures">{one.score}</span>
                {isOther ? ' *' : ''}
              </button>
            );
          })}
        </fieldset>
        {fault ? <p className="text-[12px] text-error">{fault.words}</p> : null}
        <FileSays artwork={artwork} />
        <p className="mt-auto flex gap-3 text-[12px]">
          <a className="link" href={`/api/v1/artworks/${itemId}/file`}>
            With its details
          </a>
          <a className="link" href={`/api/v1/artworks/${itemId}/file?of=details`}>
            Details alone
          </a>
        </p>
      </div>
    </li>
  );
}
