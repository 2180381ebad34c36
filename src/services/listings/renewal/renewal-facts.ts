import { eq, inArray } from 'drizzle-orm';
import { z } from 'zod';
import type { RenewalFacts } from '../../../core/sync';
import type { Executor } from '../../../db/client';
import type { ListingRow } from '../../../db/schema';
import { item, listing } from '../../../db/schema';

export const factsOf = (row: ListingRow, quantity: number): RenewalFacts => ({
  state: row.remote === 'live' ? 'live' : row.remote === 'review' ? 'review' : 'elsewhere',
  liveSince: row.liveSince,
  renewsAt: row.renewsAt,
  offersOpen: row.offersOpen,
  quantity: Math.min(quantity, row.wantedQuantity),
  busy: row.busy,
});

const chosen = z.object({ listings: z.array(z.number().int()).min(1).max(5_000) }).strict();

export const renewSchema = chosen;

export async function chosenRows(db: Executor, ids: number[]) {
  return db
    .select({ listing, quantity: item.quantity, cost: item.cost })
    .from(listing)
    .innerJoin(item, eq(item.id, listing.itemId))
    .where(inArray(listing.id, ids));
}
