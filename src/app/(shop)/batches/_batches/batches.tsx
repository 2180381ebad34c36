'use client';

import { useInfiniteQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Answer } from '@/http/interface';
import { AsFile } from '@/ui/controls/as-file';
import { type Column, DataTable } from '@/ui/controls/data-table';
import { Price } from '@/ui/controls/format';
import { FurtherPages } from '@/ui/controls/further-pages';
import { Link } from '@/ui/controls/link';
import { Empty, Failed, Loading, PageHead } from '@/ui/controls/states';
import { When } from '@/ui/controls/when';
import { api } from '@/ui/data/api';
import { NewBatch } from './new-batch';
import { stateWords } from './state-words';

type Row = Answer<'GET /batches'>['batches'][number];

const columns: Column<Row>[] = [
  {
    id: 'name',
    head: 'Batch',
    names: true,
    cell: (row) => (
      <Link className="font-medium hover:underline" href={`/batches/${row.id}`}>
        {row.name} <span className="mono quiet text-[12px]">B{row.id}</span>
      </Link>
    ),
  },
  { id: 'state', head: 'State', cell: (row) => stateWords[row.state] },
  { id: 'supplier', head: 'Supplier', cell: (row) => row.supplier || <span className="quiet">–</span> },
  { id: 'units', head: 'Units', align: 'right', cell: (row) => row.units.toLocaleString('en') },
  { id: 'lines', head: 'Scans', align: 'right', cell: (row) => row.lines.toLocaleString('en') },
  {
    id: 'open',
    head: 'Wait for you',
    align: 'right',
    cell: (row) => (row.open ? <span className="font-semibold text-warning">{row.open}</span> : 0),
  },
  { id: 'cost', head: 'Cost in all', align: 'right', cell: (row) => <Price amount={row.totalCost} /> },
  { id: 'by', head: 'Begun by', cell: (row) => row.byName },
  { id: 'last', head: 'Last scan', cell: (row) => (row.lastAt ? <When at={row.lastAt} /> : 'nothing yet') },
];

/** Piles that were bought together, each recorded in one sitting. */
export function Batches() {
  const [isNew, setIsNew] = useState(false);
  const { data, isPending, error, refetch, hasNextPage, fetchNextPage, isFetchingNextPage } = useInfiniteQuery({
    queryKey: ['batches'],
    queryFn: ({ pageParam }) => api('GET /batches', { query: { before: pageParam || undefined } }),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next ?? undefined,
    refetchInterval: 8_000,
  });
  const rows = data?.pages.flatMap((page) => page.batches) ?? [];
  return (
    <>
      <PageHead title="Batches">
        <span className="quiet">What came in together, recorded in one sitting</span>
        <button type="button" className="btn btn-primary btn-sm ml-auto" onClick={() => setIsNew(true)}>
          New batch
        </button>
        <AsFile of="GET /batches/file" what="The batches" />
      </PageHead>
      {isPending ? <Loading what="the batches" /> : null}
      {error ? <Failed error={error} retry={() => void refetch()} /> : null}
      {data && rows.length === 0 ? (
        <Empty title="No batch yet">
          <p>
            A batch is a pile that was bought together. Give it a name, say what all of it cost, and scan piece after
            piece: each scan makes an item.
          </p>
          <button type="button" className="btn btn-sm" onClick={() => setIsNew(true)}>
            Begin the first batch
          </button>
        </Empty>
      ) : null}
      {rows.length ? <DataTable rows={rows} columns={columns} idOf={(row) => row.id} sticky /> : null}
      <FurtherPages pages={{ hasNextPage, isFetchingNextPage, fetchNextPage }} words="Show earlier batches" />
      {isNew ? <NewBatch close={() => setIsNew(false)} /> : null}
    </>
  );
}
