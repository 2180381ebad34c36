import { eq, sql } from 'drizzle-orm';
import type { Counted } from '../../core/kit';
import type { Executor } from '../../db/client';
import { item, kitLot, run } from '../../db/schema';

/** What totals and shares count of lots; the whole ones, with all that they hold, are read only where they are shown. */
export async function countedLots(db: Executor, id: number): Promise<(Counted & { id: number })[]> {
  const rows = await db
    .select({
      id: kitLot.id,
      quantity: kitLot.quantity,
      grams: kitLot.grams,
      price: sql<
        number | null
      >`if(${kitLot.state} = 'done' and not json_contains(${kitLot.edited}, '"price"'), coalesce(${item.price}, ${kitLot.price}), ${kitLot.price})`,
      state: kitLot.state,
      isThere: sql<number>`coalesce(${item.standing} <> 2, 0) and ${run.undoneBy} is null`.mapWith(Number),
    })
    .from(kitLot)
    .leftJoin(item, eq(item.id, kitLot.itemId))
    .leftJoin(run, eq(run.id, kitLot.runId))
    .where(eq(kitLot.kitId, id));
  return rows.map(({ isThere, state, ...one }) => ({
    ...one,
    state: state === 'done' && !isThere ? ('open' as const) : state,
  }));
}
