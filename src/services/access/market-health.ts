import { eq } from 'drizzle-orm';
import { afterAnswer, afterSilence, type Health, healthy } from '../../core/sync';
import { database } from '../../db/client';
import { account } from '../../db/schema';

/** What this process has heard lately, so that the usual answer costs no query. */
const known = new Map<number, Health>();

/** Takes over what is stored, as when another worker found out. */
export function learnHealth(row: {
  id: number;
  unwellSince: Date | null;
  probeAt: Date | null;
  silences: number;
}): void {
  const here = known.get(row.id);
  if (row.unwellSince ? !here?.unwellSince : here?.unwellSince)
    known.set(row.id, { failures: row.silences, unwellSince: row.unwellSince, probeAt: row.probeAt });
}

async function isUnwell(accountId: number): Promise<boolean> {
  const [row] = await database().select({ since: account.unwellSince }).from(account).where(eq(account.id, accountId));
  return row?.since != null;
}

/** Counts one request that was answered, or met silence; only what changes the account's state is written down. */
export async function noteAnswer(accountId: number, answered: boolean): Promise<void> {
  let before = known.get(accountId) ?? healthy;
  // Another process may have found them well since.
  if (!answered && before.unwellSince && !(await isUnwell(accountId))) before = healthy;
  if (answered && before.failures === 0) return;
  const now = answered ? afterAnswer(before) : afterSilence(before, new Date());
  known.set(accountId, now);
  if (!before.unwellSince && !now.unwellSince) return;
  await database()
    .update(account)
    .set({ unwellSince: now.unwellSince, probeAt: now.probeAt, silences: now.failures })
    .where(eq(account.id, accountId));
}
