'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useDeferredValue, useMemo, useState } from 'react';
import { amountToText, parseAmount } from '@/core/measure/money';
import type { PriceLine } from '@/services/listings/prices/price-panel';
import { type Column, DataTable } from '@/ui/controls/data-table';
import { Price } from '@/ui/controls/format';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { GoalFields, useGoal } from '../../_prices/goal';
import { Lower } from '../../_prices/lower';

type Props = { itemId: number; currency: string; version: number; changed: () => void };

/** Fees, postage and what is left on every account, live while a price is tried; and the price for a wanted net. */
export function PricePanel({ itemId, currency, version, changed }: Props) {
  const [tried, setTried] = useState('');
  const goal = useGoal(currency);
  const price = tried ? parseAmount(tried, currency) : null;
  const query = useMemo(() => ({ price: price ?? undefined, ...goal.query }), [price, goal.query]);
  const settled = useDeferredValue(query);
  const { data, isPending, isLoadingError, error, refetch } = useQuery({
    queryKey: ['prices', itemId, settled],
    queryFn: () => api('GET /items/{id}/prices', { params: { id: itemId }, query: settled }),
    placeholderData: keepPreviousData,
  });
  const take = useCommand(
    async (to: number) => {
      await api('PATCH /items/{id}', { params: { id: itemId }, body: { baseVersion: version, patch: { price: to } } });
      setTried('');
      changed();
      return 'The item’s price is changed';
    },
    { tells: true },
  );
  const takeHere = useCommand(
    async (line: PriceLine, to: number) => {
      await api('PUT /items/{id}/listings/{account}', {
        params: { id: itemId, account: line.accountId },
        body: { field: 'price', value: to },
      });
      changed();
      return `${line.name} has its own price now`;
    },
    { tells: true },
  );
  if (isPending) return <Loading what="the prices" />;
  if (isLoadingError) return <Failed error={error} retry={() => void refetch()} />;
  return (
    <section aria-labelledby="prices" className="border-t border-base-300 p-4">
      <div className="mb-3 flex flex-wrap items-end gap-3">
        <h2 id="prices" className="mr-2 font-semibold">
          Prices and what is left
        </h2>
        <label className="flex flex-col text-[12px]">
          Try a price
          <input
            className="input input-sm figures w-28"
            inputMode="decimal"
            value={tried}
            placeholder={data.price === null ? '' : amountToText(data.price, currency)}
            onChange={(event) => setTried(event.target.value)}
          />
        </label>
        {price !== null ? (
          <button type="button" className="btn btn-sm" onClick={() => void take.run(price)}>
            Use it for the item
          </button>
        ) : null}
        <span className="mx-2 h-8 w-px bg-base-300" aria-hidden="true" />
        <GoalFields goal={goal} currency={currency} />
        <p className="quiet ml-auto text-[12px]">
          {data.cost === null ? (
            'No cost is written down'
          ) : (
            <>
              Cost <Price amount={data.cost} currency={currency} />
            </>
          )}
          {data.quotes.length ? (
            <>
              {' '}
              · {data.box ? `${data.box}, ` : ''}
              {data.quotes.map((quote, index) => (
                <span key={quote.carrier}>
                  {index ? ', ' : ''}
                  {quote.name} <Price amount={quote.amount} />
                </span>
              ))}
            </>
          ) : null}
          {data.perPound === null ? null : (
            <>
              {' '}
              · past parcels <Price amount={data.perPound} /> a pound
            </>
          )}
        </p>
      </div>
      <div className="overflow-x-auto">
        <DataTable look="part" rows={data.lines} columns={priceColumns(takeHere.run)} idOf={(line) => line.accountId} />
      </div>
    </section>
  );
}

const percent = (basisPoints: number | null) => (basisPoints === null ? '–' : `${(basisPoints / 100).toFixed(1)} %`);

const hintOf = (line: PriceLine): string =>
  [
    line.own ? 'own price here' : line.how,
    line.rate ? `1 ${line.rate.from} = ${(line.rate.millionths / 1e6).toFixed(4)} ${line.rate.to}` : null,
    line.monthly ? 'a monthly fee comes on top' : null,
    line.netAdvertised === null ? null : 'less when sold through advertising',
  ]
    .filter(Boolean)
    .join(' · ');

/** The price with all its parts, so that they add up on sight. */
function priceColumns(takeHere: (line: PriceLine, to: number) => Promise<boolean>): Column<PriceLine>[] {
  const part = (id: string, head: string, amount: (line: PriceLine) => number | undefined): Column<PriceLine> => ({
    id,
    head,
    align: 'right',
    cell: (line) => {
      const found = amount(line);
      return found ? <Price amount={found} currency={line.currency} /> : <span className="quiet">–</span>;
    },
  });
  return [
    {
      id: 'account',
      head: 'Account',
      names: true,
      cell: (line) => (
        <>
          {line.name}
          {hintOf(line) ? <span className="quiet block text-[11px]">{hintOf(line)}</span> : null}
        </>
      ),
    },
    {
      id: 'price',
      head: 'Price there',
      align: 'right',
      cell: (line) => <Price amount={line.price} currency={line.currency} />,
    },
    part('commission', 'Commission', ({ net }) => net?.fees.commission),
    part('payment', 'Payment', ({ net }) => net?.fees.payment),
    part('listing', 'Listing', ({ net }) => net?.fees.listing),
    part('handling', 'Their work', ({ net }) => net?.fees.handling),
    {
      ...part('postage', 'Postage', ({ net }) => net?.postage),
      cell: ({ net, currency, carrier }) => (
        <>
          {net?.postage ? <Price amount={net.postage} currency={currency} /> : <span className="quiet">–</span>}
          {net?.postage && carrier ? <span className="quiet block text-[11px]">{carrier}</span> : null}
        </>
      ),
    },
    part('packaging', 'Packing', ({ net }) => net?.packaging),
    {
      id: 'net',
      head: 'Net',
      align: 'right',
      cellClass: 'font-semibold',
      cell: (line) => (
        <>
          <Price amount={line.net?.net ?? null} currency={line.currency} tone />
          <Lower line={line} />
        </>
      ),
    },
    { id: 'margin', head: 'Margin', align: 'right', cell: ({ net }) => percent(net?.margin ?? null) },
    { id: 'return', head: 'Return', align: 'right', cell: ({ net }) => percent(net?.returnOnCost ?? null) },
    {
      id: 'solved',
      head: 'Price for the wanted',
      align: 'right',
      cell: (line) => {
        const { solved, currency, name } = line;
        if (!solved) return <span className="quiet">–</span>;
        return (
          <button
            type="button"
            className="underline decoration-dotted"
            title={`Leaves ${(solved.net / 100).toFixed(2)} ${currency}; click to use it on ${name}`}
            onClick={() => void takeHere(line, solved.price)}
          >
            <Price amount={solved.price} currency={currency} />
          </button>
        );
      },
    },
  ];
}
