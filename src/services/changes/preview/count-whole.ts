import { sql } from 'drizzle-orm';
import { applySteps } from '../../../core/edit';
import { database, withConnection } from '../../../db/client';
import { readRows } from '../../../db/raw';
import { itemRecord } from '../../records/items/item-record';
import { groupByItem, loadItems } from '../../records/items/load-items';
import { selectionWhere } from '../../records/items/selection';
import { accountNets } from '../../records/listings/account-nets';
import type { Edit } from '../many/edit-schema';
import { findEditedListings } from '../many/edited-listings';
import { hearSales } from '../many/followed-sales';
import { stepContext } from '../many/step-context';
import { lookFor, photosFor } from '../many/step-photos';
import { Consequences, type EditConsequences } from './consequences';
import { weighChange } from './weigh-change';

/** As many items are read at once as are counted in about a tenth of a second: who waits sees it move, and can stop it. */
const firstPortion = 50;
const mostAtOnce = 500;
const aimMs = 100;

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
      lookFor(edit.steps, ids),
    ]);
    const photos = await photosFor(db, edit.steps, items, listings);
    return { items, photos, byItem: groupByItem(listings), next: from + ids.length };
  };
  let size = firstPortion;
  let coming = read(0, size);
  for (let at = 0; at < all.length; ) {
    const { items, photos, byItem, next } = await coming;
    coming = read(next, size);
    // Whoever stops here must not leave a failure behind that nobody hears.
    coming.catch(() => undefined);
    const began = performance.now();
    for (const item of items) {
      total.items++;
      const rows = byItem.get(item.id) ?? [];
      const result = applySteps(edit.steps, itemRecord(item, rows), { ...context, photos });
      if ('refused' in result) {
        total.refuse(item.id, result.refused);
        continue;
      }
      if (result.changes.length === 0) continue;
      total.changed++;
      const after = result.record;
      weighChange(total, nets, { item, rows, after });
    }
    const tookMs = performance.now() - began;
    size = Math.round(Math.max(10, Math.min(mostAtOnce, size * 2, (items.length * aimMs) / Math.max(1, tookMs))));
    at = next;
    yield total.view(at >= all.length);
  }
  if (all.length === 0) yield total.view(true);
}
