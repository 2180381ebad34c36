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
import { NewKit } from './new-kit';

type Row = Answer<'GET /kits'>['kits'][number];

const columns: Column<Row>[] = [
  {
    id: 'name',
    head: 'Sets',
    names: true,
    cell: (row) => (
      <Link className="font-medium hover:underline" href={`/kits/${row.id}`}>
        {row.name}
      </Link>
    ),
  },
  { id: 'state', head: 'State', cell: (row) => (row.state === 'open' ? 'being taken apart' : 'closed') },
  { id: 'lots', head: 'Lots', align: 'right', cell: (row) => row.lots.toLocaleString('en') },
  { id: 'pieces', head: 'Pieces', align: 'right', cell: (row) => row.pieces.toLocaleString('en') },
  { id: 'done', head: 'In stock', align: 'right', cell: (row) => row.done.toLocaleString('en') },
  { id: 'cost', head: 'Cost in all', align: 'right', cell: (row) => <Price amount={row.totalCost} /> },
  { id: 'by', head: 'Begun by', cell: (row) => row.byName },
  { id: 'at', head: 'Begun', cell: (row) => <When at={row.createdAt} /> },
];

/** Sets that were bought whole and are sold in parts, each list a sitting that can be left. */
export function Kits() {
  const [isNew, setIsNew] = useState(false);
  const pages = useInfiniteQuery({
    queryKey: ['kits'],
    queryFn: ({ pageParam }) => api('GET /kits', { query: { before: pageParam || undefined } }),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next ?? undefined,
  });
  const rows = pages.data?.pages.flatMap((page) => page.kits) ?? [];
  const begin = () => setIsNew(true);
  return (
    <>
      <PageHead title="Sets">
        <span className="quiet">Bought whole, sold in parts</span>
        <button type="button" className="btn btn-primary btn-sm ml-auto" onClick={begin}>
          Take sets apart
        </button>
        <AsFile of="GET /kits/file" what="The sets" />
      </PageHead>
      {pages.isPending ? <Loading what="the sets" /> : null}
      {pages.error ? <Failed error={pages.error} retry={() => void pages.refetch()} /> : null}
      {pages.data && rows.length === 0 ? (
        <Empty title="No set is taken apart yet">
          <p>
            A set holds many different things, some of them several times. Say which sets you have and how many: equal
            parts become one lot, each lot gets its price and its place, and those that are ready go into stock.
          </p>
          <button type="button" className="btn btn-sm" onClick={begin}>
            Take the first ones apart
          </button>
        </Empty>
      ) : null}
      {rows.length ? <DataTable rows={rows} columns={columns} idOf={(row) => row.id} sticky /> : null}
      <FurtherPages pages={pages} words="Show earlier ones" />
      {isNew ? <NewKit close={() => setIsNew(false)} /> : null}
    </>
  );
}
