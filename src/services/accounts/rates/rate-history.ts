import { desc } from 'drizzle-orm';
import type { Rate } from '../../../core/measure';
import { database } from '../../../db/client';
import { rate } from '../../../db/schema';

/** Rates of the last weeks, newest first, for the page that shows them. */
export async function rateHistory(limit = 60): Promise<Rate[]> {
  const rows = await database().select().from(rate).orderBy(desc(rate.day), rate.currency).limit(limit);
  return rows.map(({ base: from, currency, millionths, day }) => ({ from, to: currency, millionths, date: day }));
}
