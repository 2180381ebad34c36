import { eq } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import type { OfferRule } from '../../core/price';
import { database } from '../../db/client';
import { account } from '../../db/schema';
import type { Actor } from '../access/actor';
import { hearOffers } from './hear-offers';

/** Says which offers are taken and declined by themselves on an account; those that are open already follow it, too. */
export async function setOfferRule(_actor: Actor, accountId: number, rule: OfferRule): Promise<void> {
  const isNone = rule.acceptFrom === null && rule.declineBelow === null;
  const [result] = await database()
    .update(account)
    .set({ offerRule: isNone ? null : rule })
    .where(eq(account.id, accountId));
  if (result.affectedRows === 0) throw new NettingError('not-found', 'There is no such account');
  await hearOffers(accountId).catch(() => undefined); // a marketplace that does not answer is heard later
}
