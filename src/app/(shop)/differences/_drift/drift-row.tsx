'use client';

import type { AccountView } from '@/services/accounts/find-accounts';
import type { DriftView } from '@/services/sync/find-drift';
import { DataTable } from '@/ui/controls/data-table';
import { Thumbnail } from '@/ui/controls/item-cell';
import { Knot } from '@/ui/controls/knot';
import { Link } from '@/ui/controls/link';
import { fieldName, shownValue } from '@/ui/controls/shown-value';
import { When } from '@/ui/controls/when';
import type { Settle } from './settle';

/** One listing: each field that differs with what was sent, what we want and what they show. */
export function DriftRow({
  listing,
  account,
  settle,
}: {
  listing: DriftView;
  account: AccountView | undefined;
  settle: Settle;
}) {
  const name = account?.name ?? 'the marketplace';
  const conflict = listing.fields.some((one) => one.verdict === 'conflict');
  const shown = (field: string, value: DriftView['fields'][number]['ours']) => (
    <span className="line-clamp-3">{shownValue(field, value, account?.currency)}</span>
  );
  return (
    <li className="border-b border-base-300 px-4 py-2">
      <div className="flex items-center gap-3">
        <Thumbnail photo={listing.photo} />
        <Knot state={conflict ? 'conflict' : 'changed'} />
        <Link href={`/items/${listing.itemId}`} className="truncate font-medium hover:underline">
          {listing.title || listing.sku}
        </Link>
        <span className="mono quiet">{listing.sku}</span>
        <span className="quiet ml-auto whitespace-nowrap">
          {listing.url ? (
            <a className="underline" href={listing.url} target="_blank" rel="noreferrer">
              {name}
            </a>
          ) : (
            name
          )}
          {listing.seenAt ? (
            <>
              , seen <When at={listing.seenAt} />
            </>
          ) : null}
        </span>
      </div>
      <DataTable
        look="part"
        fixed
        rows={listing.fields}
        idOf={(one) => one.field}
        rowClass={() => 'align-top'}
        columns={[
          {
            id: 'field',
            head: 'Field',
            names: true,
            className: 'w-36',
            cell: (one) => (
              <>
                {fieldName(one.field)}
                {one.verdict === 'conflict' ? (
                  <span className="block text-[12px] text-warning">both changed</span>
                ) : null}
              </>
            ),
          },
          { id: 'sent', head: 'Last sent', cellClass: 'quiet break-words', cell: (one) => shown(one.field, one.sent) },
          { id: 'ours', head: 'Wanted here', cellClass: 'break-words', cell: (one) => shown(one.field, one.ours) },
          { id: 'theirs', head: 'Shown there', cellClass: 'break-words', cell: (one) => shown(one.field, one.theirs) },
          {
            id: 'settle',
            head: 'Settle',
            isHeard: true,
            align: 'right',
            className: 'w-60 space-x-2 whitespace-nowrap',
            cell: (one) => {
              const which = { listing: listing.listingId, fields: [one.field] };
              const what = fieldName(one.field).toLowerCase();
              return (
                <>
                  {one.canBeTaken ? (
                    <button
                      type="button"
                      className="btn btn-xs"
                      aria-label={`Take their ${what} of ${listing.sku} on ${name}`}
                      onClick={() => void settle({ which, side: 'theirs' }, 'Taken over')}
                    >
                      Take theirs
                    </button>
                  ) : null}
                  <button
                    type="button"
                    className="btn btn-xs"
                    aria-label={`Put our ${what} of ${listing.sku} back on ${name}`}
                    onClick={() => void settle({ which, side: 'ours' }, 'Ours goes back')}
                  >
                    Put ours back
                  </button>
                </>
              );
            },
          },
        ]}
      />
    </li>
  );
}
