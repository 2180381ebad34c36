'use client';

import Link from 'next/link';
import type { AccountView } from '@/services/accounts/find-accounts';
import type { DriftView } from '@/services/sync/find-drift';
import { When } from '@/ui/controls/format';
import { Knot } from '@/ui/controls/knot';
import { fieldName, shownValue } from '@/ui/controls/shown-value';
import { photoUrl } from '@/ui/data/api';
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
  return (
    <li className="border-b border-base-300 px-4 py-2">
      <div className="flex items-center gap-3">
        {listing.photo ? (
          <img
            src={photoUrl(listing.photo, 'thumb')}
            alt=""
            width={28}
            height={28}
            className="h-7 w-7 rounded-sm object-cover"
          />
        ) : null}
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
      <table className="mt-1 w-full table-fixed">
        <thead className="quiet text-left text-[12px]">
          <tr>
            <th scope="col" className="w-36 font-medium">
              Field
            </th>
            <th scope="col" className="font-medium">
              Last sent
            </th>
            <th scope="col" className="font-medium">
              Wanted here
            </th>
            <th scope="col" className="font-medium">
              Shown there
            </th>
            <th scope="col" className="w-60 font-medium">
              <span className="sr-only">Settle</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {listing.fields.map((one) => {
            const which = { listing: listing.listingId, fields: [one.field] };
            const shown = (value: (typeof one)['ours']) => shownValue(one.field, value, account?.currency);
            return (
              <tr key={one.field} className="align-top">
                <th scope="row" className="text-left font-normal">
                  {fieldName(one.field)}
                  {one.verdict === 'conflict' ? (
                    <span className="block text-[12px] text-warning">both changed</span>
                  ) : null}
                </th>
                <td className="quiet line-clamp-3 pr-3 break-words">{shown(one.sent)}</td>
                <td className="pr-3 break-words">
                  <span className="line-clamp-3">{shown(one.ours)}</span>
                </td>
                <td className="pr-3 break-words">
                  <span className="line-clamp-3">{shown(one.theirs)}</span>
                </td>
                <td className="space-x-2 text-right whitespace-nowrap">
                  {one.canBeTaken ? (
                    <button
                      type="button"
                      className="btn btn-xs"
                      aria-label={`Take their ${fieldName(one.field).toLowerCase()} of ${listing.sku} on ${name}`}
                      onClick={() => void settle({ which, side: 'theirs' }, 'Taken over')}
                    >
                      Take theirs
                    </button>
                  ) : null}
                  <button
                    type="button"
                    className="btn btn-xs"
                    aria-label={`Put our ${fieldName(one.field).toLowerCase()} of ${listing.sku} back on ${name}`}
                    onClick={() => void settle({ which, side: 'ours' }, 'Ours goes back')}
                  >
                    Put ours back
                  </button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </li>
  );
}
