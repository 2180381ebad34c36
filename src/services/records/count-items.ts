import { sql } from 'drizzle-orm';
import type { ItemFilter } from '../../core/filter';
import { database, type Executor } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { whereOf } from './item-filter';

export async function countItems(filter: ItemFilter, db: Executor = database()): Promise<number> {
  const [row] = rowsOf<{ count: number }>(
    await db.execute(sql`select count(*) as count from item i where ${whereOf(filter)}`),
  );
  return row?.count ?? 0;
}
