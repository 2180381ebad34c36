import { z } from 'zod';
import { boundBy } from '../../../core/change';
import { NettingError } from '../../../core/errors';
import { transaction } from '../../../db/client';
import type { Actor } from '../../access/actor';
import { commitItems } from '../../changes/commit/commit-items';

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
  await transaction(async (tx) => {
    const { refused } = await commitItems(
      tx,
      [itemId],
      () => [{ target: { item: itemId, account: accountId }, field: 'target', to: here }],
      { actor, why: 'typing', at: new Date(), send: 'stock' },
    );
    const [why] = refused;
    if (why?.kind === 'not-found') throw new NettingError('not-found', 'There is no such item or account');
    if (why)
      throw new NettingError('market-blocked', why.why, {
        fix: why.why === boundBy.busy ? 'Wait until it is sent, or take it out of the outbox' : 'End the listing',
      });
  });
}
