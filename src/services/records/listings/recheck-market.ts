import { eq } from 'drizzle-orm';
import { database } from '../../../db/client';
import { account } from '../../../db/schema';
import { recheckListings } from './recheck-listings';

export async function recheckMarket(market: string): Promise<void> {
  const accounts = await database().select({ id: account.id }).from(account).where(eq(account.market, market));
  for (const { id } of accounts) await recheckListings(id);
}
