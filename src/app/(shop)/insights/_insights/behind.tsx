'use client';

import { useQuery } from '@tanstack/react-query';
import type { Answer, Interface } from '@/http/interface';
import { type Column, DataTable } from '@/ui/controls/data-table';
import { Dialog } from '@/ui/controls/dialog';
import { Price } from '@/ui/controls/format';
import { ItemCell } from '@/ui/controls/item-cell';
import { Link } from '@/ui/controls/link';
import { SelectionLink } from '@/ui/controls/selection-link';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';

type Asked = Interface['GET /insights/items']['query'];
type Item = Answer<'GET /insights/items'>['items'][number];
/** So many stock numbers fit into an address. */
const mostOpened = 150;

/** The items behind a figure, and the way to them in the inventory. */
export function Behind({
  title,
  behind,
  currency,
  close,
}: {
  title: string;
  behind: Record<string, string>;
  currency: string;
  close: () => void;
}) {
  const { data, isPending, error, refetch } = useQuery({
    queryKey: ['insight-items', behind],
    queryFn: () => api('GET /insights/items', { query: behind as Asked }), // handed out by the same interface, as an address says it
  });
  const columns: Column<Item>[] = [
    {
      id: 'item',
      head: 'Item',
      names: true,
      cell: (item) => <ItemCell photo={item.photo} title={item.title} sku={item.sku} href={`/items/${item.id}`} />,
    },
    {
      id: 'pieces',
      head: 'Pieces',
      align: 'right',
      className: 'w-20',
      cell: (item) => item.pieces.toLocaleString('en'),
    },
    {
      id: 'amount',
      head: behind.of === 'here' || behind.of === 'bought' ? 'Paid' : 'Net',
      align: 'right',
      className: 'w-32',
      cell: (item) => <Price amount={item.amount} currency={currency} />,
    },
  ];
  const items = data?.items ?? [];
  const where = JSON.stringify({ all: [{ field: 'sku', op: 'oneOf', value: items.map((one) => one.sku) }] });
  return (
    <Dialog title={title} close={close}>
      {isPending ? <Loading what="the items behind it" /> : null}
      {error ? <Failed error={error} retry={() => void refetch()} /> : null}
      {data ? (
        <>
          <p className="mb-2 flex items-baseline gap-3">
            <span>
              {data.count.toLocaleString('en')} {data.count === 1 ? 'item' : 'items'}
              {data.count > items.length ? `, of which the first ${items.length} are shown` : ''}
            </span>
            {data.ids.length > 0 ? (
              <SelectionLink className="btn btn-sm" to="/workbench" selection={{ kind: 'items', ids: data.ids }}>
                Change {data.ids.length < data.count ? `the first ${data.ids.length.toLocaleString('en')}` : 'them'} on
                the workbench
              </SelectionLink>
            ) : null}
            {items.length > 0 && data.count <= mostOpened ? (
              <Link className="link" href={`/?${new URLSearchParams({ where })}`}>
                Open in the inventory
              </Link>
            ) : null}
          </p>
          {items.length ? (
            <DataTable rows={items} columns={columns} idOf={(item) => item.id} look="part" fixed />
          ) : null}
        </>
      ) : null}
    </Dialog>
  );
}
