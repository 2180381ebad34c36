import { createHash } from 'node:crypto';
import { eq, sql } from 'drizzle-orm';
import { database, transaction } from '../../db/client';
import { authRateLimit } from '../../db/schema';

/** Of one person, and of one address, behind which several may sit. */
export const freeTries = { person: 5, address: 30 };
const keyOf = (whose: string) => `sign-in/${createHash('sha256').update(whose.trim().toLowerCase()).digest('hex')}`;

/**
 * Slows guessing: after five tries without success each further one has to wait twice as long, up to a quarter of an
 * hour. Counted before the password is looked at, so that many tries at once count too.
 * @param whose the e-mail address that is tried, or any other name of what is guessed
 * @param free tries that need not wait
 * @returns seconds to wait, 0 when the try may go on
 */
export async function countTry(whose: string, free = freeTries.person): Promise<number> {
  const key = keyOf(whose);
  const now = Date.now();
  return transaction(async (tx) => {
    const [row] = await tx.select().from(authRateLimit).where(eq(authRateLimit.key, key)).for('update');
    const count = row && now - row.lastRequest < 3_600_000 ? row.count : 0;
    const wait = count < free ? 0 : Math.min(900, 2 ** (count - free + 1)) * 1_000;
    const left = row ? row.lastRequest + wait - now : 0;
    if (wait > 0 && left > 0) return Math.ceil(left / 1_000);
    await tx
      .insert(authRateLimit)
      .values({ id: key, key, count: 1, lastRequest: now })
      .onDuplicateKeyUpdate({ set: { count: count === 0 ? 1 : sql`count + 1`, lastRequest: now } });
    return 0;
  });
}

export const forgetTries = (whose: string) =>
  database()
    .delete(authRateLimit)
    .where(eq(authRateLimit.key, keyOf(whose)));
