'use client';

import { useQuery } from '@tanstack/react-query';
import { parseAsInteger, parseAsStringLiteral, useQueryState } from 'nuqs';
import type { Answer } from '@/http/interface';
import { AsFile } from '@/ui/controls/as-file';
import { type Column, DataTable } from '@/ui/controls/data-table';
import { Price } from '@/ui/controls/format';
import { Link } from '@/ui/controls/link';
import { Empty, Failed, Loading, PageHead } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { ArtworkPages } from '../../_artwork/artwork-pages';

type Earning = Answer<'GET /artworks/earnings'>['earnings'][number];
type Row = {
  id: string;
  itemId: number | null;
  name: string;
  product: string;
  pieces: number;
  net: number;
  unknown: number;
};

const ways = { both: 'Picture and product', picture: 'Picture', product: 'Product', account: 'Account' } as const;
type Way = keyof typeof ways;
const spans = [
  [30, '30 days'],
  [90, '90 days'],
  [365, 'A year'],
] as const;

const nameOf: Record<Way, (one: Earning) => [id: string, name: string, product: string]> = {
  both: (one) => [`${one.itemId} ${one.product}`, one.title, one.product],
  picture: (one) => [String(one.itemId), one.title, ''],
  product: (one) => [one.product, one.product || 'Not known', ''],
  account: (one) => [one.account, one.account || 'By hand', ''],
};

function summed(earnings: readonly Earning[], way: Way): Row[] {
  const rows = new Map<string, Row>();
  for (const one of earnings) {
    const [id, name, product] = nameOf[way](one);
    const row = rows.get(id) ?? {
      id,
      itemId: way === 'both' || way === 'picture' ? one.itemId : null,
      name,
      product,
      pieces: 0,
      net: 0,
      unknown: 0,
    };
    rows.set(id, {
      ...row,
      pieces: row.pieces + one.pieces,
      net: row.net + one.net,
      unknown: row.unknown + one.unknown,
    });
  }
  return [...rows.values()].sort((a, b) => b.net - a.net);
}

/** Which picture on which product earns. */
export function Earnings() {
  const [days, setDays] = useQueryState('days', parseAsInteger.withDefault(365));
  const [way, setWay] = useQueryState(
    'by',
    parseAsStringLiteral(Object.keys(ways) as Way[]).withDefault('both'), // keys of the constant above
  );
  const { data, isPending, error, refetch } = useQuery({
    queryKey: ['artwork-earnings', days],
    queryFn: () => api('GET /artworks/earnings', { query: { days } }),
  });
  const rows = summed(data?.earnings ?? [], way);
  const columns: Column<Row>[] = [
    {
      id: 'name',
      head: ways[way === 'both' ? 'picture' : way],
      names: true,
      cell: (row) =>
        row.itemId === null ? (
          row.name
        ) : (
          <Link className="font-medium hover:underline" href={`/items/${row.itemId}`}>
            {row.name}
          </Link>
        ),
    },
    ...(way === 'both' ? [{ id: 'product', head: 'Product', cell: (row: Row) => row.product || 'not known' }] : []),
    { id: 'pieces', head: 'Sold', align: 'right', cell: (row) => row.pieces.toLocaleString('en') },
    {
      id: 'net',
      head: 'Left of it',
      align: 'right',
      cell: (row) => (
        <>
          <Price amount={row.net} currency={data?.currency ?? 'EUR'} />
          {row.unknown ? <span className="quiet"> without {row.unknown} of which no rate was known</span> : null}
        </>
      ),
    },
  ];
  return (
    <>
      <PageHead title="Artwork">
        <ArtworkPages />
        <label className="ml-auto flex items-center gap-2 text-[13px]">
          by
          <select
            className="select select-sm w-52"
            value={way}
            onChange={(event) => void setWay(event.target.value as Way)} // the values of its options
          >
            {Object.entries(ways).map(([id, words]) => (
              <option key={id} value={id}>
                {words}
              </option>
            ))}
          </select>
        </label>
        <label className="flex items-center gap-2 text-[13px]">
          over
          <select
            className="select select-sm w-28"
            value={days}
            onChange={(event) => void setDays(Number(event.target.value))}
          >
            {spans.map(([span, words]) => (
              <option key={span} value={span}>
                {words}
              </option>
            ))}
          </select>
        </label>
        <AsFile of="GET /artworks/earnings/file" what="What earns" query={{ days }} />
      </PageHead>
      {isPending ? <Loading what="what was earned" /> : null}
      {error ? <Failed error={error} retry={() => void refetch()} /> : null}
      {data && rows.length === 0 ? (
        <Empty title="Nothing of it was sold in this time">
          <p>Once prints are sold, this says which picture on which product earns.</p>
        </Empty>
      ) : null}
      {rows.length ? <DataTable rows={rows} columns={columns} idOf={(row) => row.id} /> : null}
    </>
  );
}
