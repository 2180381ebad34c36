import { sql } from 'drizzle-orm';
import { z } from 'zod';
import { config } from '../../../config';
import { NettingError } from '../../../core/errors';
import type { Rate } from '../../../core/measure';
import { database } from '../../../db/client';
import { rate } from '../../../db/schema';
import { latestRates } from '../../records/accounts/latest-rates';
import { base, recheckForeign } from '../rules/recheck-foreign';

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
