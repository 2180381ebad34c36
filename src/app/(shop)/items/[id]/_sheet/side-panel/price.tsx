'use client';

import { useQuery } from '@tanstack/react-query';
import type { Item, ItemPatch } from '@/core/item/item';
import type { Json } from '@/core/json';
import { DataTable } from '@/ui/controls/data-table';
import { Price } from '@/ui/controls/format';
import { Link } from '@/ui/controls/link';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { GoalFields, useGoal } from '../../_prices/goal';
import { Lower } from '../../_prices/lower';
import { Sold } from './sold';

type Props = {
  item: Item;
  change: (patch: ItemPatch) => void;
  write: (accountId: number, field: string, value: Json) => Promise<void>;
};

/** The price for a wanted net, account by account, and what such things sold for: both can be taken over. */
export function BesidePrice({ item, change, write }: Props) {
  const goal = useGoal(item.currency);
  const { query } = goal;
  const { data, isPending, isLoadingError, error, refetch } = useQuery({
    queryKey: ['prices', item.id, item.version, query],
    queryFn: () => api('GET /items/{id}/prices', { params: { id: item.id }, query }),
    placeholderData: (before) => before,
  });
  if (isPending) return <Loading what="the prices" />;
  if (isLoadingError) return <Failed error={error} retry={() => void refetch()} />;
  return (
    <div className="p-3">
      <div className="mb-2 flex flex-wrap items-end gap-2">
        <GoalFields goal={goal} currency={item.currency} />
      </div>
      <DataTable
        look="part"
        rows={data.lines}
        idOf={(line) => line.accountId}
        columns={[
          { id: 'account', head: 'Account', names: true, cell: (line) => line.name },
          {
            id: 'price',
            head: 'Price',
            align: 'right',
            cell: (line) => <Price amount={line.price} currency={line.currency} />,
          },
          {
            id: 'net',
            head: 'Net',
            align: 'right',
            cell: (line) => (
              <>
                <Price amount={line.net?.net ?? null} currency={line.currency} tone />
                <Lower line={line} />
              </>
            ),
          },
          {
            id: 'solved',
            head: 'For that',
            align: 'right',
            cell: ({ accountId, name, currency, solved }) =>
              solved ? (
                <button
                  type="button"
                  className="underline decoration-dotted"
                  title={`Use it on ${name}`}
                  onClick={() => void write(accountId, 'price', solved.price)}
                >
                  <Price amount={solved.price} currency={currency} />
                </button>
              ) : (
                <span className="quiet">–</span>
              ),
          },
        ]}
      />
      <Sold item={item} take={(price) => change({ price })} />
      <Link className="mt-3 inline-block underline" href={`/items/${item.id}/preview`}>
        All parts of it, with charts
      </Link>
    </div>
  );
}
