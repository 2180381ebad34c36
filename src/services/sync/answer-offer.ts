import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { database, transaction } from '../../db/client';
import { item, listing, offer } from '../../db/schema';
import type { RemoteOffer } from '../../markets';
import type { Actor } from '../access/actor';
import { openAccount } from '../records/accounts/open-account';
import { patiently } from '../records/accounts/patiently';

export const answerOfferSchema = z.discriminatedUnion('answer', [
  z.object({ answer: z.literal('accept') }).strict(),
  z.object({ answer: z.literal('decline') }).strict(),
  z
    .object({
      answer: z.literal('counter'),
      amount: z.number().int().positive().max(100_000_000).describe('Minor units of the account’s currency'),
    })
    .strict(),
]);
export type AnswerOffer = z.infer<typeof answerOfferSchema>;

/** An answer that nobody heard the end of holds others off so long. */
const answeringMs = 60_000;

/** Takes the offer for this answer alone: of two at once one is told that the other is faster. */
async function take(actor: Actor, id: number, reply: AnswerOffer) {
  return transaction(async (tx) => {
    const [row] = await tx.select().from(offer).where(eq(offer.id, id)).for('update');
    if (!row) throw new NettingError('not-found', 'There is no such offer');
    if (row.state !== 'open' && row.state !== 'countered')
      throw new NettingError('too-late', 'This offer is answered already', { fix: 'Look at what has become of it' });
    if (row.answeringAt && row.answeringAt.getTime() > Date.now() - answeringMs)
      throw new NettingError('conflict', 'Somebody is answering this offer just now');
    if (reply.answer === 'counter' && reply.amount <= row.amount)
      throw new NettingError('invalid', 'A counter-offer lies above the offer', { field: 'amount' });
    if (reply.answer === 'accept') {
      const [there] = await tx
        .select({ quantity: item.quantity })
        .from(listing)
        .innerJoin(item, eq(item.id, listing.itemId))
        .where(eq(listing.id, row.listingId));
      if (!there || there.quantity < 1)
        throw new NettingError('invalid', 'None is left to be sold', { fix: 'Decline it' });
    }
    await tx.update(offer).set({ answeringAt: new Date(), answeredBy: actor.name }).where(eq(offer.id, id));
    return row;
  });
}

/**
 * Accepts, declines or counters an offer there. Accepted, it is an order: it is heard of like any other and leaves the
 * stock everywhere.
 */
export async function answerOffer(actor: Actor, id: number, reply: AnswerOffer): Promise<{ state: string }> {
  const row = await take(actor, id, reply);
  const db = database();
  try {
    const { session, connector } = await openAccount(row.accountId, true);
    const answer = connector.answerOffer?.bind(connector);
    if (!answer) throw new NettingError('invalid', 'Offers are not answered from here on this marketplace');
    const told: RemoteOffer = await patiently(() => answer(session, row.remoteId, reply));
    await db
      .update(offer)
      .set({ state: told.state, counter: told.counter, answeringAt: null, seenAt: new Date() })
      .where(eq(offer.id, id));
    return { state: told.state };
  } catch (error) {
    // What came of it is heard with the next look; until then nobody has answered.
    await db.update(offer).set({ answeringAt: null, answeredBy: row.answeredBy }).where(eq(offer.id, id));
    throw error;
  }
}
