import { inArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { canBeTaken } from '../../core/sync';
import { database, transaction } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { listing } from '../../db/schema';
import type { Actor } from '../access/actor';
import { loadAccounts } from '../records/accounts/load-accounts';
import { isDrifted } from '../records/listings/is-drifted';
import { settleFields } from './settle-fields';

const which = z.union([
  z.object({ listing: z.number().int(), fields: z.array(z.string().max(80)).min(1).max(60) }).strict(),
  z
    .object({ account: z.number().int(), field: z.string().max(80), verdict: z.enum(['theirs', 'conflict']) })
    .strict()
    .describe('Every listing of the account in which this field is so'),
]);

/** So many listings are settled in one request: what is left is asked for by where the last one ended. */
const atOnce = 300;

export const settleSchema = z
  .object({
    which,
    side: z.enum(['theirs', 'ours']),
    after: z.number().int().min(0).default(0).describe('Of all of a kind: where the last answer ended'),
  })
  .strict();

/**
 * Settles what differs: on one listing, or the same field on every listing of an account.
 * @returns where to go on with all of a kind; null when that was all
 */
export async function settleDrift(
  actor: Actor,
  input: z.infer<typeof settleSchema>,
): Promise<{ settled: number; next: number | null }> {
  const { which: what, side } = input;
  const db = database();
  const ids =
    'listing' in what
      ? [what.listing]
      : rowsOf<{ id: number }>(
          await db.execute(
            sql`select id from listing where account_id = ${what.account} and ${isDrifted} and id > ${input.after} order by id limit ${atOnce}`,
          ),
        ).map((row) => row.id);
  const rows = ids.length
    ? await db.select({ id: listing.id, accountId: listing.accountId }).from(listing).where(inArray(listing.id, ids))
    : [];
  const accounts = await loadAccounts(db, [...new Set(rows.map((row) => row.accountId))]);
  let settled = 0;
  for (const row of rows) {
    const account = accounts.find((one) => one.id === row.accountId);
    if (!account) continue;
    settled += await transaction((tx) =>
      settleFields(tx, actor, account, row.id, (open) =>
        open
          .filter((one) =>
            'listing' in what
              ? what.fields.includes(one.field)
              : one.field === what.field && one.verdict === what.verdict,
          )
          .filter((one) => side === 'ours' || canBeTaken(one.field))
          .map(({ field }) => ({ field, side })),
      ),
    );
  }
  const next = 'listing' in what || ids.length < atOnce ? null : (ids.at(-1) ?? null);
  if (settled === 0 && next === null && input.after === 0)
    throw new NettingError('too-late', 'This has been settled already');
  return { settled, next };
}
