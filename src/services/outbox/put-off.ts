import { eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../db/client';
import { needLater } from '../../db/schema';
import type { Actor } from '../access/actor';
import { countAnew } from './lines-now';

export const putOffSchema = z
  .object({
    need: z.string().min(1).max(80),
    /** For so many days; none brings it back. */
    days: z.number().int().min(0).max(60),
    why: z.string().trim().max(200).default(''),
  })
  .strict();

/** Puts something that needs a person off for some days, or brings it back. */
export async function putOff(actor: Actor, { need, days, why }: z.output<typeof putOffSchema>): Promise<void> {
  const db = database();
  countAnew();
  if (days === 0) {
    await db.delete(needLater).where(eq(needLater.need, need));
    return;
  }
  const row = { until: new Date(Date.now() + days * 86_400_000), why, byName: actor.name, at: new Date() };
  await db
    .insert(needLater)
    .values({ need, ...row })
    .onDuplicateKeyUpdate({ set: row });
  // What was put off long ago is over.
  await db.delete(needLater).where(sql`${needLater.until} < utc_timestamp(3) - interval 30 day`);
}
