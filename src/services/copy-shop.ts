import { and, eq, inArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../core/errors';
import { canBeTaken } from '../core/sync';
import { database, transaction } from '../db/client';
import { listing } from '../db/schema';
import { loadAccounts } from './account-context';
import type { Actor } from './actor';
import { rowsOf } from './find-items';
import { publish } from './publish';
import { refreshListings } from './refresh-listings';
import { selectionSchema, selectionWhere } from './selection';

export const copyShopSchema = z
  .object({
    /** The shop to copy from, and the one to copy to. */
    from: z.number().int(),
    to: z.number().int(),
    /** Some items of that shop; all of them when left out. */
    selection: selectionSchema.optional(),
    as: z.enum(['live', 'draft']),
    /** Wording and prices written for the first shop are taken along, as far as the second one has such a field. */
    takeOwn: z.boolean(),
  })
  .strict();

export type CopyPlan = { live: number; there: number; leftOut: number; copied: number; ids: number[] };

/** What would be copied: live on the first shop, not yet on the second, and not left out there. */
export async function planCopy(input: z.infer<typeof copyShopSchema>): Promise<CopyPlan> {
  if (input.from === input.to) throw new NettingError('invalid', 'Choose two different accounts', { field: 'to' });
  const where = input.selection ? sql`and ${selectionWhere(input.selection)}` : sql`and i.archived = 0`;
  const rows = rowsOf<{ id: number; remote: string | null; wanted: string | null; busy: number | null }>(
    await database().execute(sql`
      select i.id, t.remote, t.wanted, t.busy from listing f join item i on i.id = f.item_id
      left join listing t on t.item_id = f.item_id and t.account_id = ${input.to}
      where f.account_id = ${input.from} and f.remote in ('live', 'review') ${where} order by i.id limit 50000`),
  );
  const isThere = (row: (typeof rows)[number]) => row.remote === 'live' || row.remote === 'review' || row.busy === 1;
  const there = rows.filter(isThere);
  const leftOut = rows.filter((row) => !isThere(row) && row.wanted === 'none');
  const ids = rows.filter((row) => !isThere(row) && row.wanted !== 'none').map((row) => row.id);
  return { live: rows.length, there: there.length, leftOut: leftOut.length, copied: ids.length, ids };
}

/** Copies chosen listings, or a whole shop, to another marketplace; what is there already is skipped, stock numbers stay. */
export async function copyShop(
  actor: Actor,
  input: z.infer<typeof copyShopSchema>,
): Promise<{ runId: number; queued: number; notReady: number; copied: number }> {
  const { ids } = await planCopy(input);
  if (ids.length === 0) throw new NettingError('invalid', 'Everything is there already');
  return transaction(async (tx) => {
    if (input.takeOwn) {
      const accounts = await loadAccounts(tx, [input.from, input.to]);
      const sameMoney =
        accounts[0]?.compiled.rules.currency === accounts[1]?.compiled.rules.currency && accounts.length === 2;
      const models = await tx
        .select({ itemId: listing.itemId, differences: listing.differences })
        .from(listing)
        .where(and(eq(listing.accountId, input.from), inArray(listing.itemId, ids)));
      const known = new Map(
        (
          await tx
            .select({ itemId: listing.itemId, differences: listing.differences })
            .from(listing)
            .where(and(eq(listing.accountId, input.to), inArray(listing.itemId, ids)))
        ).map((row) => [row.itemId, row.differences]),
      );
      // Categories and a marketplace's own fields mean nothing elsewhere; a price only in the same currency.
      const goesAlong = (field: string) =>
        canBeTaken(field) && !/^(attr|extra)\.|^category$|^condition$/.test(field) && (field !== 'price' || sameMoney);
      for (const model of models) {
        const taken = Object.entries(model.differences).filter(([field]) => goesAlong(field));
        if (taken.length === 0) continue;
        const differences = { ...Object.fromEntries(taken), ...known.get(model.itemId) };
        await tx
          .insert(listing)
          .values({ itemId: model.itemId, accountId: input.to, differences, wanted: 'draft' })
          .onDuplicateKeyUpdate({ set: { differences } });
      }
      for (let at = 0; at < ids.length; at += 400)
        await refreshListings(
          tx,
          ids.slice(at, at + 400),
          accounts.filter((one) => one.id === input.to),
        );
    }
    const done = await publish(
      actor,
      { selection: { kind: 'items', ids }, accounts: [input.to], without: [], as: input.as },
      tx,
    );
    return { ...done, copied: ids.length };
  });
}
