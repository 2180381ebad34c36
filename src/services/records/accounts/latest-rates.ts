import { sql } from 'drizzle-orm';
import { homeCurrency, type Rate } from '../../../core/measure';
import type { Executor } from '../../../db/client';
import { rate } from '../../../db/schema';

/** The newest rate of every currency, from the currency of the items. */
export async function latestRates(db: Executor): Promise<Rate[]> {
  const rows = await db
    .select()
    .from(rate)
    .where(sql`(base, currency, day) in (select base, currency, max(day) from rate group by base, currency)`);
  return rows.map(({ base: from, currency, millionths, day }) => ({ from, to: currency, millionths, date: day }));
}

/** The newest rate of one currency; null for the items' own, and where none is known. */
export async function rateTo(db: Executor, currency: string): Promise<Rate | null> {
  if (currency === homeCurrency) return null;
  return (await latestRates(db)).find((one) => one.to === currency) ?? null;
}
