'use client';

import { useQuery } from '@tanstack/react-query';
import Link from 'next/link';
import { useState } from 'react';
import type { Item, ItemPatch } from '@/core/item/item';
import type { Json } from '@/core/json';
import { parseAmount } from '@/core/measure/money';
import { DataTable } from '@/ui/controls/data-table';
import { Price } from '@/ui/controls/format';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { Sold } from './sold';

type Props = {
  item: Item;
  change: (patch: ItemPatch) => void;
  write: (accountId: number, field: string, value: Json) => Promise<void>;
};

const goals = [
  ['net', 'Net of'],
  ['margin', 'Margin, %'],
  ['return', 'Return on cost, %'],
] as const;

/** The price for a wanted net, account by account, and what such things sold for: both can be taken over. */
export function BesidePrice({ item, change, write }: Props) {
  const [goal, setGoal] = useState<(typeof goals)[number][0]>('net');
  const [wanted, setWanted] = useState('');
  const amount =
    goal === 'net'
      ? parseAmount(wanted, item.currency)
      : wanted.trim() === ''
        ? null
        : Math.round(Number(wanted.replace(',', '.')) * 100);
  const wish = amount !== null && Number.isFinite(amount) ? { goal, amount } : {};
  const query = { rounding: 'ninety' as const, ...wish };
  const { data, isPending, isLoadingError, error, refetch } = useQuery({
    queryKey: ['prices', item.id, item.version, query],
    queryFn: () => api('GET /items/{id}/prices', { params: { id: item.id }, query }),
    placeholderData: (before) => before,
  });
  if (isPending) return <Loading what="the prices" />;
  if (isLoadingError) return <Failed error={error} retry={() => void refetch()} />;
  return (
    <div className="p-3">
      <div className="mb-2 flex items-end gap-2">
        <label className="flex flex-col text-[12px]">
          Price for a
          <select
            className="select select-sm w-36"
            value={goal}
            onChange={(event) => setGoal(goals.find(([id]) => id === event.target.value)?.[0] ?? 'net')}
          >
            {goals.map(([id, label]) => (
              <option key={id} value={id}>
                {label}
              </option>
            ))}
          </select>
        </label>
        <label className="flex flex-col text-[12px]">
          Wanted
          <input
            className="input input-sm figures w-24"
            inputMode="decimal"
            value={wanted}
            onChange={(event) => setWanted(event.target.value)}
          />
        </label>
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
            cell: (line) => <Price amount={line.net?.net ?? null} currency={line.currency} tone />,
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
