'use client';

import { useInfiniteQuery } from '@tanstack/react-query';
import Link from 'next/link';
import type { SaleView } from '@/services/find-sales';
import { api, photoUrl } from '@/ui/api';
import { Price, When } from '@/ui/format';
import { Knot } from '@/ui/knot';
import { Empty, Failed, Loading, PageHead } from '@/ui/states';

/** Orders from everywhere, newest first, with what was left of each. */
export function Sales() {
  const pages = useInfiniteQuery({
    queryKey: ['sales'],
    queryFn: ({ pageParam }) =>
      api<{ sales: SaleView[]; next: number | null }>(`/sales${pageParam ? `?before=${pageParam}` : ''}`),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next ?? undefined,
    refetchInterval: (query) => ((query.state.data?.pages.length ?? 0) <= 1 ? 1_500 : false),
  });
  const sales = pages.data?.pages.flatMap((page) => page.sales) ?? [];
  return (
    <>
      <PageHead title="Sales" />
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
              {['Item', 'Sold', 'Where', 'To', 'Units', 'Total', 'Fees', 'Cost', 'Net'].map((name, index) => (
                <th
                  key={name}
                  scope="col"
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
                      <span className="rounded bg-error px-1.5 text-[12px] text-error-content">
                        oversold: cancel this order
                      </span>
                    ) : null}
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
                <td className="px-3 py-1 pr-4 text-right font-semibold">
                  <Price amount={sale.net} currency={sale.currency} tone />
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
