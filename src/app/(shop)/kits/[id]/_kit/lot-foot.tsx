import { basisWords } from '@/core/kit/lot-price';
import type { LotView } from '@/services/kits/find-kit';
import { money } from './lot-row';

/** Where the pieces of a lot are from, in words. */
export const fromWords = ({ from }: Pick<LotView, 'from'>): string =>
  from
    .map((one) => {
      const kind = one.kind === 'spare' ? 'spare ' : '';
      return `${one.quantity.toLocaleString('en')} ${kind}in ${one.within.join(', in ')}`;
    })
    .join('; ');

/** What is known of the lot in which one writes: how its price was made, and where its pieces are from. */
export function LotFoot({ lot }: { lot: LotView | undefined }) {
  const price = !lot
    ? 'Enter and the arrows go up and down; Ctrl D takes over what stands above'
    : lot.isKept
      ? 'Price kept'
      : lot.basis
        ? basisWords(lot.basis, money)
        : lot.price === null
          ? 'No price yet'
          : 'Price written by hand';
  return (
    <p className="flex min-h-7 gap-4 border-t border-base-300 bg-base-200 px-4 py-1 text-[12px]" aria-live="off">
      {lot ? <span className="font-medium whitespace-nowrap">{`${lot.name} ${lot.finish}`.trim()}</span> : null}
      <span className="min-w-0 truncate" title={price}>
        {price}
      </span>
      {lot ? (
        <span className="quiet ml-auto min-w-0 truncate" title={fromWords(lot)}>
          {fromWords(lot)}
        </span>
      ) : null}
    </p>
  );
}
