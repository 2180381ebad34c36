import { and, count, eq, inArray, ne, sql } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../db/client';
import { item, kitLot } from '../../db/schema';
import { loadKit } from './load-kit';

export const placesSchema = z.object({ places: z.array(z.string().trim().min(1).max(60)).min(1).max(5_000) }).strict();

/** How many things lie at each place: items in stock, and lots of all sets that wait for it. */
export async function takenPlaces(
  id: number,
  { places }: z.output<typeof placesSchema>,
): Promise<{ taken: { place: string; lots: number }[] }> {
  const db = database();
  await loadKit(db, id);
  const inStock = await db
    .select({ place: item.location, lots: count() })
    .from(item)
    .where(and(eq(item.standing, 'active'), inArray(item.location, places), sql`${item.quantity} > 0`))
    .groupBy(item.location);
  const waiting = await db
    .select({ place: kitLot.place, lots: count() })
    .from(kitLot)
    // Those of these very sets are known to whoever asks.
    .where(and(ne(kitLot.kitId, id), inArray(kitLot.place, places), inArray(kitLot.state, ['open', 'later'])))
    .groupBy(kitLot.place);
  const all = new Map<string, number>();
  for (const { place, lots } of [...inStock, ...waiting]) all.set(place, (all.get(place) ?? 0) + lots);
  return { taken: [...all].map(([place, lots]) => ({ place, lots })) };
}
