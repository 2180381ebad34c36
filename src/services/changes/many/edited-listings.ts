import { inArray } from 'drizzle-orm';
import type { Executor } from '../../../db/client';
import { listing } from '../../../db/schema';

/** What a change of many has to know of the listings of these items, without holding them. */
export const findEditedListings = (db: Executor, ids: number[]) =>
  ids.length === 0
    ? Promise.resolve([])
    : db
        .select({
          itemId: listing.itemId,
          accountId: listing.accountId,
          overrides: listing.overrides,
          wanted: listing.wanted,
          busy: listing.busy,
          remote: listing.remote,
          remoteId: listing.remoteId,
          sent: listing.sent,
          timesMade: listing.timesMade,
          dirty: listing.dirty,
          state: listing.state,
        })
        .from(listing, { forceIndex: 'listing_knot' })
        .where(inArray(listing.itemId, ids));
