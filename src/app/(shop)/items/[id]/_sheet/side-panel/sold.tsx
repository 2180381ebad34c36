'use client';

import { useQuery } from '@tanstack/react-query';
import type { Item } from '@/core/item/item';
import { formatMoney } from '@/core/measure/money';
import { api } from '@/ui/data/api';

/** What such things sold for in the last half year, in three figures that can be taken over. */
export function Sold({ item, take }: { item: Item; take: (price: number) => void }) {
  const { data } = useQuery({
    queryKey: ['comparables', item.id, item.brand, item.model, item.barcode],
    queryFn: () => api('GET /items/{id}/comparables', { params: { id: item.id }, query: { days: '180' } }),
    enabled: Boolean(item.model || item.barcode),
    staleTime: 60_000,
  });
  if (!data?.statistics) return <p className="quiet mt-3 text-[12px]">No comparable sales are known.</p>;
  const { statistics } = data;
  const figures: [string, number][] = [
    ['low', statistics.low],
    ['median', statistics.median],
    ['high', statistics.high],
  ];
  return (
    <section aria-label="Comparable sales" className="mt-3 border-t border-base-300 pt-2">
      <h3 className="mb-1 font-medium">Such things sold for, {data.days} days</h3>
      <ul className="flex flex-wrap gap-2">
        {figures.map(([name, amount]) => (
          <li key={name}>
            <button type="button" className="btn btn-sm" onClick={() => take(Math.round(amount))}>
              <span className="quiet font-normal">{name}</span>{' '}
              <span className="figures">{formatMoney(Math.round(amount), item.currency)}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
