import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { standsThere } from '../../core/sync';
import { transaction } from '../../db/client';
import { listing } from '../../db/schema';
import type { Actor } from '../access/actor';
import { recordChanges } from '../changes/record-changes';
import { refreshListings } from '../records/refresh-listings';
import { knot, lockTarget } from './lock-target';

export const targetSchema = z.object({ here: z.boolean() }).strict();

/**
 * Adds a marketplace to an item, or leaves it out. What was written for it stays; a listing that is live has to be
 * ended first, so that nothing disappears from sight while it can still be bought.
 */
export async function targetListing(
  actor: Actor,
  itemId: number,
  accountId: number,
  { here }: z.infer<typeof targetSchema>,
): Promise<void> {
  const at = new Date();
  await transaction(async (tx) => {
    const { version, stored } = await lockTarget(tx, itemId, accountId);
    if (!here && standsThere(stored?.remote))
      throw new NettingError('market-blocked', 'It is live there; end it before leaving it out', {
        fix: 'End the listing',
      });
    if (!here && stored?.busy)
      throw new NettingError('market-blocked', 'Something is on its way there for this item', {
        fix: 'Wait until it is sent, or take it out of the outbox',
      });
    const before = stored?.wanted ?? 'none';
    const after = here ? (before === 'none' ? 'draft' : before) : 'none';
    if (after === before && stored?.chosen) return;
    if (stored)
      await tx.update(listing).set({ wanted: after, problem: false, chosen: true }).where(knot(itemId, accountId));
    else await tx.insert(listing).values({ itemId, accountId, overrides: {}, wanted: after, chosen: true });
    const [saved] = await tx.select({ id: listing.id }).from(listing).where(knot(itemId, accountId));
    await recordChanges(tx, { actor, why: 'typing', at }, [
      { itemId, listingId: saved?.id, itemVersion: version, field: 'target', from: before !== 'none', to: here },
    ]);
    await refreshListings(tx, [itemId]);
  });
}
