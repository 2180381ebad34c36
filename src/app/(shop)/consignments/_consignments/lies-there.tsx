'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Answer } from '@/http/interface';
import { AsFile } from '@/ui/controls/as-file';
import { type Column, DataTable } from '@/ui/controls/data-table';
import { Price } from '@/ui/controls/format';
import { Link } from '@/ui/controls/link';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';

type Shop = Answer<'GET /consignments/stock'>['accounts'][number];
type Row = Shop['rows'][number];

const columns: Column<Row>[] = [
  {
    id: 'item',
    head: 'Item',
    names: true,
    cell: (one) =>
      one.item === null ? (
        <>
          <span className="mono text-[12px]">{one.sku}</span> <span className="text-warning">no item of yours</span>
        </>
      ) : (
        <Link className="hover:underline" href={`/items/${one.item}`}>
          <span className="mono text-[12px]">{one.sku}</span> {one.title}
        </Link>
      ),
  },
  { id: 'ours', head: 'By your ledger', align: 'right', cell: (one) => one.ours },
  {
    id: 'theirs',
    head: 'By them',
    align: 'right',
    cell: (one) => <span className={one.ours === one.theirs ? '' : 'font-semibold text-warning'}>{one.theirs}</span>,
  },
  { id: 'monthly', head: 'A month there', align: 'right', cell: (one) => <Price amount={one.monthly} /> },
];

/** What lies in the warehouses, as both sides tell it, and what that costs; asked when somebody wants to know. */
export function LiesThere() {
  const [isAsked, setIsAsked] = useState(false);
  const { data, isFetching, error, refetch } = useQuery({
    queryKey: ['stock-there'],
    queryFn: () => api('GET /consignments/stock'),
    enabled: isAsked,
  });
  return (
    <section aria-labelledby="lies-there" className="p-4">
      <div className="mb-2 flex items-center gap-3">
        <h2 id="lies-there" className="font-semibold">
          What lies there
        </h2>
        <button
          type="button"
          className="btn btn-sm"
          disabled={isFetching}
          onClick={() => (isAsked ? void refetch() : setIsAsked(true))}
        >
          Ask the warehouses
        </button>
        <AsFile of="GET /consignments/stock/file" what="What lies there" />
      </div>
      {isFetching && !data ? <Loading what="what lies there" /> : null}
      {error ? <Failed error={error} retry={() => void refetch()} /> : null}
      {data?.accounts.map((shop) => (
        <div key={shop.accountId} className="mb-4">
          <h3 className="mb-1">
            {shop.accountName}
            {shop.rows.length ? (
              <span className="quiet">
                , <Price amount={shop.rows.reduce((sum, one) => sum + one.monthly, 0)} /> a month
              </span>
            ) : null}
          </h3>
          {shop.problem ? <p className="text-error">{shop.problem}</p> : null}
          {shop.rows.length ? (
            <DataTable rows={shop.rows} columns={columns} idOf={(one) => one.sku} look="part" />
          ) : shop.problem ? null : (
            <p className="quiet">Nothing lies there.</p>
          )}
        </div>
      ))}
    </section>
  );
}
