import type { AccountView } from '@/services/accounts/find-accounts';
import type { PreviewRow } from '@/services/changes/preview-rows';
import { Price } from '@/ui/controls/format';
import { photoUrl } from '@/ui/data/api';

/** Old and new side by side, with what is left on each account. */
export function PreviewTable({ rows, accounts }: { rows: PreviewRow[]; accounts: AccountView[] }) {
  const shown = accounts.filter((account) => rows.some((row) => row.nets.some((net) => net.accountId === account.id)));
  return (
    <table className="w-full">
      <thead className="sticky top-0 bg-base-200 text-[12px]">
        <tr>
          <th scope="col" className="px-2 py-1.5 text-left font-medium">
            Item
          </th>
          <th scope="col" className="px-2 py-1.5 text-right font-medium">
            Price
          </th>
          <th scope="col" className="px-2 py-1.5 text-right font-medium">
            Stock
          </th>
          {shown.map((account) => (
            <th key={account.id} scope="col" className="px-2 py-1.5 text-right font-medium">
              Net {account.name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.id} className={`border-b border-base-300/60 ${row.changed ? '' : 'quiet'}`}>
            <td className="max-w-64 px-2 py-1">
              <span className="flex items-center gap-2">
                {row.photo ? (
                  <img
                    src={photoUrl(row.photo, 'thumb')}
                    alt=""
                    width={28}
                    height={28}
                    className="h-7 w-7 shrink-0 rounded-sm object-cover"
                  />
                ) : null}
                <span className="min-w-0">
                  <span className="block truncate">{row.title || 'Untitled'}</span>
                  <span className="mono quiet block text-[11px]">
                    {row.refused ? <span className="text-warning">{row.refused}</span> : row.sku}
                  </span>
                </span>
              </span>
            </td>
            <td className="px-2 py-1 text-right whitespace-nowrap">
              <Change before={row.before.price} after={row.after.price} money />
            </td>
            <td className="px-2 py-1 text-right whitespace-nowrap">
              <Change before={row.before.quantity} after={row.after.quantity} />
            </td>
            {shown.map((account) => {
              const net = row.nets.find((one) => one.accountId === account.id);
              return (
                <td key={account.id} className="px-2 py-1 text-right whitespace-nowrap">
                  {net ? (
                    <>
                      <Price amount={net.after} currency={account.currency} tone />
                      {net.keepsOverride ? <span className="quiet block text-[11px]">keeps its own price</span> : null}
                    </>
                  ) : null}
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

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
