import { sql } from 'drizzle-orm';
import { database } from '../../../db/client';
import { account } from '../../../db/schema';
import { recheckListings } from '../../records/listings/recheck-listings';
export const base = 'EUR';

/** Listings in other currencies hang on the rates. */
export async function recheckForeign(): Promise<void> {
  const concerned = await database().execute(
    sql`select a.id from ${account} a join market_rules r on r.market = a.market and r.version = a.rules_version where json_value(r.doc, '$.currency') <> ${base}`,
  );
  for (const { id } of concerned[0] as unknown as { id: number }[]) await recheckListings(id); // columns of the query above
}
