import { sql } from 'drizzle-orm';
import { applySteps } from '../../core/edit';
import { computeListing } from '../../core/listing';
import { diff } from '../../core/sync';
import { database, withConnection } from '../../db/client';
import { readRows } from '../../db/raw';
import { inputOf } from '../records/compute-row';
import { groupByItem, loadItems } from '../records/load-items';
import { selectionWhere } from '../records/selection';
import { Consequences, type EditConsequences } from './consequences';
import { accountNets, netAt } from './edit-nets';
import type { Edit } from './edit-schema';
import { findEditedListings } from './edited-listings';
import { netTuple } from './net-tuple';
import { stepContext } from './step-context';

/** So many items are read at once: memory stays flat. */
const portion = 400;

/**
 * The same counts for steps on any field: each item is changed in memory, and each of its live listings computed as it is
 * and as it becomes.
 */
export async function countWhole(edit: Edit): Promise<EditConsequences> {
  const db = database();
  const [nets, { context }] = await Promise.all([accountNets(), stepContext(db)]);
  const total = new Consequences(nets);
  const all = await withConnection((connection) =>
    readRows<[number]>(connection, sql`select i.id from item i where ${selectionWhere(edit.selection)} order by i.id`),
  );
  for (let from = 0; from < all.length; from += portion) {
    const ids = all.slice(from, from + portion).map(([id]) => id);
    const [items, listings] = await Promise.all([loadItems(db, ids), findEditedListings(db, ids)]);
    const byItem = groupByItem(listings);
    for (const item of items) {
      total.items++;
      const rows = byItem.get(item.id) ?? [];
      const overrides = new Map(rows.map((row) => [row.accountId, row.overrides]));
      const result = applySteps(edit.steps, { item, overrides }, context);
      if ('refused' in result) {
        total.refuse(result.refused);
        continue;
      }
      if (result.changes.length === 0) continue;
      total.changed++;
      for (const row of rows) {
        const net = nets.get(row.accountId);
        if (row.remote !== 'live' || !net) continue;
        const own = result.record.overrides.get(row.accountId) ?? {};
        const was = computeListing(inputOf(item, row, net.account));
        const becomes = computeListing(inputOf(result.record.item, { ...row, overrides: own }, net.account));
        const amount = (value: unknown) => (typeof value === 'number' ? value : null);
        total.add(net, {
          isChanged: diff(was.content, becomes.content).length > 0,
          isBlocked: was.ready && !becomes.ready,
          keepsOverride: amount(own.price) !== null && result.record.item.price !== item.price,
          price: amount(becomes.content.price),
          netBefore: netAt(net, netTuple(item), amount(was.content.price)),
          netAfter: netAt(net, netTuple(result.record.item), amount(becomes.content.price)),
        });
      }
    }
  }
  return total.view;
}
