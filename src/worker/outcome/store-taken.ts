import { eq } from 'drizzle-orm';
import { transaction } from '../../db/client';
import { listing } from '../../db/schema';
import type { JobRow } from '../claim';
import { hold, isOwn } from './close';
import { baseAfter, numberOrNull, type Sent, sentAfter } from './sent';

/** They took a part of what was sent: that is known; the rest stays unknown and goes with the next try. */
export async function storeTaken(row: JobRow, worker: string, sent: Sent): Promise<void> {
  await transaction(async (tx) => {
    if (!isOwn(await hold(tx, row), row, worker)) return;
    const [before] = await tx.select().from(listing).where(eq(listing.id, row.listingId));
    const now = sentAfter(before?.sent ?? null, sent);
    await tx
      .update(listing)
      .set({
        sentAt: new Date(),
        seenAt: new Date(),
        seen: sent.remote.content,
        base: baseAfter(before?.base ?? null, sent),
        sent: now,
        sentPrice: numberOrNull(now.price),
        sentQuantity: numberOrNull(now.quantity),
      })
      .where(eq(listing.id, row.listingId));
  });
}
