import { eq, sql } from 'drizzle-orm';
import { transaction } from '../../db/client';
import { job, listing } from '../../db/schema';
import type { FrozenRequest } from '../../db/schema/work';
import type { JobRow } from '../claim';
import { isHeld } from '../held';
import { hold } from './close';

/**
 * They said that they did not take what was sent in this try: what was known before is known again. Of the quantity that
 * may have been lowered meanwhile nothing is believed.
 * @param before what the job had sent in earlier tries: whether that was taken this answer does not say
 */
export async function notTaken(row: JobRow, worker: string, before: FrozenRequest | null): Promise<void> {
  const { request } = row;
  if (!request || request === before) return;
  if (request.kind === 'create') {
    await transaction(async (tx) => {
      await hold(tx, row);
      const [{ affectedRows }] = await tx
        .update(job)
        .set({ request: null, idempotencyKey: null })
        .where(isHeld(row, worker));
      if (affectedRows === 1)
        await tx
          .update(listing)
          .set({ remote: sql`if(remote = 'maybe', 'none', remote)` })
          .where(eq(listing.id, row.listingId));
    });
    row.request = null;
    return;
  }
  if (!request.known) return;
  const { quantity: _sent, ...sent } = request.known.sent;
  const { quantity: _base, ...base } = request.known.base;
  await transaction(async (tx) => {
    const [there] = await tx.select().from(listing).where(eq(listing.id, row.listingId)).for('update');
    if (!there?.sent) return;
    await tx
      .update(listing)
      .set({
        sent: { ...sent, ...there.sent },
        base: there.base && { ...base, ...there.base },
        ...(there.sentPrice === null && typeof sent.price === 'number' ? { sentPrice: sent.price } : {}),
      })
      .where(eq(listing.id, row.listingId));
  });
}
