import type { ItemRecord } from '../../../core/change';
import type { Item } from '../../../core/item';
import { type ComputedListing, type Content, computeListing } from '../../../core/listing';
import { type NetThing, netOfContent } from '../../../core/listing/net';
import { diff } from '../../../core/sync';
import type { LoadedAccount } from '../../records/accounts/load-accounts';
import type { AccountNet } from '../../records/listings/account-nets';
import { inputOf } from '../../records/listings/compute-row';
import type { findEditedListings } from '../many/edited-listings';
import type { Consequences } from './consequences';

const netsOf = ({ account, liveCount }: AccountNet, content: Content, thing: NetThing) => {
  const found = netOfContent(account, content, thing, liveCount);
  return found && { net: found.net, fees: found.fees.total };
};

type Row = Awaited<ReturnType<typeof findEditedListings>>[number];

/**
 * What a listing is before the change. Where nothing waits to be sent, what was sent last is just what would be computed
 * again: half of the work is saved.
 */
function before(item: Item, row: Row, account: LoadedAccount): Content {
  const isClean = !row.dirty && row.sent !== null && 'title' in row.sent;
  return isClean && row.sent ? row.sent : computeListing(inputOf(item, row, account)).content;
}

/** The blocking issues that a listing did not have before. */
function breaksOf(item: Item, row: Row, account: LoadedAccount, becomes: ComputedListing) {
  if (becomes.ready) return [];
  const was = computeListing(inputOf(item, row, account));
  // What is sold out or put away ends: nothing of it has to be mended.
  const known = new Set(was.issues.filter((one) => one.blocks).map((one) => one.message));
  return becomes.issues
    .filter((one) => one.blocks && one.code !== 'quantity-none' && !known.has(one.message))
    .map(({ message, fix }) => ({ message, fix: fix.label }));
}

/** Adds up what becomes of an item's live listings: each is computed as it is and as it becomes. */
export function weighChange(
  total: Consequences,
  nets: ReadonlyMap<number, AccountNet>,
  { item, rows, after }: { item: Item; rows: readonly Row[]; after: ItemRecord },
): void {
  for (const row of rows) {
    const net = nets.get(row.accountId);
    if (row.remote !== 'live' || !net) continue;
    const own = after.overrides.get(row.accountId) ?? {};
    const was = before(item, row, net.account);
    const becomes = computeListing(inputOf(after.item, { ...row, overrides: own }, net.account));
    const labels = new Map(becomes.values.map((one) => [one.field, one.label]));
    total.add(net, {
      fields: new Map(
        diff(was, becomes.content).map(({ field, to }) =>
          field === 'quantity' && to === 0 ? ['ends', 'Ends there'] : [field, labels.get(field) ?? field],
        ),
      ),
      breaks: breaksOf(item, row, net.account, becomes),
      keepsOverride: typeof own.price === 'number' && after.item.price !== item.price,
      before: netsOf(net, was, item),
      after: becomes.content.quantity === 0 ? null : netsOf(net, becomes.content, after.item),
    });
  }
}
