'use client';

import { formatMoney } from '@/core/measure/money';
import type { SheetColumn } from '@/services/items/item-sheet';
import { When } from '@/ui/controls/when';
import { OfferRow, useOffers } from '@/ui/data/offers';

/** What buyers would pay for this item, and how its timed sales stand. */
export function OffersHere({ itemId, columns }: { itemId: number; columns: SheetColumn[] }) {
  const offers = useOffers(itemId).data?.offers ?? [];
  const timed = columns.filter((column) => column.timed !== null);
  if (offers.length === 0 && timed.length === 0) return null;
  return (
    <section aria-label="Offers" className="border-b border-base-300 bg-base-200 px-4 py-1">
      <ul className="divide-y divide-base-300">
        {offers.map((offer) => (
          <OfferRow key={offer.id} offer={offer} isOfItem />
        ))}
        {timed.map(({ accountId, name, currency, timed: sale }) =>
          sale ? (
            <li key={accountId} className="py-1.5">
              Timed sale on {name}: {sale.bids} {sale.bids === 1 ? 'bid' : 'bids'}
              {sale.highest === null ? '' : `, the highest ${formatMoney(sale.highest, currency)}`}
              {sale.reserve !== null && (sale.highest ?? 0) < sale.reserve ? ', not sold below that yet' : ''}
              {sale.endsAt ? (
                <>
                  , ends <When at={sale.endsAt} />
                </>
              ) : null}
              {sale.bids > 0 ? (
                <span className="quiet">; it can be neither changed nor ended before its clock has run out</span>
              ) : null}
            </li>
          ) : null,
        )}
      </ul>
    </section>
  );
}
