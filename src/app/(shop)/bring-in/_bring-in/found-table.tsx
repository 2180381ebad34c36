import type { AccountView } from '@/services/accounts/find-accounts';
import type { FoundView } from '@/services/gathering/find-found';
import type { ItemMatch } from '@/services/listings/links/match-items';
import { DataTable } from '@/ui/controls/data-table';
import { Price } from '@/ui/controls/format';
import { Link } from '@/ui/controls/link';
import { When } from '@/ui/controls/when';
import type { Chosen } from './use-choice';
import { useMatches } from './use-matches';

type Props = { rows: FoundView[]; account: AccountView; choice: Chosen; words: Record<FoundView['state'], string> };

/** What a listing is to us: in an item already, probably one of ours, or new. */
function Standing({ row, match }: { row: FoundView; match: ItemMatch | null | undefined }) {
  if (row.item)
    return (
      <>
        In already:{' '}
        <Link className="link mono" href={`/items/${row.item.id}`}>
          {row.item.sku}
        </Link>
      </>
    );
  if (row.waitsIn !== null)
    return (
      <Link className="link" href={`/bring-in/${row.waitsIn}`}>
        Waits to be brought in
      </Link>
    );
  if (match === undefined) return <span className="quiet">…</span>;
  if (match === null) return <span className="quiet">New</span>;
  return (
    <span className="block truncate" title={match.why.join('; ')}>
      {match.isSure ? 'This one' : 'Probably this one'}:{' '}
      <Link className="link mono" href={`/items/${match.itemId}`}>
        {match.sku}
      </Link>
      <span className="quiet">, {match.why[0]}</span>
    </span>
  );
}

/** Listings as they stand on an account, the newest first. */
export function FoundTable({ rows, account, choice, words }: Props) {
  const matchOf = useMatches(account.id, rows);
  return (
    <DataTable
      rows={rows}
      idOf={(row) => row.id}
      sticky
      fixed
      columns={[
        {
          id: 'choose',
          head: 'Choose',
          isHeard: true,
          className: 'w-10',
          cell: (row) => (
            <input
              type="checkbox"
              className="checkbox checkbox-xs"
              aria-label={`Choose ${row.title || row.remoteId}`}
              disabled={row.item !== null || row.waitsIn !== null}
              checked={row.item === null && choice.has(row.id)}
              onChange={() => choice.toggle(row.id)}
            />
          ),
        },
        {
          id: 'listing',
          head: 'Listing',
          names: true,
          cell: (row) => (
            <span className="flex min-w-0 items-center gap-2">
              {row.hasPhoto ? (
                <img
                  src={`/api/found/${row.id}`}
                  alt=""
                  width={36}
                  height={36}
                  loading="lazy"
                  className="h-9 w-9 shrink-0 rounded-sm object-cover"
                />
              ) : (
                <span className="h-9 w-9 shrink-0" />
              )}
              <span className="min-w-0">
                <a
                  className="block truncate hover:underline"
                  href={row.url}
                  target="_blank"
                  rel="noreferrer"
                  dir="auto"
                >
                  {row.title || 'Without a title'}
                </a>
                <span className="mono quiet block truncate text-[11px]">
                  {row.remoteId}
                  {row.sku ? `, stock number ${row.sku}` : ''}
                </span>
              </span>
            </span>
          ),
        },
        { id: 'section', head: 'Section', className: 'w-44', cellClass: 'truncate', cell: (row) => row.section },
        { id: 'state', head: 'State', className: 'w-24', cell: (row) => words[row.state] },
        {
          id: 'price',
          head: 'Price',
          align: 'right',
          className: 'w-28',
          cell: (row) => <Price amount={row.price} currency={account.currency} />,
        },
        { id: 'quantity', head: 'Units', align: 'right', className: 'w-16', cell: (row) => row.quantity ?? '–' },
        {
          id: 'made',
          head: 'Listed',
          className: 'w-32',
          cellClass: 'truncate',
          cell: (row) => <When at={row.madeAt} />,
        },
        {
          id: 'standing',
          head: 'Here',
          className: 'w-80',
          cell: (row) => <Standing row={row} match={matchOf(row.id)} />,
        },
      ]}
    />
  );
}
