import { eq, sql } from 'drizzle-orm';
import { config } from '../../src/config';
import type { Db } from '../../src/db/client';
import { account, item, listing } from '../../src/db/schema';
import { control } from '../marketplaces';
import { chanceOf } from './chance';

const dayMs = 86_400_000;

/** What is live has stood for as long as its item has been there, some places later than others; they know it, too. */
export async function ageListings(db: Db): Promise<void> {
  const chance = chanceOf(191);
  const live = await db
    .select({
      id: listing.id,
      remoteId: listing.remoteId,
      market: account.market,
      endsAt: listing.endsAt,
      came: item.createdAt,
    })
    .from(listing)
    .innerJoin(item, eq(item.id, listing.itemId))
    .innerJoin(account, eq(account.id, listing.accountId))
    .where(sql`${listing.remote} = 'live' and ${listing.remoteId} is not null and ${account.market} <> 'wallfolk'`)
    .orderBy(listing.id);
  const aged = live.flatMap(({ id, remoteId, market, endsAt, came }) => {
    // What ends by itself is young; of the rest some have just gone out.
    if (endsAt || chance.share() < 0.06) return [];
    const after = (1 + chance.share() * (chance.share() < 0.6 ? 6 : 45)) * dayMs;
    const since = Math.min(came.getTime() + after, Date.now() - chance.share() * 3 * dayMs);
    return [{ id, remoteId: remoteId ?? '', market, since: Math.round(since) }];
  });
  for (const market of new Set(aged.map((one) => one.market))) {
    const some = aged.filter((one) => one.market === market);
    const told = (await control(config.marketsUrl, market, 'past', {
      listings: some.map((one) => ({ id: one.remoteId, createdAt: one.since })),
    })) as { listings: { id: string; renewsAt: number | null }[] };
    const renewsAt = new Map(told.listings.map((one) => [one.id, one.renewsAt]));
    for (const one of some) {
      const renews = renewsAt.get(one.remoteId);
      await db
        .update(listing)
        .set({ liveSince: new Date(one.since), renewsAt: renews ? new Date(renews) : null })
        .where(eq(listing.id, one.id));
    }
  }
}
