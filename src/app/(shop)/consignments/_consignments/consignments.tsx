'use client';

import { useInfiniteQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Answer } from '@/http/interface';
import { AsFile } from '@/ui/controls/as-file';
import { type Column, DataTable } from '@/ui/controls/data-table';
import { FurtherPages } from '@/ui/controls/further-pages';
import { Link } from '@/ui/controls/link';
import { Empty, Failed, Loading, PageHead } from '@/ui/controls/states';
import { When } from '@/ui/controls/when';
import { api } from '@/ui/data/api';
import { LiesThere } from './lies-there';
import { NewConsignment } from './new-consignment';
import { consignmentWords } from './state-words';

type Row = Answer<'GET /consignments'>['consignments'][number];

const columns: Column<Row>[] = [
  {
    id: 'name',
    head: 'Consignment',
    names: true,
    cell: (row) => (
      <Link className="font-medium hover:underline" href={`/consignments/${row.id}`}>
        {row.name}
      </Link>
    ),
  },
  { id: 'state', head: 'State', cell: (row) => consignmentWords[row.state] },
  { id: 'to', head: 'To', cell: (row) => [row.accountName, row.warehouses.join(', ')].filter(Boolean).join(': ') },
  { id: 'units', head: 'Units', align: 'right', cell: (row) => row.units.toLocaleString('en') },
  { id: 'packed', head: 'Packed', align: 'right', cell: (row) => row.packed.toLocaleString('en') },
  {
    id: 'missing',
    head: 'Missing',
    align: 'right',
    cell: (row) => (row.missing ? <span className="font-semibold text-warning">{row.missing}</span> : 0),
  },
  {
    id: 'begun',
    head: 'Begun',
    cell: (row) => (
      <>
        <When at={row.createdAt} />, {row.byName}
      </>
    ),
  },
];

/** Stock that is sent in to marketplaces' warehouses. */
export function Consignments() {
  const [isNew, setIsNew] = useState(false);
  const { data, isPending, error, refetch, hasNextPage, fetchNextPage, isFetchingNextPage } = useInfiniteQuery({
    queryKey: ['consignments'],
    queryFn: ({ pageParam }) => api('GET /consignments', { query: { before: pageParam || undefined } }),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next ?? undefined,
    refetchInterval: 15_000,
  });
  const rows = data?.pages.flatMap((page) => page.consignments) ?? [];
  return (
    <>
      <PageHead title="Consignments">
        <span className="quiet">Stock on its way into a marketplace’s warehouse</span>
        <button type="button" className="btn btn-primary btn-sm ml-auto" onClick={() => setIsNew(true)}>
          New consignment
        </button>
        <AsFile of="GET /consignments/file" what="The consignments" />
      </PageHead>
      {isPending ? <Loading what="the consignments" /> : null}
      {error ? <Failed error={error} retry={() => void refetch()} /> : null}
      {data && rows.length === 0 ? (
        <Empty title="Nothing was sent in yet">
          <p>
            Some marketplaces keep and send what you sell. Choose what goes there, ask which warehouse takes what, pack
            while you scan, and see what arrives.
          </p>
          <button type="button" className="btn btn-sm" onClick={() => setIsNew(true)}>
            Begin the first consignment
          </button>
        </Empty>
      ) : null}
      {rows.length ? <DataTable rows={rows} columns={columns} idOf={(row) => row.id} sticky /> : null}
      <FurtherPages pages={{ hasNextPage, isFetchingNextPage, fetchNextPage }} words="Show earlier consignments" />
      {data ? <LiesThere /> : null}
      {isNew ? <NewConsignment close={() => setIsNew(false)} /> : null}
    </>
  );
}
