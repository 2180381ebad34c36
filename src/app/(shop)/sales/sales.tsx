'use client';

import { useInfiniteQuery } from '@tanstack/react-query';
import { parseAsInteger, parseAsStringLiteral, useQueryStates } from 'nuqs';
import { useState } from 'react';
import type { SaleView } from '@/services/stock/find-sales';
import { AsFile } from '@/ui/controls/as-file';
import { ChoiceButtons } from '@/ui/controls/choice-buttons';
import { type Column, DataTable } from '@/ui/controls/data-table';
import { Price } from '@/ui/controls/format';
import { ItemCell } from '@/ui/controls/item-cell';
import { Knot } from '@/ui/controls/knot';
import { Empty, Failed, Loading, PageHead } from '@/ui/controls/states';
import { When } from '@/ui/controls/when';
import { AccountSelect } from '@/ui/data/accounts';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { AssignOrder } from './assign-order';
import { ForgetBuyers } from './forget-buyers';
import { Parcel, paidParts } from './parcel';

const saleStates = ['paid', 'oversold', 'unassigned', 'cancelled'] as const;
const saleWords = { paid: 'Paid', oversold: 'Oversold', unassigned: 'Of no item', cancelled: 'Cancelled' };

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
        <AsFile of="GET /sales/file" what="These sales" query={search} />
      </PageHead>
      {pages.isPending ? <Loading what="the sales" /> : null}
      {pages.isError ? <Failed error={pages.error} retry={() => void pages.refetch()} /> : null}
      {pages.data && sales.length === 0 ? (
        <Empty title="Nothing sold yet">
          <p>Every order stands here within seconds, with fees and what is left.</p>
        </Empty>
      ) : null}
      {sales.length ? (
        <SalesTable sales={sales} cancel={(sale) => void cancel.run(sale)} assigned={() => void pages.refetch()} />
      ) : null}
      {pages.hasNextPage ? (
        <button type="button" className="btn btn-sm m-4" onClick={() => void pages.fetchNextPage()}>
          Older ones
        </button>
      ) : null}
    </>
  );
}

function SalesTable({
  sales,
  cancel,
  assigned,
}: {
  sales: SaleView[];
  cancel: (sale: SaleView) => void;
  assigned: () => void;
}) {
  const money = (
    id: string,
    head: string,
    amount: (sale: SaleView) => number | null,
    currency: (sale: SaleView) => string = (sale) => sale.currency,
  ): Column<SaleView> => ({
    id,
    head,
    align: 'right',
    cell: (sale) => <Price amount={amount(sale)} currency={currency(sale)} />,
  });
  const columns: Column<SaleView>[] = [
    {
      id: 'item',
      head: 'Item',
      className: 'max-w-96',
      cell: (sale) => (
        <ItemCell
          photo={sale.photo}
          title={sale.variation ? `${sale.title}, ${sale.variation}` : sale.title}
          sku={sale.sku}
          href={sale.itemId ? `/items/${sale.itemId}` : undefined}
          instead={<Knot state="sold" />}
        >
          {sale.oversold ? (
            <span className="rounded bg-error px-1.5 text-[12px] text-error-content">oversold</span>
          ) : null}
          {sale.state === 'cancelled' ? <span className="quiet text-[12px]">cancelled</span> : null}
          {sale.unassigned ? (
            <span className="rounded bg-warning px-1.5 text-[12px] text-warning-content">of no item</span>
          ) : null}
          {sale.sentThere > 0 && sale.state === 'paid' ? (
            <span className="rounded bg-base-200 px-1.5 text-[12px]">
              {sale.sentThere === sale.quantity ? 'Sent' : `${sale.sentThere} of ${sale.quantity} sent`} by the
              warehouse
              {sale.tracking ? <span className="mono"> {sale.tracking}</span> : null}
            </span>
          ) : null}
          {sale.notSent ? (
            <span className="text-[12px] text-error">Not sent by the warehouse: {sale.notSent}</span>
          ) : null}
          {sale.personal ? (
            <span className="rounded bg-base-200 px-1.5 text-[12px]">Wanted on it: {sale.personal}</span>
          ) : null}
          {sale.collected ? <span className="quiet text-[12px]">is fetched</span> : null}
          {sale.rawState ? <span className="quiet text-[12px]">{sale.rawState}</span> : null}
        </ItemCell>
      ),
    },
    { id: 'sold', head: 'Sold', cellClass: 'quiet whitespace-nowrap', cell: (sale) => <When at={sale.soldAt} /> },
    { id: 'where', head: 'Where', cellClass: 'whitespace-nowrap', cell: (sale) => sale.accountName ?? 'By hand' },
    { id: 'to', head: 'To', cellClass: 'quiet whitespace-nowrap', cell: (sale) => sale.buyerTown },
    { id: 'units', head: 'Units', align: 'right', cell: (sale) => sale.quantity },
    {
      id: 'total',
      head: 'Paid',
      align: 'right',
      cell: (sale) => (
        <span title={paidParts(sale)}>
          <Price amount={sale.total - sale.discount + sale.buyerPostage} currency={sale.currency} />
        </span>
      ),
    },
    money('fees', 'Fees', (sale) => sale.fee),
    {
      id: 'parcel',
      head: 'Parcel',
      align: 'right',
      cell: (sale) =>
        sale.state === 'cancelled' ? <span className="quiet">–</span> : <Parcel sale={sale} done={assigned} />,
    },
    money(
      'cost',
      'Cost',
      (sale) => (sale.cost === null ? null : sale.cost * sale.quantity),
      (sale) => sale.netCurrency,
    ),
    {
      id: 'net',
      head: 'Net',
      align: 'right',
      cellClass: 'font-semibold',
      cell: (sale) =>
        sale.state === 'cancelled' ? (
          <span className="quiet">–</span>
        ) : (
          <Price amount={sale.net} currency={sale.netCurrency} tone />
        ),
    },
    {
      id: 'cancel',
      head: 'Cancel',
      isHeard: true,
      align: 'right',
      cell: (sale) =>
        sale.state === 'paid' ? (
          <span className="flex justify-end gap-2">
            {sale.unassigned ? <AssignOrder sale={sale} done={assigned} /> : null}
            <CancelOrder sale={sale} cancel={() => cancel(sale)} />
          </span>
        ) : null,
    },
  ];
  return <DataTable rows={sales} columns={columns} idOf={(sale) => sale.id} />;
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
