import { sql } from 'drizzle-orm';
import type { MySqlColumn } from 'drizzle-orm/mysql-core';
import { type Item, isPatchable } from '../../../core/item/item';
import type { Executor } from '../../../db/client';
import { literal } from '../../../db/literal';
import { item, itemPhoto } from '../../../db/schema';
import { updateMany } from '../../../db/update-many';
import { sumUpPhotos } from '../../records/photos/sum-up-photos';

/** An item as it is now, and which of its fields became different. */
export type ChangedItem = { item: Item; fields: ReadonlySet<string> };

const isPhotos = (field: string) => field === 'photos' || field === 'flaws';

/** Columns to write, by their names in the table. */
function columnsOf({ item: now, fields }: ChangedItem): [MySqlColumn, unknown][] {
  const set: [MySqlColumn, unknown][] = [];
  for (const field of fields)
    if (isPatchable(field)) set.push([item[field], now[field]]);
    else if (field === 'quantity') set.push([item.quantity, now.quantity]);
    else if (field === 'clip') set.push([item.clip, now.clip]);
    else if (field === 'elsewhere') set.push([item.elsewhere, now.elsewhere]);
    else if (field === 'placings') set.push([item.placings, now.placings]);
    else if (field === 'looks') set.push([item.looks, now.looks]);
    else if (field === 'standing') set.push([item.standing, now.standing]);
  if (fields.has('photos'))
    set.push([item.mainPhoto, now.photos[0]?.hash ?? null], [item.photoCount, now.photos.length]);
  return set;
}

/** Writes the changed columns of many items, those that share the same columns in one statement. Each gets its next version. */
export async function writeItems(db: Executor, changed: readonly ChangedItem[], at: Date): Promise<void> {
  await updateMany(
    db,
    'item',
    changed.map((one) => ({ id: one.item.id, set: columnsOf(one) })),
    sql`r.version = r.version + 1, r.updated_at = ${sql.raw(literal(at))}`,
  );
  await writePhotos(
    db,
    changed.filter((one) => [...one.fields].some(isPhotos)).map((one) => one.item),
  );
}

async function writePhotos(db: Executor, items: readonly Item[]): Promise<void> {
  if (items.length === 0) return;
  await db.execute(sql`delete from item_photo where item_id in ${items.map((one) => one.id)}`);
  const rows = items.flatMap((one) =>
    one.photos.map(({ hash, flaw }, position) => ({ itemId: one.id, position, hash, flaw: flaw ?? null })),
  );
  if (rows.length) await db.insert(itemPhoto).values(rows);
  await sumUpPhotos(
    db,
    items.map((one) => one.id),
  );
}
