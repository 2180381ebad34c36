import { memo } from 'react';
import type { Verdict } from '@/core/artwork/stands';
import { photoUrl } from '@/ui/data/api';
import { ProductView } from '../../_artwork/product-view';
import type { Sight } from './sights';

type Props = {
  sight: Sight;
  index: number;
  verdict: Verdict | null;
  isActive: boolean;
  choose: (index: number) => void;
  adjust: (index: number) => void;
};

const marks = { good: 'Good', off: 'Off' } as const;

/** One artwork on one product and ground, as it will look, with what was said of it. */
export const SightCell = memo(function SightCell({ sight, index, verdict, isActive, choose, adjust }: Props) {
  const { artwork, product, ground, colour, placing, area, background, fault, score, accounts, isOffered } = sight;
  const isShown = verdict === null ? isOffered : verdict === 'good';
  return (
    <div
      role="gridcell"
      id={`sight-${index}`}
      aria-selected={isActive}
      aria-label={`${artwork.title} on ${product}, ${ground}: ${verdict ? marks[verdict] : isShown ? 'not looked at' : 'not offered'}${fault ? `. ${fault}` : ''}`}
      className={`flex min-w-0 flex-1 basis-0 cursor-default flex-col rounded border-2 ${isActive ? 'border-primary' : 'border-transparent'}`}
      title={accounts.map((one) => one.name).join(', ')}
      onMouseDown={() => choose(index)}
      onDoubleClick={() => adjust(index)}
    >
      <div className="relative grid h-32 place-items-center rounded bg-[#e9e9e9] p-1.5">
        <ProductView
          product={product}
          area={area}
          ground={colour ?? '#f4f1ea'}
          background={background}
          picture={artwork}
          placing={placing}
          address={photoUrl(artwork.hash, 'view')}
          title={`${artwork.title} on ${product}, ${ground}`}
          className={`h-full w-full ${isShown ? '' : 'grayscale'}`}
        />
        {verdict ? (
          <span
            className={`absolute top-1 right-1 rounded px-1 text-[11px] font-medium text-white ${verdict === 'good' ? 'bg-[#1f6b3a]' : 'bg-[#8c2f2f]'}`}
          >
            {marks[verdict]}
          </span>
        ) : null}
      </div>
      <p className="truncate px-1 pt-0.5 text-[12px]">
        {product}, {ground}
        {score === null ? '' : <span className="quiet figures"> {score}</span>}
      </p>
      <p className={`truncate px-1 text-[11px] ${fault ? 'text-error' : 'quiet'}`}>
        {fault ||
          (isShown || verdict
            ? ''
            : `not offered: ${score !== null && score < 50 ? 'it does not read there' : 'not among its grounds'}`)}
      </p>
    </div>
  );
});
