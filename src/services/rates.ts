import { and, desc, eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { config } from '../config';
import { NettingError } from '../core/errors';
import type { Rate } from '../core/measure';
import { database, type Executor } from '../db/client';
import { account, rate } from '../db/schema';
import { recheckListings } from './refresh-rules';

const base = 'EUR';

/** The newest rate of every currency, from the currency of the items. */
export async function latestRates(db: Executor): Promise<Rate[]> {
  const rows = await db
    .select()
    .from(rate)
    .where(sql`(base, currency, day) in (select base, currency, max(day) from rate group by base, currency)`);
  return rows.map(({ base: from, currency, millionths, day }) => ({ from, to: currency, millionths, date: day }));
}

/** Rates of the last weeks, newest first, for the page that shows them. */
export async function rateHistory(limit = 60): Promise<Rate[]> {
  const rows = await database().select().from(rate).orderBy(desc(rate.day), rate.currency).limit(limit);
  return rows.map(({ base: from, currency, millionths, day }) => ({ from, to: currency, millionths, date: day }));
}

export const forgetRateSchema = z.object({ to: z.string().length(3), date: z.iso.date() }).strict();

/** Takes a day's rate back: the one before it holds again. */
export async function forgetRate({ to, date }: z.infer<typeof forgetRateSchema>): Promise<void> {
  const db = database();
  const [{ affectedRows }] = await db
    .delete(rate)
    .where(and(eq(rate.base, base), eq(rate.currency, to), eq(rate.day, date)));
  if (!affectedRows) throw new NettingError('not-found', 'This rate was taken back already');
  await recheckForeign();
}

const answerSchema = z.object({
  base: z.literal(base),
  date: z.iso.date(),
  millionths: z.record(z.string().length(3), z.number().int().positive()),
});

/** Asks the service of rates, keeps what it says with its day, and computes what hangs on it anew. */
export async function refreshRates(): Promise<Rate[]> {
  const answer = await fetch(`${config.marketsUrl}/rates/api/latest?base=${base}`, {
    signal: AbortSignal.timeout(10_000),
    redirect: 'error',
  }).catch(() => null);
  if (!answer?.ok) throw new NettingError('market-unreachable', 'The service of exchange rates did not answer');
  const { date, millionths } = answerSchema.parse(await answer.json());
  const db = database();
  const rows = Object.entries(millionths)
    .filter(([currency]) => currency !== base)
    .map(([currency, value]) => ({ base, currency, day: date, millionths: value, readAt: new Date() }));
  if (rows.length)
    await db
      .insert(rate)
      .values(rows)
      .onDuplicateKeyUpdate({ set: { millionths: sql`values(millionths)`, readAt: new Date() } });
  await recheckForeign();
  return latestRates(db);
}

/** Listings in other currencies hang on the rates. */
async function recheckForeign(): Promise<void> {
  const concerned = await database().execute(
    sql`select a.id from ${account} a join market_rules r on r.market = a.market and r.version = a.rules_version where json_value(r.doc, '$.currency') <> ${base}`,
  );
  for (const { id } of concerned[0] as unknown as { id: number }[]) await recheckListings(id); // columns of the query above
}
