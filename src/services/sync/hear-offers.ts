import { and, eq, inArray } from 'drizzle-orm';
import { netInput } from '../../core/listing/net';
import { amountIn } from '../../core/measure';
import { netOf, offerVerdict } from '../../core/price';
import { database } from '../../db/client';
import { listing, offer } from '../../db/schema';
import type { RemoteOffer } from '../../markets';
import { systemActor } from '../access/actor';
import type { LoadedAccount } from '../records/accounts/load-accounts';
import { openAccount } from '../records/accounts/open-account';
import { loadItem } from '../records/items/load-items';
import { accountCounts } from '../records/listings/count-listings';
import { answerOffer } from './answer-offer';

/** Keeps what a marketplace tells of an offer now. Of what is no listing of ours nothing is kept. */
export async function storeOffers(accountId: number, told: readonly RemoteOffer[]): Promise<void> {
  if (told.length === 0) return;
  const db = database();
  const rows = await db
    .select({ id: listing.id, remoteId: listing.remoteId })
    .from(listing)
    .where(
      and(
        eq(listing.accountId, accountId),
        inArray(listing.remoteId, [...new Set(told.map((one) => one.remoteListingId))]),
      ),
    );
  const idOf = new Map(rows.map((row) => [row.remoteId, row.id]));
  const at = new Date();
  for (const { offerId, remoteListingId, ...one } of told) {
    const listingId = idOf.get(remoteListingId);
    if (listingId === undefined) continue;
    const now = { state: one.state, counter: one.counter, deadline: one.deadline, seenAt: at };
    await db
      .insert(offer)
      .values({ ...one, ...now, accountId, listingId, remoteId: offerId })
      .onDuplicateKeyUpdate({ set: now });
  }
}

/** What an account's rule says of an offer, by what would be left of it. */
async function verdictOf(account: LoadedAccount, row: typeof offer.$inferSelect, live: number) {
  const rule = account.row.offerRule;
  if (!rule) return 'ask';
  const db = database();
  const [there] = await db.select().from(listing).where(eq(listing.id, row.listingId));
  if (!there) return 'ask';
  const item = await loadItem(db, there.itemId);
  const net = netOf({ ...netInput(account, there.sent ?? {}, item, live), price: row.amount });
  return offerVerdict(net, rule, (amount) => amountIn(amount, account.compiled.rules.currency, account.rate));
}

/** Hears an account's offers, and answers those by itself for which its rule says how. */
export async function hearOffers(accountId: number): Promise<void> {
  const { session, connector, account } = await openAccount(accountId, true);
  if (!connector.offers) return;
  await storeOffers(accountId, await connector.offers(session));
  if (!account.row.offerRule) return;
  const open = await database()
    .select()
    .from(offer)
    .where(and(eq(offer.accountId, accountId), eq(offer.state, 'open')));
  if (open.length === 0) return;
  const { live } = (await accountCounts(database()))(account.id);
  for (const row of open) {
    if (row.deadline <= new Date()) continue;
    const verdict = await verdictOf(account, row, live);
    if (verdict === 'ask') continue;
    // Somebody else may be answering it just now: then it is answered.
    await answerOffer({ ...systemActor, name: 'Rule for offers' }, row.id, { answer: verdict }).catch(() => undefined);
  }
}
