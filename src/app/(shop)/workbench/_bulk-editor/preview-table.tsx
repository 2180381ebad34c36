import type { AccountView } from '@/services/accounts/find-accounts';
import type { PreviewRow } from '@/services/changes/preview-rows';
import { type Column, DataTable } from '@/ui/controls/data-table';
import { Price } from '@/ui/controls/format';
import { ItemCell } from '@/ui/controls/item-cell';

/** Old and new side by side, with what is left on each account. */
export function PreviewTable({ rows, accounts }: { rows: PreviewRow[]; accounts: AccountView[] }) {
  const shown = accounts.filter((account) => rows.some((row) => row.nets.some((net) => net.accountId === account.id)));
  const columns: Column<PreviewRow>[] = [
    {
      id: 'item',
      head: 'Item',
      className: 'max-w-64',
      cell: (row) => (
        <ItemCell {...row} below={row.refused ? <span className="text-warning">{row.refused}</span> : becomes(row)} />
      ),
    },
    {
      id: 'price',
      head: 'Price',
      align: 'right',
      cellClass: 'whitespace-nowrap',
      cell: (row) => <Change before={row.before.price} after={row.after.price} money />,
    },
    {
      id: 'stock',
      head: 'Stock',
      align: 'right',
      cellClass: 'whitespace-nowrap',
      cell: (row) => <Change before={row.before.quantity} after={row.after.quantity} />,
    },
    ...shown.map(
      (account): Column<PreviewRow> => ({
        id: `net-${account.id}`,
        head: `Net ${account.name}`,
        align: 'right',
        cellClass: 'whitespace-nowrap',
        cell: (row) => {
          const net = row.nets.find((one) => one.accountId === account.id);
          if (!net) return null;
          return (
            <>
              <Price amount={net.after} currency={account.currency} tone />
              {net.keepsOverride ? <span className="quiet block text-[11px]">keeps its own price</span> : null}
            </>
          );
        },
      }),
    ),
  ];
  return (
    <DataTable
      rows={rows}
      columns={columns}
      idOf={(row) => row.id}
      sticky
      rowClass={(row) => (row.changed ? '' : 'quiet')}
    />
  );
}

/** The new title, where it becomes another one. */
const becomes = (row: PreviewRow) =>
  row.after.title === row.title ? row.sku : <b className="font-semibold">{row.after.title}</b>;

function Change({ before, after, money = false }: { before: number | null; after: number | null; money?: boolean }) {
  const show = (value: number | null) => (money ? <Price amount={value} /> : <span className="figures">{value}</span>);
  if (before === after) return show(after);
  return (
    <>
      <span className="quiet mr-2 line-through">{show(before)}</span>
      <b className="font-semibold">{show(after)}</b>
    </>
  );
}
