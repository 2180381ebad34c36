import { inArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { canBeTaken } from '../../core/sync';
import { database, transaction } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { listing } from '../../db/schema';
import type { Actor } from '../access/actor';
import { loadAccounts } from '../records/accounts/load-accounts';
import { settleFields } from './settle-fields';

const which = z.union([
  z.object({ listing: z.number().int(), fields: z.array(z.string().max(80)).min(1).max(60) }).strict(),
  z
    .object({ account: z.number().int(), field: z.string().max(80), verdict: z.enum(['theirs', 'conflict']) })
    .strict()
    .describe('Every listing of the account in which this field is so'),
]);

export const settleSchema = z.object({ which, side: z.enum(['theirs', 'ours']) }).strict();

/** Settles what differs: on one listing, or the same field on every listing of an account. */
export async function settleDrift(actor: Actor, input: z.infer<typeof settleSchema>): Promise<{ settled: number }> {
  const { which: what, side } = input;
  const db = database();
  const ids =
    'listing' in what
      ? [what.listing]
      : rowsOf<{ id: number }>(
          await db.execute(
            sql`select id from listing where account_id = ${what.account} and drifted = 1 and remote = 'live' order by id limit 20000`,
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
  if (settled === 0) throw new NettingError('too-late', 'This has been settled already');
  return { settled };
}
