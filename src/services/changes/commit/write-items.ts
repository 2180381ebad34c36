import { sql } from 'drizzle-orm';
import type { MySqlColumn } from 'drizzle-orm/mysql-core';
import { type Item, isPatchable } from '../../../core/item/item';
import type { Executor } from '../../../db/client';
import { literal, valuesTable } from '../../../db/literal';
import { item, itemPhoto } from '../../../db/schema';
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
    else if (field === 'standing') set.push([item.standing, now.standing]);
  if (fields.has('photos'))
    set.push([item.mainPhoto, now.photos[0]?.hash ?? null], [item.photoCount, now.photos.length]);
  return set;
}

/** Writes the changed columns of many items, those that share the same columns in one statement. Each gets its next version. */
export async function writeItems(
  db: Executor,
  changed: readonly ChangedItem[],
  at: Date,
  portion = 500,
): Promise<void> {
  const groups = new Map<string, { columns: MySqlColumn[]; rows: { id: number; values: unknown[] }[] }>();
  for (const one of changed) {
    const set = columnsOf(one);
    const key = set.map(([column]) => column.name).join();
    const group = groups.get(key) ?? { columns: set.map(([column]) => column), rows: [] };
    group.rows.push({ id: one.item.id, values: set.map(([, value]) => value) });
    groups.set(key, group);
  }
  for (const { columns, rows } of groups.values()) {
    const names = columns.map((column) => column.name);
    const set = names.map((column) => sql.raw(`, i.\`${column}\` = v.\`${column}\``));
    for (let from = 0; from < rows.length; from += portion) {
      const values = rows
        .slice(from, from + portion)
        .map((row) => [row.id, ...columns.map((column, index) => column.mapToDriverValue(row.values[index]))]);
      await db.execute(
        sql`update item i join (${valuesTable(['id', ...names], values)}) v on v.id = i.id set i.version = i.version + 1, i.updated_at = ${sql.raw(literal(at))}${sql.join(set, sql``)}`,
      );
    }
  }
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
