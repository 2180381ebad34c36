import { sql } from 'drizzle-orm';
import { applySteps } from '../../core/edit';
import type { Item } from '../../core/item';
import { type ComputedListing, type Content, computeListing } from '../../core/listing';
import { type NetThing, netOfContent } from '../../core/listing/net';
import { diff } from '../../core/sync';
import { database, withConnection } from '../../db/client';
import { readRows } from '../../db/raw';
import { type AccountNet, accountNets } from '../records/account-nets';
import { inputOf } from '../records/compute-row';
import { itemRecord } from '../records/item-record';
import type { LoadedAccount } from '../records/load-accounts';
import { groupByItem, loadItems } from '../records/load-items';
import { selectionWhere } from '../records/selection';
import { Consequences, type EditConsequences } from './consequences';
import type { Edit } from './edit-schema';
import { findEditedListings } from './edited-listings';
import { hearSales } from './followed-sales';
import { stepContext } from './step-context';

/** As many items are read at once as are counted in about a tenth of a second: who waits sees it move, and can stop it. */
const firstPortion = 50;
const mostAtOnce = 500;
const aimMs = 100;

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

/**
 * What steps on any field come to: each item is changed in memory, and each of its live listings computed as it is and as
 * it becomes. What has been counted by now comes portion by portion, the whole at last; while one portion is counted the
 * next one is read.
 */
export async function* countWhole(edit: Edit): AsyncGenerator<EditConsequences> {
  const db = database();
  const [nets, { context }] = await Promise.all([accountNets(), stepContext(db, edit.steps)]);
  const total = new Consequences(nets);
  const all = await withConnection((connection) =>
    readRows<[number]>(connection, sql`select i.id from item i where ${selectionWhere(edit.selection)} order by i.id`),
  );
  total.total = all.length;
  const read = async (from: number, size: number) => {
    const ids = all.slice(from, from + size).map(([id]) => id);
    const [items, listings] = await Promise.all([
      loadItems(db, ids),
      findEditedListings(db, ids),
      hearSales(edit.steps, ids),
    ]);
    return { items, byItem: groupByItem(listings), next: from + ids.length };
  };
  let size = firstPortion;
  let coming = read(0, size);
  for (let at = 0; at < all.length; ) {
    const { items, byItem, next } = await coming;
    coming = read(next, size);
    // Whoever stops here must not leave a failure behind that nobody hears.
    coming.catch(() => undefined);
    const began = performance.now();
    for (const item of items) {
      total.items++;
      const rows = byItem.get(item.id) ?? [];
      const result = applySteps(edit.steps, itemRecord(item, rows), context);
      if ('refused' in result) {
        total.refuse(item.id, result.refused);
        continue;
      }
      if (result.changes.length === 0) continue;
      total.changed++;
      const after = result.record;
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
    const tookMs = performance.now() - began;
    size = Math.round(Math.max(10, Math.min(mostAtOnce, size * 2, (items.length * aimMs) / Math.max(1, tookMs))));
    at = next;
    yield total.view(at >= all.length);
  }
  if (all.length === 0) yield total.view(true);
}
