import { sql } from 'drizzle-orm';
import { type ItemFilter, readFilter } from '../../../core/filter';
import { database, type Executor } from '../../../db/client';
import { rowsOf } from '../../../db/rows';
import { knowNetsFor } from '../listings/know-nets';
import { whereOf } from './item-filter';

export async function countItems(filter: ItemFilter, db: Executor = database()): Promise<number> {
  await knowNetsFor([readFilter(filter)]);
  const [row] = rowsOf<{ count: number }>(
    await db.execute(sql`select count(*) as count from item i where ${whereOf(filter)}`),
  );
  return row?.count ?? 0;
}
