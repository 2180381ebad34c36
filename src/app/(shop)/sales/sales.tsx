'use client';

import { useInfiniteQuery } from '@tanstack/react-query';
import Link from 'next/link';
import { parseAsInteger, parseAsStringLiteral, useQueryStates } from 'nuqs';
import { useState } from 'react';
import type { SaleView } from '@/services/stock/find-sales';
import { ChoiceButtons } from '@/ui/controls/choice-buttons';
import { Price, When } from '@/ui/controls/format';
import { Knot } from '@/ui/controls/knot';
import { Empty, Failed, Loading, PageHead } from '@/ui/controls/states';
import { AccountSelect } from '@/ui/data/accounts';
import { api, photoUrl } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { ForgetBuyers } from './forget-buyers';

const saleStates = ['paid', 'oversold', 'cancelled'] as const;
const saleWords = { paid: 'Paid', oversold: 'Oversold', cancelled: 'Cancelled' };

/** Orders from everywhere, newest first, with what was left of each. */
export function Sales() {
  const [query, setQuery] = useQueryStates(
    { account: parseAsInteger, state: parseAsStringLiteral(saleStates) },
    { history: 'replace' },
  );
  const search = { account: query.account ?? undefined, state: query.state ?? undefined };
  const cancel = useCommand(
    async (sale: SaleView) => {
      const done = await api('POST /sales/{id}/cancel', { params: { id: sale.id }, body: {} });
      return `The order is cancelled${done.quantity === null ? '' : `; ${done.quantity} in stock now`}${done.again ? `, listed again in ${done.again} places` : ''}`;
    },
    { tells: true },
  );
  const pages = useInfiniteQuery({
    queryKey: ['sales', search],
    queryFn: ({ pageParam }) => api('GET /sales', { query: { ...search, before: pageParam || undefined } }),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next ?? undefined,
    refetchInterval: (query) => ((query.state.data?.pages.length ?? 0) <= 1 ? 10_000 : false),
  });
  const sales = pages.data?.pages.flatMap((page) => page.sales) ?? [];
  return (
    <>
      <PageHead title="Sales">
        <ChoiceButtons
          legend="State of the orders"
          all="All"
          options={saleStates}
          words={saleWords}
          value={query.state}
          choose={(state) => void setQuery({ state })}
        />
        <AccountSelect value={query.account} choose={(account) => void setQuery({ account })} all="Everywhere" />
        <span className="ml-auto" />
        <ForgetBuyers />
        <a className="btn btn-sm" href={`/api/v1/sales.csv?${search}`}>
          Export as CSV
        </a>
      </PageHead>
      {pages.isPending ? <Loading what="the sales" /> : null}
      {pages.isError ? <Failed error={pages.error} retry={() => void pages.refetch()} /> : null}
      {pages.data && sales.length === 0 ? (
        <Empty title="Nothing sold yet">
          <p>Every order stands here within seconds, with fees and what is left.</p>
        </Empty>
      ) : null}
      {sales.length ? (
        <table className="w-full">
          <thead className="bg-base-200 text-[12px]">
            <tr>
              {['Item', 'Sold', 'Where', 'To', 'Units', 'Total', 'Fees', 'Cost', 'Net', ''].map((name, index) => (
                <th
                  key={name}
                  scope="col"
                  aria-label={name || 'Cancel'}
                  className={`px-3 py-1.5 font-medium first:pl-4 ${index >= 4 ? 'text-right' : 'text-left'}`}
                >
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {sales.map((sale) => (
              <tr key={sale.id} className="border-b border-base-300/60">
                <td className="max-w-96 px-3 py-1 pl-4">
                  <span className="flex items-center gap-2">
                    {sale.photo ? (
                      <img
                        src={photoUrl(sale.photo, 'thumb')}
                        alt=""
                        width={28}
                        height={28}
                        className="h-7 w-7 shrink-0 rounded-sm object-cover"
                      />
                    ) : (
                      <Knot state="sold" />
                    )}
                    {sale.itemId ? (
                      <Link className="truncate hover:underline" href={`/items/${sale.itemId}`}>
                        {sale.variation ? `${sale.title}, ${sale.variation}` : sale.title}
                      </Link>
                    ) : (
                      <span className="truncate">
                        {sale.variation ? `${sale.title}, ${sale.variation}` : sale.title}
                      </span>
                    )}
                    {sale.oversold ? (
                      <span className="rounded bg-error px-1.5 text-[12px] text-error-content">oversold</span>
                    ) : null}
                    {sale.state === 'cancelled' ? <span className="quiet text-[12px]">cancelled</span> : null}
                  </span>
                </td>
                <td className="quiet px-3 py-1 whitespace-nowrap">
                  <When at={sale.soldAt} />
                </td>
                <td className="px-3 py-1 whitespace-nowrap">{sale.accountName ?? 'By hand'}</td>
                <td className="quiet px-3 py-1 whitespace-nowrap">{sale.buyerTown}</td>
                <td className="figures px-3 py-1 text-right">{sale.quantity}</td>
                <td className="px-3 py-1 text-right">
                  <Price amount={sale.total} currency={sale.currency} />
                </td>
                <td className="px-3 py-1 text-right">
                  <Price amount={sale.fee} currency={sale.currency} />
                </td>
                <td className="px-3 py-1 text-right">
                  <Price amount={sale.cost === null ? null : sale.cost * sale.quantity} currency={sale.currency} />
                </td>
                <td className="px-3 py-1 text-right font-semibold">
                  {sale.state === 'cancelled' ? (
                    <span className="quiet">–</span>
                  ) : (
                    <Price amount={sale.net} currency={sale.currency} tone />
                  )}
                </td>
                <td className="px-3 py-1 pr-4 text-right">
                  {sale.state === 'paid' ? <CancelOrder sale={sale} cancel={() => void cancel.run(sale)} /> : null}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
      {pages.hasNextPage ? (
        <button type="button" className="btn btn-sm m-4" onClick={() => void pages.fetchNextPage()}>
          Older ones
        </button>
      ) : null}
    </>
  );
}

/** An order is called off for good, so it takes two steps. */
function CancelOrder({ sale, cancel }: { sale: SaleView; cancel: () => void }) {
  const [sure, setSure] = useState(false);
  if (!sure)
    return (
      <button
        type="button"
        className={sale.oversold ? 'btn btn-xs btn-error' : 'quiet text-[12px] underline'}
        aria-label={`Cancel order ${sale.orderId}`}
        onClick={() => setSure(true)}
      >
        {sale.oversold ? 'Cancel this order' : 'Cancel'}
      </button>
    );
  return (
    <span className="flex justify-end gap-1 whitespace-nowrap">
      <button type="button" className="btn btn-xs btn-error" onClick={cancel}>
        Cancel {sale.orderId.startsWith('hand-') ? 'it' : sale.orderId} for good
      </button>
      <button type="button" className="btn btn-xs" onClick={() => setSure(false)}>
        Keep it
      </button>
    </span>
  );
}
